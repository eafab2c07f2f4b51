import { inUnit } from '@/core/quantity/exact';
import { closePool } from '@/database/client';
import { readSystem } from '@/server/places/places';
import { planFor, startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { readWatches } from '@/server/watches/watches';
import { workSimulated } from '@/server/gauge/simulated';
import { uuid7 } from '@/wire/uuid7';
import { loadDemo } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';

const DOMAIN = 'circuits.example';
let mill: { org: string; systems: Record<string, string> };
let tester: Session;
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  // strength of both sides, tightness of the high side
  mill = await loadDemo(DOMAIN, (r) => r.system === 'cold' && r.at < '2025-10-07T09');
  tester = await signedIn('imre', DOMAIN);
}, 400_000);
afterAll(closePool);

describe('sides of a circuit, by their earlier records', () => {
  const start = (over: Partial<Parameters<typeof startRun>[1]>) => ({
    id: uuid7(Date.now()),
    system: mill.systems.cold!,
    pack: 'refrigerant',
    procedure: 'refrigerant-tightness',
    case: 'new',
    choices: {},
    practice: false,
    zone: 'Europe/London',
    ...over,
  });
  test('tightness follows the strength of its own side, with what that left in', async () => {
    const plan = await planFor(tester, start({ section: 'low' }));
    expect(plan.after).toMatchObject({
      section: 'low',
      label: 'Withstood',
      procedure: 'refrigerant-strength',
    });
    expect(inUnit(plan.after!.left!.figure, 'bar', 2, 'down')).toEqual({
      digits: 1830,
      scale: 2,
      unit: 'bar',
    });
  });
  test('the whole is evacuated only when every side is tight; one side alone is not enough', async () => {
    await expect(planFor(tester, start({ procedure: 'refrigerant-vacuum' }))).rejects.toThrow(
      /Tightness first/,
    );
    // joined they have no record of their own yet either
    await expect(planFor(tester, start({ section: 'both' }))).resolves.toMatchObject({
      system: { section: { key: 'both' } },
    });
  });
  test('a section is asked for, and one that is not drawn is refused', async () => {
    await expect(planFor(tester, start({}))).rejects.toThrow(/one side at a time/);
    await expect(planFor(tester, start({ section: 'middle' }))).rejects.toThrow(/not drawn any more/);
  });
  test('the watch of a side ends with the test it was left for, and no other does', async () => {
    const watches = await readWatches(mill, mill.systems.cold!);
    expect(watches.map((w) => [w.facts.title.split(', ').pop(), w.state.word])).toEqual([
      ['low side', 'holds'],
      ['high side', 'ended'],
    ]);
  });
  test('practice needs no record before it, and is worked by hand: the label is read, a magnet clicks', async () => {
    const id = uuid7(Date.now());
    // the stand-in of the gauge is no part of this test: the run is there, its answers are not
    await expect(
      startRun(tester, start({ id, section: 'high', practice: true, fault: 'wrong-gas' })),
    ).rejects.toThrow(/simulated gauge does not answer/);
    await expect(workSimulated(mill, id, { act: 'label' })).rejects.toThrow(/does not answer/);
    await expect(workSimulated(mill, id, { act: 'solenoid', id: 'solenoid-1' })).rejects.toThrow(
      /does not answer/,
    );
    await expect(workSimulated(mill, id, { act: 'solenoid', id: 'nothing' })).rejects.toThrow(
      /no such valve/,
    );
  });
  test('its demo twin is what a place keeps', async () => {
    const { system } = await readSystem(mill, mill.systems.cold!);
    expect(system.facts.condensing?.[0]?.refrigerant).toBe('R449A');
  });
});
