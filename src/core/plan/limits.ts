/** What a plan permits and asks for, in exact figures: permitted drop, bands, acceptance bounds, test pressure, what a gauge must fit. */
import { type FormulaContext, known, pressureOf, wanted, type Working } from '@/core/formula';
import type { AcceptLimit, BandSpec, PackLimit } from '@/core/grammar/rule';
import { largestSize } from '@/core/installation/section';
import type { FitRules, GaugeClass } from '@/core/instrument/gauge';
import { compare, type Exact, type Limit, parseWithUnit, showExact } from '@/core/quantity/exact';
import { type Unit } from '@/core/quantity/unit';
import { applies, caseOf, formulaContext, type Plan, ruleOf } from './plan';

/** What a table of permitted drops says for this system. */
export interface Allowance {
  /** What the table permits, or null: nil. */
  readonly limit: Limit | null;
  /** The row and band used, in words, or why none applies. */
  readonly row: string;
  readonly conditions: readonly { readonly key: string; readonly text: string }[];
}

/**
 * The permitted drop by meter class and largest pipe size, with the row used. Conditions still to be shown on site
 * (smell) are judged in the run. A missing row gives no limit and says so: never a default.
 */
export function allowanceOf(plan: Plan, part?: string | null): Allowance {
  const { allowance, domain } = ruleOf(plan, part);
  const chosen = caseOf(plan, part);
  if (!allowance) return { limit: null, row: 'nil, this rule permits no drop', conditions: [] };
  const conditions = allowance.conditions;
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
  const label = domain.meters?.find((m) => m.kind === row.meter)?.label ?? row.meter;
  return {
    limit: { value: parseWithUnit(drops[band]!), broken: 'above', source: allowance.source },
    row: `${label}, ${allowance.bands[band]!.label} (largest here ${showExact(size)})`,
    conditions,
  };
}

/** A band with its working: literal figures have none. */
export interface ResolvedBand {
  readonly low: Exact;
  readonly high: Exact;
  readonly working?: Working;
}
/**
 * A band of the pack in exact figures of the gauge's unit: its alternative for this plan where one applies, its
 * formula worked out, converted with both ends rounded inwards.
 * @throws FormulaError when a reading or a fact of the system is still missing
 */
export function bandOf(
  spec: BandSpec,
  context: FormulaContext,
  plan?: Plan,
  part?: string | null,
): ResolvedBand {
  const band = (plan && spec.unless?.find((u) => applies(plan, part, u.when))?.band) ?? spec;
  if ('formula' in band) return pressureOf(band, context);
  return {
    low: wanted(parseWithUnit(band.low), context.unit, 'up'),
    high: wanted(parseWithUnit(band.high), context.unit, 'down'),
  };
}
/**
 * One acceptance bound in the gauge's unit, rounded inwards; null where a fact it needs is not known.
 * @param side which end of a formula's band it is
 */
export function acceptOf(
  bound: AcceptLimit | undefined,
  side: 'low' | 'high',
  context: FormulaContext,
  plan: Plan,
  part?: string | null,
): { value: Exact; source: string; working?: Working } | null {
  if (!bound) return null;
  const value = bound.unless?.find((u) => applies(plan, part, u.when))?.value ?? bound.value;
  if (typeof value === 'string')
    return {
      value: wanted(parseWithUnit(value), context.unit, side === 'low' ? 'up' : 'down'),
      source: bound.source,
    };
  const found = known(() => pressureOf(value, context));
  return 'missing' in found
    ? null
    : { value: found.value[side], source: bound.source, working: found.value.working };
}
export const inBand = (value: Exact, band: { low: Exact; high: Exact }): boolean =>
  compare(value, band.low) >= 0 && compare(value, band.high) <= 0;

/**
 * Nominal test pressure of a part with its working: the figure of the pack, or the foot of its formula's band.
 * @throws FormulaError when a fact of the system is missing
 */
export function testPressureOf(
  plan: Plan,
  part?: string | null,
  unit: Unit | null = null,
): { readonly value: Exact; readonly working: Working | null } {
  const spec = ruleOf(plan, part).pressure;
  const pressure =
    typeof spec === 'object' && 'value' in spec
      ? (spec.unless.find((u) => applies(plan, part, u.when))?.value ?? spec.value)
      : spec;
  if (typeof pressure === 'string') return { value: parseWithUnit(pressure), working: null };
  const found = pressureOf(pressure, formulaContext(plan, part, { unit }));
  return { value: found.low, working: found.working };
}
export const testPressure = (plan: Plan, part?: string | null, unit: Unit | null = null): Exact =>
  testPressureOf(plan, part, unit).value;

export const limitsOf = (table: Partial<Record<GaugeClass, PackLimit>>): Partial<Record<GaugeClass, Limit>> =>
  Object.fromEntries(
    Object.entries(table).map(([k, l]) => [
      k,
      { value: parseWithUnit(l.value), broken: l.broken, source: l.source },
    ]),
  );

/** The most severe readings the part judges: what a gauge must fit. */
export function fitTarget(plan: Plan, part?: string | null): FitRules & { pressure: Exact; limit?: Exact } {
  const rule = ruleOf(plan, part);
  const allowance = allowanceOf(plan, part).limit?.value;
  return {
    pressure: testPressure(plan, part),
    ...(allowance ? { limit: allowance } : {}),
    perceptible: limitsOf(rule.perceptible),
    ...(rule.gauge ? { dialScaleMost: rule.gauge.dialScaleMost, dialScaleSource: rule.gauge.source } : {}),
  };
}
