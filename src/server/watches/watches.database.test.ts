import { migrateDatabase } from '../../../scripts/migrate';
import { makeOrganisation } from '../../../scripts/demo';
import { closePool, inOrganisation } from '@/database/client';
import { auditLog, watches } from '@/database/schema';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { playScript, type ScriptLine } from '@/core/run/script';
import { now, shiftClock } from '@/server/now';
import { readOutbox } from '@/server/outbox/outbox';
import { saveGauge } from '@/server/cabinet/cabinet';
import { saveSite, saveSystem } from '@/server/places/places';
import { appendEvents, readRun } from '@/server/runs/log';
import { startRun } from '@/server/runs/start';
import { sealRun } from '@/server/sealing/seal';
import type { Session } from '@/server/session/session';
import { systemSchema, type SystemForm } from '@/wire/places';
import { emptySystem } from '@/wire/system-form';
import { watchEntrySchema, type WatchEntryRequest } from '@/wire/watch';
import { uuid7 } from '@/wire/uuid7';
import { linkEntry, memberEntry, readWatch, readWatches, setLink, watchForLink } from './watches';

let tester: Session;
let stranger: Session;
let system: string;
let watch: string;
let token: string;

const session = (made: Awaited<ReturnType<typeof makeOrganisation>>, key: string): Session => {
  const p = made.persons.get(key)!;
  return {
    org: made.org,
    person: p.id,
    name: p.name,
    role: p.role,
    organisation: 'x',
    session: '',
    licence: p.licence,
  };
};
const entry = (over: Partial<WatchEntryRequest>): WatchEntryRequest => ({
  id: uuid7(now()),
  kind: 'reading',
  who: 'Sefa',
  trade: 'screed',
  text: '',
  ...over,
});
const loops: SystemForm = {
  ...emptySystem(),
  name: 'Hall loops',
  medium: 'water',
  duty: 'loops',
  workingPressure: '2.5 bar',
  supplyPressure: '2.5 bar',
  meterKind: 'none',
  meterName: 'none',
  pipes: [
    {
      id: 'l1',
      name: 'Loop 1',
      table: 'pex',
      nominal: '17 × 2.0',
      material: 'PE-X',
      size: '1 mm',
      bore: '1 mm',
      length: '80 m',
      rating: '',
    },
  ],
  loops: [{ id: 'l1', name: 'Loop 1', valve: 'actuator 1', flowMeter: 'glass 1' }],
};

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const made = await makeOrganisation(
    'Weir Heating',
    '555-0111',
    [{ key: 'ana', name: 'Ana Weir', role: 'tester', licence: ['W-1', '2030-01-01'] }],
    'weir.example',
  );
  const other = await makeOrganisation(
    'Other Heating',
    '',
    [{ key: 'bo', name: 'Bo Other', role: 'owner' }],
    'bo-other.example',
  );
  tester = session(made, 'ana');
  stranger = session(other, 'bo');
  const site = uuid7(now());
  system = uuid7(now() + 1);
  await saveSite(tester, { id: site, name: 'Hall', address: '1 Lane', customer: 'Trust' });
  await saveSystem(tester, system, site, systemSchema.validateSync(loops, { strict: true }));
  await saveGauge(tester, {
    id: uuid7(now()),
    name: 'B-1',
    serial: 'S',
    kind: 'digital',
    least: '0 bar',
    greatest: '16 bar',
    resolution: '0.01 bar',
    accuracy: '',
    calibrated: '2026-03-01',
    calibrationDue: '2099-03-01',
  });
  const run = uuid7(now());
  await startRun(tester, {
    id: run,
    system,
    pack: 'water-pipework',
    procedure: 'floor-loops',
    case: 'manifold',
    practice: false,
    zone: 'UTC',
  });
  const { plan } = await readRun(tester, run);
  const began = now();
  const lines: ScriptLine[] = [
    [5, 'checks'],
    [10, 'checks'],
    [15, 'gauge', 'B-1'],
    [17, 'zero', '0.00'],
    [20, 'pump', '2.00'],
    [145, 'look', '2.00', 'dry'],
    [150, 'pump', '4.10'],
    [215, 'look', '4.10', 'dry'],
    [220, 'start', '4.10'],
    [700, 'read', '4.10'],
    [830, 'end', '4.10'],
    [840, 'start', '4.10'],
    [4500, 'end', '4.10'],
    [4510, 'fill', '2.50'],
    [4520, 'checks'],
    [4530, 'putback'],
    [4540, 'sign', 'Ana Weir'],
    [4550, 'customer', 'Trust'],
  ];
  const events = playScript(plan, lines, {
    device: uuid7(began),
    pageLoad: uuid7(began),
    zone: 'UTC',
    by: tester.person,
    byName: tester.name,
    began,
    id: (n) => uuid7(began + n),
  });
  shiftClock(5000_000);
  await appendEvents(tester, run, events);
  await sealRun(tester, run);
  [{ id: watch }] = (await readWatches(tester, system)) as unknown as [{ id: string }];
  token = (await setLink(tester, watch, 'make')).token!;
}, 240_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});

test('sealing a run that left its section under pressure begins the watch, with what a kelvin does there', async () => {
  const [row] = await readWatches(tester);
  expect(row!.facts).toMatchObject({
    figure: q('2.50 bar'),
    purpose: 'screed',
    call: '555-0111',
    zone: 'UTC',
  });
  expect(row!.facts.perKelvin).toBeLessThan(0);
  expect([row!.state.word, row!.facts.fall]).toEqual(['holds', q('0.25 bar')]);
});
test('the link writes readings and shows nothing that anyone wrote', async () => {
  await linkEntry(token, entry({ figure: '2.48 bar' }));
  const shown = await watchForLink(token);
  expect(JSON.stringify(shown)).not.toMatch(/Sefa|2\.48|"digits":248\b/);
  await expect(linkEntry(token, entry({ kind: 'end', text: 'over' }))).rejects.toThrow(/Only the firm/);
  await expect(linkEntry(token, entry({ figure: '36 psi' }))).rejects.toThrow(/reads bar/);
  await expect(linkEntry(token, entry({}))).rejects.toThrow(/Type what the gauge shows/);
  await expect(linkEntry('x'.repeat(32), entry({ figure: '2.4 bar' }))).rejects.toThrow(/not in use/);
  expect(() => watchEntrySchema.validateSync({ ...entry({ figure: '2.4 mm' }) }, { strict: true })).toThrow(
    /figure/,
  );
});
test('a fall is told once, dated between two readings; a retry is kept once; a correction takes it back and erases nothing', async () => {
  shiftClock(9000_000);
  const wrong = entry({ figure: '0.40 bar' });
  expect((await linkEntry(token, wrong)).fell).toBe(true);
  expect((await linkEntry(token, wrong)).id).toBe(wrong.id);
  await linkEntry(token, entry({ figure: '0.38 bar' }));
  expect((await readOutbox(tester)).filter((m) => m.subject.startsWith('Watch fell'))).toHaveLength(1);
  const lost = await readWatch(tester, watch);
  expect([lost.state.word, lost.log.filter((e) => e.id === wrong.id).length]).toEqual(['lost', 1]);
  expect(lost.state.lost!.to).toBeGreaterThan(lost.state.lost!.from);
  for (const r of lost.state.readings.filter((x) => x.lost))
    await linkEntry(token, entry({ kind: 'correction', of: r.id, figure: '2.45 bar', text: 'wrong ring' }));
  const right = await readWatch(tester, watch);
  expect([right.state.word, right.log.length]).toEqual(['holds', lost.log.length + 2]);
  await expect(
    linkEntry(token, entry({ kind: 'correction', of: uuid7(5), figure: '2.4 bar', text: 'x' })),
  ).rejects.toThrow(/not one of this watch/);
});
test('too many in an hour are refused, and later taken again; a new link ends the old one, revoking ends all', async () => {
  shiftClock(20_000_000);
  for (let i = 0; i < 30; i++) await linkEntry(token, entry({ figure: '2.47 bar' }));
  await expect(linkEntry(token, entry({ figure: '2.47 bar' }))).rejects.toThrow(/Too many entries/);
  shiftClock(24_000_000);
  await linkEntry(token, entry({ figure: '2.47 bar' }));
  const second = (await setLink(tester, watch, 'make')).token!;
  await expect(linkEntry(token, entry({ figure: '2.47 bar' }))).rejects.toThrow(/not in use/);
  await linkEntry(second, entry({ figure: '2.46 bar' }));
  await setLink(tester, watch, 'revoke');
  await expect(watchForLink(second)).rejects.toThrow(/not in use/);
  const said = await inOrganisation(tester, (tx) => tx.select().from(auditLog));
  expect(said.filter((a) => a.what.includes('watch link')).length).toBe(3);
});
test('another organisation reaches neither the watch nor its link; entries can be neither changed nor removed', async () => {
  expect(await readWatches(stranger)).toEqual([]);
  await expect(readWatch(stranger, watch)).rejects.toThrow(/no such watch/);
  await expect(memberEntry(stranger, watch, entry({ figure: '2.4 bar' }))).rejects.toThrow(/no such watch/);
  await expect(setLink(stranger, watch, 'make')).rejects.toThrow(/no such watch/);
  for (const statement of [
    "update watch_entries set body = '{}'",
    'delete from watch_entries',
    "update watches set facts = '{}'",
    'delete from watches',
  ])
    await expect(inOrganisation(tester, (tx) => tx.execute(statement))).rejects.toThrow();
  // the hash alone is kept: the table gives no link away
  const rows = await inOrganisation(tester, (tx) => tx.select().from(watches));
  expect(JSON.stringify(rows)).not.toContain(token);
});
test('ended, nothing more is entered', async () => {
  await memberEntry(tester, watch, entry({ kind: 'end', text: 'floor is down' }));
  await expect(memberEntry(tester, watch, entry({ figure: '2.4 bar' }))).rejects.toThrow(/is over/);
  expect((await readWatch(tester, watch)).state.ended?.text).toBe('floor is down');
});
