/** The Yard on a database: by every role, against another house, an exam that tells nothing, and what is never changed again. */
import type { Server } from 'node:http';
import { closePool, inOrganisation } from '@/database/client';
import { exported } from '@/server/moving/testing';
import { shiftClock } from '@/server/now';
import type { Session } from '@/server/session/session';
import { workSimulated } from '@/server/gauge/simulated';
import { bringPacks } from '@/server/people/organisation';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { sql } from 'drizzle-orm';
import { askedGauges } from '../../../scripts/asked-gauges';
import { membersOf } from '../../../scripts/members';
import { beginYard, handDone, yardAct, yardDebrief, yardNow } from './runs';
import { importScenario } from './own-scenarios';
import { resultsOf, scenarioCards, scenarioNamed } from './scenarios';
import { replayFrom } from './replay';
import { board, resultsCsv, setTask, tasksOf, train, watched } from './training';

let standIn: Server;
const sent: { url: string; body: Record<string, unknown> }[] = [];
let people: ReadonlyMap<Role, Session>;
let stranger: Session;
const as = (role: Role) => people.get(role)!;
const fresh = () => uuid7(Date.now());
const begin = async (role: Role, scenario = 'gas-smell', more: object = {}): Promise<string> => {
  const run = fresh();
  await beginYard(as(role), { run, scenario, way: 'free' as const, zone: 'UTC', ...more });
  return run;
};
const refused = (work: Promise<unknown>, status: number, words = /./) =>
  expect(work).rejects.toMatchObject({ status, message: expect.stringMatching(words) as string });

beforeAll(async () => {
  standIn = await askedGauges((url, body) => sent.push({ url, body: body as Record<string, unknown> }));
  process.env.VAST_URL = 'http://127.0.0.1:1';
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
  for (const { org } of [as('owner'), stranger]) await inOrganisation({ org }, (tx) => bringPacks(tx, org));
}, 120_000);
afterAll(async () => {
  standIn.close();
  await closePool();
});

test('whoever conducts tests practises; the office reads on; each scenario is set up with what it hides', async () => {
  for (const role of ['owner', 'tester', 'apprentice'] as const) {
    const run = await begin(role);
    expect(await yardNow(as(role), run)).toMatchObject({
      title: 'What the nose says',
      ended: false,
      way: 'free',
    });
    expect(sent.at(-1)!.body.installation).toMatchObject({
      kind: 'gas',
      truth: { leaks: [{ at: 'range' }] },
    });
  }
  await refused(begin('office'), 403);
  expect((await scenarioCards(as('office'))).cards.length).toBeGreaterThanOrEqual(40);
  await refused(begin('tester', 'no-such'), 404);
});
test('asked twice it is one run; every scenario that ships can be set up on a house of its own', async () => {
  const run = fresh();
  const asked = { run, scenario: 'gas-sound', way: 'guided', zone: 'UTC' } as const;
  await beginYard(as('tester'), asked);
  const before = sent.length;
  await beginYard(as('tester'), asked);
  expect(sent).toHaveLength(before);
  for (const { id } of (await scenarioCards(as('tester'))).cards) await begin('tester', id);
}, 120_000);
test('what a hand does is kept with its moment, by the one who practises alone; nothing else changes the world', async () => {
  const run = await begin('apprentice');
  const at = await handDone(as('apprentice'), run, { act: 'supply', value: 'shut' }, {
    act: 'supply',
  } as never);
  expect(Math.abs(at! - Date.now())).toBeLessThan(5000);
  await refused(handDone(as('tester'), run, { act: 'zero' }, { act: 'zero' } as never), 403, /Somebody else/);
  await refused(workSimulated(as('apprentice'), run, { act: 'truth' }), 422, /cannot be done/);
  expect(await handDone(as('apprentice'), fresh(), { act: 'zero' }, { act: 'zero' } as never)).toBeNull();
});
test('nothing is concluded before its end; given up it is over, and told; what came of it is kept once', async () => {
  const run = await begin('apprentice');
  const who = as('apprentice');
  await refused(
    yardAct(who, run, { kind: 'concluded', cause: 'sound', place: '', because: '' }),
    422,
    /Bring the test to its end/,
  );
  await refused(yardDebrief(who, run), 409, /still going on/);
  await refused(yardAct(as('tester'), run, { kind: 'give-up' }), 403);
  expect((await yardAct(who, run, { kind: 'give-up' })).halted).toEqual({ why: 'Given up.', danger: false });
  await refused(handDone(who, run, { act: 'zero' }, { act: 'zero' } as never), 409, /over/);
  const before = (await resultsOf(who, who.person)).length;
  await yardAct(who, run, { kind: 'concluded', cause: 'unknown', place: '', because: 'left' });
  await refused(yardAct(who, run, { kind: 'concluded', cause: 'sound', place: '', because: '' }), 409);
  const results = await resultsOf(who, who.person);
  expect(results).toHaveLength(before + 1);
  expect(results.at(-1)!.body).toMatchObject({
    kind: 'scenario',
    scenario: 'gas-smell',
    end: 'unfinished',
    run,
  });
  const { debrief } = await yardDebrief(who, run);
  expect(debrief.tells).toMatch(/Smell is a leak/);
  // somebody else of the house sees it where they train
  await refused(yardDebrief(as('office'), run), 403);
  expect((await yardDebrief(as('tester'), run)).debrief.grade.end).toBe('unfinished');
});
test('an exam is sat by the one it was set to, tells nothing, and opens when another signs it', async () => {
  const who = as('apprentice');
  const task = {
    id: fresh(),
    person: who.person,
    scenario: 'gas-sound',
    way: 'exam' as const,
    fault: 'kit',
    minutes: 30,
    due: '2026-12-31',
    note: '',
  };
  await refused(setTask(who, task), 403);
  await refused(setTask(as('tester'), { ...task, fault: 'moisture' }), 422, /cannot be hidden/);
  await refused(setTask(as('tester'), { ...task, person: as('office').person }), 404);
  await setTask(as('tester'), task);
  await setTask(as('tester'), task);
  expect((await tasksOf(who, who.person)).filter((t) => t.id === task.id)).toMatchObject([
    { stands: 'set', way: 'exam' },
  ]);
  await refused(
    beginYard(who, { run: fresh(), scenario: 'gas-sound', way: 'exam' as const, zone: 'UTC' }),
    422,
    /set by the one who trains/,
  );
  await refused(
    beginYard(as('owner'), {
      run: fresh(),
      scenario: 'set',
      way: 'exam' as const,
      task: task.id,
      zone: 'UTC',
    }),
    404,
  );
  const run = fresh();
  await beginYard(who, { run, scenario: 'set', way: 'exam' as const, task: task.id, zone: 'UTC' });
  expect(sent.at(-1)!.body.installation).toMatchObject({ truth: { leaks: [{ at: 'kit' }] } });
  const now = await yardNow(who, run);
  expect([now.title, now.guide]).toEqual(['exam', []]);
  expect(JSON.stringify(now)).not.toMatch(/hose leaks/);
  await refused(yardNow(as('office'), run), 403);
  await refused(watched(who, run), 403);
  expect((await watched(as('tester'), run)).hidden).toMatch(/own hose leaks/);
  await refused(train(as('tester'), run, { kind: 'signed', text: '' }), 409);
  await yardAct(who, run, { kind: 'give-up' });
  await yardAct(who, run, { kind: 'concluded', cause: 'kit', place: '', because: '' });
  await refused(yardDebrief(who, run), 409, /signed/);
  expect((await board(as('owner'))).tasks.find((t) => t.id === task.id)!.stands).toBe('to sign');
  await train(as('owner'), run, { kind: 'signed', text: 'Well said' });
  expect((await yardDebrief(who, run)).kept.session.acts.at(-1)).toMatchObject({
    kind: 'signed',
    text: 'Well said',
  });
  await refused(train(as('owner'), run, { kind: 'note', text: 'late' }), 409);
  expect(await resultsCsv(as('owner'))).toMatch(/The quiet one,gas,sound,exam/);
});
test('while it runs the one who trains changes what is hidden, says something and stops the hands', async () => {
  const who = as('apprentice');
  const run = await begin('apprentice', 'gas-sound');
  const told = await train(as('tester'), run, { kind: 'hidden', fault: 'let-by' });
  expect(told.live.way).toBe('free');
  expect(sent.at(-1)!.body).toMatchObject({
    act: 'truth',
    change: { passes: { supply: expect.any(Number) as number } },
  });
  await refused(train(as('tester'), run, { kind: 'hidden', fault: 'moisture' }), 422);
  await train(as('tester'), run, { kind: 'note', text: 'Look at the meter.' });
  await train(as('tester'), run, { kind: 'paused', paused: true });
  const now = await yardNow(who, run);
  expect(now).toMatchObject({
    stands: expect.any(Number) as number,
    notes: [{ by: as('tester').name, text: 'Look at the meter.' }],
  });
  await refused(handDone(who, run, { act: 'zero' }, { act: 'zero' } as never), 409, /stopped your hands/);
  // the clock of it stands, here and with its stand-in, and goes on from where it stood
  expect(sent.at(-1)!.body).toEqual({ act: 'paused', at: now.stands, paused: true });
  shiftClock(300_000);
  expect((await yardNow(who, run)).at).toBe(now.stands);
  await train(as('tester'), run, { kind: 'paused', paused: false });
  expect(sent.slice(-2).map((s) => s.body)).toEqual([
    { act: 'paused', at: now.stands, paused: false },
    { act: 'passed', at: now.stands, ms: expect.any(Number) as number },
  ]);
  const gone = (await yardNow(who, run)).at - now.stands!;
  expect(gone).toBeGreaterThanOrEqual(0);
  expect(gone).toBeLessThan(60_000);
  shiftClock(0);
  for (const role of ['apprentice', 'office'] as const)
    await refused(train(as(role), run, { kind: 'note', text: 'x' }), 403);
});
test('what went wrong is taken up again from there: what came before is kept, under ids of its own', async () => {
  const who = as('tester');
  const run = await begin('tester', 'gas-reported');
  await refused(replayFrom(who, run, fresh()), 409);
  shiftClock(60_000);
  expect((await yardNow(who, run)).happened).toHaveLength(1);
  shiftClock(120_000);
  await yardAct(who, run, { kind: 'answered', happening: 'reported', answer: 'nod' });
  await yardAct(who, run, { kind: 'give-up' });
  const debrief = (await yardDebrief(who, run)).debrief;
  expect(debrief.grade.end).not.toBe('mastered');
  await refused(replayFrom(as('owner'), run, fresh()), 403);
  const again = fresh();
  const wrong = debrief.grade.wentWrong!;
  expect(wrong).not.toBeNull();
  const first = await replayFrom(who, run, again);
  expect(first.run).toBe(again);
  // asked twice it is one
  expect((await replayFrom(who, run, again)).run).toBe(again);
  const live = await yardNow(who, again);
  expect(live).toMatchObject({ halted: null, concluded: false, way: 'replay' });
  expect(live.at).toBeLessThan(wrong + 10_000);
  const setUp = sent.filter((x) => x.url === '/installations').at(-1)!.body;
  expect((setUp.past as { act: string }[]).at(-1)).toMatchObject({ act: 'passed' });
  shiftClock(0);
});
test('another house has none of it, and nothing that stands is changed or taken away', async () => {
  const run = await begin('tester');
  await refused(yardNow(stranger, run), 404);
  await refused(watched(stranger, run), 404);
  await refused(yardAct(stranger, run, { kind: 'give-up' }), 404);
  await refused(yardDebrief(stranger, run), 404);
  expect(await tasksOf(stranger, null)).toEqual([]);
  expect((await board(stranger)).running).toEqual([]);
  for (const table of ['yard_runs', 'yard_acts', 'yard_results', 'yard_tasks', 'yard_scenarios'])
    for (const change of [`update ${table} set org = org`, `delete from ${table}`])
      await expect(inOrganisation(as('owner'), (tx) => tx.execute(sql.raw(change)))).rejects.toThrow();
  const seen = await inOrganisation(stranger, (tx) =>
    tx.execute(sql`select count(*)::int as n from yard_acts`),
  );
  expect(seen.rows).toEqual([{ n: 0 }]);
});
test('a scenario comes in as a file where it can be set up, solved and missed; otherwise it says what is wrong', async () => {
  const whole = await scenarioNamed(as('tester'), 'gas-sound');
  const file = (over: object) => JSON.stringify({ ...whole, id: 'house-sound', title: 'Ours', ...over });
  await refused(importScenario(as('apprentice'), file({})), 403);
  await refused(importScenario(as('tester'), 'not json'), 422, /not JSON/);
  await refused(importScenario(as('tester'), file({ id: 'gas-sound' })), 409, /another id/);
  await refused(importScenario(as('tester'), file({ pack: 'nobody' })), 422, /rule pack nobody/);
  await refused(importScenario(as('tester'), file({ level: 9 })), 422, /level/);
  await refused(importScenario(as('tester'), file({ hidden: { moisture: 1 } })), 422, /moisture/);
  await refused(importScenario(as('tester'), file({ criteria: ['no-such'] })), 422, /no-such/);
  await refused(
    importScenario(as('tester'), file({ conducts: whole.conducts.slice(0, 1) })),
    422,
    /typical mistake/,
  );
  await refused(importScenario(as('tester'), file({ hidden: { as: 'leak' } })), 422, /does not end mastered/);
  expect(await importScenario(as('tester'), file({}))).toEqual({ id: 'house-sound', title: 'Ours' });
  await importScenario(as('owner'), file({ title: 'Ours, better' }));
  const { cards } = await scenarioCards(as('apprentice'));
  expect(cards.filter((c) => c.own)).toMatchObject([{ id: 'house-sound', title: 'Ours, better' }]);
  expect((await scenarioCards(stranger)).cards.some((c) => c.own)).toBe(false);
  await begin('apprentice', 'house-sound');
});
test('practice moves with its house', async () => {
  const bytes = await exported(as('owner'));
  // names of files stand plainly in the archive
  const names = Buffer.from(bytes).toString('latin1');
  for (const table of ['yard_runs', 'yard_acts', 'yard_results', 'yard_tasks'])
    expect(names).toContain(table);
});
