/** Short questions: put to a person in a row of their own, so that nobody can leaf for an easy one; the answers stay here. */
import { conducted, type Shelf } from '@/core/yard/questions/conducted';
import { figureQuestion } from '@/core/yard/questions/figure';
import { Pick } from '@/core/yard/questions/pick';
import { type About, marked, type Posed } from '@/core/yard/questions/question';
import { traceQuestion } from '@/core/yard/questions/trace';
import { verdictQuestion } from '@/core/yard/questions/verdict';
import { type Result, type ResultBody, scoreOf } from '@/core/yard/progress';
import type { Occasion } from '@/core/yard/session';
import { inOrganisation } from '@/database/client';
import { runs, seals, yardResults } from '@/database/schema';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { ownId } from '@/server/places/practice-site';
import { rulePacks } from '@/server/rules/rules';
import { readRun } from '@/server/runs/log';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { AnswerRequest, Asked, Told } from '@/wire/yard';
import { and, asc, eq, lt, sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import 'server-only';
import { allScenarios, resultsOf } from './scenarios';
import { INSTALLATIONS } from './shipped';

/** Conducts that are tried until one can be asked about. */
const TRIES = 40;
/** One question of verdicts in so many is about a record of the house, where there are any. */
const OWN_RECORDS = 0.35;
const DAY_MS = 86_400_000;
const digest = (text: string): string => createHash('sha256').update(text).digest('hex');
const seedOf = (text: string): number => Number.parseInt(digest(text).slice(0, 8), 16);

/** Questions that were put and not answered yet: made again where they are not here any more. */
const made = new Map<string, Posed>();
const KEPT = 200;

/** Whom and what a conduct for a question names: nothing of it is asked. */
const nobody = (session: Session): Occasion => ({
  run: ownId(session.org, 'question'),
  system: ownId(session.org, 'question system'),
  gauge: ownId(session.org, 'question gauge'),
  fan: ownId(session.org, 'question fan'),
  organisation: { id: session.org, name: '' },
  site: { id: ownId(session.org, 'question site'), name: '', address: '', customer: '' },
  made: { at: new Date(Date.UTC(2026, 0, 5, 8)).toISOString(), zone: 'UTC', by: '' },
  packHash: '',
});
async function shelfOf(session: Session): Promise<Shelf> {
  const [packs, scenarios] = await Promise.all([rulePacks(session), allScenarios(session)]);
  return {
    scenarios,
    packOf: (s) => packs.find((p) => p.id === s.pack),
    installations: INSTALLATIONS,
    on: nobody(session),
  };
}
/** A record of the house, sealed before today: the same one for the same seed, as long as the day lasts. */
export async function ofRecord(session: Session, seed: number): Promise<Posed | null> {
  const today = new Date(Math.floor(now() / DAY_MS) * DAY_MS);
  const before = and(lt(seals.sealedAt, today), eq(runs.practice, false));
  const run = await inOrganisation(session, async (tx) => {
    const [ends] = await tx
      .select({ count: sql<number>`count(*)::int` })
      .from(seals)
      .innerJoin(runs, and(eq(runs.org, seals.org), eq(runs.id, seals.run)))
      .where(before);
    if (!ends?.count) return null;
    const [row] = await tx
      .select({ run: seals.run })
      .from(seals)
      .innerJoin(runs, and(eq(runs.org, seals.org), eq(runs.id, seals.run)))
      .where(before)
      .orderBy(asc(seals.run))
      .offset(seed % ends.count)
      .limit(1);
    return row?.run ?? null;
  });
  if (!run) return null;
  const { plan, events } = await readRun(session, run);
  return verdictQuestion(plan, events, seed, []);
}
async function pose(session: Session, about: About, n: number): Promise<Posed> {
  const name = `${session.org} ${session.person} ${about} ${n}`;
  const known = made.get(name);
  if (known) return known;
  const seed = seedOf(name);
  const posed = about === 'figure' ? figureQuestion(seed) : await ofConduct(session, about, seed);
  made.set(name, posed);
  const [oldest] = made.keys();
  if (made.size > KEPT && oldest) made.delete(oldest);
  return posed;
}
async function ofConduct(session: Session, about: 'verdict' | 'trace', seed: number): Promise<Posed> {
  const pick = new Pick(seed);
  if (about === 'verdict' && pick.next() < OWN_RECORDS) {
    const own = await ofRecord(session, seed);
    if (own) return own;
  }
  const shelf = await shelfOf(session);
  for (let tried = 0; tried < TRIES; tried += 1) {
    const c = conducted(shelf, pick, about === 'verdict');
    const posed =
      c &&
      (about === 'trace'
        ? traceQuestion(c)
        : verdictQuestion(c.session.plan, c.session.events, seed, c.fault === null ? c.scenario.traps : []));
    if (posed) return posed;
    // others are served meanwhile
    await new Promise((r) => setImmediate(r));
  }
  throw new TroubleError(
    503,
    'no-question',
    'No question came of forty conducts. Ask again; if it stays so, look whether the rules of a pack were changed.',
  );
}
const markOf = (posed: Posed): string => digest(JSON.stringify(posed.question)).slice(0, 12);
const answered = (results: readonly Result[], about: string): ResultBody[] =>
  results.flatMap(({ body }) => (body.kind === 'question' && body.about === about ? [body] : []));

/** The next question of a person. @throws TroubleError 403, 503 */
export async function ask(session: Session, about: About): Promise<Asked> {
  demand(session, 'run');
  const results = await resultsOf(session, session.person);
  const n = answered(results, about).length;
  const posed = await pose(session, about, n);
  return { about, n, mark: markOf(posed), question: posed.question, score: scoreOf(results, about) };
}
/** Marks an answer; the first one counts. @throws TroubleError 403, 409 */
export async function tell(session: Session, a: AnswerRequest): Promise<Told> {
  demand(session, 'run');
  const about = a.about as About;
  const past = answered(await resultsOf(session, session.person), about);
  if (a.n > past.length)
    throw new TroubleError(409, 'order', 'This question was not put yet. Take the next one.');
  const posed = await pose(session, about, a.n);
  if (markOf(posed) !== a.mark)
    throw new TroubleError(409, 'changed', 'This question has changed meanwhile. Take it as it is put now.');
  const parts = marked(posed, {
    ...(a.choice === undefined ? {} : { choice: a.choice }),
    ...(a.reason === undefined ? {} : { reason: a.reason }),
    ...(a.figure === undefined ? {} : { figure: a.figure }),
  });
  const beside = posed.solution.opponent;
  const body: ResultBody = {
    kind: 'question',
    about,
    question: `${posed.question.title.slice(0, 70)} ${a.n + 1}`,
    trade: posed.question.trade.slice(0, 40),
    traps: [...posed.traps],
    right: parts.right,
    ...(beside ? { beside: beside.right === null ? 'open' : beside.right ? 'right' : 'wrong' } : {}),
  } as ResultBody;
  await inOrganisation(session, (tx) =>
    tx
      .insert(yardResults)
      .values({
        org: session.org,
        id: ownId(session.org, `question ${session.person} ${about} ${a.n}`),
        person: session.person,
        at: new Date(now()),
        body,
      })
      .onConflictDoNothing(),
  );
  const results = await resultsOf(session, session.person);
  const { right, ...rest } = parts;
  return { right, parts: rest, solution: posed.solution, score: scoreOf(results, about) };
}
