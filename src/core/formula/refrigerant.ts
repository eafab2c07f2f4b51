/** Named formulas of refrigerant circuits: PS of a side by its plate or by the fluid, its multiple, and how long it is held. */
import { type Condensing, ratedParts, type System } from '@/core/installation/section';
import { AMBIENT_WORDS, COOLED_WORDS } from '@/core/installation/parts';
import { designCelsius } from '@/core/limit/refrigerant';
import { criticalTemperature, saturation } from '@/core/medium/refrigerant';
import { compare, exact, type Exact, scaled, showExact } from '@/core/quantity/exact';
import type { FigureInput } from '@/core/quantity/figure';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import {
  type Args,
  type Formula,
  type FormulaContext,
  FormulaError,
  known,
  type PressureResult,
  wanted,
} from './formula';

type Side = 'high' | 'low';
export interface Ps {
  readonly value: Exact;
  /** How it is known, for "why". */
  readonly inputs: readonly FigureInput[];
  readonly text: string;
  readonly estimate: boolean;
}
const NAMES: Readonly<Record<Side, string>> = { high: 'high side', low: 'low side' };
const PLATE = 'Read the nameplate of the condensing unit and enter PS of both sides on the system page.';

/** PS of a side: from the plate, otherwise the bubble point at the design temperature, rounded down to 0.1 bar. @throws FormulaError */
function psOfSide(unit: Condensing, side: Side): Ps {
  const plate = side === 'high' ? unit.psHigh : unit.psLow;
  const name = NAMES[side];
  if (plate)
    return {
      value: plate,
      inputs: [{ name: `PS, ${name}`, value: `${showExact(plate)}, on the plate of ${unit.name}` }],
      text: 'PS as the nameplate says it.',
      estimate: false,
    };
  const { refrigerant, ambient, cooled } = unit;
  if (!refrigerant) throw new FormulaError(`PS of the ${name} and the refrigerant are not entered. ${PLATE}`);
  if (!ambient || (side === 'high' && !cooled))
    throw new FormulaError(
      `PS of the ${name} is not entered. ${PLATE} Or say there how the condenser is cooled and how warm it gets outside: then it is estimated.`,
    );
  const celsius = designCelsius(side, ambient, cooled ?? 'air');
  if (celsius === null)
    throw new FormulaError(
      `A condenser cooled by water in a place warmer than 32 °C: PS stands on its plate alone. ${PLATE}`,
    );
  try {
    const { pa, rough } = saturation(refrigerant, celsius + 273.15);
    const gauge = pa - STANDARD_ATMOSPHERE;
    const bar = (p: number) => (p / 1e5).toFixed(2).replace('-', '−');
    return {
      value: exact(Math.floor(gauge / 1e4 + 1e-6), 1, 'bar'),
      inputs: [
        {
          name: 'design temperature',
          value: `${celsius} °C: ${name}${side === 'high' ? `, cooled ${COOLED_WORDS[cooled!]}` : ''}, ${AMBIENT_WORDS[ambient]} outside`,
        },
        { name: `${refrigerant}, bubble point there`, value: `${bar(pa)} bar absolute` },
        {
          name: `PS, ${name}`,
          value: `${bar(pa)} − 1.013 = ${bar(gauge)} bar gauge, ${rough ? 'rough estimate' : 'estimate'}`,
        },
      ],
      text: rough
        ? 'A rough estimate, above the temperatures it was checked for: read the nameplate.'
        : 'An estimate from the fluid. A nameplate or a table of the maker always wins.',
      estimate: true,
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new FormulaError(
      `${refrigerant} has no bubble point at ${celsius} °C that could be estimated (critical temperature ${(criticalTemperature(refrigerant) - 273.15).toFixed(0)} °C). ${PLATE}`,
    );
  }
}
/** PS of what is tested: of its side; of both joined, and of the whole, the lower one. @throws FormulaError */
export function psOf(system: System): Ps {
  const unit = system.condensing?.[0];
  if (!unit)
    throw new FormulaError(
      'No condensing unit is entered. Add it on the system page: PS stands on its plate.',
    );
  const key = system.section?.key;
  return underPlates(system, key === 'high' || key === 'low' ? psOfSide(unit, key) : psOfBoth(unit));
}
/** Never above what the plate of a vessel in scope says. */
function underPlates(system: System, ps: Ps): Ps {
  const plates = [...(system.evaporators ?? []), ...(system.receivers ?? [])].flatMap((v) =>
    v.ps ? [{ name: v.name, ps: wanted(v.ps, ps.value.unit, 'down') }] : [],
  );
  const least = plates.reduce<(typeof plates)[number] | null>(
    (a, b) => (a && compare(a.ps, b.ps) <= 0 ? a : b),
    null,
  );
  if (!least || compare(least.ps, ps.value) >= 0) return ps;
  return {
    ...ps,
    value: least.ps,
    inputs: [...ps.inputs, { name: `plate of ${least.name}: lower, it counts`, value: showExact(least.ps) }],
  };
}
function psOfBoth(unit: Condensing): Ps {
  const [high, low] = [psOfSide(unit, 'high'), psOfSide(unit, 'low')];
  const lower = compare(wanted(low.value, high.value.unit, 'up'), high.value) <= 0 ? low : high;
  return {
    ...lower,
    inputs: [
      ...high.inputs,
      ...low.inputs,
      { name: 'both joined: the lower', value: showExact(lower.value) },
    ],
  };
}
function times(a: Exact, factor: string): Exact {
  const [whole = '0', fraction = ''] = factor.split('.');
  return scaled(a, Number(whole + fraction), 10 ** fraction.length, a.scale + fraction.length, 'up');
}
/** The weakest part in scope, in a unit; null where none says what it permits. */
function weakest(system: System, unit: Exact['unit']): { name: string; most: Exact } | null {
  return ratedParts(system)
    .map((p) => ({ name: p.name, most: wanted(p.most, unit, 'down') }))
    .reduce<{ name: string; most: Exact } | null>(
      (a, b) => (a && compare(a.most, b.most) <= 0 ? a : b),
      null,
    );
}

/** A multiple of PS, above it always; never above what the weakest part permits in a strength test. */
function strength(c: FormulaContext, a: Args): PressureResult {
  const ps = psOf(c.system);
  const nominal = times(ps.value, a.factor!);
  const weak = weakest(c.system, nominal.unit);
  const most = weak?.most ?? null;
  const capped = most !== null && compare(most, nominal) < 0;
  const value = capped ? most : nominal;
  if (compare(value, ps.value) <= 0)
    throw new FormulaError(
      `${weak!.name} permits ${showExact(weak!.most)}: no more than PS, and at PS nothing is proved of strength. Isolate it and quote its maker's certificate, or take it out.`,
    );
  const high = scaled(value, 100 + Number(a.over!), 100, value.scale + 2, 'down');
  return {
    low: wanted(value, c.unit, 'up'),
    high: wanted(capped || (most && compare(high, most) > 0) ? most! : high, c.unit, 'down'),
    working: {
      formula: `p = ${a.factor} × PS`,
      inputs: [
        ...ps.inputs,
        { name: `${a.factor} × ${showExact(ps.value)}`, value: showExact(nominal) },
        ...(capped ? [{ name: `capped by ${weak!.name}`, value: showExact(value) }] : []),
      ],
      text: `${ps.text}${capped ? ` ${weak!.name} permits less than the multiple: it sets the pressure.` : ''}`,
    },
  };
}
/** At PS and not above it, nor above the weakest part. */
function tightness(c: FormulaContext, a: Args): PressureResult {
  const ps = psOf(c.system);
  const weak = weakest(c.system, ps.value.unit);
  const value = weak && compare(weak.most, ps.value) < 0 ? weak.most : ps.value;
  return {
    low: wanted(scaled(value, 100 - Number(a.under!), 100, value.scale + 2, 'up'), c.unit, 'up'),
    high: wanted(value, c.unit, 'down'),
    working: {
      formula: `p = PS, down to ${a.under} % below`,
      inputs: [
        ...ps.inputs,
        ...(weak && value === weak.most ? [{ name: `capped by ${weak.name}`, value: showExact(value) }] : []),
      ],
      text: `${ps.text} Never above it.`,
    },
  };
}
/** What a regulator may be able to give: so many times the higher strength pressure of the two sides. House figure */
function regulator(c: FormulaContext, a: Args): PressureResult {
  const unit = c.system.condensing?.[0];
  const own = times(psOf(c.system).value, a.factor!);
  const sides = unit ? (['high', 'low'] as const) : [];
  const all = sides.flatMap((side) => {
    const found = known(() => times(psOfSide(unit!, side).value, a.factor!));
    return 'value' in found ? [wanted(found.value, own.unit, 'up')] : [];
  });
  const highest = [own, ...all].reduce((x, y) => (compare(y, x) > 0 ? y : x));
  const most = times(highest, a.times!);
  return {
    low: wanted(own, c.unit, 'up'),
    high: wanted(most, c.unit, 'down'),
    working: {
      formula: `${a.times} × the higher strength pressure`,
      inputs: [{ name: 'higher strength pressure', value: showExact(highest) }],
      text: 'A regulator that can give far more than the test needs lets a slip become an overpressure.',
    },
  };
}

/** Formulas of circuits, by name and version. */
export const REFRIGERANT_FORMULAS: Readonly<Record<string, Formula>> = {
  'circuit-strength@1': {
    args: ['factor', 'over'],
    says: (a) =>
      `${a.factor} × PS of the side, never above what the weakest part permits; up to ${a.over} % above`,
    pressure: strength,
  },
  'circuit-regulator@1': {
    args: ['times', 'factor'],
    says: (a) => `${a.times} × the higher strength pressure (${a.factor} × PS) of the two sides`,
    pressure: regulator,
  },
  'circuit-ps@1': {
    args: ['under'],
    says: (a) => `PS of the side, never above it or above the weakest part; down to ${a.under} % below`,
    pressure: tightness,
  },
};
