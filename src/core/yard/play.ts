/** A scenario conducted by what stands in it: the good example and the typical mistakes, each through the real bench and world. */
import { conduct, type Manner } from '@/core/conduct/conduct';
import { type Hand, native } from '@/core/conduct/hand';
import type { Pack } from '@/core/pack/schema';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import type { Payload, PlacedEvent } from '@/core/run/events';
import { place } from '@/core/run/script';
import { generalVerbs } from '@/core/run/general-verbs';
import { verbOn } from '@/core/run/verbs';
import { verdictOf } from '@/core/verdict/verdict';
import type { Action } from '@/core/simulation/simulation';
import { type Account, accountOf } from './account';
import type { YardAct } from './acts';
import { HandsOn } from './hands-on';
import type { Conduct, Scenario } from './scenario';
import {
  actionsOf,
  due,
  happeningOf,
  type Installations,
  type Occasion,
  planOfScenario,
  type Session,
  worldOfScenario,
} from './session';

export interface Played extends Session {
  /** Where it stood still, and why; null: it came to its end. */ readonly stuck: string | null;
}
/** Conducts a scenario as one of its conducts says. @throws Error where the conduct asks for what cannot be done */
export function play(
  scenario: Scenario,
  how: Conduct,
  pack: Pack,
  installations: Installations,
  on: Occasion,
): Played {
  const plan = planOfScenario(scenario, pack, installations, on);
  const world = worldOfScenario(scenario, plan, 1);
  const acts: YardAct[] = [];
  let hand: Hand | null = null;
  const log = (): PlacedEvent[] => (hand ? place(hand.log) : []);
  const session = (): Session => ({ scenario, plan, world, events: log(), acts });
  /** What came about by now, answered as the conduct says, or as is good. */
  let asking = false;
  let known: { readonly of: string; readonly account: Account } | null = null;
  const between = (at: number): void => {
    if (!scenario.happenings?.length || asking) return;
    asking = true;
    const stands = `${hand?.log.length ?? 0}/${acts.length}`;
    if (known?.of !== stands) known = { of: stands, account: accountOf(plan, log(), acts, at) };
    for (const { id } of due(session(), known.account, at, hands.steps())) {
      acts.push({ kind: 'happened', at, happening: id });
      for (const action of actionsOf({ scenario, plan, world, acts: acts.slice(-1) })) hands.changes(action);
      const answers = happeningOf(scenario, id)?.answers;
      const told = how.tells?.[id] ?? answers?.find((a) => a.good)?.key;
      if (told) acts.push({ kind: 'answered', at, happening: id, answer: told });
      const stop = how.steps?.[`happened:${id}`];
      if (stop && hand) doSteps(hand, stop);
    }
    asking = false;
  };
  const hands = new HandsOn(
    plan,
    world,
    (work, action) => {
      const { at, ...doing } = action as Action & { at: number };
      acts.push({
        kind: 'hand',
        at,
        work: {
          act: work.act,
          ...(work.value === undefined ? {} : { value: work.value }),
          ...(work.id === undefined ? {} : { id: work.id }),
        },
        action: doing,
      } as YardAct);
    },
    between,
    !how.leavesRing,
  );
  const doSteps = (h: Hand, steps: NonNullable<Conduct['steps']>[string]): boolean => {
    let done = false;
    for (const s of steps)
      switch (s.do) {
        case 'hand':
          hands.does(s);
          h.pass(1);
          break;
        case 'entry':
          h.say(filled(h, s.entry as unknown as Payload));
          h.pass(1);
          break;
        case 'wait':
          h.pass(inUnit(s.for, 's'));
          break;
        case 'stop':
          h.say({ kind: 'stop' });
          h.say({ kind: 'stop-reason', reason: s.reason as 'smell', text: s.text ?? '' });
          done = true;
          break;
        case 'done':
          done = true;
      }
    return done;
  };
  const manner: Manner = {
    gauges: plan.gauges.map((g) => g.name),
    random: () => 0.5,
    says: how.says ?? {},
    ...(how.taps ? { reads: () => hands.does({ act: 'tap-gauge' }) } : {}),
    answers: (how.answers ?? {}) as Record<string, 'yes' | 'no'>,
    raises: (stage) => (how.raises?.[stage] ? native(parseWithUnit(how.raises[stage])) : undefined),
    first: (h, stage, tried) => {
      hand = h;
      if (tried !== 1) return false;
      const skip = how.skips?.[stage];
      if (skip !== undefined) {
        h.say({ kind: 'skip', reason: skip, text: 'not needed here' });
        return true;
      }
      return doSteps(h, how.steps?.[stage] ?? []);
    },
  };
  // what is so from the beginning is met at the door
  hands.pass(2);
  const ended = conduct(plan, hands, manner);
  const last = hand as Hand | null;
  if (!last) throw new Error('It did not begin.');
  // what is left after the end: put back, conclude, sign
  if (ended.state.ending && !how.leavesOwed && verdictOf(plan, ended.state))
    for (const payload of [generalVerbs.putback!(verbOn(plan, ended.state, [], last.at, undefined))].flat()) {
      last.pass(2);
      last.say(payload);
    }
  if (how.concludes)
    acts.push({
      kind: 'concluded',
      at: hands.time() + 1000,
      cause: how.concludes.cause,
      place: how.concludes.place ?? '',
      because: '',
    });
  return { ...session(), stuck: ended.stuck };
}
/** An entry with the figure that the gauge shows now, where it says `~`. */
const filled = (h: Hand, entry: Payload): Payload =>
  Object.fromEntries(
    Object.entries(entry).flatMap(([k, v]) =>
      k === 'figure' && v === '~' ? Object.entries(h.figure()) : [[k, v]],
    ),
  ) as unknown as Payload;
const inUnit = (words: string, unit: 's'): number => {
  const e = parseWithUnit(words);
  return convert(toNumber(e), e.unit, unit);
};
