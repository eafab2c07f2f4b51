/** Named formulas of water, heating and mains. */
import { largestSize, metres, ratedParts, type System, wallsOf } from '@/core/installation/section';
import { mainMakeUpLimit, mainVolumeLimit } from '@/core/limit/main';
import { headPressure } from '@/core/medium/water';
import {
  add,
  compare,
  type Exact,
  inUnit,
  scaled,
  showExact,
  subtract,
  toNumber,
  trimmed,
} from '@/core/quantity/exact';
import { decimalsFor, figureNumber } from '@/core/quantity/figure';
import { convert, type Unit } from '@/core/quantity/unit';
import {
  type Args,
  type Formula,
  type FormulaContext,
  FormulaError,
  larger,
  type PressureResult,
  q,
  type VolumeResult,
  wanted,
} from './formula';

/** "1.5" as a ratio of whole numbers, so that a multiple stays exact. */
function times(a: Exact, factor: string, round: 'down' | 'up'): Exact {
  const [whole = '0', fraction = ''] = factor.split('.');
  return scaled(a, Number(whole + fraction), 10 ** fraction.length, a.scale + fraction.length, round);
}
const smaller = (a: Exact, b: Exact): Exact =>
  compare(wanted(b, a.unit, 'down'), a) < 0 ? wanted(b, a.unit, 'down') : a;
/** The part of the section that permits least, with its name; null where none is entered. */
function weakestOf(system: System, unit: Unit): { name: string; most: Exact } | null {
  const parts = ratedParts(system).map((p) => ({ name: p.name, most: wanted(p.most, unit, 'down') }));
  return parts.reduce<(typeof parts)[number] | null>(
    (least, x) => (!least || compare(x.most, least.most) < 0 ? x : least),
    null,
  );
}
/** The nominal figure capped by the weakest element; a cap below the working pressure makes a test impossible. */
function capped(c: FormulaContext, nominal: Exact): { value: Exact; weakest: ReturnType<typeof weakestOf> } {
  const weakest = weakestOf(c.system, nominal.unit);
  if (!weakest || compare(weakest.most, nominal) >= 0) return { value: nominal, weakest: null };
  if (compare(weakest.most, wanted(c.system.workingPressure, nominal.unit, 'up')) < 0)
    throw new FormulaError(
      `${weakest.name} permits ${showExact(weakest.most)}, less than the working pressure of ${showExact(c.system.workingPressure)}: check both figures on the system page, or take it out of scope.`,
    );
  return { value: weakest.most, weakest };
}
const weakestInput = (weakest: { name: string; most: Exact } | null) =>
  weakest ? [{ name: `capped by ${weakest.name}`, value: showExact(weakest.most) }] : [];

/** The pressure a multiple is taken of, with its words. The design pressure is a fact of its own: asked, never derived. */
function baseOf(c: FormulaContext, of: 'working' | 'design'): { value: Exact; name: string; sign: string } {
  if (of === 'working')
    return {
      value: c.system.workingPressure,
      name: 'p_working, working (or design) pressure',
      sign: 'p_working',
    };
  if (!c.system.designPressure)
    throw new FormulaError(
      'This school takes a multiple of the DESIGN pressure, which is not entered on the system page. Ask whoever designed the installation; it cannot be derived from the working pressure.',
    );
  return { value: c.system.designPressure, name: 'p_design, design pressure', sign: 'p_design' };
}
/** How a cap stands against the multiple that the school asks for. */
const cappedWords = (
  value: Exact,
  base: Exact,
  sign: string,
  factor: string,
  nominal: Exact,
  by: string,
) => ({
  by,
  used: value,
  asked: nominal,
  times: figureNumber({ value: toNumber(value) / toNumber(wanted(base, value.unit, 'up')), decimals: 2 }),
  multiple: `${factor} × ${sign === 'p_design' ? 'design' : 'working'} pressure`,
});

/**
 * A multiple of the working or design pressure, never above the weakest element in scope; the band reaches `over` percent
 * above it, and never past that element.
 */
const timesBase =
  (of: 'working' | 'design') =>
  (c: FormulaContext, a: Args): PressureResult => {
    const base = baseOf(c, of);
    const nominal = times(base.value, a.factor!, 'up');
    const { value, weakest } = capped(c, nominal);
    const above = scaled(value, 100 + Number(a.over!), 100, value.scale + 2, 'down');
    const all = weakestOf(c.system, value.unit);
    const equal = !weakest && all && compare(all.most, nominal) === 0 ? all : null;
    const high = all ? smaller(above, all.most) : above;
    return {
      low: wanted(value, c.unit, 'up'),
      high: wanted(high, c.unit, 'down'),
      working: {
        formula: `p = min(${a.factor} × ${base.sign}, weakest element)`,
        inputs: [
          { name: base.name, value: showExact(base.value) },
          { name: `${a.factor} × ${base.sign}`, value: showExact(nominal) },
          ...weakestInput(weakest),
          ...(equal ? [{ name: `exactly what ${equal.name} permits`, value: showExact(equal.most) }] : []),
        ],
        text: weakest
          ? `${weakest.name} permits less than the multiple: it sets the pressure.`
          : equal
            ? `${a.factor} times the ${of} pressure is exactly what ${equal.name} permits: nothing may go above it.`
            : `${a.factor} times the ${of} pressure; no part in scope permits less.`,
        ...(weakest
          ? { capped: cappedWords(value, base.value, base.sign, a.factor!, nominal, weakest.name) }
          : {}),
      },
    };
  };
/** The same pressure divided: plastic pipe is bled to a part of it, at most `over` above. */
const partOfBase =
  (of: 'working' | 'design') =>
  (c: FormulaContext, a: Args): PressureResult => {
    const { value, weakest } = capped(c, times(baseOf(c, of).value, a.factor!, 'up'));
    const part = Number(a.part!);
    const low = scaled(value, 1, part, value.scale + 3, 'up');
    return {
      low: trimmed(wanted(low, c.unit, 'up'), 2),
      high: trimmed(wanted(add(low, wanted(q(a.over!), low.unit, 'down')), c.unit, 'down'), 2),
      working: {
        formula: `p_test / ${a.part} to p_test / ${a.part} + ${a.over}`,
        inputs: [{ name: 'p_test, test pressure', value: showExact(value) }, ...weakestInput(weakest)],
        text: 'Stretched pipe recovers at a lower pressure: what falls below it then is lost.',
      },
    };
  };
/** Between two figures, at least a multiple of the working pressure, at most the weakest element. */
function betweenTimes(c: FormulaContext, a: Args): PressureResult {
  const least = larger(q(a.low!), times(c.system.workingPressure, a.factor!, 'up'));
  const weakest = weakestOf(c.system, least.unit);
  if (weakest && compare(weakest.most, least) < 0)
    throw new FormulaError(
      `${weakest.name} permits ${showExact(weakest.most)}; the rule asks for at least ${showExact(least)}. Take it out of scope and name it under what is not covered.`,
    );
  const most = weakest ? smaller(q(a.high!), weakest.most) : q(a.high!);
  return {
    low: wanted(least, c.unit, 'up'),
    high: wanted(compare(most, least) < 0 ? least : most, c.unit, 'down'),
    working: {
      formula: `max(${a.low}, ${a.factor} × p_working) to ${a.high}`,
      inputs: [
        { name: 'p_working, working pressure', value: showExact(c.system.workingPressure) },
        ...weakestInput(weakest),
      ],
      text: 'Well above working, within what the loops are made for.',
    },
  };
}
/** Dry load test: by the largest nominal size, at most the smaller figure above it. */
function loadBySize(c: FormulaContext, a: Args): PressureResult {
  const size = largestSize(c.system);
  if (!size) throw new FormulaError('No pipe is entered: its size decides the load pressure.');
  const upTo = q(a.upTo!);
  const small = convert(toNumber(size), size.unit, 'mm') <= convert(toNumber(upTo), upTo.unit, 'mm') + 1e-9;
  const { value, weakest } = capped(
    { ...c, system: { ...c.system, workingPressure: q('0 bar') } },
    q(small ? a.small! : a.large!),
  );
  return {
    low: wanted(scaled(value, 9, 10, value.scale + 1, 'up'), c.unit, 'up'),
    high: wanted(value, c.unit, 'down'),
    working: {
      formula: `at most ${a.small} up to a nominal ${a.upTo}, ${a.large} above`,
      inputs: [{ name: 'largest nominal size', value: showExact(size) }, ...weakestInput(weakest)],
      text: 'Gas stores far more energy than water: the larger the pipe, the lower the pressure.',
    },
  };
}
/** A step on the way to the dry load: so many percent of it, a twentieth of it below that. */
function loadStep(c: FormulaContext, a: Args): PressureResult {
  const whole = loadBySize({ ...c, unit: null }, a);
  const part = (percent: number, round: 'down' | 'up') =>
    scaled(whole.high, percent, 100, whole.high.scale + 2, round);
  return {
    low: wanted(part(Number(a.percent!) - 5, 'up'), c.unit, 'up'),
    high: wanted(part(Number(a.percent!), 'down'), c.unit, 'down'),
    working: {
      ...whole.working,
      formula: `${a.percent} % of the load: ${whole.working.formula}`,
      text: 'Gas is raised in stages: what is weak shows before it holds much energy.',
    },
  };
}
/**
 * The lower of the regulator's set pressure and the weakest part, as version 1; what a regulator gives may stand `over`
 * percent above its setting, never above the weakest part.
 */
function lowerOfSetOver(c: FormulaContext, a: Args): PressureResult {
  const found = lowerOfSet({ ...c, unit: null }, a);
  const over = scaled(found.high, 100 + Number(a.over!), 100, found.high.scale + 2, 'down');
  const weakest = weakestOf(c.system, found.high.unit);
  return {
    low: wanted(found.low, c.unit, 'up'),
    high: wanted(weakest ? smaller(over, weakest.most) : over, c.unit, 'down'),
    working: {
      ...found.working,
      formula: `${found.working.formula}, up to ${a.over} % above, never above the weakest part`,
    },
  };
}
/** The lower of the regulator's set pressure and the weakest part: what a vehicle's fresh water is tested at. */
function lowerOfSet(c: FormulaContext, a: Args): PressureResult {
  const set = c.system.setPressure;
  if (!set)
    throw new FormulaError(
      'The set pressure of the water regulator is not entered on the system page: with the weakest part it sets the pressure.',
    );
  const weakest = weakestOf(c.system, set.unit);
  const high = weakest ? smaller(set, weakest.most) : set;
  return {
    low: wanted(scaled(high, 100 - Number(a.under!), 100, high.scale + 2, 'up'), c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      formula: `lower of regulator setting and weakest part, down to ${a.under} % below`,
      inputs: [
        { name: 'regulator set pressure', value: showExact(set) },
        ...(weakest ? [{ name: weakest.name, value: showExact(weakest.most) }] : []),
      ],
      text: 'The installation never sees more in use than its regulator lets in.',
    },
  };
}
/**
 * Test pressure of a main at the test point: the multiple of working there, and at least the other multiple at the
 * highest point (the head between them is taken off); capped so that the lowest point stays within the weakest part.
 */
function mainPressure(c: FormulaContext, a: Args): PressureResult {
  const over = q(a.over!);
  const unit = over.unit;
  const working = wanted(c.system.workingPressure, unit, 'up');
  const heights = c.system.heights;
  const head = (from: Exact | undefined, to: Exact | undefined): Exact => {
    if (!from || !to) return q(`0 ${unit}`);
    const pa = headPressure(convert(toNumber(to), to.unit, 'm') - convert(toNumber(from), from.unit, 'm'));
    return inUnit({ digits: Math.round(pa), scale: 0, unit: 'Pa' }, unit, 2, 'up');
  };
  const up = head(heights?.testPoint, heights?.highest);
  const down = head(heights?.lowest, heights?.testPoint);
  const here = times(working, a.factor!, 'up');
  const forHigh = add(times(working, a.highest!, 'up'), up);
  const nominal = larger(here, forHigh);
  const weakest = weakestOf(c.system, unit);
  const cap = weakest && subtract(weakest.most, down);
  if (cap && compare(cap, nominal) < 0)
    throw new FormulaError(
      `${weakest.name} permits ${showExact(weakest.most)}; with ${showExact(down)} of head to the lowest point only ${showExact(cap)} may stand at the test point, and the rule asks for ${showExact(nominal)}. Test in shorter sections, or take it out of scope.`,
    );
  const high = add(nominal, over);
  return {
    low: wanted(nominal, c.unit, 'up'),
    high: wanted(cap ? smaller(high, cap) : high, c.unit, 'down'),
    working: {
      formula: `p = max(${a.factor} × p_working, ${a.highest} × p_working + head to the highest point)`,
      inputs: [
        { name: 'p_working, working pressure', value: showExact(c.system.workingPressure) },
        { name: `${a.factor} × p_working at the test point`, value: showExact(here) },
        {
          name: 'head from the test point to the highest',
          value: heights?.highest ? showExact(up) : 'heights not entered',
        },
        {
          name: 'head from the lowest to the test point',
          value: heights?.lowest ? showExact(down) : 'heights not entered',
        },
        ...weakestInput(weakest),
      ],
      text: 'What the gauge shows is the pressure at the test point: higher up it is less by the head, lower down more.',
    },
  };
}

const hours = (c: FormulaContext): { mean: number; hours: number } => {
  if (!c.hold) throw new FormulaError('The mean pressure and the time of the hold are not known yet.');
  return { mean: c.hold.mean, hours: c.hold.minutes / 60 };
};
const litresText = (value: number): string => `${figureNumber({ value, decimals: decimalsFor(value) })} l`;
/** Make-up at test pressure by length and nominal diameter: L = S D √P / divisor, each pipe by itself. */
function makeUpByLength(c: FormulaContext, a: Args): VolumeResult {
  const { mean, hours: h } = hours(c);
  const divisor = Number(a.divisor!);
  const perSecond = c.system.pipes.reduce(
    (sum, p) => sum + mainMakeUpLimit(metres(p.length), metres(p.size), mean) * (148000 / divisor),
    0,
  );
  const litres = perSecond * 3600 * h * 1000;
  return {
    litres,
    working: {
      formula: `L = S × D × √P / ${divisor} (gal/h; ft, in, psi) × t`,
      inputs: [
        ...c.system.pipes.map((p) => ({
          name: `S × D, ${p.name}`,
          value: `${convert(metres(p.length), 'm', 'ft').toFixed(1)} ft × ${convert(metres(p.size), 'm', 'in').toFixed(2)} in`,
        })),
        { name: 'P, mean of start and end', value: `${convert(mean, 'Pa', 'psi').toFixed(1)} psi` },
        { name: 't', value: `${h.toFixed(2)} h` },
        { name: 'L', value: `${convert(litres, 'l', 'gal').toFixed(3)} gal (US), ${litresText(litres)}` },
      ],
      text: 'What may be added to keep the test pressure; the metric twin follows from the exact units.',
    },
  };
}
/** Loss by stiffness of water and wall for a permitted drop: dV = factor V dp (1/Ew + D/(e Er)), each pipe by itself. */
function lossByStiffness(c: FormulaContext, a: Args, inside = false): VolumeResult {
  hours(c);
  const walls = wallsOf(c.system)?.map((w, i) =>
    // version 2 takes the inside diameter, as the published formula names it
    inside ? { ...w, diameter: metres(c.system.pipes[i]!.bore) } : w,
  );
  if (!walls)
    throw new FormulaError(
      'This limit needs the wall of every pipe: choose each from a pipe table on the system page.',
    );
  const dp = q(a.dp!);
  const pascal = convert(toNumber(dp), dp.unit, 'Pa');
  const litres =
    walls.reduce((sum, w) => sum + mainVolumeLimit(w.volume, pascal, w.diameter, w.wall, w.modulus), 0) *
    1000 *
    (Number(a.factor!) / 1.2);
  return {
    litres,
    working: {
      formula: `ΔV = ${a.factor} × V × Δp × (1/E_w + D/(e × E_r))`,
      inputs: [
        { name: 'V', value: litresText(walls.reduce((s, w) => s + w.volume, 0) * 1000) },
        { name: 'Δp, pressure drop permitted', value: showExact(dp) },
        { name: 'E_w', value: '2.1e6 kPa' },
        { name: 'D/e of the pipes', value: walls.map((w) => (w.diameter / w.wall).toFixed(1)).join(', ') },
        { name: 'ΔV', value: litresText(litres) },
      ],
      text: 'The water that the permitted drop alone would give back, and a fifth more for air.',
    },
  };
}

/** Formulas of water, by name and version. */
export const WATER_FORMULAS: Readonly<Record<string, Formula>> = {
  'times-working@1': {
    args: ['factor', 'over'],
    says: (a) =>
      `${a.factor} × the working pressure, never above the weakest element; up to ${a.over} % above`,
    pressure: timesBase('working'),
  },
  'times-design@1': {
    args: ['factor', 'over'],
    says: (a) =>
      `${a.factor} × the design pressure, never above the weakest element; up to ${a.over} % above`,
    pressure: timesBase('design'),
  },
  'part-of-design@1': {
    args: ['factor', 'part', 'over'],
    says: (a) =>
      `a ${a.part === '2' ? 'half' : a.part === '3' ? 'third' : `1/${a.part}`} of ${a.factor} × the design pressure, at most ${a.over} above it`,
    pressure: partOfBase('design'),
  },
  'part-of-times@1': {
    args: ['factor', 'part', 'over'],
    says: (a) =>
      `a ${a.part === '2' ? 'half' : a.part === '3' ? 'third' : `1/${a.part}`} of ${a.factor} × the working pressure, at most ${a.over} above it`,
    pressure: partOfBase('working'),
  },
  'between-and-times@1': {
    args: ['low', 'high', 'factor'],
    says: (a) =>
      `${a.low} to ${a.high}, at least ${a.factor} × the working pressure, never above the weakest element`,
    pressure: betweenTimes,
  },
  'load-by-size@1': {
    args: ['upTo', 'small', 'large'],
    says: (a) =>
      `at most ${a.small} up to a nominal ${a.upTo}, ${a.large} above; never above the weakest element`,
    pressure: loadBySize,
  },
  'lower-of-set@1': {
    args: ['under'],
    says: (a) => `the lower of the regulator setting and the weakest part, down to ${a.under} % below`,
    pressure: lowerOfSet,
  },
  'lower-of-set@2': {
    args: ['under', 'over'],
    says: (a) =>
      `the lower of the regulator setting and the weakest part, ${a.under} % below to ${a.over} % above, never above the weakest part`,
    pressure: lowerOfSetOver,
  },
  'load-step@1': {
    args: ['upTo', 'small', 'large', 'percent'],
    says: (a) => `${a.percent} % of the load: at most ${a.small} up to a nominal ${a.upTo}, ${a.large} above`,
    pressure: loadStep,
  },
  'main-pressure@1': {
    args: ['factor', 'highest', 'over'],
    says: (a) =>
      `${a.factor} × the working pressure at the test point, at least ${a.highest} × at the highest point; up to ${a.over} above`,
    pressure: mainPressure,
  },
  'make-up-by-length@1': {
    args: ['divisor'],
    says: (a) => `L = S × D × √P / ${a.divisor} (gal/h; ft, in, psi)`,
    volume: makeUpByLength,
  },
  'loss-by-stiffness@2': {
    args: ['dp', 'factor'],
    says: (a) => `ΔV = ${a.factor} × V × ${a.dp} × (1/E_w + D/(e × E_r)), D the inside diameter`,
    volume: (c, a) => lossByStiffness(c, a, true),
  },
  'loss-by-stiffness@1': {
    args: ['dp', 'factor'],
    says: (a) => `ΔV = ${a.factor} × V × ${a.dp} × (1/E_w + D/(e × E_r))`,
    volume: (c, a) => lossByStiffness(c, a),
  },
};
