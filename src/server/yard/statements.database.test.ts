/** Statements of practice and groups: by every role, numbered without gaps, never changed, never another house's. */
import { closePool, inOrganisation } from '@/database/client';
import type { Session } from '@/server/session/session';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { sql } from 'drizzle-orm';
import { membersOf } from '../../../scripts/members';
import { ask, tell } from './questions';
import { group, groups, makeStatement, statement, statementsOf } from './statements';

let people: ReadonlyMap<Role, Session>;
let stranger: Session;
const as = (role: Role) => people.get(role)!;
const fresh = () => uuid7(Date.now());
const refused = (work: Promise<unknown>, status: number) => expect(work).rejects.toMatchObject({ status });
beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
}, 60_000);
afterAll(closePool);

test('one’s own may be made by whoever practises, another’s by whoever trains; the office makes none', async () => {
  const id = fresh();
  const of = as('apprentice').person;
  await makeStatement(as('apprentice'), { id, person: of });
  // asked twice it is one
  await makeStatement(as('apprentice'), { id, person: of });
  expect(await statementsOf(as('apprentice'), of)).toHaveLength(1);
  await makeStatement(as('tester'), { id: fresh(), person: of });
  await refused(makeStatement(as('apprentice'), { id: fresh(), person: as('tester').person }), 403);
  await refused(makeStatement(as('office'), { id: fresh(), person: of }), 403);
  await refused(makeStatement(as('tester'), { id: fresh(), person: as('office').person }), 404);
  await refused(statementsOf(as('apprentice'), as('tester').person), 403);
  const numbers = (await statementsOf(as('owner'), of)).map((s) => s.number).sort();
  expect(numbers).toEqual(['SP-00001', 'SP-00002']);
});
test('it says what was practised up to its day and stays so', async () => {
  const session = as('tester');
  const asked = await ask(session, 'figure');
  await tell(session, { about: 'figure', n: asked.n, mark: asked.mark, figure: 1e300 });
  const id = fresh();
  await makeStatement(session, { id, person: session.person });
  const one = await statement(session, id);
  expect(one.body.questions).toContainEqual({ about: 'figure', asked: 1, right: 0 });
  const second = await ask(session, 'figure');
  await tell(session, { about: 'figure', n: second.n, mark: second.mark, figure: 1e300 });
  expect(await statement(session, id)).toEqual(one);
  for (const statementOf of ['update yard_statements set number = number', 'delete from yard_statements'])
    await expect(inOrganisation(session, (tx) => tx.execute(sql.raw(statementOf)))).rejects.toThrow();
});
test('made at the same time by many, numbers have no gap and none twice', async () => {
  const owner = as('owner');
  await Promise.all(
    Array.from({ length: 8 }, () => makeStatement(owner, { id: fresh(), person: owner.person })),
  );
  const all = (await statementsOf(owner, owner.person))
    .map((s) => Number(s.number.slice(3)))
    .sort((a, b) => a - b);
  expect(all).toHaveLength(8);
  expect(all.at(-1)! - all[0]!).toBe(7);
});
test('groups: the newest word counts, an empty one is gone', async () => {
  const [a, b] = [as('apprentice').person, as('tester').person];
  const put = (person: string, within: boolean, name = 'Second year') =>
    group(as('tester'), { id: fresh(), person, name, within });
  await put(a, true);
  await put(b, true);
  expect(await groups(as('owner'))).toEqual({ 'Second year': [a, b] });
  await put(b, false);
  await put(b, true, 'Evening');
  expect(await groups(as('owner'))).toEqual({ Evening: [b], 'Second year': [a] });
  await put(b, false, 'Evening');
  expect(Object.keys(await groups(as('owner')))).toEqual(['Second year']);
  await refused(group(as('apprentice'), { id: fresh(), person: a, name: 'x', within: true }), 403);
  await refused(
    group(as('tester'), { id: fresh(), person: as('office').person, name: 'x', within: true }),
    404,
  );
});
test('another house has none of it', async () => {
  const [one] = await statementsOf(as('owner'), as('owner').person);
  await refused(statement(stranger, one!.id), 404);
  expect(await groups(stranger)).toEqual({});
  await refused(makeStatement(stranger, { id: fresh(), person: as('apprentice').person }), 404);
});
