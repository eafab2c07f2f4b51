import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { type FormulaContext, wanted } from '@/core/formula';
import type { Condition } from '@/core/grammar/schema';
import { largestSize, sectionVolume, type System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { OwnKit } from '@/core/instrument/kit';
import { answersHold, fittingOptions } from '@/core/pack/answers';
import type { Choice, Coupling, NeededFact, Pack, PartRule, Procedure } from '@/core/pack/schema';
import { suits } from '@/core/pack/suits';
import { compare, type Exact, parseWithUnit, showExact, toNumber } from '@/core/quantity/exact';
import type { Figure } from '@/core/quantity/figure';
import { localDate } from '@/core/quantity/local-date';
import { convert, type Unit } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import { PARTED_WORDS } from '@/core/trades/trade';
import { ENGINE } from './engine';
import { composeSequence } from './sequence';
/** Everything a run is conducted by, fixed when it starts: the resolved pack is embedded. */
export interface Plan {
  /** 2: judged by the general rules as they stand since November 2026 (barometer, decay, capped pressure, trapped air). */
  readonly format: 1 | 2;
  /** Version of the judgement it was made with; absent in plans from before it was said. */
  readonly engine?: string;
  readonly run: string;
  readonly practice: boolean;
  readonly organisation: { readonly id: string; readonly name: string };
  readonly site: {
    readonly id: string;
    readonly name: string;
    readonly address: string;
    readonly customer: string;
  };
  readonly system: System;
  readonly pack: Pick<
    Pack,
    | 'id'
    | 'version'
    | 'title'
    | 'school'
    | 'edition'
    | 'author'
    | 'dated'
    | 'notice'
    | 'sources'
    | 'basedOn'
    | 'loosened'
  > & { readonly hash: string };
  readonly procedure: Procedure;
  readonly case: string;
  readonly choices: Readonly<Record<string, string>>;
  readonly gauges: readonly Gauge[];
  /** The gauge that was meant when it was begun: it stands ready, and is still zeroed and chosen at the bench. */
  readonly gaugeMeant?: string;
  /** Hoses, plugs and pumps of the cabinet, with what each loses by itself. */
  readonly ownKit?: readonly OwnKit[];
  /** Permit number, under whom the work is done, and who must be present, as entered at the start. */
  readonly attendance?: {
    readonly permit?: string;
    readonly doneBy?: 'licensed' | 'owner';
    readonly present?: string;
  };
  /** The earlier record this procedure needs, and the failed one it repeats. */
  readonly after?: EarlierRecord;
  readonly retestOf?: EarlierRecord;
  /** The sealed record this one stands in place of, and why. */
  readonly supersedes?: {
    readonly run: string;
    readonly number: string;
    readonly reason: string;
    /** What stands otherwise here than in the record before, each in words. */
    readonly changed?: readonly string[];
  };
  /** Read with another instrument and another program, and judged here from its file. */
  readonly outside?: {
    readonly file: string;
    readonly hash: string;
    /** Who held the test, as it was said. */
    readonly by: string;
  };
  /** Runs side by side on this visit, this one among them, and what ties them together. */
  readonly beside?: {
    readonly title: string;
    readonly runs: readonly { readonly run: string; readonly procedure: string; readonly title: string }[];
    readonly couplings: readonly Coupling[];
  };
  /** Begun without a signal, on a device that carried what it was made from. */
  readonly carried?: Carried;
  readonly made: {
    readonly at: string;
    readonly zone: string;
    readonly by: string;
    /** Made on a server whose clock tests may shift: no time of it is real. */
    readonly clock?: 'test';
  };
}

/** How a run that was begun without a signal came to the office. */
export interface Carried {
  /** When the office gave what the plan was made from, ISO; null: it was entered on the device. */
  readonly given: string | null;
  /** When it arrived, ISO. */
  readonly arrived: string;
  /** What stood otherwise at the office then, each in words. */
  readonly changed: readonly string[];
}
/** An earlier sealed record of the same system. */
export interface EarlierRecord {
  /** Its result as it was called there. */
  readonly label?: string;
  /** The section it was of. */
  readonly section?: string;
  /** What it left in, and when: pressed nitrogen for the next test. */
  readonly left?: { readonly figure: Exact; readonly at: string };
  readonly run: string;
  readonly number: string;
  readonly word: string;
  readonly procedure: string;
  readonly sealedAt: string;
}

export class PlanError extends Error {
  constructor(
    readonly code:
      | 'procedure'
      | 'case'
      | 'meter'
      | 'size'
      | 'choice'
      | 'unit'
      | 'after'
      | 'medium'
      | 'pressure'
      | 'fact'
      | 'section'
      | 'beside',
    text: string,
  ) {
    super(text);
    this.name = 'PlanError';
  }
}

/**
 * Makes the plan of a run. Pure: ids and times come in.
 * @throws PlanError when something that decides a limit is unknown: it is asked for, never defaulted.
 */
export function makePlan(
  request: Omit<Plan, 'format' | 'engine' | 'procedure' | 'pack' | 'choices'> & {
    readonly pack: Pack;
    readonly packHash: string;
    readonly procedureId: string;
    readonly choices?: Readonly<Record<string, string>>;
    /** Made before the day: an earlier record that will be needed may still be missing. */
    readonly ahead?: boolean;
  },
): Plan {
  const { pack, packHash, procedureId, ahead = false, choices: chosen = {}, ...rest } = request;
  const sequence = pack.sequences?.find((x) => x.id === procedureId);
  const single = pack.procedures.find((p) => p.id === procedureId);
  if (!sequence && !single)
    throw new PlanError('procedure', `The rule pack ${pack.id} has no procedure "${procedureId}".`);
  if (!(sequence ?? single)!.cases.some((c) => c.key === rest.case))
    throw new PlanError('case', 'Say what is being tested: existing, new, or a part.');
  const procedure = sequence ? composeSequence(pack, sequence, rest.case) : single!;
  if (!suits({ media: procedure.media }, rest.system))
    throw new PlanError(
      'medium',
      `${procedure.title} is not for ${rest.system.medium}. Choose a procedure that the system page offers.`,
    );
  const byMeter = ruled(procedure).some((r) => r.domain.meters || r.allowance);
  if (byMeter && (!rest.system.meter.kind || rest.system.meter.kind === 'unknown'))
    throw new PlanError(
      'meter',
      'The meter is not known. Look at its badge and enter its class on the system page; the permitted drop depends on it.',
    );
  if (procedure.oneSection && !rest.system.section)
    throw new PlanError(
      'section',
      `${procedure.title} ${PARTED_WORDS[tradeOf(rest.system).parted ?? 'lines'].ask}`,
    );
  if (!rest.system.pipes.length && !procedure.unpressed)
    throw new PlanError(
      'size',
      'No pipe is entered. Add the pipes on the system page; the largest bore chooses the row.',
    );
  if (single?.partOnly)
    throw new PlanError('procedure', `${single.title} is only a part of a sequence. Start the sequence.`);
  const facts: Record<NeededFact, unknown> = {
    setPressure: rest.system.setPressure,
    designPressure: rest.system.designPressure,
    testDial: rest.system.meter.testDial,
    rimHeight: rest.system.heights?.rim,
    floorServed: rest.system.floorServed,
    ductSurface: rest.system.ductSurface,
    ductPressure: rest.system.ductPressure,
  };
  if (single?.after && !rest.after && !ahead && !rest.practice)
    throw new PlanError('after', single.after.text);
  const choices = Object.fromEntries(
    procedure.choices.map((c: Choice) => {
      const key = chosen[c.key] ?? c.default;
      const option = c.options.find((o) => o.key === key);
      if (!option) throw new PlanError('choice', `"${key}" is not an answer to: ${c.question}`);
      if (option.unlessAccess && rest.system.access?.includes(option.unlessAccess.access))
        throw new PlanError('choice', option.unlessAccess.text);
      return [c.key, key];
    }),
  );
  pairChoices(procedure.choices, choices, chosen);
  const missing = procedure.needs?.find(
    (n) => facts[n.fact] === undefined && answersHold(n.when, rest.case, choices),
  );
  if (missing) throw new PlanError('fact', missing.text);
  const { id, version, title, school, edition, author, dated, notice, sources, basedOn, loosened } = pack;
  return {
    format: 2,
    engine: ENGINE,
    ...rest,
    procedure,
    choices,
    pack: {
      id,
      version,
      title,
      school,
      edition,
      author,
      dated,
      notice,
      sources,
      ...(basedOn ? { basedOn } : {}),
      ...(loosened ? { loosened } : {}),
      hash: packHash,
    },
  };
}

/**
 * Answers that belong together: a default that belongs to another answer gives way to the first that fits; one that was
 * chosen is refused. @throws PlanError
 */
function pairChoices(
  questions: readonly Choice[],
  answers: Record<string, string>,
  chosen: Readonly<Record<string, string>>,
): void {
  for (const question of questions) {
    const fits = fittingOptions(question, answers);
    if (fits.some((o) => o.key === answers[question.key])) continue;
    const only = question.options.find((o) => o.key === answers[question.key])!.onlyWith!;
    const [other] = fits;
    if (chosen[question.key] !== undefined || !other) throw new PlanError('choice', only.text);
    answers[question.key] = other.key;
  }
}

/** The title that prints over a good record: one of the pack's true ones, as the office chose. */
export function certificateTitle(plan: Pick<Plan, 'procedure' | 'choices'>): string {
  const { title, byChoice } = plan.procedure.certificate;
  return (byChoice && byChoice.titles[plan.choices[byChoice.choice] ?? '']) || title;
}

const ruled = (procedure: Procedure): PartRule[] => [
  procedure,
  ...(procedure.parts ?? []).flatMap((p) => (p.rule ? [p.rule] : [])),
];

/** The rules that judge a part: in a sequence those of the procedure it came from, else the procedure's own. */
export const ruleOf = (plan: Plan, part?: string | null): PartRule =>
  (part && plan.procedure.parts?.find((p) => p.key === part)?.rule) || plan.procedure;
/** What is being tested, in the words of the part's own procedure. */
export function caseOf(plan: Plan, part?: string | null) {
  const own = part ? plan.procedure.parts?.find((p) => p.key === part) : undefined;
  const rule = ruleOf(plan, part);
  return rule.cases.find((c) => c.key === (own?.case ?? plan.case)) ?? rule.cases[0]!;
}
/** Whether a line, edge or alternative of a stage applies. */
export function applies(plan: Plan, part: string | null | undefined, when: Condition | undefined): boolean {
  if (!when) return true;
  return answersHold(when, caseOf(plan, part).key, plan.choices);
}

/** What the named formulas are given. */
export function formulaContext(
  plan: Plan,
  part: string | null | undefined,
  now: {
    gauge?: Gauge | null;
    unit?: Unit | null;
    kept?: Readonly<Record<string, Exact>>;
    keptAt?: Readonly<Record<string, number>>;
    volume?: number;
  } = {},
): FormulaContext {
  const rule = ruleOf(plan, part);
  return {
    system: plan.system,
    caseKey: caseOf(plan, part).key,
    gauge: now.gauge ?? null,
    unit: now.unit === undefined ? (now.gauge?.resolution.unit ?? null) : now.unit,
    kept: now.kept ?? {},
    keptAt: now.keptAt ?? {},
    volume: now.volume ?? planVolume(plan, part).value,
    temperature: (minutes) => defaultTemperatureUncertainty(minutes, rule.temperatureDefault),
  };
}

/** Volume under test of this plan's case. */
export const planVolume = (plan: Plan, part?: string | null): Figure =>
  sectionVolume(plan.system, caseOf(plan, part).appliances);

/** Why a rule does not apply to a system; empty when it does. Sizes, volume and pressure are met at equality. */
export function domainReasons(rule: PartRule, system: System, volume: Figure): string[] {
  const { domain } = rule;
  const reasons: string[] = [];
  if (domain.meters && !domain.meters.some((m) => m.kind === system.meter.kind))
    reasons.push(`The meter (${system.meter.name}) is not one this procedure covers.`);
  const size = largestSize(system);
  const most = domain.largestSize ? parseWithUnit(domain.largestSize) : null;
  if (size && most && compare(wanted(size, most.unit, 'up'), most) > 0)
    reasons.push(`The largest pipe is ${showExact(size)}; the procedure ends at ${showExact(most)}.`);
  const largest = domain.largestVolume ? parseWithUnit(domain.largestVolume) : null;
  if (largest && volume.value > convert(toNumber(largest), largest.unit, 'm3') + 1e-9)
    reasons.push(
      `The section holds ${volume.value.toFixed(4)} m³; the procedure ends at ${showExact(largest)}.`,
    );
  const working = system.workingPressure;
  const smallest = domain.leastWorking ? parseWithUnit(domain.leastWorking) : null;
  if (smallest && compare(wanted(working, smallest.unit, 'down'), smallest) < 0)
    reasons.push(`It works at ${showExact(working)}; the procedure begins at ${showExact(smallest)}.`);
  const greatest = domain.largestWorking ? parseWithUnit(domain.largestWorking) : null;
  if (greatest && compare(wanted(working, greatest.unit, 'up'), greatest) > 0)
    reasons.push(`It works at ${showExact(working)}; the procedure ends at ${showExact(greatest)}.`);
  return reasons;
}
/** Why the procedure does not apply to the plan's system; empty when it does. */
export const outsideDomain = (plan: Plan, part?: string | null): string[] =>
  domainReasons(ruleOf(plan, part), plan.system, planVolume(plan, part));

/** The day of the test, by the calendar of the place: what a calibration must reach. */
export const dayOf = (plan: Pick<Plan, 'made'>): string =>
  localDate(Date.parse(plan.made.at), plan.made.zone);
