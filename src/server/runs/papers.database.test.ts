import type { Server } from 'node:http';
import { eq } from 'drizzle-orm';
import type { Payload, RunEvent } from '@/core/run/events';
import { playScript } from '@/core/run/script';
import { bakery, gauge } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { gauges, kitLog, sites, systems } from '@/database/schema';
import type { Session } from '@/server/session/session';
import { uuid7 } from '@/wire/uuid7';
import { askedGauges } from '../../../scripts/asked-gauges';
import { membersOf } from '../../../scripts/members';
import { readRun, takeEvents } from './log';
import { startRun } from './start';

/** What is said at the bench for the paper, by each who may conduct a test, stands in the house where they may change it. */
let people: Awaited<ReturnType<typeof membersOf>>;
let standIn: Server;
beforeAll(async () => {
  standIn = await askedGauges();
  people = await membersOf(['tester', 'apprentice']);
}, 240_000);
afterAll(async () => {
  standIn.close();
  await closePool();
});

type Said = Omit<Extract<Payload, { kind: 'papers' }>, 'kind'>;
const DAYS = { on: '2026-02-01', due: '2036-02-01' };
const PLACE = { name: 'Kiln', address: '2 Fulling Yard', customer: 'A. Baker' };
/** A place with nothing but its name and a gauge of no known calibration; what stands there after this was said. */
async function said(by: Session, papers: (gauge: string) => Said, practice = false, calibrated = '') {
  const [site, system, own, run] = [1, 2, 3, 4].map(() => uuid7(Date.now())) as [
    string,
    string,
    string,
    string,
  ];
  await inOrganisation(by, async (tx) => {
    await tx.insert(sites).values({ org: by.org, id: site, name: 'Kiln', address: '', customer: '' });
    await tx.insert(systems).values({ org: by.org, id: system, site, name: 'Kiln gas', facts: bakery() });
    const facts = { ...gauge(), id: own, name: 'My gauge', calibrated, calibrationDue: '' };
    await tx.insert(gauges).values({ org: by.org, id: own, name: 'My gauge', facts });
  });
  await startRun(by, {
    ...{
      id: run,
      system,
      pack: 'gas-metric',
      procedure: 'gas-lowpressure-staged',
      case: 'existing',
      practice,
    },
    zone: 'UTC',
  });
  const { plan } = await readRun(by, run);
  const [note] = playScript(plan, [[5, 'note', 'in its place']], {
    ...{ device: uuid7(1), pageLoad: uuid7(2), zone: 'UTC', by: by.person, byName: by.name },
    began: Date.parse(plan.made.at),
    id: () => uuid7(Date.now()),
  });
  const entry = { ...note, text: undefined, kind: 'papers', ...papers(own) } as unknown as RunEvent;
  await takeEvents(by, run, [entry]);
  // an answer that was lost is asked for again
  await takeEvents(by, run, [entry]);
  return inOrganisation(by, async (tx) => {
    const [place] = await tx.select().from(sites).where(eq(sites.id, site));
    const [kept] = await tx.select().from(gauges).where(eq(gauges.id, own));
    const log = await tx.select().from(kitLog).where(eq(kitLog.item, own));
    return {
      place: { name: place!.name, address: place!.address, customer: place!.customer },
      due: kept!.facts.calibrationDue,
      log: log.map((l) => [l.by, l.entry]),
    };
  });
}
const both = (own: string): Said => ({ site: PLACE, calibration: { gauge: own, ...DAYS } });

test('said by a tester: place, customer and calibration stand in the house, once', async () => {
  const tester = people.get('tester')!;
  expect(await said(tester, both)).toEqual({
    place: PLACE,
    due: DAYS.due,
    log: [[tester.name, { what: 'calibrated', ...DAYS, certificate: '' }]],
  });
});
test.each([
  ['an apprentice changes neither', 'apprentice', both, false],
  ['practice changes neither', 'tester', both, true],
  ['nothing is said of either', 'tester', () => ({}), false],
] as const)('%s', async (_, role, papers, practice) => {
  expect(await said(people.get(role)!, papers, practice)).toEqual({
    place: { name: 'Kiln', address: '', customer: '' },
    due: '',
    log: [],
  });
});
test.each([
  ['2026-02-01', DAYS.due],
  ['2026-02-02', ''],
])('a gauge calibrated on %s meanwhile: of the two the later stands', async (calibrated, due) => {
  expect((await said(people.get('tester')!, both, false, calibrated)).due).toBe(due);
});
