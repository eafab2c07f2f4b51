/** Readings of a fan, and what they come to. What does not fit is refused with what to do; there is always a way on. */
import { flowByFan, type FanRange } from '@/core/instrument/kit';
import type { Plan } from '@/core/plan/plan';
import { exact, type Exact, showExact, subtract } from '@/core/quantity/exact';
import { localDate } from '@/core/quantity/local-date';
import { UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import { onGauge } from '@/core/run/gate';
import { follow, no, type Refusal } from '@/core/run/transition';
import {
  answerOf,
  blankOf,
  countsStill,
  fanVisitOf,
  flowOf,
  isPushed,
  limitOf,
  pairShown,
  pascalOf,
  referenceOf,
  type FanStage,
} from './asked';
import { tooLarge, type Answer } from './judge';
import type { ChosenFan, FanReading, FanState, FanVisit } from './state';

/** Less than this is no pressure that a fan has made, Pa. House figure */
const LEAST_NET = 1;
/** A fan that no duct needs: more is a wrong unit or key, m3/s. House figure */
const MOST_FLOW = 20;
type Entries = 'fan-chosen' | 'fan-off' | 'fan-read' | 'fan-struck' | 'fan-judge' | 'fan-kept' | 'fan-cannot';
const isFlow = (f: Exact | undefined): boolean => f === undefined || UNITS[f.unit].dimension === 'flow';

export const fanFold: Fold<Entries> = {
  'fan-chosen': {
    misfit: (event) =>
      isFlow(event.least) &&
      isFlow(event.greatest) &&
      flowOf(event.least) >= 0 &&
      flowOf(event.greatest) > flowOf(event.least)
        ? null
        : no('unit', 'A range begins and ends with a flow, like 20 CFM to 120 CFM.'),
    apply: (event, on) => choose(on, event),
    words: (event) =>
      `fan ${event.name}, ${event.range}: ${showExact(event.least)} to ${showExact(event.greatest)}`,
  },
  'fan-off': {
    misfit: (event, on) => onGauge(on, event.pressure),
    apply: (event, on) => {
      const visit = here(on);
      if ('code' in visit) return visit;
      if (visit.of === 'hose') return no('wrong-step', 'Own kit closed on itself has no fan-off pressure.');
      visit.off = { pressure: event.pressure, at: on.at };
      return null;
    },
    entered: 'fan off',
    words: (event) => `fan off: ${showExact(event.pressure)}`,
  },
  'fan-read': {
    misfit: (event, on) =>
      onGauge(on, event.figure) ??
      (isFlow(event.flow)
        ? event.atFan && UNITS[event.atFan.unit].dimension !== 'pressure'
          ? no('unit', 'What the gauge at the fan shows is a pressure, like 180 Pa.')
          : null
        : no('unit', 'The fan shows a flow, like 48 CFM or 22 l/s.')),
    apply: (event, on) => read(on, event),
    entered: 'ducts',
    words: (event) =>
      `${showExact(event.figure)} with ${event.flow ? showExact(event.flow) : event.atFan ? `${showExact(event.atFan)} at the fan` : 'the flow below its range'}`,
  },
  'fan-struck': {
    apply: (event, on) => strike(on, event),
    words: (event) => `a reading is not counted: ${event.reason}`,
    said: () => true,
  },
  'fan-judge': {
    transition: true,
    sign: () => true,
    apply: (_, on) => judge(on),
    words: () => 'what was read is judged',
  },
  'fan-kept': {
    transition: true,
    apply: (_, on) => keep(on),
    words: () => 'own kit: its dated test is taken',
  },
  'fan-cannot': {
    transition: true,
    apply: (event, on) => cannot(on, event),
    words: (event) =>
      `${event.what === 'second' ? 'no second pressure' : 'no reading'} can be had: ${event.why}`,
    said: () => true,
  },
};

/** The open passage through this stage. */
function here({ state, stage, visit }: OnStage): FanVisit | Refusal {
  if (stage.kind !== 'fan') return no('wrong-step', 'No fan is read in this step.');
  const open = fanVisitOf(state.rooms.fan, visit.ordinal);
  if (open) return open;
  const made: FanVisit = { visit: visit.ordinal, of: stage.of, title: stage.title, readings: [] };
  state.rooms.fan.visits.push(made);
  return made;
}
const isRefusal = (x: FanVisit | Refusal): x is Refusal => 'code' in x;

function choose(on: OnStage, event: EventOf<'fan-chosen'>): Refusal | null {
  const { plan, state, stage } = on;
  if (stage.kind !== 'fan') return no('wrong-step', 'No fan is chosen in this step.');
  if (!event.kit) {
    const { name, range, least, greatest } = event;
    state.rooms.fan.chosen = { name, range: { name: range, least, greatest }, accuracy: null };
    return null;
  }
  // of the cabinet what its own sheet says counts, whatever was sent
  const kit = plan.ownKit?.find((k) => k.id === event.kit && k.kind === 'fan');
  const range = kit?.ranges?.find((r) => r.name === event.range);
  if (!kit || !range) return no('unknown', 'That fan, or that range of it, is not in the cabinet.');
  state.rooms.fan.chosen = {
    kit: kit.id,
    name: `${kit.name}${kit.serial ? `, ${kit.serial}` : ''}`,
    range,
    accuracy: kit.accuracy ? kit.accuracy.digits / 10 ** kit.accuracy.scale : null,
  };
  return null;
}

/** The flow of a reading in the unit of its range; a refusal where it cannot be one; null: below the range. */
function flowRead(range: FanRange, event: EventOf<'fan-read'>): Exact | null | Refusal {
  if (event.below) return null;
  const unit = range.least.unit;
  let flow = event.flow;
  if (!flow && event.atFan) {
    const by = flowByFan(range, pascalOf(event.atFan));
    if (by === null)
      return no(
        'sheet',
        `The sheet of ${range.name} gives no k and m: read the flow itself, or enter both in the cabinet.`,
      );
    flow = exact(Math.round(by * 100), 2, unit);
  }
  if (!flow) return no('flow', 'Type the flow, or what the gauge at the fan shows, or press Below range.');
  if (flow.digits < 0 || flowOf(flow) > MOST_FLOW)
    return no('range', `${showExact(flow)} is no flow of a duct fan. Check the figure and its unit.`);
  const off = (bound: Exact) => flowOf(flow) - flowOf(bound);
  if (off(range.least) < -1e-12)
    return no(
      'below-range',
      `${showExact(flow)} is below ${range.name} (from ${showExact(range.least)}): that is no reading. Press Below range, or take a smaller range.`,
    );
  if (off(range.greatest) > 1e-12)
    return no(
      'above-range',
      `${showExact(flow)} is above ${range.name} (to ${showExact(range.greatest)}). Take a larger range.`,
    );
  return flow;
}
function read(on: OnStage, event: EventOf<'fan-read'>): Refusal | null {
  const { plan, state, stage, at } = on;
  const visit = here(on);
  if (isRefusal(visit)) return visit;
  const rule = stage as FanStage;
  const { chosen } = state.rooms.fan;
  if (!chosen) return no('fan', 'Choose the fan and its range first.');
  if (rule.of === 'system' && !visit.off)
    return no('off', 'Read the gauge with the fan off first: what wind and stack make is taken out.');
  const off = visit.off?.pressure ?? null;
  const net = pascalOf(off ? subtract(event.figure, off) : event.figure);
  const pushed = rule.of === 'hose' || isPushed(plan, rule);
  if ((pushed ? net : -net) < LEAST_NET)
    return no(
      'direction',
      pushed
        ? `Air is pushed in: the gauge must stand above ${off ? showExact(off) : 'zero'} by 1 Pa at least. Look at fan, hose and probe.`
        : `Air is drawn out: the gauge must stand below ${off ? showExact(off) : 'zero'} by 1 Pa at least. Look at fan, hose and probe.`,
    );
  const flow = flowRead(chosen.range, event);
  if (flow && 'code' in flow) return flow;
  visit.readings.push({
    id: event.id,
    at,
    byName: event.byName,
    shown: event.figure,
    figure: flow,
    ...(event.atFan ? { atFan: event.atFan } : {}),
    fan: chosen,
    off,
    streamed: event.streamed === true,
    net: Math.abs(net),
    flow: flow && flowOf(flow),
    least: flowOf(chosen.range.least),
    range: `${chosen.name}/${chosen.range.name}`,
    u: uncertainty(chosen, rule),
  });
  return null;
}
/** One standard deviation, of the flow. */
const uncertainty = (chosen: ChosenFan, stage: FanStage): number =>
  (chosen.accuracy ?? stage.accuracy) / 100 / 1.96;

function strike(on: OnStage, event: EventOf<'fan-struck'>): Refusal | null {
  const visit = here(on);
  if (isRefusal(visit)) return visit;
  const reading = visit.readings.find((r) => r.id === event.reading && !r.struck);
  if (!reading) return no('unknown', 'There is no such reading in this step.');
  reading.struck = { reason: event.reason, byName: event.byName, at: on.at };
  return null;
}

const NEXT = {
  read: 'Read pressure and flow first.',
  range:
    'Below the range says only “less than”, and that is more than the limit. Take a smaller range, or raise the pressure.',
  half: 'Above the limit. Before that is judged: a second reading at half the pressure, in the same range.',
} as const;
/** Why nothing can be judged yet, in a sentence; '' where it can. */
export const notYet = (answer: Answer | null): string =>
  answer === null
    ? 'The test pressure is not known: a fact it follows from is missing.'
    : 'next' in answer
      ? NEXT[answer.next]
      : '';

function judge(on: OnStage): Refusal | null {
  const { plan, state, stage, at } = on;
  const visit = here(on);
  if (isRefusal(visit)) return visit;
  const rule = stage as FanStage;
  const answer = answerOf(plan, state, rule, visit.visit);
  if (!answer || 'next' in answer) return no('not-yet', notYet(answer));
  return end(on, visit, answer.outcome, answer.at, at);
}
function end(
  { plan, state, stage }: OnStage,
  visit: FanVisit,
  outcome: string,
  found: NonNullable<FanVisit['result']>['at'],
  at: number,
): null {
  const rule = stage as FanStage;
  const reference = referenceOf(plan, rule)!;
  visit.result = {
    outcome,
    at: found,
    limit: limitOf(plan, rule),
    blank: rule.of === 'system' ? blankOf(plan, state, rule, reference) : null,
    reference,
    judgedAt: at,
  };
  const tested = testOfHose(visit);
  if (tested)
    state.rooms.fan.blank = {
      kit: tested.kit,
      ...tested.test,
      from: 'here',
      on: localDate(at, plan.made.zone),
    };
  follow(plan, state, outcome, at);
  return null;
}
/** What own kit was found to pass when it was tested by itself: as read, at the pressure it was read at; null where nothing was read. */
export function testOfHose(visit: FanVisit): {
  readonly kit: string;
  readonly test: { readonly flow: Exact; readonly pressure: Exact; readonly below: boolean };
} | null {
  const at = visit.of === 'hose' ? visit.result?.at : null;
  if (!at) return null;
  const from = at.from as FanReading;
  return {
    kit: from.fan.kit ?? '',
    test: {
      flow: from.figure ?? from.fan.range.least,
      pressure: exact(Math.round(from.net * 10), 1, 'Pa'),
      below: from.figure === null,
    },
  };
}
function keep(on: OnStage): Refusal | null {
  const { plan, state, stage, at } = on;
  const visit = here(on);
  if (isRefusal(visit)) return visit;
  const rule = stage as FanStage;
  if (rule.of !== 'hose') return no('wrong-step', 'Nothing dated is taken in this step.');
  const kit = plan.ownKit?.find((k) => k.id === state.rooms.fan.chosen?.kit);
  if (!countsStill(kit, rule))
    return no(
      'old',
      `This fan has no test of its hose of the last ${rule.ownKit.lasts} days. Close it on itself now: it takes two minutes.`,
    );
  const reference = referenceOf(plan, rule);
  if (reference === null) return no('not-yet', notYet(null));
  const { on: day, pressure, flow, below } = kit.through;
  state.rooms.fan.blank = { kit: kit.id, flow, pressure, below, from: 'dated', on: day };
  const blank = blankOf(plan, state, rule, reference)!;
  const large = tooLarge(blank, limitOf(plan, rule), rule.ownKit.share);
  return end(on, visit, large ? 'large' : 'measured', null, at);
}
function cannot(on: OnStage, event: EventOf<'fan-cannot'>): Refusal | null {
  const { plan, state, stage, at } = on;
  const visit = here(on);
  if (isRefusal(visit)) return visit;
  const rule = stage as FanStage;
  if (event.what === 'second') {
    const answer = answerOf(plan, state, rule, visit.visit);
    if (!answer || !('next' in answer) || answer.next !== 'half')
      return no('not-asked', 'No second pressure is asked for here.');
    visit.noSecond = event.why;
    return judge(on);
  }
  const answer = rule.of === 'system' ? answerOf(plan, state, rule, visit.visit) : null;
  if (answer && 'outcome' in answer) return no('read', 'What was read can be judged: press Judge.');
  visit.cannot = event.why;
  return end(on, visit, 'none', answer?.at ?? null, at);
}

const WORDS: Readonly<Record<string, string>> = {
  within: 'within its limit',
  unresolved: 'own kit could be it',
  beyond: 'beyond its limit',
  void: 'no opening behaves so',
  doubtful: 'exponent doubtful',
  blank: 'own kit not tested',
  unchecked: 'no second pressure',
  unsure: 'pressure not reached',
  none: 'not read',
  'no-limit': 'no limit here',
  measured: 'measured',
  large: 'own kit passes too much',
};
export const fanCourse: Course = (visit) => ({ word: WORDS[visit.outcome ?? ''] ?? 'open', text: '' });
/** One reading as it stands on a record. */
export const readingWords = (r: FanReading, rooms: FanState): string => {
  const net = r.net.toFixed(1);
  const flow = r.figure ? showExact(r.figure) : `below the range (less than ${showExact(r.fan.range.least)})`;
  const by = r.atFan ? ` by ${showExact(r.atFan)} at the fan` : '';
  return `${net} Pa (shown ${showExact(r.shown)}): ${flow}${by}, ${r.fan.range.name}${pairShown(rooms, r) ? ', both sent by the gauge' : ''}${r.struck ? `; not counted: ${r.struck.reason}` : ''}`;
};
/** Whether this plan passes a fan stage at all. */
export const usesFan = (plan: Plan): boolean =>
  Object.values(plan.procedure.stages).some((s) => s.kind === 'fan');
