/**
 * What a practice run is worth: what was done against what the scenario asked, where it went wrong, and whether a right result was
 * proved or lucky. Pure: the same log gives the same words.
 */
import { WORDS } from '@/core/verdict/words';
import type { VerdictWord } from '@/core/verdict/words';
import { type Account } from './account';
import { type About, CAUSES, type Cause, type End } from './words';
import { answerOf } from './condition';
import type { Criterion, Scenario } from './scenario';
import { accountOfSession, happeningOf, type Session } from './session';

export interface Line {
  readonly id: string;
  readonly about: About;
  readonly text: string;
  readonly why: string;
  readonly met: boolean;
  /** When it was decided, ms; null where nothing decided it. */ readonly at: number | null;
}
export interface Grade {
  readonly end: End;
  readonly lines: readonly Line[];
  readonly result: VerdictWord | null;
  /** The first moment at which something asked was missed, ms. */ readonly wentWrong: number | null;
  /** What was dangerous, and what would have happened. */
  readonly danger: { readonly at: number; readonly text: string } | null;
  /** From the beginning to the end, min. */ readonly minutes: number;
}
/** Criteria of a scenario, those of the common rubric among them. @throws RangeError for a name the rubric does not have */
export const criteriaOf = (scenario: Scenario, rubric: readonly Criterion[]): Criterion[] =>
  scenario.criteria.map((c) => {
    const found = typeof c === 'string' ? rubric.find((r) => r.id === c) : c;
    if (!found) throw new RangeError(`No criterion is called ${typeof c === 'string' ? c : c.id}.`);
    return found;
  });

/** It was given up, and nobody knew why: what stands there then is no result of theirs. */
const leftWithout = ({ truth }: Scenario, { state, cause }: Account): boolean =>
  state.ending?.by === 'stop' &&
  (state.ending.reason === undefined || GIVEN_UP.includes(state.ending.reason)) &&
  (cause === null || !truth.cause.includes(cause as Cause));
const GIVEN_UP: readonly string[] = ['abandoned', 'mistake'];
function linesOf(scenario: Scenario, rubric: readonly Criterion[], account: Account): Line[] {
  const { truth } = scenario;
  const asked = criteriaOf(scenario, rubric).flatMap((c): Line[] => {
    if (c.only && !answerOf(account, c.only).met) return [];
    const { met, at } = answerOf(account, c.must);
    return [{ id: c.id, about: c.about as About, text: c.text, why: c.why, met, at }];
  });
  const word = truth.result.map((w) => WORDS[w]).join(' or ');
  const concluded = account.told.filter((t) => t.act?.kind === 'concluded').at(-1)?.at ?? null;
  const lines: Line[] = [
    {
      id: 'result',
      about: 'verdict',
      text: `The result is ${word}`,
      why: truth.tells,
      met:
        account.result !== null && truth.result.includes(account.result) && !leftWithout(scenario, account),
      at: account.ended,
    },
    {
      id: 'cause',
      about: 'cause',
      text: `Named: ${truth.cause.map((c) => CAUSES[c]).join(', or ')}`,
      why: truth.tells,
      met: account.cause !== null && truth.cause.includes(account.cause as Cause),
      at: concluded,
    },
  ];
  if (truth.place?.length)
    lines.push({
      id: 'place',
      about: 'place',
      text: 'The place is named',
      why: truth.tells,
      met: account.place !== null && truth.place.includes(account.place),
      at: concluded,
    });
  return [...asked, ...lines];
}
/** What was dangerous so far: the first thing, and what would have happened. @param rubric the common criteria */
export function dangerOf(
  scenario: Scenario,
  rubric: readonly Criterion[],
  account: Account,
): Grade['danger'] {
  const found = criteriaOf(scenario, rubric).flatMap((c) => {
    if (!c.danger || (c.only && !answerOf(account, c.only).met)) return [];
    const { met, at } = answerOf(account, c.must);
    return !met && at !== null ? [{ at, text: c.danger }] : [];
  });
  for (const { act, at } of account.told) {
    if (act?.kind !== 'answered') continue;
    const answer = happeningOf(scenario, act.happening)?.answers?.find((a) => a.key === act.answer);
    if (answer?.danger) found.push({ at, text: answer.danger });
  }
  return found.sort((a, b) => a.at - b.at)[0] ?? null;
}
/** @param until ms up to which it is graded: its end, or now */
export function grade(session: Session, rubric: readonly Criterion[], until: number): Grade {
  const { scenario } = session;
  const account = accountOfSession(session, until);
  const lines = linesOf(scenario, rubric, account);
  const danger = dangerOf(scenario, rubric, account);
  const missed = lines.filter((l) => !l.met);
  const moments = missed.flatMap((l) => (l.at === null ? [] : [l.at]));
  const met = (id: string) => lines.find((l) => l.id === id)?.met ?? false;
  const proved = scenario.proof.every((id) => met(id) || !lines.some((l) => l.id === id));
  const end: End = danger
    ? 'dangerous'
    : account.result === null || leftWithout(scenario, account)
      ? 'unfinished'
      : !met('result')
        ? 'wrong'
        : !proved
          ? 'lucky'
          : missed.length
            ? 'right'
            : 'mastered';
  return {
    end,
    lines,
    result: account.result,
    wentWrong: danger?.at ?? (moments.length ? Math.min(...moments) : null),
    danger,
    minutes: ((account.told.at(-1)?.at ?? until) - Date.parse(session.plan.made.at)) / 60_000,
  };
}
