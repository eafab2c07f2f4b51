/** Pressures of fuel gas and of drains, from the section, its meter and what was read before. */
import { add, compare, type Exact, scaled, showExact, subtract, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import {
  type Args,
  type Formula,
  type FormulaContext,
  FormulaError,
  kept,
  larger,
  type PressureResult,
  q,
  wanted,
} from './formula';

/**
 * Test pressure of gas pipework before it is put to work: factor x maximum working pressure, at least the least
 * figure; from `mediumFrom` working pressure upwards at least `mediumLeast` over the whole system, since a regulator
 * that fails puts medium pressure everywhere. Imperial school; both figures are arguments of the pack.
 */
function airTestPressure(c: FormulaContext, a: Args): PressureResult {
  const least = q(a.least!);
  const unit = least.unit;
  const working = wanted(c.system.workingPressure, unit, 'up');
  const [whole = '1', fraction = ''] = a.factor!.split('.');
  const multiple = scaled(working, Number(whole + fraction), 10 ** fraction.length, 2, 'up');
  const medium = compare(working, wanted(q(a.mediumFrom!), unit, 'down')) >= 0;
  const floor = medium ? larger(least, q(a.mediumLeast!)) : least;
  const pressure = larger(floor, multiple);
  const high = scaled(pressure, 100 + Number(a.over!), 100, 2, 'down');
  return {
    low: wanted(pressure, c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      formula: `p = max(${a.factor} × p_working, ${medium ? showExact(q(a.mediumLeast!)) : showExact(least)})`,
      inputs: [
        { name: 'p_working, maximum working pressure', value: showExact(c.system.workingPressure) },
        { name: `${a.factor} × p_working`, value: showExact(multiple) },
        { name: medium ? 'least, medium pressure in the system' : 'least', value: showExact(floor) },
      ],
      text: medium
        ? `Part of this system works at ${showExact(q(a.mediumFrom!))} or more: the whole is tested at one pressure, because a regulator that fails puts medium pressure everywhere.`
        : `The larger of ${a.factor} times the working pressure and ${showExact(least)}.`,
    },
  };
}

/**
 * Pressure through gas appliances: at most the lowest maximum inlet pressure on any plate in scope; a plate that was
 * not read counts as `unknown`. The band reaches `under` percent below that cap.
 */
function lowestPlate(c: FormulaContext, a: Args): PressureResult {
  const unknown = q(a.unknown!);
  const unit = unknown.unit;
  const plates = [
    ...c.system.appliances.map((x) => ({ name: x.name, inlet: x.maxInlet ?? null })),
    ...(c.system.regulators ?? []).map((x) => ({ name: x.name, inlet: x.maxInlet ?? null })),
  ];
  let cap: Exact | null = null;
  let weakest = 'no plate in scope';
  for (const plate of plates) {
    const inlet = plate.inlet ? wanted(plate.inlet, unit, 'down') : unknown;
    if (!cap || compare(inlet, cap) < 0) {
      cap = inlet;
      weakest = plate.inlet ? plate.name : `${plate.name} (plate not read)`;
    }
  }
  const high = cap ?? unknown;
  return {
    low: wanted(scaled(high, 100 - Number(a.under!), 100, 2, 'up'), c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      formula: 'p ≤ lowest maximum inlet pressure on any plate in scope',
      inputs: plates.map((p) => ({
        name: p.name,
        value: p.inlet ? showExact(p.inlet) : `not read: ${showExact(unknown)}`,
      })),
      text: `Weakest element: ${weakest}, ${showExact(high)}. Above it a control can be damaged.`,
    },
  };
}

/** A band around the system's working pressure, in percent below and above it. */
function nearWorking(c: FormulaContext, a: Args): PressureResult {
  const working = c.system.workingPressure;
  return {
    low: wanted(scaled(working, 100 - Number(a.under!), 100, working.scale + 2, 'up'), c.unit, 'up'),
    high: wanted(scaled(working, 100 + Number(a.over!), 100, working.scale + 2, 'down'), c.unit, 'down'),
    working: {
      formula: `p_working − ${a.under} % to p_working + ${a.over} %`,
      inputs: [{ name: 'p_working, working pressure', value: showExact(working) }],
      text: 'At or near working pressure, so that the leak is measured as it is in use.',
    },
  };
}

/** A share of a reading taken earlier in the run, in percent: a valve's let-by is looked for below static. */
function shareOfReading(c: FormulaContext, a: Args): PressureResult {
  const reading = kept(c, a.of!);
  const round = (percent: string, side: 'up' | 'down') =>
    scaled(reading, Number(percent), 100, reading.scale, side);
  return {
    low: wanted(round(a.low!, 'up'), c.unit, 'up'),
    high: wanted(round(a.high!, 'down'), c.unit, 'down'),
    working: {
      formula: `${a.low} % to ${a.high} % of the ${a.of} reading`,
      inputs: [{ name: `${a.of} reading`, value: showExact(reading) }],
      text: 'Clearly below the pressure upstream, so that a valve that passes shows as a rise.',
    },
  };
}

/** A band below a reading taken earlier: at least and at most so much released. */
function belowReading(c: FormulaContext, a: Args): PressureResult {
  const reading = kept(c, a.of!);
  const low = subtract(reading, wanted(q(a.most!), reading.unit, 'down'));
  const high = subtract(reading, wanted(q(a.least!), reading.unit, 'up'));
  return {
    low: wanted(low, c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      formula: `${a.of} reading − ${a.most} to ${a.of} reading − ${a.least}`,
      inputs: [{ name: `${a.of} reading`, value: showExact(reading) }],
      text: 'Released so far that a valve that passes can show as a rise, and a leak as a fall.',
    },
  };
}

/** A band around a reading taken earlier: so much below it to so much above it. */
function nearReading(c: FormulaContext, a: Args): PressureResult {
  const reading = kept(c, a.of!);
  return {
    low: wanted(subtract(reading, wanted(q(a.below!), reading.unit, 'down')), c.unit, 'up'),
    high: wanted(add(reading, wanted(q(a.above!), reading.unit, 'down')), c.unit, 'down'),
    working: {
      formula: `${a.of} reading − ${a.below} to + ${a.above}`,
      inputs: [{ name: `${a.of} reading`, value: showExact(reading) }],
      text: 'The same pressure as before.',
    },
  };
}

/** The regulator's set pressure plus an allowance: above it the regulator does not shut off. */
function aboveSet(c: FormulaContext, a: Args): PressureResult {
  const set = c.system.setPressure ?? c.system.workingPressure;
  const by = q(a.by!);
  const high = add(wanted(set, by.unit, 'down'), by);
  return {
    low: wanted(set, c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      formula: `p_set + ${a.by}`,
      inputs: [{ name: 'p_set, regulator set pressure', value: showExact(set) }],
      text: 'A regulator that shuts off stands a little above its set pressure, and stays there.',
    },
  };
}

/** A fact that the place page must give before this can be worked out. */
function setPressureOf(c: FormulaContext): Exact {
  if (!c.system.setPressure)
    throw new FormulaError('The set pressure of the regulator is not entered on the system page.');
  return c.system.setPressure;
}
const aroundSet = (
  c: FormulaContext,
  low: Exact,
  high: Exact,
  sign: string,
  text: string,
): PressureResult => ({
  low: wanted(low, c.unit, 'up'),
  high: wanted(high, c.unit, 'down'),
  working: {
    formula: `p_set ${sign}`,
    inputs: [{ name: 'p_set, regulator set pressure', value: showExact(setPressureOf(c)) }],
    text,
  },
});
/** The regulator's set pressure plus an allowance, the set pressure being known: never taken from the working pressure. */
function aboveKnownSet(c: FormulaContext, a: Args): PressureResult {
  const by = q(a.by!);
  const set = wanted(setPressureOf(c), by.unit, 'down');
  return aroundSet(
    c,
    set,
    add(set, by),
    `+ ${a.by}`,
    'A regulator that shuts off stands a little above its set pressure, and stays there.',
  );
}
/** The regulator's set pressure less an allowance: below it the regulator is set low, or the supply is low or not on. */
function belowSet(c: FormulaContext, a: Args): PressureResult {
  const by = q(a.by!);
  const set = wanted(setPressureOf(c), by.unit, 'up');
  return aroundSet(
    c,
    subtract(set, by),
    set,
    `− ${a.by}`,
    'Below it the regulator is set low, or the supply is low or not on.',
  );
}
/** A band around the working pressure that never passes a figure: what is left under gas stays low. */
function nearWorkingMost(c: FormulaContext, a: Args): PressureResult {
  const found = nearWorking({ ...c, unit: null }, a);
  const most = q(a.most!);
  const high =
    compare(wanted(most, found.high.unit, 'down'), found.high) < 0
      ? wanted(most, found.high.unit, 'down')
      : found.high;
  const low =
    compare(found.low, high) > 0
      ? scaled(high, 100 - Number(a.under!), 100, high.scale + 2, 'up')
      : found.low;
  return {
    low: wanted(low, c.unit, 'up'),
    high: wanted(high, c.unit, 'down'),
    working: {
      ...found.working,
      formula: `${found.working.formula}, at most ${a.most}`,
      text: 'About working pressure, and never above what gas may be left at.',
    },
  };
}
/**
 * A level over the slab, never above the opening's rim nor the lowest fixture inside: water above either comes up in the
 * house. Heights are over one datum. @throws FormulaError where the slab's or the rim's height is not known, or no level fits
 */
function drainLevel(c: FormulaContext, a: Args): PressureResult {
  const { slab, rim, fixture } = c.system.heights ?? {};
  if (!slab || !rim)
    throw new FormulaError(
      'The heights of slab and rim are not entered on the system page: without them the drain is not filled.',
    );
  const millimetres = (e: Exact) => Math.floor(convert(toNumber(e), e.unit, 'mm') + 1e-9);
  const over = (e: Exact) => millimetres(e) - millimetres(slab);
  const caps = [
    { name: 'rim of the opening', mm: over(rim) },
    ...(fixture ? [{ name: 'lowest fixture inside', mm: over(fixture) }] : []),
  ];
  const [low, high] = [millimetres(q(a.low!)), millimetres(q(a.high!))];
  const cap = caps.reduce((least, x) => (x.mm < least.mm ? x : least));
  if (cap.mm < low)
    throw new FormulaError(
      `The ${cap.name} lies ${low - cap.mm} mm below the level that this test needs: filling to it would overflow there. Use a standpipe that stays under the lowest fixture inside, or leave that part untested and name it.`,
    );
  const inMm = (mm: number): Exact => ({ digits: mm, scale: 0, unit: 'mm' });
  return {
    low: wanted(inMm(low), c.unit, 'up'),
    high: wanted(inMm(Math.min(high, cap.mm)), c.unit, 'down'),
    working: {
      formula: `${a.low} to the least of ${a.high}, the rim and the lowest fixture, over the slab`,
      inputs: [
        ...caps.map((x) => ({ name: `${x.name}, over the slab`, value: `${x.mm} mm` })),
        ...(fixture
          ? []
          : [{ name: 'lowest fixture inside', value: 'height not entered: somebody watches it' }]),
      ],
      text: 'Never above the rim or the lowest fixture: sewage comes up inside.',
    },
  };
}

/** The pressure at which the regulator's vent opens, as entered on the system page. */
function ventSetting(c: FormulaContext): PressureResult {
  const vent = c.system.ventSetting;
  if (!vent) throw new FormulaError('The vent setting of the regulator is not entered on the system page.');
  return {
    low: wanted(vent, c.unit, 'down'),
    high: wanted(vent, c.unit, 'down'),
    working: {
      formula: 'vent setting of the regulator',
      inputs: [{ name: 'vent setting', value: showExact(vent) }],
      text: 'At this pressure the regulator blows off to open air.',
    },
  };
}

/** Formulas of a pressure that gas and drains brought, by name and version. */
export const GAS_FORMULAS: Readonly<Record<string, Formula>> = {
  'air-test-pressure@1': {
    args: ['factor', 'least', 'mediumFrom', 'mediumLeast', 'over'],
    says: (a) =>
      `${a.factor} × the maximum working pressure, at least ${a.least}; where any part works at ${a.mediumFrom} or more, at least ${a.mediumLeast} over the whole system. Up to ${a.over} % above`,
    pressure: airTestPressure,
  },
  'lowest-plate@1': {
    args: ['unknown', 'under'],
    says: (a) =>
      `at most the lowest maximum inlet pressure on any plate in scope, ${a.unknown} where a plate was not read; down to ${a.under} % below`,
    pressure: lowestPlate,
  },
  'near-working@1': {
    args: ['under', 'over'],
    says: (a) => `working pressure, ${a.under} % below to ${a.over} % above`,
    pressure: nearWorking,
  },
  'share-of-reading@1': {
    args: ['of', 'low', 'high'],
    says: (a) => `${a.low} to ${a.high} % of the ${a.of} reading`,
    pressure: shareOfReading,
  },
  'below-reading@1': {
    args: ['of', 'least', 'most'],
    says: (a) => `${a.least} to ${a.most} below the ${a.of} reading`,
    pressure: belowReading,
  },
  'near-reading@1': {
    args: ['of', 'below', 'above'],
    says: (a) => `the ${a.of} reading, ${a.below} below to ${a.above} above`,
    pressure: nearReading,
  },
  'above-set@1': {
    args: ['by'],
    says: (a) => `regulator set pressure + ${a.by}`,
    pressure: aboveSet,
  },
  'above-set@2': {
    args: ['by'],
    says: (a) => `regulator set pressure, which must be known, + ${a.by}`,
    pressure: aboveKnownSet,
  },
  'below-set@1': {
    args: ['by'],
    says: (a) => `regulator set pressure, which must be known, − ${a.by}`,
    pressure: belowSet,
  },
  'near-working-most@1': {
    args: ['under', 'over', 'most'],
    says: (a) => `working pressure, ${a.under} % below to ${a.over} % above, never more than ${a.most}`,
    pressure: nearWorkingMost,
  },
  'drain-level@1': {
    args: ['low', 'high'],
    says: (a) => `${a.low} to ${a.high} over the slab, never above the rim or the lowest fixture inside`,
    pressure: drainLevel,
  },
  'vent-setting@1': {
    args: [],
    says: () => 'vent setting of the regulator',
    pressure: ventSetting,
  },
};
