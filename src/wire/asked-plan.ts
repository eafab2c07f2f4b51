/** The plan that is asked for, from what is known: the server makes it from its records, a device without a signal from what it carries. */
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { OwnKit } from '@/core/instrument/kit';
import { notCoveredOf } from '@/core/network/installation';
import type { Pack } from '@/core/pack/schema';
import { type EarlierRecord, makePlan, type Plan, PlanError } from '@/core/plan/plan';
import { planParts } from '@/core/plan/prospect';
import { pressurePlan } from '@/core/plan/weakest';
import { besideOf } from '@/core/run/beside';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { tradeOf } from '@/core/trades';
import { sectionsOf, withinSection } from '@/core/trades/sections';
import { PARTED_WORDS } from '@/core/trades/trade';
import type { StartRun } from './requests';

/** What a plan is made of, besides what is asked. */
export interface Known {
  readonly organisation: Plan['organisation'];
  readonly site: Plan['site'];
  /** The whole installation, with everything seen of it before (`wholeOf`). */
  readonly system: System;
  /** The pack as this house cites it. */
  readonly pack: Pack;
  readonly packHash: string;
  /** The cabinet, the gauges used last first. */
  readonly gauges: readonly Gauge[];
  readonly ownKit: readonly OwnKit[];
  /** The earlier record that the procedure needs, where there is one. */
  readonly after?: EarlierRecord | undefined;
  readonly retestOf?: EarlierRecord | undefined;
  readonly by: string;
  /** Now, ms. */
  readonly at: number;
  readonly clock?: 'test' | undefined;
}
/** The run of a plan that is only looked at. */
export const NO_RUN = '00000000-0000-7000-8000-000000000000';
export type AskedRun = Omit<StartRun, 'visit' | 'carried'>;

/** An installation with what relies on its maker's test standing under what is not covered, with its certificate. */
export const wholeOf = (facts: System): System => ({ ...facts, notCovered: notCoveredOf(facts) });
/** The gauges a person used last stand first; of equal fit the bench keeps this order. @param used ids, the newest first */
export function lastFirst<T extends { readonly id: string }>(
  all: readonly T[],
  used: readonly string[],
): T[] {
  const rank = (g: T) => (used.includes(g.id) ? used.indexOf(g.id) : used.length);
  return [...all].sort((a, b) => rank(a) - rank(b));
}

/** The installation, or the one section of it that is meant. @throws PlanError where that section is not there, or still open */
function sectionMeant(whole: System, section: string | undefined): System {
  if (!section) return whole;
  const known = sectionsOf(whole).find((s) => s.key === section);
  const within = known && withinSection(whole, section);
  if (!within) throw new PlanError('section', PARTED_WORDS[tradeOf(whole).parted ?? 'lines'].gone);
  if (known.open) throw new PlanError('section', `${known.open} Look once more before this line is closed.`);
  return within;
}
/** What was said about permit and attendance; nothing where nothing was said. */
function attendanceOf(request: AskedRun): Pick<Plan, 'attendance'> {
  const permit = request.permit?.trim();
  const present = request.present?.trim();
  if (!permit && !present && !request.doneBy) return {};
  return {
    attendance: {
      ...(permit ? { permit } : {}),
      ...(request.doneBy ? { doneBy: request.doneBy } : {}),
      ...(present ? { present } : {}),
    },
  };
}
/** @param options `ahead`: made before the day, an earlier record that will be needed may still be missing  @throws PlanError */
export function planAsked(request: AskedRun, known: Known, options: { ahead?: boolean } = {}): Plan {
  const { organisation, site, pack, packHash, gauges, ownKit, after, retestOf, by, at, clock } = known;
  const beside = request.beside && besideOf(pack, request.beside.id, request.beside.runs);
  if (request.beside && !beside)
    throw new PlanError('beside', 'This rule pack does not do these two side by side.');
  return makePlan({
    run: request.id,
    practice: request.practice,
    organisation,
    site,
    system: sectionMeant(known.system, request.section),
    pack,
    packHash,
    procedureId: request.procedure,
    case: request.case,
    choices: request.choices ?? {},
    gauges,
    ...(gauges.some((g) => g.id === request.gauge) ? { gaugeMeant: request.gauge! } : {}),
    ...(ownKit.length ? { ownKit } : {}),
    ...attendanceOf(request),
    ...(beside ? { beside } : {}),
    ...(after ? { after } : {}),
    ...(options.ahead ? { ahead: true } : {}),
    ...(retestOf ? { retestOf } : {}),
    made: { at: new Date(at).toISOString(), zone: request.zone, by, ...(clock ? { clock } : {}) },
  });
}
/** Refuses what must not begin: a pressure that cannot be right, a plate nobody has read. @throws PlanError */
export function demandBegins(plan: Plan): void {
  for (const part of planParts(plan)) {
    const { impossible, missing } = pressurePlan(plan, part);
    if (impossible) throw new PlanError('pressure', impossible);
    // a plate nobody read is asked for before anything is joined, not when the cylinder stands there
    if (missing && tradeOf(plan.system).parted === 'sides') throw new PlanError('fact', missing);
  }
}
/** Fingerprint of everything in a plan but when and by which engine it was made: two that agree are the same plan. */
export function planDigest(plan: Plan): string {
  const { made: _made, engine: _engine, carried: _carried, ...rest } = plan;
  return sha256Hex(canonical(rest));
}
