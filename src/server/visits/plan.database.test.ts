import { migrateDatabase } from '../../../scripts/migrate';
import { makeOrganisation } from '../../../scripts/demo';
import { closePool } from '@/database/client';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { uuid } from '@/core/testing/bakery';
import { playScript } from '@/core/run/script';
import { readCabinet, saveGauge, saveKit, writeLog } from '@/server/cabinet/cabinet';
import { now, shiftClock } from '@/server/now';
import { readOutbox, sendMessage } from '@/server/outbox/outbox';
import { readSystem, saveNetwork, saveSite, saveSystem } from '@/server/places/places';
import { appendEvents, readRun } from '@/server/runs/log';
import { startRun } from '@/server/runs/start';
import { readEditions, saveEditions } from '@/server/rules/rules';
import type { Session } from '@/server/session/session';
import { visitCalendar } from '@/server/visits/calendar';
import { attendanceOn } from '@/core/visit/facts';
import { readDays } from '@/server/visits/days';
import { daySheet } from '@/server/visits/sheet';
import { addTest, changeVisit, listVisits, makeVisit, readVisit } from '@/server/visits/visits';
import { readVisitFacts } from '@/server/visits/store';
import { systemSchema, type SystemForm } from '@/wire/places';
import { emptySystem } from '@/wire/system-form';
import { logSchema, type LogForm } from '@/wire/cabinet';
import { momentIn } from '@/wire/visit-time';
import { uuid7 } from '@/wire/uuid7';

let tester: Session;
let apprentice: Session;
let stranger: Session;
let owner: Session;
const id = (n: number) => uuid(n, 42);
const gauge = (n: number, name: string) => ({
  id: id(n),
  name,
  serial: `S-${n}`,
  kind: 'digital',
  least: '-100 mbar',
  greatest: '200 mbar',
  resolution: '0.01 mbar',
  accuracy: '',
  calibrated: '2026-03-01',
  calibrationDue: '2027-03-01',
});
const pipe = (over: Partial<SystemForm['pipes'][number]> = {}) => ({
  id: 'p',
  name: 'Main',
  table: 'copper-thin',
  nominal: '28 × 0.9',
  material: 'copper',
  size: '1 mm',
  bore: '1 mm',
  length: '14 m',
  rating: '',
  ...over,
});
const bakery: SystemForm = {
  ...emptySystem(),
  name: 'Press room gas',
  meterKind: 'diaphragm-U6-G4',
  meterName: 'G4',
  meterVolume: '8 l',
  pipes: [pipe()],
};
/** A system that the air test of pipework is for. */
const kiln = (name: string, elements: SystemForm['elements'] = []): SystemForm => ({
  ...emptySystem(),
  name,
  meterKind: 'other',
  workingPressure: '0.25 psi',
  supplyPressure: '0.25 psi',
  pipes: [pipe({ table: '', nominal: '', material: 'steel', size: '1 in', bore: '1 in', length: '20 ft' })],
  elements,
});

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const own = await makeOrganisation(
    'Weir Row Fitters',
    '',
    [
      { key: 'oona', name: 'Oona Vashti-Reyes', role: 'tester', licence: ['W-1', '2030-01-01'] },
      { key: 'bram', name: 'Bram Castellan', role: 'apprentice' },
      { key: 'juno', name: 'Juno Weir', role: 'owner' },
    ],
    'weir-row.example',
  );
  const other = await makeOrganisation(
    'Quay Fitters',
    '',
    [{ key: 'sol', name: 'Sol Ferreira', role: 'owner' }],
    'quay-fitters.example',
  );
  const as = (made: typeof own, key: string, organisation: string): Session => {
    const p = made.persons.get(key)!;
    return {
      org: made.org,
      person: p.id,
      name: p.name,
      role: p.role,
      organisation,
      licence: null,
      session: '',
    };
  };
  tester = as(own, 'oona', 'Weir Row Fitters');
  apprentice = as(own, 'bram', 'Weir Row Fitters');
  owner = as(own, 'juno', 'Weir Row Fitters');
  stranger = as(other, 'sol', 'Quay Fitters');
}, 240_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});

describe('places that are entered', () => {
  test('a place and a system from a form: the table decides the bore; facts no form shows survive a change', async () => {
    await saveSite(tester, { id: id(1), name: 'Press room', address: 'Yard 4', customer: 'A. Q.' });
    await saveSystem(tester, id(2), id(1), systemSchema.validateSync(bakery, { strict: true }));
    const { system } = await readSystem(tester, id(2));
    expect([system.facts.pipes[0]!.bore, system.facts.pipes[0]!.size]).toEqual([
      q('26.20 mm'),
      q('28.00 mm'),
    ]);
    const { network } = system.facts;
    const moved = network!.parts.map((p) => (p.kind === 'point' ? { ...p, name: 'outlet', x: 44, y: 8 } : p));
    await saveNetwork(tester, id(2), { ...network!, parts: moved });
    const block = { id: 'f', name: 'Burner block', certificate: 'BB-77' };
    await saveSystem(tester, id(2), null, { ...bakery, name: 'Press room, gas', factoryTested: [block] });
    const after = (await readSystem(tester, id(2))).system;
    const point = after.facts.network!.parts.find((p) => p.kind === 'point')!;
    // what the form says of the point stands; where it was drawn stays
    expect([after.name, point.name, point.x, point.y]).toEqual(['Press room, gas', bakery.testPoint, 44, 8]);
    expect(after.facts.network!.parts.find((p) => p.kind === 'tested')).toMatchObject({
      name: 'Burner block',
    });
    expect(after.facts.pipes).toEqual(system.facts.pipes);
  });
  test('bad figures are refused by name, an apprentice and another organisation altogether', async () => {
    const bad = (part: Partial<SystemForm>) => () =>
      systemSchema.validateSync({ ...bakery, ...part }, { strict: true });
    expect(bad({ workingPressure: '21 l' })).toThrow(/does not measure a pressure/);
    expect(bad({ workingPressure: '0 mbar' })).toThrow(/above zero/);
    expect(bad({ workingPressure: '' })).toThrow(/needed/);
    expect(bad({ pipes: [] })).toThrow(/at least one pipe/);
    expect(bad({ factoryTested: [{ id: 'f', name: 'Coil', certificate: '' }] })).toThrow(
      expect.objectContaining({ path: 'factoryTested[0].certificate', message: 'is needed' }),
    );
    expect(bad({ measuredBy: 'draw' })).toThrow(/volume that was measured/);
    expect(bad({ colour: 'red' } as never)).toThrow(/colour/);
    const site = { id: id(3), name: 'x', address: 'x', customer: 'x' };
    await expect(saveSite(apprentice, site)).rejects.toThrow(/apprentice/);
    await expect(saveSystem(stranger, id(2), null, bakery)).rejects.toThrow(/no such site/);
    await expect(readSystem(stranger, id(2))).rejects.toThrow(/no such system/);
  });
});

describe('cabinet', () => {
  const entry = (n: number, part: Partial<LogForm>): LogForm =>
    logSchema.validateSync(
      {
        id: id(n),
        what: 'note',
        figure: '',
        pressure: '',
        loss: '',
        flow: '',
        on: '',
        due: '',
        text: '',
        ...part,
      },
      { strict: true },
    );
  const zero = (n: number, figure: string) => entry(n, { what: 'zero', figure, openToAir: true });
  const line = async () => (await readCabinet(tester)).gauges.find((g) => g.gauge.name === 'X-1')!;
  test('dropped, then off zero, then good: it may judge again; exactly one step is still zero', async () => {
    await saveGauge(tester, gauge(10, 'X-1'));
    await writeLog(apprentice, id(10), entry(11, { what: 'dropped' }));
    expect((await line()).gauge.mustZero).toMatch(/dropped/);
    expect(await writeLog(tester, id(10), zero(12, '0.02 mbar'))).toEqual({ good: false });
    expect((await line()).gauge.mustZero).toMatch(/off zero/);
    expect(await writeLog(tester, id(10), zero(13, '-0.01 mbar'))).toEqual({ good: true });
    expect((await line()).gauge.mustZero).toBeUndefined();
    await writeLog(tester, id(10), entry(14, { what: 'rejected', text: 'flickers' }));
    await saveGauge(tester, { ...gauge(10, 'X-1'), serial: 'S-2' }); // changing facts does not bring it back into use
    expect((await line()).gauge).toMatchObject({ withdrawn: 'flickers', serial: 'S-2' });
    await writeLog(tester, id(10), entry(15, { what: 'calibrated', on: '2026-11-01', due: '2027-11-01' }));
    expect((await line()).gauge.calibrationDue).toBe('2027-11-01');
  });
  test('an own-kit test sets the next one; what is missing or foreign is refused', async () => {
    const words = {
      serial: '',
      note: '',
      resolution: '',
      stroke: '',
      rating: '',
      accuracy: '',
      volume: '',
      size: '',
      batch: '',
      due: '',
    };
    await saveKit(tester, { ...words, id: id(20), kind: 'hose', name: 'H-9', interval: 30, ranges: [] });
    const blank = entry(21, { what: 'blank', pressure: '25 mbar', loss: '0 mbar', minutes: 10 });
    await writeLog(tester, id(20), blank);
    const hose = (await readCabinet(tester)).kit.find((k) => k.item.name === 'H-9')!;
    expect(hose.item.due).toBe(new Date(now() + 30 * 86_400_000).toISOString().slice(0, 10));
    expect(() => entry(22, { what: 'blank', pressure: '25 mbar' })).toThrow(/loss and minutes/);
    expect(() => entry(23, { what: 'zero', figure: '0 mbar' })).toThrow(/open to air/);
    await expect(writeLog(tester, id(10), zero(24, '0 psi'))).rejects.toThrow(/shows mbar/);
    await expect(writeLog(stranger, id(10), entry(25, { what: 'dropped' }))).rejects.toThrow(/no such thing/);
  });
});

describe('visits', () => {
  const visit = { id: id(40), title: 'Millrace', day: '2026-12-01', start: '08:30', zone: 'Europe/London' };
  const staged = { system: id(2), pack: 'gas-metric', procedure: 'gas-lowpressure-staged', case: 'existing' };
  const air = { pack: 'gas-imperial', procedure: 'gas-air-pipework', case: 'building' };
  const test1 = { id: 't1', ...staged, gauge: null };
  const start = { choices: {}, practice: false, zone: 'Europe/London' };
  test('a test brings its tasks; two who change one visit at once: the second is told', async () => {
    await saveGauge(tester, gauge(30, 'G-9'));
    await makeVisit(tester, visit);
    expect(await addTest(tester, visit.id, 1, test1)).toEqual({ version: 2 });
    await expect(addTest(tester, visit.id, 1, { ...test1, id: 't2' })).rejects.toThrow(
      /Somebody else changed/,
    );
    expect(await addTest(tester, visit.id, 2, test1)).toEqual({ version: 2 }); // asked twice
    const { facts } = await readVisitFacts(tester, visit.id);
    expect(facts.tests[0]!.gaugeName).toBe('G-9');
    expect(facts.tasks.map((t) => t.kind)).toEqual(['meeting', 'test', 'meeting']);
    await expect(readVisit(stranger, visit.id)).rejects.toThrow(/no such visit/);
    expect(await listVisits(stranger, '2020-01-01')).toEqual([]);
    await expect(makeVisit(apprentice, { ...visit, id: id(41) })).rejects.toThrow(/apprentice/);
  });
  test('what the plan settled stands on the visit and arrives at the bench with the run', async () => {
    const settled = {
      choices: { 'u16-drop': '1.5' },
      permit: 'MQ-9',
      doneBy: 'licensed',
      present: 'utility',
    } as const;
    await makeVisit(tester, { ...visit, id: id(46) });
    await expect(
      addTest(tester, id(46), 1, { ...test1, id: 't9', choices: { 'u16-drop': 'whatever' } }),
    ).rejects.toThrow(/whatever|not one of/i);
    await addTest(tester, id(46), 1, { ...test1, id: 't9', ...settled });
    const { facts } = await readVisitFacts(tester, id(46));
    const planned = facts.tests[0]!;
    expect(planned).toMatchObject({ ...settled, choices: { 'u16-drop': '1.5', 'letby-equality': 'at' } });
    const run = uuid7(now());
    await startRun(tester, {
      ...start,
      ...staged,
      id: run,
      choices: { ...planned.choices },
      ...attendanceOn({ permit: 'of the visit', present: ['customer', 'utility'] }, planned),
    });
    const { plan } = await readRun(tester, run);
    expect(plan.choices['u16-drop']).toBe('1.5');
    expect(plan.attendance).toEqual({ permit: 'MQ-9', doneBy: 'licensed', present: 'utility, customer' });
  });
  test('own kit that was tested by itself, and the edition worked to, go along in the plan of a run', async () => {
    const source = 'Let-by start band, metric school: 7 to 10 mbar';
    const edition = { source, edition: '2024', clause: '5.2', jurisdiction: 'Quarter county' };
    await expect(saveEditions(tester, 'gas-metric', [edition])).rejects.toThrow(/Only the owner/);
    await expect(saveEditions(owner, 'gas-metric', [{ ...edition, source: 'a rumour' }])).rejects.toThrow(
      /no source/,
    );
    await saveEditions(owner, 'gas-metric', [edition, { ...edition, source: '', clause: '' }]);
    await saveEditions(owner, 'gas-metric', [{ ...edition, clause: '5.3' }]);
    expect(await readEditions(stranger, 'gas-metric')).toEqual([]);
    const run = uuid7(now());
    await startRun(tester, { ...start, ...staged, id: run });
    const { plan } = await readRun(tester, run);
    const cited = 'Weir Row Fitters works to edition 2024, clause 5.3, Quarter county';
    expect(JSON.stringify(plan.procedure)).toContain(`${source} (${cited})`);
    expect(plan.pack.edition).toContain('works to edition 2024, Quarter county');
    expect(plan.ownKit?.map((k) => [k.name, k.blank?.days])).toEqual([['H-9', 0]]);
    // said again with nothing in it, it is taken back; the run keeps what it began with
    await saveEditions(owner, 'gas-metric', [{ source, edition: '', clause: '', jurisdiction: '' }]);
    const later = uuid7(now());
    await startRun(tester, { ...start, ...staged, id: later });
    expect(JSON.stringify((await readRun(tester, later)).plan.procedure)).not.toContain('clause 5.3');
    expect(JSON.stringify((await readRun(tester, run)).plan.procedure)).toContain('clause 5.3');
  });
  test('a run begun from the visit stands on it with its progress and writes the zeros of its gauge', async () => {
    shiftClock(momentIn('2026-12-01', '08:35', 'Europe/London') - Date.now());
    const run = uuid7(now());
    await startRun(tester, { ...start, ...staged, id: run, visit: { id: visit.id, test: 't1' } });
    const { plan } = await readRun(tester, run);
    expect(plan.system.notCovered).toContain('Burner block: isolated, tested by its maker (BB-77)');
    const scribe = {
      device: id(50),
      pageLoad: id(51),
      zone: 'Europe/London',
      by: tester.person,
      byName: 'T',
      began: now(),
      id: (n: number) => uuid7(now() + n),
    };
    const events = playScript(
      plan,
      [
        [10, 'checks'],
        [60, 'gauge', 'G-9'],
        [70, 'zero', '0.02'],
        [80, 'zero', '0.00'],
      ],
      scribe,
    );
    await appendEvents({ org: tester.org, person: tester.person, role: 'tester' }, run, events);
    const view = await readVisit(tester, visit.id);
    expect(view.runs[0]).toMatchObject({ test: 't1', run, over: false });
    expect(Object.values(view.runs[0]!.progress.tasks)[0]!.start).toBeGreaterThanOrEqual(5);
    const g9 = (await readCabinet(tester)).gauges.find((g) => g.gauge.name === 'G-9')!;
    const zeros = g9.log.flatMap((e) => (e.entry.what === 'zero' ? [[e.entry.good, e.entry.run]] : []));
    expect(zeros).toEqual([
      [true, run],
      [false, run],
    ]);
    const { facts, version } = view;
    const off = { ...facts, version, removed: ['t1'], tasks: facts.tasks as never, pinned: [], present: [] };
    await expect(changeVisit(tester, visit.id, off)).rejects.toThrow(/has begun/);
    shiftClock(0);
  });
  test('who goes is of the house: named, found again, on the sheet of the day; a stranger is refused', async () => {
    const day = '2027-02-03';
    await makeVisit(tester, { ...visit, id: id(44), title: 'Round', day });
    const { facts, version } = await readVisit(tester, id(44));
    const named = (people: string[]) =>
      changeVisit(tester, id(44), {
        ...facts,
        version,
        people,
        removed: [],
        tasks: facts.tasks as never,
        pinned: [],
        present: [],
      });
    await expect(named([stranger.person])).rejects.toThrow(/not in the organisation any more/);
    await named([apprentice.person]);
    const mine = async (who: string) =>
      (await listVisits(tester, day)).filter((v) => v.people.includes(who)).map((v) => v.id);
    expect([await mine(apprentice.person), await mine(tester.person)]).toEqual([[id(44)], []]);
    const seen = async (who: string) =>
      (await readDays(tester, day, 'UTC', { weeks: 1, who })).things
        .filter((t) => t.kind === 'visit')
        .map((t) => t.id);
    expect([await seen(apprentice.person), await seen(tester.person), await seen('')]).toEqual([
      [id(44)],
      [],
      [id(44)],
    ]);
    const sheet = await daySheet(tester, day, '', 'UTC');
    expect(sheet.visits).toMatchObject([{ title: 'Round', people: [apprentice.name], cannot: '' }]);
    expect(sheet.visits[0]!.tasks.map((t) => t.title)).toContain('Hand over and leave');
    expect((await daySheet(stranger, day, '', 'UTC')).visits).toEqual([]);
  });
  test('the calendar file holds the visit and an alarm for each hold, in UTC', async () => {
    const bar = { least: '0 bar', greatest: '2.5 bar', resolution: '0.001 bar' };
    await saveGauge(tester, { ...gauge(31, 'B-9'), ...bar });
    await saveSystem(tester, id(62), id(1), kiln('Kiln gas'));
    await makeVisit(tester, { ...visit, id: id(42), title: 'Kiln' });
    await addTest(tester, id(42), 1, { id: 't3', system: id(62), ...air, gauge: null });
    const { text, name } = await visitCalendar(tester, id(42));
    expect(name).toBe('kiln.ics');
    expect(text.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThanOrEqual(2);
    expect(text).toMatch(/DTSTART:20261201T083000Z/); // London keeps UTC in December
    expect(text).toMatch(/TRIGGER;VALUE=DATE-TIME:20261201T\d{6}Z/);
  });
  test('a test pressure above the weakest element is refused when the run is to start', async () => {
    const meter = { id: 'e', name: 'Flow meter', place: '', most: '100 mbar' };
    await saveSystem(tester, id(60), id(1), kiln('Held', [meter]));
    await expect(startRun(tester, { ...start, id: id(61), system: id(60), ...air })).rejects.toThrow(
      /Flow meter permits 100 mbar .* Take it out of scope/,
    );
  });
});

test('the outbox keeps what was sent, for its own organisation only', async () => {
  await sendMessage(tester, { id: id(70), to: 'a@b.example', subject: 'Brief', body: 'x' });
  expect((await readOutbox(tester)).map((m) => m.subject)).toContain('Brief');
  expect(await readOutbox(stranger)).toEqual([]);
});
test('a clock time in a zone is a moment, in summer and in winter', () => {
  expect(new Date(momentIn('2026-07-01', '08:30', 'Europe/London')).toISOString()).toBe(
    '2026-07-01T07:30:00.000Z',
  );
  expect(new Date(momentIn('2026-12-01', '08:30', 'America/New_York')).toISOString()).toBe(
    '2026-12-01T13:30:00.000Z',
  );
});
