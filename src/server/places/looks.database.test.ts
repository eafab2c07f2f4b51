import { playScript } from '@/core/run/script';
import { offersFor } from '@/core/plan/offer';
import { ownKitOf } from '@/core/instrument/kit';
import { sectionsOf } from '@/core/trades/sections';
import { closePool } from '@/database/client';
import { appendEvents, readRun } from '@/server/runs/log';
import { planFor, startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { carriedFor } from '@/server/carried/carried';
import { type Known, planAsked, planDigest } from '@/wire/asked-plan';
import { afterKey } from '@/wire/carried';
import { uuid7 } from '@/wire/uuid7';
import { loadDemo, makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { failuresBySection, readLooks, recordsBySection } from './looks';
import { workSimulated } from '@/server/gauge/simulated';
import { printedRecord } from '@/server/records/records';
import { readSystem } from './places';

const DOMAIN = 'looks.example';
let mill: { org: string; systems: Record<string, string> };
let stranger: { org: string };
let tester: Session;
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  mill = await loadDemo(DOMAIN, (r) => r.system === 'lido');
  stranger = await makeOrganisation(
    'Stranger Baths',
    '',
    [{ key: 'ode', name: 'Ode Marr', role: 'owner' }],
    'baths.example',
  );
  tester = await signedIn('imre', DOMAIN);
}, 400_000);
afterAll(closePool);

describe('lines of a pool', () => {
  const start = (over: Partial<Parameters<typeof startRun>[1]>) => ({
    id: uuid7(Date.now()),
    system: mill.systems.lido!,
    pack: 'pool',
    procedure: 'pool-dye',
    case: 'any',
    choices: {},
    practice: false,
    zone: 'Europe/London',
    ...over,
  });
  test('what an earlier run saw is known to the next; each line has records of its own, and no other house sees any', async () => {
    const { system } = await readSystem(mill, mill.systems.lido!);
    const facts = await readLooks(mill, system.facts);
    expect(facts.looks!.length).toBeGreaterThan(5);
    const sections = sectionsOf(facts);
    expect(sections.map((s) => s.open)).toEqual(sections.map(() => ''));
    const records = await recordsBySection(mill, mill.systems.lido!);
    const own = records.filter((r) => r.title.startsWith('After the heater, pool'));
    expect(own.map((r) => r.word)).toEqual(['tight', 'refer', 'not-tight', 'not-tight', 'tight']);
    // mended and tested again: nothing of that line is owed, the whole pool still is
    expect(Object.keys(failuresBySection(records))).toEqual(['']);
    const plan = await planFor(tester, start({ section: sections[0]!.key }));
    expect([plan.system.section?.key, plan.system.notCovered.length > 5]).toEqual([sections[0]!.key, true]);
    expect(await recordsBySection(stranger, mill.systems.lido!)).toEqual([]);
    expect((await readLooks(stranger, system.facts)).looks).toBeUndefined();
  });
  test('a paper of a line lists what was found of that line before, with its loss, and of no other line', async () => {
    const records = await recordsBySection(mill, mill.systems.lido!);
    const newest = records.find((r) => r.word === 'tight' && r.title.startsWith('After the heater, pool'))!;
    const { extra } = await printedRecord(mill, newest.run);
    const own = records.filter((r) => r.section === newest.section && r.sealedAt < newest.sealedAt);
    expect(extra.sectionHistory).toHaveLength(own.length);
    for (const r of own) expect(extra.sectionHistory!.join('\n')).toContain(r.number);
    expect(extra.sectionHistory!.filter((words) => /loss as measured [\d.]+ l\/h/.test(words))).toHaveLength(
      1,
    );
    expect(extra.history.length).toBeGreaterThan(own.length);
    // the whole pool has no line of its own to speak of
    const whole = records.find((r) => r.section === '')!;
    expect((await printedRecord(mill, whole.run)).extra.sectionHistory).toBeUndefined();
  });
  test('a device that carries the pool makes the plan the office makes: of every test, each line, and a repeat of what failed', async () => {
    const { house, systems } = await carriedFor(tester, {
      house: true,
      systems: [mill.systems.lido!],
      marks: [],
    });
    const { given, failures } = systems.find((s) => s.id === mill.systems.lido)!;
    const { site, system, after } = given.value;
    expect(Object.keys(failures)).toEqual(['']);
    const line = sectionsOf(system)[0]!.key;
    const made: string[] = [];
    for (const carried of house!.packs)
      for (const offer of offersFor(carried.pack!, system)) {
        const section = offer.oneSection ? line : undefined;
        const failed = failures[section ?? ''];
        const request = start({
          pack: carried.id,
          procedure: offer.id,
          case: offer.cases[0]!.key,
          ...(section ? { section } : {}),
          ...(failed ? { retestOf: failed.run } : {}),
        });
        const known = {
          organisation: house!.organisation,
          site,
          system,
          pack: carried.pack!,
          packHash: carried.hash,
          gauges: house!.cabinet.value.gauges,
          ownKit: ownKitOf(house!.cabinet.value.things, Date.now(), request.zone),
          after: after[afterKey(offer.id, section)],
          retestOf: failed,
          by: tester.name,
          at: Date.now(),
        };
        // as it comes over the wire
        const here = planAsked(request, JSON.parse(JSON.stringify(known)) as Known, { ahead: true });
        expect([offer.id, planDigest(here)]).toEqual([
          offer.id,
          planDigest(await planFor(tester, request, { ahead: true })),
        ]);
        made.push(`${offer.id}${failed ? ', a repeat' : ''}`);
      }
    expect(made).toEqual(expect.arrayContaining(['pool-whole, a repeat', 'pool-line-pressure']));
  });
  test('practice on a line: what is looked at is an end of it, and where one listens is a figure', async () => {
    const { system } = await readSystem(mill, mill.systems.lido!);
    const [line] = sectionsOf(await readLooks(mill, system.facts));
    const run = start({ section: line!.key, practice: true, fault: 'under-water' });
    // the stand-in of the gauge is no part of this test: the run is there, its answers are not
    await expect(startRun(tester, run)).rejects.toThrow(/simulated gauge does not answer/);
    const does = (act: 'look' | 'reseat' | 'listen' | 'dye', value?: string) =>
      workSimulated(tester, run.id, { act, ...(value === undefined ? {} : { value }) });
    await expect(does('look', 'somewhere')).rejects.toThrow(/no such end/);
    await expect(does('reseat', 'ground')).rejects.toThrow(/no such end/);
    await expect(does('listen', 'far')).rejects.toThrow(/how far along/);
    for (const good of [does('look', 'ground'), does('dye'), does('listen', '3.5')])
      await expect(good).rejects.toThrow(/does not answer/);
    const wrong = { ...run, id: uuid7(Date.now()), fault: 'warming' };
    await expect(startRun(tester, wrong)).rejects.toThrow(/hidden fault is not known/);
    await expect(readRun(mill, wrong.id)).rejects.toThrow();
  });
  test('a line nobody knows, none at all, and one that is not known to its end are refused with what to do', async () => {
    await expect(startRun(tester, start({ section: 'sk1+r1' }))).rejects.toThrow(
      /Choose again on the place page/,
    );
    await expect(startRun(tester, start({}))).rejects.toThrow(/one line at a time/);
    const map = start({ procedure: 'pool-map' });
    await startRun(tester, map);
    const { plan } = await readRun(mill, map.id);
    const began = Date.now();
    const events = playScript(
      plan,
      [
        [1, 'checks'],
        [2, 'endfound', 'found-1', 'Foot well drain', 'drain', 'tub'],
      ],
      {
        device: uuid7(began),
        pageLoad: uuid7(began),
        zone: 'Europe/London',
        by: tester.person,
        byName: tester.name,
        began: began - 10_000,
        id: (n) => uuid7(began + n),
      },
    );
    for (const e of events) await appendEvents(tester, map.id, [e]);
    // an outlet was found: no line is known to its end any more, and the bench says which look is owed
    const { system } = await readSystem(mill, mill.systems.lido!);
    const facts = await readLooks(mill, system.facts);
    const [first] = sectionsOf(facts);
    expect(first!.open).toMatch(/Foot well drain/);
    await expect(startRun(tester, start({ section: first!.key }))).rejects.toThrow(/Look once more before/);
  });
});
