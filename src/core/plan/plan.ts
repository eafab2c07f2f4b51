import type { Gauge } from '@/core/instrument/gauge';
import { largestSize, sectionVolume, type System } from '@/core/installation/section';
import type { Choice, Pack, Procedure } from '@/core/pack/types';
import { compare, parseWithUnit, showExact, toNumber, type Exact, type Limit } from '@/core/quantity/exact';
import type { Figure } from '@/core/quantity/figure';

/** The reasons why the procedure may be the wrong one for this system, in sentences. Empty = inside its domain. */
export interface Allowance {
  /** What the table permits, or null: nil. */
  readonly limit: Limit | null;
  /** The row and band used, in words, or why none applies. */
  readonly row: string;
  readonly conditions: readonly { readonly key: string; readonly text: string }[];
}
/** Everything a run is conducted by, fixed when it starts: the resolved pack is embedded. */
export interface Plan {
  readonly format: 1;
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
    'id' | 'version' | 'title' | 'school' | 'edition' | 'author' | 'dated' | 'notice' | 'sources'
  > & { readonly hash: string };
  readonly procedure: Procedure;
  readonly case: string;
  readonly choices: Readonly<Record<string, string>>;
  readonly gauges: readonly Gauge[];
  readonly made: { readonly at: string; readonly zone: string; readonly by: string };
}

export class PlanError extends Error {
  constructor(
    readonly code: 'procedure' | 'case' | 'meter' | 'size' | 'choice' | 'unit',
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
  request: Omit<Plan, 'format' | 'procedure' | 'pack' | 'choices'> & {
    readonly pack: Pack;
    readonly packHash: string;
    readonly procedureId: string;
    readonly choices?: Readonly<Record<string, string>>;
  },
): Plan {
  const { pack, packHash, procedureId, choices: chosen = {}, ...rest } = request;
  const procedure = pack.procedures.find((p) => p.id === procedureId);
  if (!procedure)
    throw new PlanError('procedure', `The rule pack ${pack.id} has no procedure "${procedureId}".`);
  if (!procedure.cases.some((c) => c.key === rest.case))
    throw new PlanError('case', 'Say what is being tested: existing, new, or a part.');
  if (!rest.system.meter.kind || rest.system.meter.kind === 'unknown')
    throw new PlanError(
      'meter',
      'The meter is not known. Look at its badge and enter its class on the system page; the permitted drop depends on it.',
    );
  if (!rest.system.pipes.length)
    throw new PlanError(
      'size',
      'No pipe is entered. Add the pipes on the system page; the largest bore chooses the row.',
    );
  const choices = Object.fromEntries(
    procedure.choices.map((c: Choice) => {
      const option = chosen[c.key] ?? c.default;
      if (!c.options.some((o) => o.key === option))
        throw new PlanError('choice', `"${option}" is not an answer to: ${c.question}`);
      return [c.key, option];
    }),
  );
  const { id, version, title, school, edition, author, dated, notice, sources } = pack;
  return {
    format: 1,
    ...rest,
    procedure,
    choices,
    pack: { id, version, title, school, edition, author, dated, notice, sources, hash: packHash },
  };
}

export const caseOf = (plan: Plan) => plan.procedure.cases.find((c) => c.key === plan.case)!;

/** Volume under test of this plan's case. */
export const planVolume = (plan: Plan): Figure => sectionVolume(plan.system, caseOf(plan).appliances);

/** Why the procedure does not apply to the system; empty when it does. Sizes and volume are met at equality. */
export function outsideDomain(plan: Plan): string[] {
  const { domain } = plan.procedure;
  const reasons: string[] = [];
  if (!domain.meters.some((m) => m.kind === plan.system.meter.kind))
    reasons.push(`The meter (${plan.system.meter.name}) is not one this procedure covers.`);
  const size = largestSize(plan.system);
  const most = parseWithUnit(domain.largestSize);
  if (size && compare(size, most) > 0)
    reasons.push(`The largest pipe is ${showExact(size)}; the procedure ends at ${showExact(most)}.`);
  const volume = planVolume(plan);
  const largest = parseWithUnit(domain.largestVolume);
  if (volume.value > toNumber(largest) + 1e-9)
    reasons.push(
      `The section holds ${volume.value.toFixed(4)} m³; the procedure ends at ${showExact(largest)}.`,
    );
  return reasons;
}

/**
 * The permitted drop by meter class and largest pipe size, with the row used. Conditions still to be shown on site
 * (smell) are judged in the run. A missing row gives no limit and says so: never a default.
 */
export function allowanceOf(plan: Plan): Allowance {
  const { allowance, domain } = plan.procedure;
  const conditions = allowance.conditions;
  const chosen = caseOf(plan);
  if (!chosen.allowance)
    return { limit: null, row: `${chosen.title}: nil, no drop is permitted`, conditions };
  const row = allowance.rows.find((r) => r.meter === plan.system.meter.kind);
  const size = largestSize(plan.system);
  const band = size ? allowance.bands.findIndex((b) => compare(size, parseWithUnit(b.upTo)) <= 0) : -1;
  if (!row || band < 0 || !size)
    return { limit: null, row: 'the table has no row for this meter and pipe', conditions };
  const drops =
    row.byChoice && plan.choices[row.byChoice.choice] === row.byChoice.option
      ? row.byChoice.drops
      : row.drops;
  const label = domain.meters.find((m) => m.kind === row.meter)?.label ?? row.meter;
  return {
    limit: { value: parseWithUnit(drops[band]!), broken: 'above', source: allowance.source },
    row: `${label}, ${allowance.bands[band]!.label} (largest here ${showExact(size)})`,
    conditions,
  };
}

/** A band of the pack in exact figures. */
export const bandOf = (band: { low: string; high: string }): { low: Exact; high: Exact } => ({
  low: parseWithUnit(band.low),
  high: parseWithUnit(band.high),
});
export const inBand = (value: Exact, band: { low: Exact; high: Exact }): boolean =>
  compare(value, band.low) >= 0 && compare(value, band.high) <= 0;

/** The most severe readings the procedure judges: what a gauge must fit. */
export function fitTarget(plan: Plan): { pressure: Exact; limit?: Exact } {
  const allowance = allowanceOf(plan).limit?.value;
  return { pressure: parseWithUnit(plan.procedure.pressure), ...(allowance ? { limit: allowance } : {}) };
}
