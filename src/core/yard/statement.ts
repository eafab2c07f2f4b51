/** A statement of practice: what somebody practised up to a day, and what that is and is not. Words alone; no mark, no grade. */
import { progressOf, type Result, scoreOf } from './progress';
import { type About, QUESTIONS } from './questions/question';
import { ENDS, type End, TRAPS, type Trap, type Way } from './words';

export interface Statement {
  readonly organisation: string;
  readonly name: string;
  /** Who made it. */ readonly by: string;
  /** ms */ readonly from: number | null;
  readonly until: number;
  readonly traps: readonly { readonly trap: Trap; readonly met: number; readonly mastered: boolean }[];
  /** The last of each scenario, the newest first. */
  readonly scenarios: readonly {
    readonly at: number;
    readonly title: string;
    readonly trade: string;
    readonly way: Way;
    readonly end: End;
    readonly times: number;
  }[];
  readonly questions: readonly { readonly about: About; readonly asked: number; readonly right: number }[];
}
/** What it is, and what it is not: printed on every one. */
export const IS =
  'This says what was practised on simulated installations, by the log of each practice. Mastered means: everything that the scenario asks was done, alone, from beginning to end, and the result was proved.';
export const IS_NOT =
  'It is no certificate, no licence, no proof of competence and no proof of identity. It says nothing of work on a real installation, and gives nobody the right to test or to sign.';
export const statementNumber = (n: number): string => `SP-${String(n).padStart(5, '0')}`;

/** @param results of one person, in any order @param until ms: what came later is left out */
export function statementOf(
  who: Pick<Statement, 'organisation' | 'name' | 'by'>,
  results: readonly Result[],
  until: number,
): Statement {
  const of = results.filter((r) => r.at <= until).sort((a, b) => a.at - b.at);
  const last = new Map<string, Statement['scenarios'][number]>();
  for (const { at, body } of of) {
    if (body.kind !== 'scenario') continue;
    const times = (last.get(body.scenario)?.times ?? 0) + 1;
    last.set(body.scenario, {
      at,
      title: body.title,
      trade: body.trade,
      way: body.way as Way,
      end: body.end as End,
      times,
    });
  }
  return {
    ...who,
    from: of[0]?.at ?? null,
    until,
    traps: progressOf(of)
      .filter((p) => p.met > 0)
      .map(({ trap, met, mastered }) => ({ trap, met, mastered })),
    scenarios: [...last.values()].sort((a, b) => b.at - a.at),
    questions: (Object.keys(QUESTIONS) as About[]).map((about) => {
      const { asked, right } = scoreOf(of, about);
      return { about, asked, right };
    }),
  };
}
/** Its lines under headings, as page and paper have them. @param day how a moment is written */
export function statementLines(
  s: Statement,
  day: (ms: number) => string,
): { readonly heading: string; readonly lines: readonly string[] }[] {
  const times = (n: number) => (n === 1 ? 'once' : `${n} times`);
  const mastered = s.traps.filter((t) => t.mastered);
  const met = s.traps.filter((t) => !t.mastered);
  return [
    { heading: 'Mastered', lines: mastered.map((t) => `${TRAPS[t.trap]}, met ${times(t.met)}`) },
    { heading: 'Met, not mastered', lines: met.map((t) => `${TRAPS[t.trap]}, met ${times(t.met)}`) },
    {
      heading: 'Scenarios, as each was practised last',
      lines: s.scenarios.map(
        (x) =>
          `${day(x.at)}, ${x.trade}: ${x.title}. ${ENDS[x.end]}${WAY_WORDS[x.way]}; practised ${times(x.times)}`,
      ),
    },
    {
      heading: 'Short questions',
      lines: s.questions
        .filter((q) => q.asked)
        .map((q) => `${QUESTIONS[q.about]}: ${q.right} of ${q.asked} right`),
    },
  ].filter((b) => b.lines.length > 0);
}
const WAY_WORDS: Readonly<Record<Way, string>> = {
  free: '',
  guided: ', guided',
  exam: ', as an exam',
  replay: ', taken up half way',
};
