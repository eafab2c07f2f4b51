/** What a fan stage is asked in a run: reference pressure, limits by edition, own kit, and which range serves. */
import { flowOfCall, known, type FlowResult } from '@/core/formula';
import type { FanRange, OwnKit } from '@/core/instrument/kit';
import type { Stage } from '@/core/kinds';
import { testPressureOf } from '@/core/plan/limits';
import { applies, formulaContext, type Plan } from '@/core/plan/plan';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit, unitLabel } from '@/core/quantity/unit';
import type { RunState } from '@/core/run/state';
import { decidingPressure, judgeFan, type Answer, type Question } from './judge';
import type { FanReading, FanState, FanVisit } from './state';

export type FanStage = Extract<Stage, { kind: 'fan' }>;
export const pascalOf = (a: Exact): number => convert(toNumber(a), a.unit, 'Pa');
export const flowOf = (a: Exact): number => convert(toNumber(a), a.unit, 'm3/s');
const TWIN: Partial<Record<Unit, Unit>> = { 'l/s': 'CFM', 'm3/h': 'CFM' };
/** A flow in its unit and the other one of the trade. @param flow m3/s @param from a flow it must not be rounded together with */
export function flowWords(flow: number, unit: Unit, from?: number): string {
  const one = (u: Unit) => {
    const value = convert(flow, 'm3/s', u);
    const close =
      from !== undefined && from !== flow && value.toFixed(1) === convert(from, 'm3/s', u).toFixed(1);
    return `${value.toFixed(close ? 3 : 1)} ${unitLabel(u)}`;
  };
  return `${one(unit)} (${one(TWIN[unit] ?? 'l/s')})`;
}

export interface Edition {
  readonly key: string;
  readonly title: string;
  readonly label: string;
  readonly source: string;
  /** It is the one chosen for this run. */
  readonly judges: boolean;
  /** Absent where no limit of it is for this case. */
  readonly limit: FlowResult | null;
  /** Why it cannot be worked out. */
  readonly missing: string;
}
/** Every edition of the pack with what it permits here: the chosen one first. */
export function editionsOf(plan: Plan, stage: FanStage): Edition[] {
  const chosen = plan.choices[stage.judgedBy];
  const keys = [...new Set(stage.editions.map((e) => e.key))];
  return keys
    .map((key): Edition => {
      const own = stage.editions.filter((e) => e.key === key);
      const { title, label } = own[0]!;
      const rule = own.find((e) => applies(plan, stage.part, e.when));
      const found = rule && known(() => flowOfCall(rule.limit, formulaContext(plan, stage.part)));
      return {
        key,
        title,
        label,
        source: (rule ?? own[0]!).source,
        judges: key === chosen,
        limit: found && 'value' in found ? found.value : null,
        missing: found && 'missing' in found ? found.missing : '',
      };
    })
    .sort((a, b) => Number(b.judges) - Number(a.judges));
}
/** The edition that judges here. */
export const judgingEdition = (plan: Plan, stage: FanStage): Edition | undefined =>
  editionsOf(plan, stage).find((e) => e.judges);
/** What it permits, m3/s; null where it has no limit for this case. */
export const limitOf = (plan: Plan, stage: FanStage): number | null =>
  judgingEdition(plan, stage)?.limit?.flow ?? null;
/** Pa; null where a fact it follows from is missing. */
export function referenceOf(plan: Plan, stage: FanStage): number | null {
  const found = known(() => testPressureOf(plan, stage.part).value);
  return 'value' in found ? pascalOf(found.value) : null;
}
export const isPushed = (plan: Plan, stage: FanStage): boolean =>
  !stage.direction || plan.choices[stage.direction] !== 'draw';

/** What a test of own kit counts as at the reference pressure, m3/s. */
const atOnce = (
  blank: { readonly flow: Exact; readonly pressure: Exact },
  reference: number,
  n: number,
): number => flowOf(blank.flow) * (reference / pascalOf(blank.pressure)) ** n;
/** Own kit of the cabinet with a test by itself that still counts. */
export const countsStill = (
  kit: OwnKit | undefined,
  stage: FanStage,
): kit is OwnKit & Required<Pick<OwnKit, 'through'>> =>
  kit?.through !== undefined && kit.through.days <= stage.ownKit.lasts;
/** What own kit passes at the reference pressure, m3/s: as tested here, else by its dated test; null: neither. */
export function blankOf(plan: Plan, state: RunState, stage: FanStage, reference: number): number | null {
  const { blank, chosen } = state.rooms.fan;
  if (blank && blank.kit === (chosen?.kit ?? '')) return atOnce(blank, reference, stage.law.assumed);
  const kit = plan.ownKit?.find((k) => k.id === chosen?.kit);
  return countsStill(kit, stage) ? atOnce(kit.through, reference, stage.law.assumed) : null;
}
export const fanVisitOf = (rooms: FanState, visit: number): FanVisit | undefined =>
  rooms.visits.find((v) => v.visit === visit);
const standing = (visit: FanVisit | undefined) => visit?.readings.filter((r) => !r.struck) ?? [];

/** A pair taken over from the display stood there within this time of being taken, ms. House figure */
const SHOWN_WITHIN_MS = 5_000;
/** Whether a pair that was said to come from the gauge did: the gauge's own pairs of that moment stand in the run. */
export const pairShown = (rooms: FanState, r: FanReading): boolean =>
  r.streamed &&
  rooms.shown.some(
    (s) =>
      Math.abs(s.at - r.at) <= SHOWN_WITHIN_MS &&
      s.digits === r.shown.digits &&
      (s.flow === null
        ? r.figure === null
        : r.figure !== null && s.flow * 10 ** (r.figure.scale - s.scale) === r.figure.digits),
  );

/** What is to be judged now. @returns null where the reference pressure is not known */
export function questionOf(plan: Plan, state: RunState, stage: FanStage, ordinal: number): Question | null {
  const reference = referenceOf(plan, stage);
  if (reference === null) return null;
  const visit = fanVisitOf(state.rooms.fan, ordinal);
  return {
    of: stage.of,
    reference,
    limit: limitOf(plan, stage),
    points: standing(visit),
    blank: blankOf(plan, state, stage, reference),
    law: stage.law,
    share: stage.ownKit.share,
    noSecond: visit?.noSecond !== undefined,
    doubted: state.rooms.fan.visits.some((v) => v.visit !== ordinal && v.result?.outcome === 'doubtful'),
  };
}
export const answerOf = (plan: Plan, state: RunState, stage: FanStage, ordinal: number): Answer | null => {
  const q = questionOf(plan, state, stage, ordinal);
  return q && judgeFan(q);
};

/** How a range serves for a limit at a reference pressure. */
export interface RangeFit {
  readonly range: FanRange;
  readonly fits: 'reads' | 'raise' | 'small';
  /** Raise: the pressure at which a duct that just passes is told, Pa. */
  readonly pressure: number;
}
/** Room that a flow near the limit needs in a range, above and below it. House figure */
const ROOM = { above: 1.5, below: 0.75 } as const;
/**
 * Ranges, the best first: those that read the limit with room on both sides, then others that read it; then those that must be raised;
 * small ones last. Of alike ones the finest. @param limit m3/s; null: the finest first  @param reference Pa
 */
export function rangesFor(ranges: readonly FanRange[], limit: number | null, reference: number): RangeFit[] {
  const order = { reads: 0, raise: 1, small: 2 } as const;
  const roomy = ({ range }: RangeFit) =>
    limit === null ||
    (flowOf(range.greatest) >= limit * ROOM.above && flowOf(range.least) <= limit * ROOM.below);
  return ranges
    .map((range): RangeFit => {
      const [least, greatest] = [flowOf(range.least), flowOf(range.greatest)];
      if (limit === null) return { range, fits: 'reads', pressure: reference };
      if (greatest < limit) return { range, fits: 'small', pressure: reference };
      return least <= limit
        ? { range, fits: 'reads', pressure: reference }
        : { range, fits: 'raise', pressure: decidingPressure(limit, reference, least) };
    })
    .sort(
      (a, b) =>
        order[a.fits] - order[b.fits] ||
        Number(roomy(b)) - Number(roomy(a)) ||
        flowOf(a.range.least) - flowOf(b.range.least),
    );
}
