/** A practice run while it runs, as the one who practises may see it: what came about, what is asked, what may be passed; never what is hidden. */
import { waitOf } from '@/core/run/waits';
import { runningHold } from '@/core/run/read';
import { partName } from '@/core/network/network';
import { networkOf } from '@/core/network/enter';
import { ruleOfPart } from '@/core/network/catalogue';
import { accountOf } from './account';
import type { YardAct } from './acts';
import { answerOf } from './condition';
import { criteriaOf, dangerOf } from './grade';
import type { Criterion } from './scenario';
import { accountOfSession, due, happeningOf, momentsOf, type Session } from './session';
import type { Way } from './words';

export interface Live {
  readonly title: string;
  readonly briefing: string;
  readonly minutes: number;
  readonly happened: readonly {
    readonly id: string;
    readonly at: number;
    readonly who: string;
    readonly says: string;
    readonly answers: readonly { readonly key: string; readonly text: string }[];
    /** What was answered, and what came of it. */
    readonly answered: { readonly key: string; readonly then: string } | null;
  }[];
  readonly notes: readonly { readonly at: number; readonly by: string; readonly text: string }[];
  readonly halted: { readonly why: string; readonly danger: boolean } | null;
  /** The bench has come to its end: what it was is asked. */ readonly ended: boolean;
  readonly concluded: boolean;
  /** How much had been entered and done: of two answers the one that knows less is the older. */
  readonly kept: number;
  /** The one who trains has stopped the hands, and the clock: the moment it stands at. */
  readonly stands: number | null;
  /** Time that nothing is asked in, ms; 0: none. */ readonly mayPass: number;
  /** How far its line is ahead of the clock, ms. */ readonly passed: number;
  /** What is asked of this conduct, with its reason: for whoever is guided. */
  readonly guide: readonly {
    readonly id: string;
    readonly text: string;
    readonly why: string;
    readonly met: boolean;
  }[];
  /** Where a person can say that it was: parts and pipes of the drawing. */
  readonly places: readonly { readonly id: string; readonly name: string }[];
}
/** How far the line of a run is ahead of the clock, ms: time passed at once, less the time in which it stood. */
export const passedIn = (acts: Session['acts']): number =>
  acts.reduce((sum, a) => sum + (a.kind === 'passed' ? a.ms : 0), 0);
/** The moment at which the one who trains has stopped the clock of it; null: it goes. */
export function standsAt(acts: Session['acts']): number | null {
  const last = [...acts].reverse().find((a) => a.kind === 'paused');
  return last?.kind === 'paused' && last.paused ? last.at : null;
}
/** The present moment on the line of a run. @param now ms by the clock */
export const lineOf = (acts: Session['acts'], now: number): number => standsAt(acts) ?? now + passedIn(acts);
/** Lets the clock go on: what it stood it is behind from now on. @param now ms by the clock; nothing where it goes already */
export function goesOn(acts: Session['acts'], now: number): YardAct[] {
  const at = standsAt(acts);
  if (at === null) return [];
  const stood = Math.round(now + passedIn(acts) - at);
  return [
    { kind: 'paused', at, paused: false },
    { kind: 'passed', at, ms: -stood },
  ];
}
/** Before the end of a wait a person is back, ms. House figure. */
const BACK = 8_000;
/** Less is not worth it. */
const LEAST = 15_000;

/** @param at ms on the line of the run */
export function liveOf(s: Session, rubric: readonly Criterion[], at: number, way: Way = 'free'): Live {
  const account = accountOf(s.plan, s.events, s.acts, at);
  const halted = [...s.acts].reverse().find((a) => a.kind === 'halted');
  const stands = standsAt(s.acts);
  const danger = halted ? null : dangerOf(s.scenario, rubric, account);
  const network = networkOf(s.plan.system);
  return {
    title: way === 'exam' ? 'exam' : s.scenario.title,
    briefing: s.scenario.briefing,
    minutes: s.scenario.minutes,
    happened: s.acts.flatMap((a) => {
      const h = a.kind === 'happened' ? happeningOf(s.scenario, a.happening) : undefined;
      if (!h) return [];
      const said = s.acts.find((x) => x.kind === 'answered' && x.happening === h.id);
      const key = said?.kind === 'answered' ? said.answer : null;
      return [
        {
          id: h.id,
          at: a.at,
          who: h.who ?? '',
          says: h.says,
          answers: (h.answers ?? []).map(({ key: k, text }) => ({ key: k, text })),
          answered: key === null ? null : { key, then: h.answers?.find((x) => x.key === key)?.then ?? '' },
        },
      ];
    }),
    notes: s.acts.flatMap((a) => (a.kind === 'note' ? [{ at: a.at, by: a.by, text: a.text }] : [])),
    halted:
      halted?.kind === 'halted'
        ? { why: halted.why, danger: halted.danger }
        : danger
          ? { why: danger.text, danger: true }
          : null,
    ended: account.ended !== null,
    concluded: account.cause !== null,
    kept: s.events.length + s.acts.length,
    stands,
    mayPass: halted || danger || stands !== null ? 0 : mayPass(s, account, at),
    passed: passedIn(s.acts),
    guide: way === 'guided' ? guideOf(s, rubric, at) : [],
    places: [
      ...network.parts
        .filter((p) => !ruleOfPart(p.kind).nameless && !ruleOfPart(p.kind).reads)
        .map((p) => ({ id: p.id, name: partName(p) })),
      ...network.links.flatMap((l) => (l.pipe ? [{ id: l.pipe.id, name: l.pipe.name }] : [])),
    ],
  };
}
/** What is asked, and whether it was done so far; the result and its cause are not told. */
const guideOf = (s: Session, rubric: readonly Criterion[], at: number): Live['guide'] => {
  const account = accountOfSession(s, at);
  return criteriaOf(s.scenario, rubric)
    .filter((c) => !c.only || answerOf(account, c.only).met)
    .map((c) => ({ id: c.id, text: c.text, why: c.why, met: answerOf(account, c.must).met }));
};
/** Until shortly before the wait ends, or something comes about. */
function mayPass(s: Session, account: ReturnType<typeof accountOf>, at: number): number {
  const wait = waitOf(s.plan, account.state);
  if (!wait || due(s, account, at).length) return 0;
  const next = momentsOf(s, account).filter((m) => m > at);
  const until = Math.min(wait.ends - (runningHold(account.state) ? BACK : 0), ...next);
  return until - at >= LEAST ? Math.round(until - at) : 0;
}
