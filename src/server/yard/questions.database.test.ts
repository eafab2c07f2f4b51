/** Questions on a database: the answers stay with the server, the first answer counts, and nobody leafs for an easy one. */
import { closePool, inOrganisation } from '@/database/client';
import type { About } from '@/core/yard/questions/question';
import { bringPacks } from '@/server/people/organisation';
import type { Session } from '@/server/session/session';
import { ROLES, type Role } from '@/wire/role';
import { loadDemo } from '../../../scripts/demo';
import { membersOf } from '../../../scripts/members';
import { ask, ofRecord, tell } from './questions';
import { resultsOf } from './scenarios';

let people: ReadonlyMap<Role, Session>;
const as = (role: Role) => people.get(role)!;
const none = { choice: 'nothing of it', reason: 'nothing of it', figure: Number.MAX_VALUE };
beforeAll(async () => {
  people = await membersOf(ROLES);
  await inOrganisation(as('owner'), (tx) => bringPacks(tx, as('owner').org));
}, 60_000);
afterAll(closePool);

test.each(['figure', 'verdict', 'trace'] as const)(
  '%s: asked, answered, told once',
  async (about: About) => {
    const session = as('apprentice');
    const asked = await ask(session, about);
    expect(asked).toMatchObject({ n: 0, score: { asked: 0 } });
    // put again before it is answered it is the same, without an answer in it
    expect(await ask(session, about)).toEqual(asked);
    expect(JSON.stringify(asked)).not.toMatch(/solution|tells/);
    const { n, mark } = asked;
    const told = await tell(session, { about, n, mark, ...none });
    expect(told).toMatchObject({ right: false, score: { asked: 1, right: 0 } });
    // whoever read the answer cannot give it now
    const { solution: s } = told;
    const second = await tell(session, {
      about,
      n,
      mark,
      ...(s.choice ? { choice: s.choice[0] } : {}),
      ...(s.reason ? { reason: s.reason[0] } : {}),
      ...(s.figure ? { figure: s.figure.value } : {}),
    });
    expect(second).toMatchObject({ right: true, score: { asked: 1, right: 0 } });
    expect((await ask(session, about)).n).toBe(1);
  },
  60_000,
);
test('a right answer counts, for that person alone', async () => {
  const session = as('tester');
  const asked = await ask(session, 'figure');
  const peek = await tell(as('owner'), {
    about: 'figure',
    n: 0,
    mark: (await ask(as('owner'), 'figure')).mark,
    ...none,
  });
  // everybody has a row of their own
  expect(peek.solution.figure!.value).not.toBe(Number.MAX_VALUE);
  const first = await tell(session, { ...asked, figure: undefined });
  expect(first.right).toBe(false);
  const next = await ask(session, 'figure');
  expect(next.n).toBe(1);
  expect((await resultsOf(session, session.person)).length).toBe(1);
});
test('an answer to what was not put, or to another question, is refused and changes nothing', async () => {
  const session = as('tester');
  const { n, mark } = await ask(session, 'figure');
  const before = await resultsOf(session, session.person);
  await expect(tell(session, { about: 'figure', n: n + 1, mark, ...none })).rejects.toMatchObject({
    status: 409,
  });
  await expect(tell(session, { about: 'figure', n, mark: 'another', ...none })).rejects.toMatchObject({
    status: 409,
  });
  expect(await resultsOf(session, session.person)).toEqual(before);
});
test('the office practises nothing', async () => {
  await expect(ask(as('office'), 'figure')).rejects.toMatchObject({ status: 403 });
  await expect(tell(as('office'), { about: 'figure', n: 0, mark: 'x', ...none })).rejects.toMatchObject({
    status: 403,
  });
});
test('records of the house are asked about without whose they are, and those of another house never', async () => {
  expect(await ofRecord(as('owner'), 3)).toBeNull();
  const { org } = await loadDemo('questions.example', 3);
  const session = { ...as('owner'), org };
  const found = (await Promise.all([0, 1, 2].map((seed) => ofRecord(session, seed)))).filter(
    (p) => p !== null,
  );
  expect(found.length).toBeGreaterThan(0);
  for (const { question, solution } of found) {
    expect(solution.choice!.length).toBe(1);
    expect(JSON.stringify(question)).not.toMatch(/Hollin|Tarrow|Millrace|VS-\d/);
  }
}, 60_000);
