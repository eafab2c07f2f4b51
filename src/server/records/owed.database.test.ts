import { eq, sql } from 'drizzle-orm';
import type { FollowUpKind } from '@/core/after/follow-ups';
import { withListsOf } from '@/core/network/enter';
import { bakery } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { followUps, runs, sites, systems } from '@/database/schema';
import type { Session } from '@/server/session/session';
import { owedQueryFrom, seeToSchema } from '@/wire/owed';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { beginTest } from '../../../scripts/houses';
import { readRun } from '@/server/runs/log';
import { putOnDay, readDays } from '@/server/visits/days';
import { readVisitFacts } from '@/server/visits/store';
import { readOwed, seeToAll } from './owed';

const TODAY = '2026-11-30'; // a Monday
const SITE = uuid7(1);
const SYSTEM = uuid7(2);
let people: ReadonlyMap<Role, Session>;
let stranger: Session;
const as = (role: Role) => people.get(role)!;
const owed = async (params: Record<string, string> = {}, who = as('office')) => {
  const { parts, all } = await readOwed(who, owedQueryFrom(params), TODAY);
  return { all, parts: parts.map((p) => [p.title, p.all, p.lines.map((l) => l.text)] as const) };
};
const texts = async (params: Record<string, string>) =>
  (await owed(params)).parts.flatMap(([, , t]) => t).sort();
const ids: string[] = [];
beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
  const { org } = as('owner');
  await inOrganisation({ org }, async (tx) => {
    await tx.insert(sites).values({ org, id: SITE, name: 'Dye house', address: 'Yard', customer: 'Sørby' });
    const facts = withListsOf(bakery({ id: SYSTEM }));
    await tx.insert(systems).values({ org, id: SYSTEM, site: SITE, name: 'Gas', facts });
    for (const [n, [kind, text, due, system, owner]] of (
      [
        ['repair', 'Union at the hob', '2026-11-29', SYSTEM, null],
        ['yearly', 'Test again', '2026-12-06', SYSTEM, as('tester').person],
        ['refer', 'Engineer asked', '2026-12-07', SYSTEM, as('tester').person],
        ['report', 'Report to supplier', '2027-02-01', null, null],
      ] as const
    ).entries()) {
      ids[n] = uuid7(Date.now());
      await tx
        .insert(followUps)
        .values({ org, id: ids[n], kind, text, due, system, owner, made: new Date() });
    }
  });
}, 120_000);
afterAll(closePool);

test('in groups, that first in which something is due first; each group says how many it has', async () => {
  expect((await owed()).parts).toEqual([
    ['2026-11-23', 1, ['Union at the hob']],
    ['2026-11-30', 1, ['Test again']],
    ['2026-12-07', 1, ['Engineer asked']],
    ['2027-02-01', 1, ['Report to supplier']],
  ]);
  expect((await owed({ group: 'person' })).parts.map(([t, n]) => [t, n])).toEqual([
    ['Nobody yet', 2],
    ['A tester', 2],
  ]);
  expect((await owed({ group: 'place' })).parts.map(([t, n]) => [t, n])).toEqual([
    ['Dye house', 3],
    ['Not about a place', 1],
  ]);
  expect((await owed({ group: 'kind' })).parts.map(([t]) => t)).toEqual([
    'repair',
    'regular test',
    'answer awaited',
    'report',
  ]);
});
test('narrowed by words, kind, who and when: days exactly at the edge count', async () => {
  expect(await texts({ find: 'sorby union' })).toEqual(['Union at the hob']);
  expect(await texts({ kind: 'report' })).toEqual(['Report to supplier']);
  expect(await texts({ owner: 'nobody' })).toEqual(['Report to supplier', 'Union at the hob']);
  expect(await texts({ owner: as('tester').person, when: 'week' })).toEqual(['Engineer asked', 'Test again']);
  expect(await texts({ when: 'late' })).toEqual(['Union at the hob']);
  expect((await owed({ owner: 'mine' }, as('tester'))).all).toBe(2);
  // what an address says that means nothing narrows nothing
  expect((await owed({ kind: 'zebra', when: 'never', owner: 'x', group: 'y' })).all).toBe(4);
});
test('another house sees nothing of it and can do nothing with it', async () => {
  expect((await owed({}, stranger)).all).toBe(0);
  expect(await seeToAll(stranger, { ids: [ids[0]!], due: '2027-01-01' })).toEqual({
    done: 0,
    refused: [{ id: ids[0], text: expect.stringMatching(/no such/) }],
  });
});
test('several at once; what one refuses leaves the others; who may not is told', async () => {
  await expect(seeToAll(as('apprentice'), { ids, due: TODAY })).rejects.toThrow(/does not share records/);
  expect(
    await seeToAll(as('office'), { ids: [...ids, ids[0]!], owner: as('office').person, due: '2026-12-24' }),
  ).toEqual({
    done: 4,
    refused: [],
  });
  expect((await owed({ group: 'person' })).parts).toEqual([['A office', 4, expect.any(Array)]]);
  expect(await seeToAll(as('office'), { ids, owner: stranger.person })).toMatchObject({ done: 0 });
  expect((await seeToAll(as('office'), { ids: ids.slice(0, 2), owner: 'nobody' })).done).toBe(2);
  const { done, refused } = await seeToAll(as('office'), {
    ids: [ids[0]!, uuid7(9)],
    close: 'Sleeve remade',
  });
  expect([done, refused.length]).toEqual([1, 1]);
  expect((await owed()).all).toBe(3);
  const closed = await inOrganisation(as('office'), (tx) =>
    tx
      .select({ by: followUps.closedBy, text: followUps.closedText })
      .from(followUps)
      .where(sql`id = ${ids[0]}`),
  );
  expect(closed).toEqual([{ by: 'A office', text: 'Sleeve remade' }]);
});
test('what is asked without saying what is refused at the edge', () => {
  const wrong = (value: unknown) => () => seeToSchema.validateSync(value, { strict: true });
  expect(wrong({ ids: [], due: TODAY })).toThrow(/choose at least one/);
  expect(wrong({ ids })).toThrow(/Say what is to be done/);
  expect(wrong({ ids, due: '2026-02-30' })).toThrow(/is not a day/);
  expect(wrong({ ids, owner: 'x' })).toThrow(/is not an id/);
  expect(wrong({ ids: Array.from({ length: 201 }, () => ids[0]), due: TODAY })).toThrow();
});
describe('a due test put on a day', () => {
  const put = (who: Session, id: string, day: string) => putOnDay(who, id, { day, zone: 'UTC' });
  const fresh = async (kind: FollowUpKind, system: string | null, run: string | null = null) => {
    const id = uuid7(Date.now());
    const row = {
      org: as('owner').org,
      id,
      kind,
      system,
      run,
      text: 'Test again',
      due: TODAY,
      made: new Date(),
    };
    await inOrganisation(as('owner'), (tx) => tx.insert(followUps).values(row));
    return id;
  };
  test('becomes a visit with the test as it was; a second one to the same place joins it; it is due on that day then', async () => {
    const run = await beginTest({ who: as('owner') }, 'Kiln');
    const { plan } = await readRun(as('owner'), run);
    const [row] = await inOrganisation(as('owner'), (tx) =>
      tx.select({ system: runs.system }).from(runs).where(eq(runs.id, run)),
    );
    const [first, second] = [
      await fresh('yearly', row!.system, run),
      await fresh('retest', row!.system, run),
    ];
    const { visit, without } = await put(as('office'), first, '2026-12-02');
    expect(without).toBe(null);
    expect((await put(as('office'), second, '2026-12-02')).visit).toBe(visit);
    const { facts } = await readVisitFacts(as('office'), visit);
    expect([facts.day, facts.title, facts.tests.map((t) => [t.procedure, t.case])]).toEqual([
      '2026-12-02',
      'Kiln: Gas',
      Array.from({ length: 2 }, () => [plan.procedure.id, plan.case]),
    ]);
    const { things, due } = await readDays(as('office'), '2026-11-30', 'UTC');
    expect(things.filter((t) => t.day === '2026-12-02').map((t) => t.kind)).toEqual([
      'visit',
      'test',
      'test',
    ]);
    expect(due.map((d) => d.id)).toEqual(expect.arrayContaining([first, second]));
  }, 60_000);
  test('where nobody said which test, the visit stands and says so; what is no test is refused, and who may not is told', async () => {
    const { visit, without } = await put(as('tester'), await fresh('swapped', SYSTEM), '2026-12-03');
    expect(without).toMatch(/nobody has said/);
    expect((await readVisitFacts(as('office'), visit)).facts.tests).toEqual([]);
    await expect(put(as('office'), await fresh('report', SYSTEM), TODAY)).rejects.toThrow(
      /no test of an installation/,
    );
    await expect(put(as('office'), await fresh('yearly', null), TODAY)).rejects.toThrow(
      /no test of an installation/,
    );
    await expect(put(as('apprentice'), await fresh('yearly', SYSTEM), TODAY)).rejects.toMatchObject({
      status: 403,
    });
    await expect(put(stranger, await fresh('yearly', SYSTEM), TODAY)).rejects.toMatchObject({ status: 404 });
  });
});
