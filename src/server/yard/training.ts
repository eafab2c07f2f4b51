/** What the one who trains does: sets a scenario to somebody, hides something in it, looks on, changes it, signs an exam. */
import { runningHold, currentVisit, holdEnds } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { asked } from '@/core/simulation/simulation';
import type { YardAct } from '@/core/yard/acts';
import { faultsFor, withFault } from '@/core/yard/faults';
import { grade } from '@/core/yard/grade';
import { goesOn, lineOf, liveOf, standsAt } from '@/core/yard/live';
import { progressOf } from '@/core/yard/progress';
import { actionsOf, readingOf } from '@/core/yard/session';
import { WORDS } from '@/core/verdict/words';
import { inOrganisation, type Tx } from '@/database/client';
import { people, yardActs, yardResults, yardRuns, yardTasks } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import type { Board, SetTask, TaskRow, TrainRequest, Watched } from '@/wire/yard';
import { writeCsv } from '@/wire/csv';
import { may } from '@/wire/role';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import 'server-only';
import { appendActs, keptRun } from './runs';
import { groups } from './statements';
import { faultsByScenario, resultsOf, scenarioNamed } from './scenarios';
import { RUBRIC } from './shipped';

/** Sets a scenario to somebody. Asked twice with the same id it is one task. @throws TroubleError 403, 404, 422 */
export async function setTask(session: Session, asked: SetTask): Promise<{ id: string }> {
  demand(session, 'seal');
  const scenario = await scenarioNamed(session, asked.scenario);
  const faults = (await faultsByScenario(session))[scenario.id] ?? {};
  if (asked.fault && !(asked.fault in faults))
    throw new TroubleError(
      422,
      'fault',
      'This cannot be hidden in that installation. Choose from the list.',
      'fault',
    );
  const hidden = asked.fault ? withFault(scenario, asked.fault, faults[asked.fault]!) : scenario;
  await inOrganisation(session, async (tx) => {
    const [person] = await tx.select({ role: people.role }).from(people).where(eq(people.id, asked.person));
    if (!person || !may(person.role, 'run')) throw notHere('person who practises');
    await tx
      .insert(yardTasks)
      .values({
        org: session.org,
        id: asked.id,
        person: asked.person,
        scenario: hidden,
        way: asked.way as 'exam',
        minutes: asked.minutes ?? null,
        due: asked.due,
        note: asked.note,
        by: session.person,
        made: new Date(now()),
      })
      .onConflictDoNothing();
    await audit(tx, session, 'set practice', asked.id);
  });
  return { id: asked.id };
}
/** The acts of several conducts. */
const actsOf = async (tx: Tx, runs: readonly string[]) =>
  runs.length
    ? tx
        .select({ run: yardActs.run, body: yardActs.body })
        .from(yardActs)
        .where(inArray(yardActs.run, [...runs]))
    : [];
/** Tasks with how far they came, newest first. @param person of one; null: of everybody */
export const tasksOf = (scope: { org: string }, person: string | null): Promise<TaskRow[]> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ task: yardTasks, name: people.name })
      .from(yardTasks)
      .innerJoin(people, eq(people.id, yardTasks.person))
      .where(person === null ? undefined : eq(yardTasks.person, person))
      .orderBy(desc(yardTasks.made))
      .limit(MOST);
    const ids = rows.map((r) => r.task.id);
    const begun = ids.length
      ? await tx
          .select({ run: yardRuns.run, task: yardRuns.task })
          .from(yardRuns)
          .where(inArray(yardRuns.task, ids))
          .orderBy(asc(yardRuns.made))
      : [];
    const acts = await actsOf(
      tx,
      begun.map((b) => b.run),
    );
    return rows.map(({ task, name }): TaskRow => {
      const run = begun.find((b) => b.task === task.id)?.run ?? null;
      const kinds = new Set(acts.filter((a) => a.run === run).map((a) => a.body.kind));
      const over = kinds.has('concluded') || kinds.has('halted');
      return {
        id: task.id,
        person: task.person,
        name,
        title: task.scenario.title,
        trade: task.scenario.trade,
        way: task.way,
        minutes: task.minutes,
        due: task.due,
        note: task.note,
        run,
        stands:
          run === null
            ? 'set'
            : !over
              ? 'running'
              : task.way === 'exam' && !kinds.has('signed')
                ? 'to sign'
                : 'done',
      };
    });
  });
/** More tasks than this no board shows. */
const MOST = 200;

/** The board of a house: who practises, what each has met and mastered, what is set and how it stands. */
export async function board(session: Session): Promise<Board> {
  demand(session, 'seal');
  const members = await inOrganisation(session, (tx) =>
    tx.select({ id: people.id, name: people.name, role: people.role }).from(people).orderBy(asc(people.name)),
  );
  const all = members.filter((m) => may(m.role, 'run'));
  const results = await Promise.all(all.map((m) => resultsOf(session, m.id)));
  return {
    people: all.map((m, i) => {
      const progress = progressOf(results[i]!);
      const last = results[i]!.at(-1);
      return {
        id: m.id,
        name: m.name,
        mastered: progress.filter((p) => p.mastered).length,
        met: progress.filter((p) => p.met > 0).length,
        due: progress.filter((p) => p.due !== null && p.due <= now()).length,
        of: progress.length,
        last: last ? last.at : null,
      };
    }),
    tasks: await tasksOf(session, null),
    groups: await groups(session),
    running: await runningNow(session),
  };
}
/** Practice that is going on: begun in the last hours and not over. */
const runningNow = (scope: { org: string }): Promise<Board['running']> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({
        run: yardRuns.run,
        scenario: yardRuns.scenario,
        made: yardRuns.made,
        name: people.name,
        way: yardRuns.way,
      })
      .from(yardRuns)
      .innerJoin(people, eq(people.id, yardRuns.person))
      .orderBy(desc(yardRuns.made))
      .limit(40);
    const fresh = rows.filter((r) => r.made.getTime() > now() - HOURS);
    const acts = await actsOf(
      tx,
      fresh.map((r) => r.run),
    );
    const over = new Set(
      acts.filter((a) => a.body.kind === 'concluded' || a.body.kind === 'halted').map((a) => a.run),
    );
    return fresh
      .filter((r) => !over.has(r.run))
      .map((r) => ({
        run: r.run,
        title: r.scenario.title,
        name: r.name,
        way: r.way,
        made: r.made.getTime(),
      }));
  });
/** Longer ago nobody sits at it any more. House figure. */
const HOURS = 12 * 3_600_000;

/** What the one who trains sees of a practice run: all of it. @throws TroubleError 403, 404 */
export async function watched(session: Session, run: string): Promise<Watched> {
  demand(session, 'seal');
  return inOrganisation(session, async (tx) => {
    const kept = await keptRun(tx, run);
    const { session: s } = kept;
    const at = lineOf(s.acts, now());
    const state = reduce(s.plan, s.events);
    const visit = currentVisit(state);
    const hold = runningHold(state);
    const reading = readingOf(s);
    const [told] = asked(s.world, actionsOf(s), [at], (w) => ({ ...reading.of(w), view: w.view() }));
    const [person] = await tx.select({ name: people.name }).from(people).where(eq(people.id, kept.person));
    const graded = grade(s, RUBRIC, at);
    return {
      live: { ...liveOf(s, RUBRIC, at, 'guided'), way: kept.way, at },
      name: person?.name ?? '',
      stage: visit?.title ?? (state.ending ? 'Ended' : ''),
      holdEnds: hold ? holdEnds(hold) : null,
      shown: told!.shown,
      perfect: told!.perfect,
      leaking: told!.leaking,
      unit: reading.unit,
      decimals: reading.decimals,
      said: 'said' in told!.view ? told!.view.said.slice(-4) : [],
      hidden: s.scenario.truth.tells,
      faults: faultsFor(s.plan),
      result: graded.result ? WORDS[graded.result] : null,
      end: graded.end,
      signed: s.acts.some((a) => a.kind === 'signed'),
    };
  });
}
/** Changes what is hidden, says something, stops the hands, or signs what came of an exam. @throws TroubleError 403, 404, 409, 422 */
export async function train(session: Session, run: string, asked: TrainRequest): Promise<Watched> {
  demand(session, 'seal');
  await appendActs(session, run, session.name, (kept, at): YardAct[] => {
    const over = kept.session.acts.some((a) => a.kind === 'concluded' || a.kind === 'halted');
    if (asked.kind !== 'signed' && over)
      throw new TroubleError(409, 'over', 'This practice is over: nothing in it can be changed any more.');
    switch (asked.kind) {
      case 'hidden':
        if (!(asked.fault in faultsFor(kept.session.plan)))
          throw new TroubleError(
            422,
            'fault',
            'This cannot be hidden in that installation. Choose from the list.',
            'fault',
          );
        return [{ kind: 'hidden', at, by: session.name, change: { as: asked.fault } }];
      case 'note':
        return [{ kind: 'note', at, by: session.name, text: asked.text }];
      case 'paused':
        return asked.paused
          ? standsAt(kept.session.acts) !== null
            ? []
            : [{ kind: 'paused', at, paused: true }]
          : goesOn(kept.session.acts, now());
      case 'signed':
        if (kept.way !== 'exam' || !over)
          throw new TroubleError(
            409,
            'not-over',
            'An exam is signed when it is over. Practice needs no signature.',
          );
        if (kept.person === session.person)
          throw new TroubleError(403, 'own-exam', 'Nobody signs an exam of their own. Ask another tester.');
        if (kept.session.acts.some((a) => a.kind === 'signed')) return [];
        return [{ kind: 'signed', at, by: session.name, text: asked.text }];
    }
    return [];
  });
  return watched(session, run);
}
/** Everything that was practised in the house, as a table. */
export async function resultsCsv(session: Session): Promise<string> {
  demand(session, 'seal');
  const rows = await inOrganisation(session, (tx) =>
    tx
      .select({ at: yardResults.at, body: yardResults.body, name: people.name })
      .from(yardResults)
      .innerJoin(people, eq(people.id, yardResults.person))
      .orderBy(asc(yardResults.at), asc(yardResults.id)),
  );
  return writeCsv([
    ['when', 'who', 'what', 'trade', 'traps', 'way', 'end', 'minutes', 'missed', 'practice only'],
    ...rows.map(({ at, body, name }) => [
      at.toISOString(),
      name,
      body.kind === 'scenario' ? body.title : body.question,
      body.trade,
      body.traps.join(' '),
      body.kind === 'scenario' ? body.way : body.about,
      body.kind === 'scenario' ? body.end : body.right ? 'right' : 'wrong',
      body.kind === 'scenario' ? body.minutes.toFixed(0) : '',
      body.kind === 'scenario' ? body.missed.join(' ') : '',
      'yes',
    ]),
  ]);
}
