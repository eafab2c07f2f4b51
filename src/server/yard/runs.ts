/** Practice runs of scenarios: begun, told on while they run, concluded, graded. What is done is appended; the rest follows from it. */
import { PlanError } from '@/core/plan/plan';
import type { Action } from '@/core/simulation/simulation';
import type { Doing, HandWork } from '@/core/simulation/hands';
import type { YardAct } from '@/core/yard/acts';
import { debriefOf, type Debrief } from '@/core/yard/debrief';
import { grade } from '@/core/yard/grade';
import { lineOf, liveOf, passedIn } from '@/core/yard/live';
import type { ResultBody } from '@/core/yard/progress';
import type { Scenario } from '@/core/yard/scenario';
import {
  accountOfSession,
  actionsOf,
  due,
  installationOf,
  planOfScenario,
  type Session as YardSession,
  worldOfScenario,
} from '@/core/yard/session';
import { inOrganisation, type Tx } from '@/database/client';
import { runs, systems, yardActs, yardResults, yardRuns, yardTasks } from '@/database/schema';
import { audit } from '@/server/audit';
import { beginSimulation, sendAct, simulatedIds } from '@/server/gauge/simulated';
import { clockIsAdjustable, now } from '@/server/now';
import { demand } from '@/server/permission';
import { saveSite, saveSystem } from '@/server/places/places';
import { ownId, practiceSite } from '@/server/places/practice-site';
import { newestPack } from '@/server/rules/rules';
import { lockRun } from '@/server/runs/log';
import { eventsOf, planOf } from '@/server/runs/read-log';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { formOfSystem } from '@/wire/system-form';
import type { BeginYard, YardNow, YardRequest } from '@/wire/yard';
import { and, asc, eq } from 'drizzle-orm';
import { randomInt } from 'node:crypto';
import 'server-only';
import { scenarioNamed } from './scenarios';
import { INSTALLATIONS, RUBRIC } from './shipped';

type Scope = { readonly org: string };
/** The installation of a scenario as a place for practice: made when it is first needed. */
async function systemFor(session: Session, scenario: Scenario): Promise<string> {
  const [site, id] = [practiceSite(session.org), ownId(session.org, `yard ${scenario.id}`)];
  const known = await inOrganisation(session, async (tx) =>
    (await tx.select({ id: systems.id }).from(systems).where(eq(systems.id, id))).at(0),
  );
  if (known) return id;
  // whoever practises makes it, whatever else they may enter
  const maker = { ...session, role: 'owner' as const };
  await saveSite(maker, {
    id: site,
    name: 'Practice installation',
    address: 'simulated, nowhere',
    customer: 'nobody: practice only',
  });
  await saveSystem(
    maker,
    id,
    site,
    formOfSystem(installationOf({ installation: scenario.installation }, INSTALLATIONS, id)),
  );
  return id;
}
/** Begins a scenario. Asked twice with the same id it answers the same run. @throws TroubleError */
export async function beginYard(session: Session, asked: BeginYard): Promise<{ run: string }> {
  demand(session, 'run');
  const task = asked.task ? await taskFor(session, asked.task) : null;
  const scenario = task?.scenario ?? (await scenarioNamed(session, asked.scenario));
  const way = task?.way ?? (asked.way as YardNow['way']);
  if (way === 'exam' && !task)
    throw new TroubleError(
      422,
      'exam',
      'An exam is set by the one who trains: ask for one, or practise freely.',
    );
  const system = await systemFor(session, scenario);
  const made = await inOrganisation(session, async (tx) => {
    const newest = await newestPack(tx, session, scenario.pack);
    if (!newest)
      throw new TroubleError(
        422,
        'pack',
        `This scenario needs the rule pack ${scenario.pack}. Import it under Rules.`,
      );
    const site = {
      id: practiceSite(session.org),
      name: 'Practice installation',
      address: 'simulated, nowhere',
      customer: 'nobody: practice only',
    };
    const ids = simulatedIds(asked.run);
    const plan = planned(() =>
      planOfScenario(scenario, newest.pack, INSTALLATIONS, {
        run: asked.run,
        system,
        ...ids,
        organisation: { id: session.org, name: session.organisation },
        site,
        packHash: newest.hash,
        made: {
          at: new Date(now()).toISOString(),
          zone: asked.zone,
          by: session.name,
          ...(clockIsAdjustable() ? { clock: 'test' as const } : {}),
        },
      }),
    );
    function planned<T>(make: () => T): T {
      try {
        return make();
      } catch (error) {
        if (error instanceof PlanError || error instanceof RangeError)
          throw new TroubleError(422, 'scenario', `This scenario cannot be set up here: ${error.message}`);
        throw error;
      }
    }
    const world = planned(() => worldOfScenario(scenario, plan, randomInt(2 ** 31)));
    const rows = await tx
      .insert(runs)
      .values({
        org: session.org,
        id: asked.run,
        site: site.id,
        system,
        practice: true,
        plan,
        made: new Date(plan.made.at),
        madeBy: session.person,
      })
      .onConflictDoNothing()
      .returning({ id: runs.id });
    if (!rows.length) return null;
    await tx.insert(yardRuns).values({
      org: session.org,
      run: asked.run,
      person: session.person,
      scenario,
      world,
      way,
      task: task?.id ?? null,
      made: new Date(plan.made.at),
    });
    await audit(tx, session, 'began practice', asked.run);
    return { plan, world };
  });
  if (made) await beginSimulation(session, made.plan, made.world);
  return { run: asked.run };
}
async function taskFor(session: Session, id: string) {
  if (!isId(id)) throw notHere('task');
  const [task] = await inOrganisation(session, (tx) =>
    tx
      .select()
      .from(yardTasks)
      .where(and(eq(yardTasks.id, id), eq(yardTasks.person, session.person))),
  );
  if (!task) throw notHere('task');
  return task;
}
export interface KeptRun {
  readonly session: YardSession;
  readonly way: YardNow['way'];
  readonly person: string;
  readonly task: string | null;
  readonly next: number;
  /** So many minutes it may take; null: no limit. */ readonly limit: number | null;
}
/** A practice run with all that was done in it. @throws TroubleError 404 where there is none, or none by a scenario */
export async function keptRun(tx: Tx, run: string): Promise<KeptRun> {
  if (!isId(run)) throw notHere('practice run');
  const [row] = await tx.select().from(yardRuns).where(eq(yardRuns.run, run));
  if (!row) throw notHere('practice run');
  const acts = await tx.select().from(yardActs).where(eq(yardActs.run, run)).orderBy(asc(yardActs.position));
  return {
    session: {
      scenario: row.scenario,
      plan: await planOf(tx, run),
      world: row.world,
      events: await eventsOf(tx, run),
      acts: acts.map((a) => a.body),
    },
    way: row.way,
    person: row.person,
    task: row.task,
    next: acts.length + 1,
    limit: row.task ? await limitOf(tx, row.task) : null,
  };
}
const limitOf = async (tx: Tx, task: string): Promise<number | null> =>
  (await tx.select({ minutes: yardTasks.minutes }).from(yardTasks).where(eq(yardTasks.id, task))).at(0)
    ?.minutes ?? null;
/** Appends acts in the order given; what changes the world goes to its stand-in. */
export async function appendActs(
  scope: Scope,
  run: string,
  by: string,
  make: (kept: KeptRun, at: number) => readonly YardAct[],
): Promise<KeptRun & { at: number; added: readonly YardAct[] }> {
  const done = await inOrganisation(scope, async (tx) => {
    await lockRun(tx, scope.org, `yard ${run}`);
    const kept = await keptRun(tx, run);
    const at = lineOf(kept.session.acts, now());
    const added = make(kept, at);
    if (added.length)
      await tx.insert(yardActs).values(
        added.map((body, i) => ({
          org: scope.org,
          run,
          position: kept.next + i,
          at: new Date(now()),
          by,
          body,
        })),
      );
    const session = { ...kept.session, acts: [...kept.session.acts, ...added] };
    return { ...kept, session, next: kept.next + added.length, at, added };
  });
  for (const action of worldly(done.session, done.added)) await sendAct(run, action);
  return done;
}
type OfTheClock =
  | { readonly act: 'passed'; readonly at: number; readonly ms: number }
  | { readonly act: 'paused'; readonly at: number; readonly paused: boolean };
/** What of it the world must hear; what a hand did it has heard already. */
const worldly = (session: YardSession, added: readonly YardAct[]): (Action | OfTheClock)[] =>
  added.flatMap((act): (Action | OfTheClock)[] =>
    act.kind === 'passed'
      ? [{ act: 'passed', at: act.at, ms: act.ms }]
      : act.kind === 'paused'
        ? [{ act: 'paused', at: act.at, paused: act.paused }]
        : act.kind === 'hand'
          ? []
          : actionsOf({ ...session, acts: [act] }),
  );
/** Keeps what a hand did, where the run is one of a scenario. @returns the moment it is done at, on the line of the run @throws TroubleError 403, 409 */
export async function handDone(
  session: Session,
  run: string,
  work: HandWork,
  action: Doing,
): Promise<number | null> {
  const there = await inOrganisation(session, (tx) =>
    tx.select({ run: yardRuns.run }).from(yardRuns).where(eq(yardRuns.run, run)),
  );
  if (!there.length) return null;
  const { at } = await appendActs(session, run, session.name, (kept, moment) => {
    if (kept.person !== session.person) throw notOwn();
    const live = liveOf(kept.session, RUBRIC, moment);
    if (live.halted || live.concluded)
      throw new TroubleError(
        409,
        'over',
        'This practice is over: nothing can be worked any more. Look at what came of it.',
      );
    if (live.stands !== null)
      throw new TroubleError(
        409,
        'paused',
        'The one who trains has stopped your hands and the clock. Wait for them.',
      );
    return [{ kind: 'hand', at: moment, work, action } as YardAct];
  });
  return at;
}
const notOwn = () => new TroubleError(403, 'other-person', 'Somebody else practises here. You may look on.');
/** How it stands; what has come about meanwhile is kept on the way. @throws TroubleError 404 */
export async function yardNow(session: Session, run: string): Promise<YardNow> {
  const {
    session: s,
    way,
    at,
  } = await appendActs(session, run, 'the scenario', (kept, moment) => {
    if (kept.person !== session.person && kept.way === 'exam') demand(session, 'seal');
    const live = liveOf(kept.session, RUBRIC, moment);
    if (live.concluded || live.halted) return haltIfDangerous(kept, live, moment);
    if (kept.limit !== null && moment > Date.parse(kept.session.plan.made.at) + kept.limit * 60_000)
      return [
        { kind: 'halted', at: moment, why: `The ${kept.limit} minutes of it are over.`, danger: false },
      ];
    const account = accountOfSession(kept.session, moment);
    return due(kept.session, account, moment).map(({ id, at: came }): YardAct => ({
      kind: 'happened',
      at: Math.max(came, lastAt(kept)),
      happening: id,
    }));
  });
  return { ...liveOf(s, RUBRIC, at, way), way, at };
}
const lastAt = (kept: KeptRun): number => Math.max(0, ...kept.session.acts.map((a) => a.at));
const haltIfDangerous = (kept: KeptRun, live: ReturnType<typeof liveOf>, at: number): YardAct[] =>
  live.halted && !kept.session.acts.some((a) => a.kind === 'halted')
    ? [{ kind: 'halted', at, why: live.halted.why, danger: live.halted.danger }]
    : [];

/** What the one who practises says. @throws TroubleError */
export async function yardAct(session: Session, run: string, asked: YardRequest): Promise<YardNow> {
  demand(session, 'run');
  const done = await appendActs(session, run, session.name, (kept, at) => {
    if (kept.person !== session.person) throw notOwn();
    const live = liveOf(kept.session, RUBRIC, at);
    if (live.concluded)
      throw new TroubleError(409, 'over', 'This practice is over. Look at what came of it.');
    switch (asked.kind) {
      case 'answered': {
        const there = live.happened.find((h) => h.id === asked.happening);
        if (!there?.answers.some((a) => a.key === asked.answer)) throw notHere('answer');
        return there.answered
          ? []
          : [{ kind: 'answered', at, happening: asked.happening, answer: asked.answer }];
      }
      case 'concluded':
        if (!live.ended && !live.halted)
          throw new TroubleError(
            422,
            'not-ended',
            'Bring the test to its end first, or stop it: then say what it was.',
          );
        return [{ kind: 'concluded', at, cause: asked.cause, place: asked.place, because: asked.because }];
      case 'pass':
        return live.mayPass > 0 ? [{ kind: 'passed', at, ms: live.mayPass }] : [];
      case 'give-up':
        return live.halted ? [] : [{ kind: 'halted', at, why: 'Given up.', danger: false }];
    }
    return [];
  });
  if (done.added.some((a) => a.kind === 'concluded')) await keepResult(session, run, done);
  const moment = done.at + passedIn(done.added);
  return { ...liveOf(done.session, RUBRIC, moment, done.way), way: done.way, at: moment };
}
/** What came of it, once: from it the person's progress follows. */
async function keepResult(
  session: Session,
  run: string,
  { session: s, way, person, task, at }: KeptRun & { at: number },
): Promise<void> {
  const graded = grade(s, RUBRIC, at);
  const { scenario } = s;
  const body: ResultBody = {
    kind: 'scenario',
    run,
    scenario: scenario.id,
    title: scenario.title,
    trade: scenario.trade,
    traps: [...scenario.traps],
    way,
    end: graded.end,
    minutes: graded.minutes,
    missed: graded.lines.filter((l) => !l.met).map((l) => l.id),
    ...(task ? { task } : {}),
  };
  await inOrganisation(session, (tx) =>
    tx
      .insert(yardResults)
      .values({
        org: session.org,
        id: ownId(session.org, `yard result ${run}`),
        person,
        at: new Date(now()),
        body,
      })
      .onConflictDoNothing(),
  );
}
/** What is told when it is over. Of an exam the one who sat it is told nothing before it is signed. @throws TroubleError 404, 409 */
export const yardDebrief = (session: Session, run: string): Promise<{ debrief: Debrief; kept: KeptRun }> =>
  inOrganisation(session, async (tx) => {
    const kept = await keptRun(tx, run);
    const over = kept.session.acts.some((a) => a.kind === 'concluded' || a.kind === 'halted');
    if (!over)
      throw new TroubleError(
        409,
        'not-over',
        'This practice is still going on. What was hidden is told when it is over.',
      );
    const own = kept.person === session.person;
    if (kept.way === 'exam' && own && !kept.session.acts.some((a) => a.kind === 'signed'))
      throw new TroubleError(
        409,
        'not-signed',
        'This was an exam. What came of it is told when the one who set it has looked at it and signed.',
      );
    if (!own) demand(session, 'seal');
    return { debrief: debriefOf(kept.session, RUBRIC), kept };
  });
