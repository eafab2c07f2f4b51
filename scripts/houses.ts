/** Made-up houses for measuring and for faults: one person who owns it, gauges, and runs on kilns of their own. */
import { randomBytes } from 'node:crypto';
import { bakery } from '../src/core/testing/bakery';
import type { Session } from '../src/server/session/session';
import { uuid7 } from '../src/wire/uuid7';

export interface House {
  readonly who: Session;
  readonly email: string;
  readonly password: string;
}
/** @param name of the house, and of its owner */
export async function makeHouse(name: string): Promise<House> {
  const { inOrganisation } = await import('../src/database/client');
  const { makeOrganisation } = await import('../src/server/people/organisation');
  const { people } = await import('../src/database/schema');
  const password = randomBytes(12).toString('hex');
  const email = `${name.toLowerCase().replaceAll(' ', '-')}@house.example`;
  const { org } = await makeOrganisation(name, '', [{ name, email, role: 'owner', password }]);
  const [person] = await inOrganisation({ org }, (tx) => tx.select({ id: people.id }).from(people));
  const who = {
    org,
    person: person!.id,
    name,
    role: 'owner',
    organisation: name,
    licence: null,
    session: '',
  };
  return { who: who as unknown as Session, email, password };
}
/** A gauge of the cabinet, in steps of 0.1 mbar. @returns its id */
export async function addGauge({ who }: House, name: string): Promise<string> {
  const { saveGauge } = await import('../src/server/cabinet/cabinet');
  const form = {
    id: uuid7(Date.now()),
    name,
    serial: `S ${name}`,
    kind: 'digital',
    least: '-10 mbar',
    greatest: '160 mbar',
    resolution: '0.1 mbar',
    accuracy: '',
    calibrated: '2026-01-01',
    calibrationDue: '2999-01-01',
  };
  return (await saveGauge(who, form as never)).id;
}
/** A staged test begun on a kiln of its own. @returns the run's id */
export async function beginTest({ who }: Pick<House, 'who'>, kiln: string): Promise<string> {
  const { inOrganisation } = await import('../src/database/client');
  const { sites, systems } = await import('../src/database/schema');
  const { startRun } = await import('../src/server/runs/start');
  const [site, system, run] = [0, 1, 2].map(() => uuid7(Date.now())) as [string, string, string];
  const { org } = who;
  await inOrganisation(who, async (tx) => {
    await tx.insert(sites).values({ org, id: site, name: kiln, address: '', customer: '' });
    await tx.insert(systems).values({ org, id: system, site, name: 'Gas', facts: bakery() });
  });
  await startRun(who, {
    id: run,
    system,
    pack: 'gas-metric',
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    practice: false,
    zone: 'UTC',
  });
  return run;
}
/** Signs its owner in at a server. @returns the cookies of the session */
export async function cookiesOf(url: string, who: { email: string; password: string }): Promise<string> {
  const signed = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: who.email, password: who.password }),
  });
  return signed.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}
