import 'server-only';
import { demand } from '@/server/permission';
import { asc, eq, gte, isNull } from 'drizzle-orm';
import { goodPath, type PathStep } from '@/core/plan/good-path';
import { partProspect, planParts } from '@/core/plan/prospect';
import { kitList } from '@/core/plan/kit';
import { caseOf, PlanError, type Plan } from '@/core/plan/plan';
import { holdEnds, runningHold, stageOf, currentVisit } from '@/core/run/read';
import { frameTasks, ordered, testTasks, type VisitTest } from '@/core/visit/build';
import type { PartRule } from '@/core/pack/schema';
import type { VisitFacts } from '@/core/visit/facts';
import { progressOf, type TestProgress } from '@/core/visit/progress';
import type { VisitTask } from '@/core/visit/types';
import { inOrganisation } from '@/database/client';
import { people as members, seals, systems, visits } from '@/database/schema';
import { standingOf, UNREADABLE } from '@/server/runs/standing';
import { audit } from '@/server/audit';
import { listKit } from '@/server/cabinet/cabinet';
import { now } from '@/server/now';
import { planFor } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { NewVisit, PlannedTest, VisitChange } from '@/wire/visits';
import { NO_RUN } from '@/wire/asked-plan';
import { visitStart } from '@/wire/visit-time';
import { readVisitFacts, rowOf, write } from './store';

type Scope = { org: string };
const BRIEF = 5;
const HAND_OVER = 5;

export interface VisitLine {
  readonly id: string;
  readonly title: string;
  readonly day: string;
  readonly start: string;
  readonly version: number;
  readonly tests: readonly string[];
  /** Ids of who goes. */
  readonly people: readonly string[];
}
/** Visits from a day on, the next first. */
export const listVisits = (scope: Scope, from: string): Promise<VisitLine[]> =>
  inOrganisation(scope, async (tx) =>
    (await tx.select().from(visits).where(gte(visits.day, from)).orderBy(asc(visits.day)).limit(100))
      .map(({ facts: f, version }) => ({
        id: f.id,
        version,
        title: f.title,
        day: f.day,
        start: f.start,
        people: f.people ?? [],
        tests: f.tests.map((t) => `${t.siteName}: ${t.title}`),
      }))
      .sort((a, b) => (a.day + a.start).localeCompare(b.day + b.start)),
  );

/** A new, empty visit. Asked twice with the same id it answers the same visit. */
export async function makeVisit(session: Session, form: NewVisit): Promise<{ id: string }> {
  demand(session, 'plan');
  const facts: VisitFacts = {
    ...form,
    crew: 1,
    present: [],
    permit: '',
    promise: '',
    tests: [],
    tasks: frameTasks([], BRIEF, HAND_OVER),
    wishes: {},
    pinned: [],
    done: {},
  };
  return inOrganisation(session, async (tx) => {
    await tx
      .insert(visits)
      .values({
        org: session.org,
        id: form.id,
        day: form.day,
        facts,
        made: new Date(now()),
        madeBy: session.name,
      })
      .onConflictDoNothing();
    await audit(tx, session, 'planned visit', form.title);
    return { id: form.id };
  });
}

/** The plan a test of a visit would run by, as things stand today. */
export const testPlan = (
  session: Pick<Session, 'org' | 'organisation' | 'name'>,
  test: Pick<PlannedTest, 'system' | 'pack' | 'procedure' | 'case' | 'choices' | 'section'>,
  zone = 'UTC',
): Promise<Plan> =>
  planFor(
    session,
    {
      id: NO_RUN,
      practice: false,
      zone,
      system: test.system,
      pack: test.pack,
      procedure: test.procedure,
      case: test.case,
      choices: test.choices ?? {},
      ...(test.section ? { section: test.section } : {}),
    },
    { ahead: true },
  );

/** Puts a test on a visit: its tasks come from the way a run takes when all goes well. */
export async function addTest(
  session: Session,
  id: string,
  version: number,
  wanted: PlannedTest,
): Promise<{ version: number }> {
  demand(session, 'plan');
  const plan = await testPlan(session, wanted);
  const day = (await readVisitFacts(session, id)).facts.day;
  const best =
    wanted.gauge ??
    planParts(plan)
      .map((p) => partProspect(plan, p, day).best)
      .find((g) => g) ??
    null;
  const steps = goodPath(plan, best);
  const test: VisitTest = {
    id: wanted.id,
    site: plan.site.id,
    siteName: plan.site.name,
    system: wanted.system,
    systemName: plan.system.name,
    pack: wanted.pack,
    procedure: wanted.procedure,
    title: plan.procedure.title,
    case: wanted.case,
    caseTitle: caseOf(plan).title,
    gauge: best,
    gaugeName: plan.gauges.find((g) => g.id === best)?.name ?? '',
    needs: plan.procedure.after?.procedures ?? [],
    // what the plan answered, not only what was chosen by hand: a default may change before the day
    choices: plan.choices,
    ...(wanted.permit ? { permit: wanted.permit } : {}),
    ...(wanted.doneBy ? { doneBy: wanted.doneBy } : {}),
    ...(wanted.present ? { present: wanted.present } : {}),
    ...(wanted.section ? { section: wanted.section } : {}),
  };
  return inOrganisation(session, async (tx) => {
    const row = await rowOf(tx, id);
    if (row.facts.tests.some((t) => t.id === test.id)) return { version: row.version };
    if (row.facts.tests.length >= 8)
      throw new TroubleError(
        422,
        'too-many',
        'Eight tests are as many as a visit holds. Plan another visit for the rest.',
      );
    const facts = withTest(row.facts, test, steps, plan.procedure.fills);
    await audit(tx, session, 'put a test on a visit', `${facts.title}: ${test.title}`);
    return { version: await write(tx, version, facts) };
  });
}
/** A visit with one more test, the frame laid anew around all of them. */
export function withTest(
  facts: VisitFacts,
  test: VisitTest,
  steps: readonly PathStep[],
  fills?: PartRule['fills'],
): VisitFacts {
  const tests = [...facts.tests, test];
  const bare = facts.tasks
    .filter((t) => t.kind !== 'meeting')
    .map((t) => ({ ...t, after: t.after.filter((a) => a !== 'brief') }));
  const tasks = ordered(tests, [...bare, ...testTasks(test, steps, fills)]);
  return { ...facts, tests, tasks: frameTasks(tasks, BRIEF, HAND_OVER), wishes: {}, pinned: [] };
}

/** What a person changed: order, minutes, people, promise; tests taken off. */
export async function changeVisit(
  session: Session,
  id: string,
  change: Omit<VisitChange, 'people'> & { readonly people?: readonly string[] | undefined },
): Promise<{ version: number }> {
  demand(session, 'plan');
  return inOrganisation(session, async (tx) => {
    const row = await rowOf(tx, id);
    const { version, removed, ...rest } = change;
    const gone = new Set(removed);
    for (const t of row.facts.tests)
      if (gone.has(t.id) && t.run)
        throw new TroubleError(
          422,
          'begun',
          `${t.title} has begun: its run stands in Today and cannot be taken off the visit.`,
        );
    const tests = row.facts.tests.filter((t) => !gone.has(t.id));
    const kept = (rest.tasks as readonly VisitTask[]).filter((t) => !t.test || !gone.has(t.test));
    const ids = new Set(kept.map((t) => t.id));
    const tasks = kept.map(({ during, ...t }) => ({
      ...t,
      after: t.after.filter((a) => ids.has(a)),
      ...(during !== undefined && ids.has(during) ? { during } : {}),
    }));
    const { people, ...said } = rest;
    if (people?.length) {
      const here = new Set(
        (await tx.select({ id: members.id }).from(members).where(isNull(members.left))).map((m) => m.id),
      );
      if (people.some((p) => !here.has(p)))
        throw new TroubleError(
          422,
          'people',
          'Somebody named is not in the organisation any more. Choose again who goes.',
          'people',
        );
    }
    const facts: VisitFacts = { ...row.facts, ...said, ...(people ? { people } : {}), tests, tasks };
    await audit(tx, session, 'changed visit', facts.title);
    return { version: await write(tx, version, facts) };
  });
}

/** A run of a visit as its page shows it. */
export interface VisitRun {
  readonly test: string;
  readonly run: string;
  readonly stage: string;
  readonly ends: number | null;
  readonly over: boolean;
  readonly sealed: string | null;
  readonly progress: TestProgress;
}
export interface VisitView {
  readonly facts: VisitFacts;
  readonly version: number;
  readonly runs: readonly VisitRun[];
  readonly systemsGone: readonly string[];
}
/** A visit with what its runs have done so far. */
export const readVisit = (scope: Scope, id: string): Promise<VisitView> =>
  inOrganisation(scope, async (tx) => {
    const { facts, version } = await rowOf(tx, id);
    const start = visitStart(facts);
    const runs: VisitRun[] = [];
    for (const test of facts.tests) {
      if (!test.run) continue;
      const { plan, state } = await standingOf(tx, scope, test.run);
      const [sealed] = await tx.select({ number: seals.number }).from(seals).where(eq(seals.run, test.run));
      if (!state) {
        const progress: TestProgress = { tasks: {}, busy: 0, repeats: 0 };
        const said = { stage: UNREADABLE, ends: null, over: false, sealed: sealed?.number ?? null, progress };
        runs.push({ test: test.id, run: test.run, ...said });
        continue;
      }
      const hold = runningHold(state);
      const visit = currentVisit(state);
      runs.push({
        test: test.id,
        run: test.run,
        stage: visit ? stageOf(plan, visit).title : 'put back and sign',
        ends: hold ? holdEnds(hold) : null,
        over: state.phase !== 'running',
        sealed: sealed?.number ?? null,
        progress: progressOf(
          facts.tasks.filter((t) => t.test === test.id),
          plan,
          state,
          start,
          now(),
        ),
      });
    }
    const known = new Set((await tx.select({ id: systems.id }).from(systems)).map((s) => s.id));
    return {
      facts,
      version,
      runs,
      systemsGone: facts.tests.filter((t) => !known.has(t.system)).map((t) => t.systemName),
    };
  });

/** What to load for all tests of a visit, each thing once. A test whose plan no longer holds brings nothing and is said. */
export async function kitOfVisit(
  session: Pick<Session, 'org' | 'organisation' | 'name'>,
  facts: VisitFacts,
): Promise<{ group: string; name: string; why: string }[]> {
  const own = await listKit(session);
  const lines = new Map<string, { group: string; name: string; why: string }>();
  for (const test of facts.tests) {
    let plan: Plan;
    try {
      plan = await testPlan(session, test);
    } catch (error) {
      if (!(error instanceof PlanError) && !(error instanceof TroubleError)) throw error;
      lines.set(test.id, {
        group: 'plan',
        name: `${test.siteName}: ${test.title}`,
        why: `cannot be planned now: ${error.message}`,
      });
      continue;
    }
    const parts = planParts(plan).map((p) => partProspect(plan, p, facts.day));
    const gauges = plan.gauges.filter((g) => g.id === test.gauge);
    for (const l of kitList(plan, parts, gauges, own, facts.day)) {
      if (l.group === 'protection') continue;
      const old = lines.get(l.name);
      const why = `${l.why}${l.from.length ? `; in the cabinet: ${l.from.join(', ')}` : ''}${l.lacking ? '; nothing in date in the cabinet serves' : ''}`;
      if (!old) lines.set(l.name, { group: l.group, name: l.name, why });
    }
  }
  return [...lines.values()];
}
