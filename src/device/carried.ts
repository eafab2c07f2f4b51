import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { Pack } from '@/core/pack/schema';
import type { Plan } from '@/core/plan/plan';
import type { CarriedAnswer, CarriedHouse, CarriedSystem } from '@/wire/carried';
import type { Identity } from '@/wire/role';
import type { NewVisit } from '@/wire/visits';
import { now } from './clock';
import { CHANGED } from './errands';
import { office, OfficeError } from './office';
import { openStore, type Store } from './store';

/**
 * What this device took along from the office, under names of its own: `house`, `pack <mark>`, `system <id>`, `seen <id>`
 * (when a person looked at it here), and what was entered here meanwhile: `entered gauge|site|system|visit <id>`.
 */
const FRESH_MS = 5 * 60_000;
const MOST_SEEN = 40;

/** A system that was entered or changed here: the office has not given it so. */
export interface EnteredSystem {
  readonly id: string;
  readonly site: Plan['site'];
  readonly system: System;
}
/** An installation as this device knows it. */
export interface KnownSystem extends Omit<CarriedSystem, 'given'> {
  readonly site: Plan['site'];
  readonly system: System;
  /** As the office gave it; null where it was entered or changed here. */
  readonly given: CarriedSystem['given'] | null;
}
export interface Carrying {
  readonly house: CarriedHouse;
  readonly packs: readonly Pack[];
  /** The cabinet's gauges with what was entered here in place. */
  readonly gauges: readonly Gauge[];
  /** Ids of gauges and places that were entered or changed here. */
  readonly entered: readonly string[];
  readonly sites: readonly Plan['site'][];
  readonly systems: readonly KnownSystem[];
  readonly enteredVisits: readonly NewVisit[];
}

const get = async <T>(store: Store, key: string): Promise<T | undefined> =>
  (await store.get('carried', key)) as T | undefined;
const under = async <T>(store: Store, word: string): Promise<T[]> =>
  (await store.getAll('carried', IDBKeyRange.bound(`${word} `, `${word} \uffff`))) as T[];

/** Notes that a person looked at an installation: it is taken along from now on. */
export const noteSeen = async (who: Identity, system: string): Promise<void> => {
  const store = await openStore(who);
  await store.put('carried', { id: system, at: now() }, `seen ${system}`);
};
/**
 * Fetches what is taken along: the house not more often than every few minutes, an installation each time it was looked at.
 * @param looked the installation that stands on the screen  @param atOnce the house too, however fresh it is
 * @throws OfficeError
 */
export async function freshen(who: Identity, looked: string | null, atOnce = false): Promise<void> {
  const store = await openStore(who);
  const before = await get<CarriedHouse>(store, 'house');
  const house = atOnce || !before || Math.abs(now() - before.at) > FRESH_MS;
  if (!house && !looked) return;
  const seen = (await under<{ id: string; at: number }>(store, 'seen')).sort((a, b) => b.at - a.at);
  const marks = (await store.getAllKeys('carried', IDBKeyRange.bound('pack ', 'pack \uffff'))).map((k) =>
    k.slice('pack '.length),
  );
  const systems = house ? seen.slice(0, MOST_SEEN).map((s) => s.id) : [looked!];
  await keep(store, await office<CarriedAnswer>('/api/carried', { body: { house, systems, marks } }));
}
async function keep(store: Store, { house, systems }: CarriedAnswer): Promise<void> {
  const tx = store.transaction('carried', 'readwrite');
  if (house) {
    const stays = new Set([
      ...house.packs.map((p) => `pack ${p.mark}`),
      ...systems.flatMap((s) => [`system ${s.id}`, `seen ${s.id}`]),
    ]);
    for (const key of await tx.store.getAllKeys())
      if (!stays.has(key) && !key.startsWith('entered ')) void tx.store.delete(key);
    for (const { mark, pack } of house.packs) if (pack) void tx.store.put(pack, `pack ${mark}`);
    void tx.store.put({ ...house, packs: house.packs.map(({ pack: _, ...p }) => p) }, 'house');
  }
  for (const s of systems) void tx.store.put(s, `system ${s.id}`);
  await tx.done;
  globalThis.dispatchEvent?.(new Event(CHANGED));
}

/** Keeps what was entered here until the office has it. */
export const keepEntered = (
  store: Store,
  what: 'gauge' | 'site' | 'system' | 'visit',
  value: EnteredSystem | Plan['site'] | Gauge | NewVisit,
): Promise<unknown> => store.put('carried', value, `entered ${what} ${value.id}`);

/** Everything this device knows without a signal; null where it never took anything along. */
export async function carrying(who: Identity): Promise<Carrying | null> {
  const store = await openStore(who);
  const house = await get<CarriedHouse>(store, 'house');
  if (!house) return null;
  const packs: Pack[] = [];
  for (const { mark } of house.packs) {
    const pack = await get<Pack>(store, `pack ${mark}`);
    if (pack) packs.push(pack);
  }
  const entered = await under<Gauge>(store, 'entered gauge');
  const own = new Map(entered.map((g) => [g.id, g]));
  const { gauges } = house.cabinet.value;
  const enteredSites = await under<Plan['site']>(store, 'entered site');
  const sites = new Map(enteredSites.map((s) => [s.id, s]));
  const changed = new Map((await under<EnteredSystem>(store, 'entered system')).map((s) => [s.id, s]));
  const given = await under<CarriedSystem>(store, 'system');
  const systems = given.map((s): KnownSystem => {
    const here = changed.get(s.id);
    return {
      ...s,
      site: sites.get(s.given.value.site.id) ?? s.given.value.site,
      system: here?.system ?? s.given.value.system,
      given: here ? null : s.given,
    };
  });
  for (const s of changed.values())
    if (!given.some((g) => g.id === s.id))
      systems.push({ ...s, site: sites.get(s.site.id) ?? s.site, given: null, last: null, failures: {} });
  for (const { site } of systems) if (!sites.has(site.id)) sites.set(site.id, site);
  return {
    house,
    packs,
    gauges: [
      ...gauges.map((g) => own.get(g.id) ?? g),
      ...entered.filter((g) => !gauges.some((x) => x.id === g.id)),
    ],
    entered: [...entered, ...enteredSites].map((x) => x.id),
    sites: [...sites.values()],
    systems,
    enteredVisits: await under<NewVisit>(store, 'entered visit'),
  };
}
/** @throws OfficeError saying what to do when nothing was taken along */
export async function mustCarry(who: Identity): Promise<Carrying> {
  const found = await carrying(who);
  if (found) return found;
  throw new OfficeError(
    0,
    'no-signal',
    'There is no signal, and this device has taken nothing along yet. Open Today once where there is a signal; after that it works without.',
  );
}
