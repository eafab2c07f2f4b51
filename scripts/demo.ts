import { readFileSync } from 'node:fs';
import type { KitFacts, LogEntry } from '@/core/instrument/kit';
import { playScript } from '@/core/run/script';
import { inOrganisation } from '@/database/client';
import { gauges, kit, sites, systems } from '@/database/schema';
import { writeHistory } from '@/server/cabinet/cabinet';
import { shiftClock } from '@/server/now';
import { makeOrganisation as foundOrganisation } from '@/server/people/organisation';
import { closeFollowUp, openFollowUps } from '@/server/records/follow-ups';
import { appendEvents, readRun } from '@/server/runs/log';
import { failuresBySection, recordsBySection } from '@/server/places/looks';
import { startRun } from '@/server/runs/start';
import { sealRun } from '@/server/sealing/seal';
import type { Session } from '@/server/session/session';
import { readVisitFacts } from '@/server/visits/store';
import { addTest, changeVisit, makeVisit } from '@/server/visits/visits';
import { linkEntry, memberEntry, readWatches, setLink } from '@/server/watches/watches';
import type { Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { type Demo, demoGauge, demoSystem, kitFigures, readDemo } from './demo-data';
import { figures } from '@/core/installation/written';

export interface DemoPerson {
  name: string;
  role: string;
  email: string;
  password: string;
}

/** Makes an organisation with people whose passwords are known: "millrace-" and their key. @returns who can sign in */
export async function makeOrganisation(
  name: string,
  contact: string,
  members: Demo['people'],
  domain: string,
): Promise<{
  org: string;
  persons: Map<
    string,
    { id: string; name: string; role: Role; licence: { number: string; until: string } | null }
  >;
  signIns: DemoPerson[];
  packOf: Map<string, string>;
}> {
  const signIns = members.map((m) => ({
    name: m.name,
    role: m.role,
    email: `${m.key}@${domain}`,
    password: `millrace-${m.key}`,
  }));
  const { org, ids, packOf } = await foundOrganisation(
    name,
    contact,
    members.map((m, i) => ({ ...signIns[i]!, role: m.role, ...(m.licence ? { licence: m.licence } : {}) })),
  );
  const persons = new Map(
    members.map((m, i) => [
      m.key,
      {
        id: ids[i]!,
        name: m.name,
        role: m.role,
        licence: m.licence ? { number: m.licence[0], until: m.licence[1] } : null,
      },
    ]),
  );
  return { org, persons, signIns, packOf };
}

/** The demo while it is played in: who acts, and what has been made so far. */
class Stage {
  readonly systemIds: Record<string, string> = {};
  readonly cabinetIds: Record<string, string> = {};
  private readonly written: Demo['log'];

  constructor(
    readonly demo: Demo,
    readonly loadedAt: number,
    readonly org: string,
    readonly persons: Awaited<ReturnType<typeof makeOrganisation>>['persons'],
    readonly packOf: ReadonlyMap<string, string>,
  ) {
    this.written = [...demo.log].sort((a, b) => a.at.localeCompare(b.at));
  }
  /** A person of the demo as the server knows them once signed in. */
  sessionOf(key: string): Session {
    const p = this.persons.get(key)!;
    return {
      org: this.org,
      person: p.id,
      name: p.name,
      role: p.role,
      organisation: this.demo.organisation.name,
      licence: p.licence,
      session: '',
    };
  }
  /** The cabinet and the places. */
  async furnish(): Promise<void> {
    const { org, demo, systemIds, cabinetIds } = this;
    await inOrganisation({ org }, async (tx) => {
      for (const item of demo.kit) {
        const id = uuid7(Date.now());
        cabinetIds[item.name] = id;
        const facts = kitFigures({ ...item, id }) as KitFacts;
        await tx.insert(kit).values({ org, id, name: item.name, facts });
      }
      for (const g of demo.gauges) {
        const id = uuid7(Date.now());
        const facts = demoGauge(g, id);
        cabinetIds[facts.name] = id;
        await tx.insert(gauges).values({ org, id, name: facts.name, facts });
      }
      for (const site of demo.sites) {
        const siteId = uuid7(Date.now());
        await tx
          .insert(sites)
          .values({ org, id: siteId, name: site.name, address: site.address, customer: site.customer });
        for (const s of site.systems) {
          const id = uuid7(Date.now());
          systemIds[s.key] = id;
          const facts = demoSystem(s, id);
          await tx.insert(systems).values({ org, id, site: siteId, name: facts.name, facts });
        }
      }
    });
  }
  /** What happened to things of the cabinet before a moment, as their logs knew it then. */
  async writeLogs(before: number): Promise<void> {
    while (this.written[0] && Date.parse(this.written[0].at) < before) {
      const l = this.written.shift()!;
      shiftClock(Date.parse(l.at) - Date.now());
      const what = figures(l.entry) as LogEntry;
      await writeHistory({ org: this.org }, this.cabinetIds[l.of]!, { at: Date.parse(l.at), by: l.by, what });
    }
  }
  /** One test from its start to its seal. */
  async run(run: Demo['runs'][number]): Promise<void> {
    const { org, loadedAt, systemIds, packOf } = this;
    const person = this.persons.get(run.by)!;
    const began = run.at.startsWith('now') ? loadedAt + Number(run.at.slice(3)) * 1000 : Date.parse(run.at);
    const at = (ms: number) => shiftClock(ms - Date.now());
    await this.writeLogs(began);
    at(began);
    const id = uuid7(began);
    const session = this.sessionOf(run.by);
    const failed = run.retest
      ? failuresBySection(await recordsBySection({ org }, systemIds[run.system]!))[run.section ?? '']
      : null;
    await startRun(session, {
      ...(failed ? { retestOf: failed.run } : {}),
      id,
      system: systemIds[run.system]!,
      pack: packOf.get(run.procedure)!,
      procedure: run.procedure,
      case: run.case,
      ...(run.choices ? { choices: run.choices } : {}),
      ...(run.section ? { section: run.section } : {}),
      practice: false,
      zone: 'Europe/London',
    });
    const { plan } = await readRun({ org }, id);
    const scribe = {
      device: uuid7(began),
      pageLoad: uuid7(began),
      zone: 'Europe/London',
      by: person.id,
      byName: person.name,
      began,
      id: (n: number) => uuid7(began + n),
    };
    const events = playScript(plan, run.lines, scribe);
    let moment = began;
    for (const event of events) {
      moment = event.at;
      at(moment + 400);
      await appendEvents({ org, person: person.id, role: person.role }, id, [event]);
    }
    if (run.seal) {
      at(moment + 20_000);
      await sealRun(session, id);
    }
  }
  async watch(w: Demo['watches'][number]): Promise<void> {
    const { org, loadedAt, systemIds } = this;
    const [watch] = await readWatches({ org }, systemIds[w.system]);
    const session = this.sessionOf('imre');
    const token = w.link ? (await setLink(session, watch!.id, 'make')).token! : null;
    const ids = w.entries.map((_, i) => uuid7(loadedAt + i));
    for (const [i, { at, of, ...said }] of w.entries.entries()) {
      shiftClock(at.startsWith('now') ? Number(at.slice(3)) * 1000 : Date.parse(at) - Date.now());
      const entry = { id: ids[i]!, ...said, ...(of === undefined ? {} : { of: ids[of]! }) };
      await (token ? linkEntry(token, entry) : memberEntry(session, watch!.id, entry));
    }
  }
  async visit(v: Demo['visits'][number]): Promise<void> {
    const { org, loadedAt, systemIds, packOf } = this;
    const session = this.sessionOf(v.by);
    const id = uuid7(Date.now());
    const day = new Date(loadedAt + Number(v.day) * 86_400_000).toISOString().slice(0, 10);
    await makeVisit(session, { id, title: v.title, day, start: v.start, zone: 'Europe/London' });
    let version = 1;
    for (const t of v.tests)
      ({ version } = await addTest(session, id, version, {
        id: uuid7(Date.now()).slice(-12),
        system: systemIds[t.system]!,
        pack: packOf.get(t.procedure)!,
        procedure: t.procedure,
        case: t.case,
        gauge: null,
      }));
    const { facts } = await readVisitFacts({ org }, id);
    await changeVisit(session, id, {
      version,
      removed: [],
      title: facts.title,
      day,
      start: facts.start,
      crew: 1,
      permit: '',
      present: v.present,
      promise: v.promise,
      tasks: facts.tasks as never,
      wishes: {},
      pinned: [],
      done: {},
    });
  }
  /** Reports of past years were made at the time; those of this year may still be open. */
  async closeOld(): Promise<void> {
    const { org, persons } = this;
    for (const f of await openFollowUps({ org }))
      if (f.closes !== null && f.due < '2026-01-01') {
        shiftClock(Date.parse(`${f.due}T16:00:00Z`) - Date.now());
        const office = [...persons.values()].find((x) => x.role === 'office')!;
        await closeFollowUp(
          { org, person: office.id, name: office.name },
          f.id,
          f.kind === 'refer' ? 'Answered by telephone: to be tested again' : '',
        );
      }
  }
}

/**
 * Plays the demo's history through the real start, append and seal path. Needs a shiftable clock in this process.
 * @param domain of the people's addresses  @param most only so many runs, or those, and nothing of visits, watches and kit logs
 */
export async function loadDemo(
  domain = 'hollin-tarrow.example',
  most?: number | ((run: Demo['runs'][number]) => boolean),
): Promise<{
  people: DemoPerson[];
  org: string;
  systems: Record<string, string>;
}> {
  const whole = readDemo();
  const demo: Demo = most
    ? {
        ...whole,
        runs: typeof most === 'number' ? whole.runs.slice(0, most) : whole.runs.filter(most),
        watches: [],
        visits: [],
        log: [],
      }
    : whole;
  const loadedAt = Date.now();
  // the firm and its signing key are older than its first record
  shiftClock(Date.parse('2023-01-09T08:00:00Z') - loadedAt);
  const { org, persons, signIns, packOf } = await makeOrganisation(
    demo.organisation.name,
    demo.organisation.contact,
    demo.people,
    domain,
  );
  shiftClock(0);
  const stage = new Stage(demo, loadedAt, org, persons, packOf);
  await stage.furnish();
  // in the order of their days: numbers follow it, wherever a run stands in the file
  const day = (at: string) => (at.startsWith('now') ? '9999' : at);
  const inOrder = [...demo.runs].sort((a, b) => day(a.at).localeCompare(day(b.at)));
  for (const run of inOrder) await stage.run(run);
  for (const w of demo.watches) await stage.watch(w);
  await stage.writeLogs(Infinity);
  await stage.closeOld();
  shiftClock(0);
  for (const v of demo.visits) await stage.visit(v);
  return { people: signIns, org, systems: stage.systemIds };
}
/** The demo that the check has played into this database already, or one played in now. */
export const standingDemo = async (): Promise<{ org: string; systems: Record<string, string> }> => {
  const played = process.env.VAST_DEMO_IDS;
  return played ? (JSON.parse(readFileSync(played, 'utf8')) as never) : loadDemo();
};
