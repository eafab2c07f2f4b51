/** Events of what was found beside the pressure: joints, volume, meter dial, inventory. */
import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { dialFlow, volumeOfFall } from '@/core/medium/leak';
import { known } from '@/core/formula';
import { compare, exact, subtract, toNumber, type Exact } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import type { RunEvent } from './events';
import { mark } from './apply-hold';
import { clockPoint, clockWords, elapsedBetween } from './clock';
import { minutesFor } from './hold-spec';
import { gaugeOf } from './read';
import type { RunState, Visit } from './state';
import { follow, no, type Refusal } from './transition';

type Of<K extends RunEvent['kind']> = Extract<RunEvent, { kind: K }>;
const dimension = (figure: Exact) => UNITS[figure.unit].dimension;

export function addJoint(state: RunState, event: Of<'joint'>): Refusal | null {
  if (state.joints.some((j) => j.id === event.joint))
    return no('overtaken', 'This joint is already in the list.');
  if (state.joints.length >= 200)
    return no('too-many', 'The list is full: group joints that stand together.');
  state.joints.push({
    id: event.joint,
    name: event.name,
    place: event.place,
    ...(event.whose ? { whose: event.whose } : {}),
    looks: [],
  });
  return null;
}

/** Leak fluid on a joint. Growing bubbles are a leak, whatever a gauge says: a joints stage ends with them. */
/** @param during the stage it was looked at in; absent after the test */
export function lookAtJoint(
  state: RunState,
  event: Of<'joint-look'>,
  at: number,
  during?: { readonly plan: Plan; readonly visit: Visit; readonly stage: Stage },
): Refusal | null {
  const joint = state.joints.find((j) => j.id === event.joint);
  if (!joint) return no('unknown-joint', 'Add the joint to the list first.');
  if (event.found === 'growing' && !event.size)
    return no('size', 'Say how large the bubbles grow: pinhead, pea, or larger.');
  joint.looks.push({
    found: event.found,
    ...(event.size ? { size: event.size } : {}),
    at,
    byName: event.byName,
  });
  if (event.found === 'growing' && during?.stage.kind === 'joints') {
    during.visit.split = `${joint.name} bubbles`;
    follow(during.plan, state, 'bubbles', at);
  }
  return null;
}

/** The newest entry of a thing takes the place of the one before; both stay in the log. */
export function keepInventory(state: RunState, event: Of<'inventory'>, at: number): Refusal | null {
  if (!event.item.name.trim()) return no('name', 'Say what it is.');
  state.inventory = [
    ...state.inventory.filter((i) => i.id !== event.item.id),
    { ...event.item, at, byName: event.byName },
  ];
  return null;
}

/**
 * Volume by metered draw with the supply shut: V = V_drawn x P_atm / (p_before - p_after). Source: general gas
 * law in a closed section. Its uncertainty: the two readings (r/sqrt 6 each, 95 %) and 1 % of the meter (house figure).
 */
function volumeByDraw(
  drawn: Exact,
  before: Exact,
  after: Exact,
  resolution: Exact,
): { figure: Figure; uncertainty: number } {
  const fall = convert(toNumber(before) - toNumber(after), before.unit, 'Pa');
  const litres = convert(toNumber(drawn), drawn.unit, 'l');
  const value = volumeOfFall(litres / 1000, fall);
  const step = convert(toNumber(resolution), resolution.unit, 'Pa');
  const uncertainty = Math.hypot((1.96 * step) / Math.sqrt(6) / fall, 0.01);
  return {
    uncertainty,
    figure: {
      name: 'volume of the section, by metered draw',
      value,
      unit: 'm3',
      decimals: Math.max(4, decimalsFor(value)),
      formula: 'V = V_drawn × P_atm / (p_before − p_after)',
      inputs: [
        { name: 'V_drawn, by the meter', value: `${litres} l` },
        { name: 'p_before', value: `${toNumber(before)} ${unitLabel(before.unit)}` },
        { name: 'p_after', value: `${toNumber(after)} ${unitLabel(after.unit)}` },
        { name: 'P_atm', value: '1013.25 mbar' },
        { name: 'uncertainty, 95 %', value: `± ${(uncertainty * 100).toFixed(1)} %` },
      ],
      source: 'Metered draw with the supply shut. 1 % of the meter: house figure',
    },
  };
}

export function measureVolume(
  plan: Plan,
  state: RunState,
  stage: Stage,
  event: Of<'volume'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'volume') return no('wrong-step', 'The volume is not asked for here.');
  if (!event.drawn && !event.before && !event.after) {
    state.volume = null;
    follow(plan, state, 'known', at);
    return null;
  }
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose and zero the gauge first.');
  const { drawn, before, after } = event;
  if (!drawn || !before || !after)
    return no('incomplete', 'Enter all three: drawn volume, pressure before, pressure after.');
  if (dimension(drawn) !== 'volume') return no('unit', 'The drawn quantity is a volume, in l or ft³.');
  if (before.unit !== after.unit || dimension(before) !== 'pressure')
    return no('unit', 'Both pressures are read on the same gauge.');
  if (drawn.digits <= 0) return no('drawn', 'Draw some gas through the meter first.');
  const fall = subtract(before, after);
  if (compare(fall, exact(gauge.resolution.digits * 10, gauge.resolution.scale, fall.unit)) < 0)
    return no(
      'small-fall',
      `The pressure fell too little to measure a volume by it. Draw more: at least ten steps of the gauge (${10 * toNumber(gauge.resolution)} ${unitLabel(gauge.resolution.unit)}).`,
    );
  state.volume = volumeByDraw(drawn, before, after, gauge.resolution);
  follow(plan, state, 'known', at);
  return null;
}

export function startDial(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Of<'dial-start'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'dial' || stage.role !== 'leak') return no('wrong-step', 'No dial is watched here.');
  if (visit.dial) return no('overtaken', 'The dial is already being watched.');
  const found = known(() => minutesFor(plan, state, stage.part, stage.minutes, stage.minutesSource, false));
  if ('missing' in found) return no('missing', found.missing);
  const { planned, rule } = found.value;
  visit.dial = { mark: event.mark, startedAt: at, clock: clockPoint(event), minutes: planned, rule };
  return null;
}

/** Leak rate by the meter's dial: part of a turn x volume per turn / time. Source: a meter dial as a flow meter */
function dialRate(turns: Exact, perTurn: Exact, ms: number): Figure {
  const value = dialFlow(toNumber(turns), convert(toNumber(perTurn), perTurn.unit, 'l'), ms);
  return {
    name: 'flow by the meter dial',
    value,
    unit: 'l/h',
    decimals: Math.max(2, decimalsFor(value)),
    formula: 'Q = part of a turn × volume per turn / time',
    inputs: [
      { name: 'part of a turn', value: `${toNumber(turns)}` },
      { name: 'volume per turn', value: `${toNumber(perTurn)} ${unitLabel(perTurn.unit)}` },
      { name: 'time', value: `${(ms / 1000).toFixed(0)} s` },
    ],
    source: 'Meter dial as a flow meter',
  };
}

export function endDial(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Of<'dial-end'>,
  at: number,
): Refusal | null {
  const dial = visit.dial;
  if (stage.kind !== 'dial' || !dial) return no('no-dial', 'Mark the dial first.');
  const { ms: elapsed, apart } = elapsedBetween(dial.clock, clockPoint(event));
  if (!event.moved) {
    const toGo = dial.rule * 60000 - elapsed;
    if (toGo > 0)
      return no(
        'too-early',
        `${Math.ceil(toGo / 60000)} min too early: a slow leak moves the dial late. Movement can be said at any time.`,
      );
    if (elapsed < dial.minutes * 60000 && !event.short)
      return no(
        'shortened',
        'The rule’s least time has passed, the planned time has not. Wait, or say why it is ended now.',
      );
    if (event.short) dial.short = event.short;
  } else if (!event.turns || event.turns.unit !== '1' || event.turns.digits <= 0)
    return no('turns', 'Say what part of a turn the dial moved, like 0.1.');
  if (apart) mark(state, clockWords(apart));
  dial.endedAt = at;
  dial.watched = elapsed;
  dial.moved = event.moved;
  if (event.direction) dial.direction = event.direction;
  if (event.turns && event.moved) {
    dial.turns = event.turns;
    const perTurn = plan.system.meter.testDial;
    if (perTurn && elapsed > 0) dial.rate = dialRate(event.turns, perTurn, elapsed);
  }
  follow(plan, state, event.moved ? 'moved' : 'still', at);
  return null;
}

/** What an appliance takes: flow by the dial, times the heating value where it is known. */
export function dialInput(plan: Plan, visit: Visit, stage: Stage, event: Of<'dial-input'>): Refusal | null {
  if (stage.kind !== 'dial' || stage.role !== 'input') return no('wrong-step', 'No input is measured here.');
  const perTurn = plan.system.meter.testDial;
  if (!perTurn) return no('missing', 'Enter the volume of one turn of the test dial on the system page.');
  if (!plan.system.appliances.some((a) => a.id === event.appliance))
    return no('unknown-appliance', 'This appliance is not in the system.');
  if (event.turns.unit !== '1' || event.turns.digits <= 0)
    return no('turns', 'Type the number of turns, like 1.');
  if (event.seconds.unit !== 's' || event.seconds.digits <= 0)
    return no('seconds', 'Type the time in seconds, like 42.');
  const flow = dialRate(event.turns, perTurn, toNumber(event.seconds) * 1000);
  const heating = plan.system.heatingValue;
  let input: Figure | null = null;
  if (heating) {
    const watts = convert(flow.value, 'l/h', 'm3/s') * convert(toNumber(heating), heating.unit, 'J/m3');
    input = {
      name: 'heat input by the dial',
      value: watts / 1000,
      unit: 'kW',
      decimals: 2,
      formula: 'input = flow × heating value',
      inputs: [
        ...flow.inputs,
        { name: 'heating value', value: `${toNumber(heating)} ${unitLabel(heating.unit)}` },
      ],
      source: flow.source,
    };
  }
  visit.inputs.push({ appliance: event.appliance, turns: event.turns, seconds: event.seconds, flow, input });
  return null;
}
