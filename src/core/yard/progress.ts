/**
 * What a person has met and mastered, by trade and trap, and what is due again: folded from their results alone. When a trap is due
 * follows from how well it is remembered (free spaced repetition scheduler, by the package ts-fsrs, without chance).
 */
import { among, maybe, number, object, type Of, text, yesNo } from '@/core/grammar/schema';
import { oneOf } from '@/core/grammar/one-of';
import { createEmptyCard, fsrs, type Card, Rating } from 'ts-fsrs';
import * as yup from 'yup';
import { ENDS, type End, TRAPS, type Trap, WAYS } from './words';

const traps = yup
  .array()
  .of(among(Object.keys(TRAPS)))
  .strict(true)
  .required();
const results = {
  scenario: object({
    run: text(40),
    scenario: text(60),
    title: text(80),
    trade: text(40),
    traps,
    way: among(Object.keys(WAYS)),
    end: among(Object.keys(ENDS)),
    minutes: number(),
    missed: yup.array().of(text(60)).strict(true).required(),
    task: maybe(),
  }),
  /** A short question: a verdict with its reason, a trace, arithmetic. */
  question: object({
    about: among(['verdict', 'trace', 'figure']),
    question: text(80),
    trade: text(40),
    traps,
    right: yesNo(),
    /** How the analysis did beside: it may have said that it cannot tell. */ beside: maybe().oneOf([
      'right',
      'wrong',
      'open',
      undefined,
    ]),
  }),
};
export const resultSchema = oneOf('kind', results);
export type ResultBody = {
  [K in keyof typeof results]: Of<(typeof results)[K]> & { readonly kind: K };
}[keyof typeof results];
export interface Result {
  readonly at: number;
  readonly body: ResultBody;
}

export interface TrapProgress {
  readonly trap: Trap;
  readonly met: number;
  /** Its last scenario ended without a gap, from its beginning, and nobody guided. */ readonly mastered: boolean;
  readonly last: End | null;
  /** When it should be met again, ms; null: never met. */ readonly due: number | null;
}
const scheduler = fsrs({ enable_fuzz: false });
const MS_DAY = 86_400_000;
/** Ways in which all of it was one's own: guided, or taken up half way, shows that a trap was met, no more. */
const ALONE: readonly string[] = ['free', 'exam'];
/** How well it was remembered. */
function ratingOf(body: ResultBody): Rating.Again | Rating.Hard | Rating.Good | null {
  if (body.kind === 'question') return body.right ? Rating.Good : Rating.Again;
  if (body.end === 'unfinished') return null;
  if (body.end === 'mastered') return ALONE.includes(body.way) ? Rating.Good : Rating.Hard;
  return body.end === 'right' ? Rating.Hard : Rating.Again;
}
/** Progress by trap, in the order of the traps. @param results of one person, in any order */
export function progressOf(results: readonly Result[]): TrapProgress[] {
  const inOrder = [...results].sort((a, b) => a.at - b.at);
  return (Object.keys(TRAPS) as Trap[]).map((trap) => {
    let card: Card | null = null;
    let met = 0;
    let last: End | null = null;
    let mastered = false;
    for (const { at, body } of inOrder) {
      if (!body.traps.includes(trap)) continue;
      met += 1;
      const rating = ratingOf(body);
      if (rating !== null)
        card = scheduler.next(card ?? createEmptyCard(new Date(at)), new Date(at), rating).card;
      if (body.kind === 'scenario') {
        last = body.end as End;
        mastered = body.end === 'mastered' && ALONE.includes(body.way);
      } else if (!body.right) mastered = false;
    }
    return { trap, met, mastered, last, due: card ? card.due.getTime() : null };
  });
}
/** Traps that are due, the longest first; then those never met. @param at ms */
export function dueNow(progress: readonly TrapProgress[], at: number): Trap[] {
  const due = progress.filter((p) => p.due !== null && p.due <= at).sort((a, b) => a.due! - b.due!);
  return [...due, ...progress.filter((p) => p.due === null)].map((p) => p.trap);
}
/** The scenario of a day: the one that trains what is due, short ones first; the same all day for the same person. @param day days since the epoch, local */
export function scenarioOfDay<
  S extends { readonly id: string; readonly traps: readonly Trap[]; readonly minutes: number },
>(scenarios: readonly S[], progress: readonly TrapProgress[], day: number): S | null {
  const due = dueNow(progress, (day + 1) * MS_DAY);
  const rank = (s: S) => Math.min(...s.traps.map((t) => (due.includes(t) ? due.indexOf(t) : TRAP_COUNT)));
  const short = scenarios.filter((s) => s.minutes <= SHORT);
  const from = short.length ? short : scenarios;
  const best = Math.min(...from.map(rank));
  const alike = from.filter((s) => rank(s) === best);
  return alike[day % Math.max(1, alike.length)] ?? null;
}
/** A case of the day takes no longer, min. House figure. */
const SHORT = 15;
const TRAP_COUNT = Object.keys(TRAPS).length;

export interface Score {
  readonly asked: number;
  readonly right: number;
  /** Of the analysis, where it was asked too. */ readonly beside: {
    readonly right: number;
    readonly open: number;
  };
}
/** How the questions of one kind went. @param results of one person */
export function scoreOf(results: readonly Result[], about: string): Score {
  const of = results.flatMap(({ body }) => (body.kind === 'question' && body.about === about ? [body] : []));
  const count = (is: (q: (typeof of)[number]) => boolean) => of.filter(is).length;
  return {
    asked: of.length,
    right: count((q) => q.right),
    beside: { right: count((q) => q.beside === 'right'), open: count((q) => q.beside === 'open') },
  };
}
