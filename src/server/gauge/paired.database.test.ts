/** Gauges of the cabinet that send by themselves: paired by a code that serves once, into whatever run they judge, in whatever unit they show. */
import { exact } from '@/core/quantity/exact';
import { eventSchema } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import { closePool } from '@/database/client';
import { saveGauge } from '@/server/cabinet/cabinet';
import { shiftClock } from '@/server/now';
import { appendEvents, readRun } from '@/server/runs/log';
import type { startRun } from '@/server/runs/start';
import { type GaugeBatch, gaugeBatchSchema } from '@/wire/requests';
import { uuid7 } from '@/wire/uuid7';
import { makeOrganisation } from '../../../scripts/demo';
import { beginTest } from '../../../scripts/houses';
import { migrateDatabase } from '../../../scripts/migrate';
import { keptAs, takeReadings } from './ingest';
import { endPairing, makeCode, pairedOf, pairGauge } from './pairing';

type Who = Parameters<typeof startRun>[0];
let who: Who;
let stranger: Who;
const gauge = uuid7(7);

async function house(name: string, email: string): Promise<Who> {
  const made = await makeOrganisation(
    name,
    '',
    [{ key: 'runa', name: `Runa of ${name}`, role: 'owner' }],
    email,
  );
  const person = made.persons.get('runa')!;
  return {
    org: made.org,
    person: person.id,
    name: person.name,
    role: 'owner',
    organisation: name,
    licence: null,
    session: '',
  };
}
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  who = await house('Paired House', 'paired.example');
  stranger = await house('Other House', 'other.example');
  await saveGauge(
    who as never,
    {
      id: gauge,
      name: 'G-77',
      serial: 'S77',
      kind: 'digital',
      least: '-10 mbar',
      greatest: '160 mbar',
      resolution: '0.1 mbar',
      accuracy: '',
      calibrated: '2026-01-01',
      calibrationDue: '2999-01-01',
    } as never,
  );
}, 240_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});
const paired = async (device = 'reader') => pairGauge((await makeCode(who as never, gauge)).code, device, '');
const shows = (digits: number, over: Partial<GaugeBatch> = {}, n = 1): GaugeBatch => ({
  live: [[Date.now(), digits]],
  scale: 1,
  unit: 'mbar',
  batch: { id: uuid7(Date.now() + n), sequence: n, points: [[Date.now(), digits]] },
  ...over,
});
async function begun(lines: readonly ScriptLine[]) {
  const run = await beginTest({ who }, 'Kiln');
  await goOn(run, lines);
  return run;
}
async function goOn(run: string, lines: readonly ScriptLine[]) {
  const { plan, events } = await readRun(who, run);
  const scribe = {
    device: uuid7(1),
    pageLoad: uuid7(1),
    zone: 'UTC',
    by: who.person,
    byName: who.name,
    began: Date.parse(plan.made.at),
    id: () => uuid7(Date.now()),
  };
  await appendEvents(who, run, playScript(plan, lines, scribe, { after: events }));
}
/** Taken when a gauge is asked about anew: what is known of it is trusted for a moment. */
let later = 0;
async function aMomentLater(token: string, batch: GaugeBatch) {
  later += 5_000;
  const moment = Date.now() + later;
  const clock = jest.spyOn(Date, 'now').mockReturnValue(moment);
  return takeReadings(token, batch).finally(() => clock.mockRestore());
}
const streams = async (run: string) =>
  (await readRun(who, run)).events.flatMap((e) => (e.kind === 'stream' ? [e] : []));

test('a code serves once, for ten minutes, however it is typed; guessing is slowed down', async () => {
  const { code } = await makeCode(who as never, gauge);
  expect(code).toMatch(/^[A-HJ-NP-Z2-9]{4}-[A-HJ-NP-Z2-9]{4}$/);
  const first = await pairGauge(` ${code.toLowerCase().replace('-', ' ')} `, 'reader', '');
  expect(first).toMatchObject({ gauge, run: null });
  await expect(pairGauge(code, 'second', '')).rejects.toMatchObject({ status: 401 });
  const late = await makeCode(who as never, gauge);
  shiftClock(10 * 60_000 + 1);
  await expect(pairGauge(late.code, 'late', '')).rejects.toMatchObject({ status: 401 });
  shiftClock(0);
  const raced = await makeCode(who as never, gauge);
  const both = await Promise.allSettled([1, 2].map((n) => pairGauge(raced.code, `racer ${n}`, '')));
  expect(both.map((b) => b.status).toSorted()).toEqual(['fulfilled', 'rejected']);
  const guesses = await Promise.allSettled(
    Array.from({ length: 25 }, () => pairGauge('AAAA-AAAA', '', '10.0.0.9')),
  );
  expect(guesses.map((g) => (g as { reason: { status: number } }).reason.status)).toContain(429);
});
test('the gauge of another house is not paired, and what another house paired is not ended', async () => {
  await expect(makeCode(stranger as never, gauge)).rejects.toMatchObject({ status: 404 });
  await expect(makeCode(who as never, 'x')).rejects.toMatchObject({ status: 404 });
  await paired();
  const [mine] = await pairedOf(who);
  expect(await pairedOf(stranger)).toEqual([]);
  await expect(endPairing(stranger as never, mine!.id)).rejects.toMatchObject({ status: 404 });
});
test('it streams into the run it judges, and into no other; between two tests it stays paired', async () => {
  const { token } = await paired('reader 3');
  expect(await takeReadings(token, shows(205))).toEqual({ now: expect.any(Number), goOn: true, run: null });
  const run = await begun([[1, 'checks']]);
  // no gauge is chosen yet
  expect(await takeReadings(token, shows(205, {}, 2))).toMatchObject({ run: null });
  await goOn(run, [[2, 'gauge', 'G-77']]);
  expect(await aMomentLater(token, shows(206, {}, 3))).toMatchObject({ goOn: true, run });
  const batch = shows(207, {}, 4);
  await takeReadings(token, batch);
  await takeReadings(token, batch);
  const [first, second, ...more] = await streams(run);
  expect([first!.points[0]![1], second!.points[0]![1], more]).toEqual([206, 207, []]);
  expect(first).toMatchObject({ simulated: false, byName: 'gauge', unit: 'mbar', scale: 1 });
  const { plan, events } = await readRun(who, run);
  expect(reduce(plan, events).withoutEffect).toEqual([]);
  // what a person enters in between is seen, and the next batch stands after it
  await goOn(run, [
    [4, 'stop'],
    [5, 'reason', 'abandoned', ''],
  ]);
  expect(await takeReadings(token, shows(208, {}, 5))).toMatchObject({ goOn: true });
  expect(await streams(run)).toHaveLength(2);
});
test('what a device counts by its clock is kept and can be read again; figures that no record keeps are refused', async () => {
  const { token } = await paired('reader 5');
  const run = await begun([
    [1, 'checks'],
    [2, 'gauge', 'G-77'],
  ]);
  const batch = (n: number, over: Partial<NonNullable<GaugeBatch['batch']>>) => {
    const sent = shows(205, {}, n);
    return { ...sent, batch: { ...sent.batch!, ...over } };
  };
  expect(await aMomentLater(token, batch(20, { sequence: Date.now() }))).toMatchObject({ run });
  await takeReadings(token, batch(21, { sequence: Number.MAX_SAFE_INTEGER }));
  const far = batch(22, { points: [[Date.now(), 10 ** 15]] });
  await expect(takeReadings(token, far)).rejects.toMatchObject({ status: 422, code: 'batch' });
  const { events } = await readRun(who, run);
  expect(events.filter((e) => e.kind === 'stream')).toHaveLength(2);
  for (const { position: _position, received: _received, ...event } of events)
    eventSchema.validateSync(event, { strict: true });
  expect(gaugeBatchSchema.isValidSync(batch(23, { sequence: Number.MAX_SAFE_INTEGER + 1 }))).toBe(false);
});
test('of two open tests it belongs to the one to which it was put last, whatever their clocks said', async () => {
  const { token } = await paired('reader 4');
  shiftClock(24 * 3_600_000);
  const tomorrow = await begun([
    [1, 'checks'],
    [2, 'gauge', 'G-77'],
  ]);
  shiftClock(0);
  const today = await begun([
    [1, 'checks'],
    [2, 'gauge', 'G-77'],
  ]);
  expect(await aMomentLater(token, shows(205, {}, 8))).toMatchObject({ run: today });
  expect(tomorrow).not.toBe(today);
});
test('ended it opens nothing any more', async () => {
  const { token } = await paired('to be ended');
  const mine = (await pairedOf(who)).find((p) => p.device === 'to be ended')!;
  // what is shown now goes through on trust for a moment: not when it was just ended here, and nothing is kept on it
  const { batch: _batch, ...now } = shows(205);
  await takeReadings(token, now as never);
  await endPairing(who as never, mine.id);
  await expect(takeReadings(token, now as never)).rejects.toMatchObject({ status: 401 });
  await expect(takeReadings(token, shows(205))).rejects.toMatchObject({ status: 401 });
  await expect(endPairing(who as never, mine.id)).rejects.toMatchObject({ status: 404 });
  expect((await pairedOf(who)).map((p) => p.id)).not.toContain(mine.id);
});
describe('another unit than the cabinet knows', () => {
  const own = exact(1, 1, 'mbar');
  test.each([
    ['Pa', 0, 2051, 205],
    ['Pa', 1, -20514, -205],
    ['kPa', 3, 2050, 205],
    ['mbar', 2, 2056, 206],
    ['inWC', 2, 823, 205],
  ] as const)('%s at %i places: %i is kept as %i', (unit, scale, digits, kept) => {
    expect(keptAs(own, { unit, scale })(digits)).toBe(kept);
  });
  test('its own unit and steps go through as they are', () => {
    expect(keptAs(own, { unit: 'mbar', scale: 1 })(-7)).toBe(-7);
    expect(keptAs(null, { unit: 'psi', scale: 3 })(11)).toBe(11);
  });
  test('steps coarser than the cabinet says would hide a fall: it is told what to do', () => {
    expect(() => keptAs(own, { unit: 'psi', scale: 2 })).toThrow(/steps of 0.01 psi.*0.1 mbar/);
    expect(() => keptAs(own, { unit: 'mbar', scale: 0 })).toThrow(/steps of 1 mbar/);
    // exactly as fine is fine
    expect(keptAs(own, { unit: 'kPa', scale: 2 })(205)).toBe(205);
  });
  test('another quantity is refused', () => {
    expect(() => keptAs(own, { unit: 'CFM', scale: 1 })).toThrow(/Set its display/);
    expect(() => keptAs(own, { unit: 'Pa(abs)', scale: 0 })).toThrow(/Set its display/);
  });
});
