import {
  bigint,
  boolean,
  customType,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Gauge } from '@/core/instrument/gauge';
import type { KitFacts, LogEntry } from '@/core/instrument/kit';
import type { WatchEntry, WatchFacts } from '@/core/watch/watch';
import type { VisitFacts } from '@/core/visit/facts';
import type { System } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import type { InventoryItem, RunEvent } from '@/core/run/events';
import type { RecordStatus } from '@/core/record/status';
import type { Role } from '@/wire/role';
import type { VerdictWord } from '@/core/verdict/verdict';

/**
 * Every table carries `org` and is under forced row-level security (migrations/0001_guards.sql); references between
 * tables are composite (org, id), so that no row can point into another organisation.
 */
const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

export const organisations = pgTable('organisations', {
  org: uuid('org').primaryKey(),
  name: text('name').notNull(),
  contact: text('contact').notNull().default(''),
});

export const people = pgTable(
  'people',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    email: text('email').notNull().unique(),
    role: text('role').$type<Role>().notNull(),
    passwordHash: text('password_hash').notNull(),
    licenceNumber: text('licence_number'),
    licenceUntil: text('licence_until'),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

export const sessions = pgTable(
  'sessions',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    made: moment('made').notNull(),
    expires: moment('expires').notNull(),
    revoked: moment('revoked'),
    device: text('device').notNull().default(''),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** Failed sign-ins, for the rate limit; no organisation is known yet. Reached only through definer functions. */
export const signInAttempts = pgTable(
  'sign_in_attempts',
  { key: text('key').notNull(), at: moment('at').notNull() },
  (t) => [index('sign_in_attempts_key').on(t.key, t.at)],
);

export const sites = pgTable(
  'sites',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    address: text('address').notNull(),
    customer: text('customer').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

export const systems = pgTable(
  'systems',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    site: uuid('site').notNull(),
    name: text('name').notNull(),
    facts: jsonb('facts').$type<System>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.site], foreignColumns: [sites.org, sites.id] }),
  ],
);

export const gauges = pgTable(
  'gauges',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    facts: jsonb('facts').$type<Gauge>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

/** What is in the cabinet beside gauges: fans, thermometers, pumps, vessels, hoses, plugs, detectors, consumables. */
export const kit = pgTable(
  'kit',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    facts: jsonb('facts').$type<KitFacts>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

/** What happened to a gauge or another thing of the cabinet: zero checks, blanks, calibrations, drops. Append-only. */
export const kitLog = pgTable(
  'kit_log',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    item: uuid('item').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    entry: jsonb('entry').$type<LogEntry>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('kit_log_item').on(t.org, t.item, t.at)],
);

/** Planned visits. `version` guards against two people changing one at once. */
export const visits = pgTable(
  'visits',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    day: text('day').notNull(),
    version: integer('version').notNull().default(1),
    facts: jsonb('facts').$type<VisitFacts>().notNull(),
    made: moment('made').notNull(),
    madeBy: text('made_by').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('visits_day').on(t.org, t.day)],
);

/** The stand-in for mail: what would have been sent. Append-only. */
export const outbox = pgTable(
  'outbox',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    to: text('to').notNull(),
    subject: text('subject').notNull(),
    body: text('body').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

/** A section left under pressure with its gauge on. The link lets anyone write readings; its hash alone is kept. */
export const watches = pgTable(
  'watches',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    system: uuid('system').notNull(),
    run: uuid('run'),
    facts: jsonb('facts').$type<WatchFacts>().notNull(),
    made: moment('made').notNull(),
    madeBy: uuid('made_by').notNull(),
    tokenHash: text('token_hash').unique(),
    tokenMade: moment('token_made'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.madeBy], foreignColumns: [people.org, people.id] }),
  ],
);

/** What was read and said at a watch: append-only, a wrong entry is corrected by a later one. */
export const watchEntries = pgTable(
  'watch_entries',
  {
    org: uuid('org').notNull(),
    watch: uuid('watch').notNull(),
    id: uuid('id').notNull(),
    received: moment('received').notNull(),
    body: jsonb('body').$type<WatchEntry>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('watch_entries_watch').on(t.org, t.watch, t.received),
    foreignKey({ columns: [t.org, t.watch], foreignColumns: [watches.org, watches.id] }),
  ],
);

/** Rule packs as text, immutable once used; `hash` is over the canonical form. */
export const packs = pgTable(
  'packs',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: text('id').notNull(),
    version: text('version').notNull(),
    hash: text('hash').notNull(),
    body: text('body').notNull(),
    made: moment('made').notNull().defaultNow(),
    /** Who wrote or imported this version; null for the packs that came with the product. */
    madeBy: text('made_by'),
    /** What changed against the version before, in words. */
    changes: jsonb('changes').$type<readonly string[]>().notNull().default([]),
  },
  (t) => [primaryKey({ columns: [t.org, t.id, t.version] })],
);

/** What was present on a day: one row for each inventory entry of a run, never changed. */
export const sightings = pgTable(
  'sightings',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    run: uuid('run').notNull(),
    system: uuid('system').notNull(),
    item: text('item').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    facts: jsonb('facts').$type<InventoryItem>().notNull(),
    search: text('search').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('sightings_system').on(t.org, t.system, t.item, t.at),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
  ],
);

/** Photos of a run: re-encoded on receipt, without location or other metadata; named by the hash of their bytes. */
export const photos = pgTable(
  'photos',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    hash: text('hash').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    bytes: bytea('bytes').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run, t.hash] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

/** What a sealed record leaves to be done: repaired, reported, looked at again. */
export const followUps = pgTable(
  'follow_ups',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    run: uuid('run').notNull(),
    system: uuid('system').notNull(),
    kind: text('kind').$type<'repair' | 'report' | 'unsafe'>().notNull(),
    text: text('text').notNull(),
    due: text('due').notNull(),
    made: moment('made').notNull(),
    /** The later good record, or the person, that closed it. */
    closedBy: text('closed_by'),
    closed: moment('closed'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
  ],
);

/** A run is its plan and its events; neither is ever changed. */
export const runs = pgTable(
  'runs',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    site: uuid('site').notNull(),
    system: uuid('system').notNull(),
    practice: boolean('practice').notNull(),
    plan: jsonb('plan').$type<Plan>().notNull(),
    made: moment('made').notNull(),
    madeBy: uuid('made_by').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
    foreignKey({ columns: [t.org, t.site], foreignColumns: [sites.org, sites.id] }),
    foreignKey({ columns: [t.org, t.madeBy], foreignColumns: [people.org, people.id] }),
  ],
);

export const events = pgTable(
  'events',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    id: uuid('id').notNull(),
    position: integer('position').notNull(),
    received: bigint('received', { mode: 'number' }).notNull(),
    body: jsonb('body').$type<RunEvent>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    unique('events_position').on(t.org, t.run, t.position),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

/** Number series: records and practice records count apart. The row is locked while a seal is made: no gaps. */
export const counters = pgTable(
  'counters',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    series: text('series').notNull(),
    last: integer('last').notNull(),
    lastHash: text('last_hash').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.series] })],
);

export const signingKeys = pgTable('signing_keys', {
  org: uuid('org')
    .primaryKey()
    .references(() => organisations.org),
  publicKey: text('public_key').notNull(),
  /** Private key, AES-256-GCM under the server's own key. */
  sealedSecret: text('sealed_secret').notNull(),
});

export const seals = pgTable(
  'seals',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    number: text('number').notNull(),
    series: text('series').notNull(),
    previous: text('previous').notNull(),
    hash: text('hash').notNull(),
    signature: text('signature').notNull(),
    key: text('key').notNull(),
    body: text('body').notNull(),
    // beside the sealed text, for lists only
    word: text('word').$type<VerdictWord>().notNull(),
    status: text('status').$type<RecordStatus>().notNull(),
    sealedAt: moment('sealed_at').notNull(),
    search: text('search').notNull(),
    glyph: jsonb('glyph').$type<unknown>().notNull(),
    summary: jsonb('summary')
      .$type<{ site: string; system: string; procedure: string; by: string; label: string }>()
      .notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run] }),
    unique('seals_number').on(t.org, t.series, t.number),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

/** Unguessable links to the public page of a certificate; revocable. */
export const publicLinks = pgTable(
  'public_links',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    token: text('token').notNull().unique(),
    revoked: moment('revoked'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.token] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

/** A paired gauge that streams into a run. `simulated` gauges belong to practice runs only. */
export const gaugeLinks = pgTable(
  'gauge_links',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    gauge: uuid('gauge').notNull(),
    codeHash: text('code_hash').notNull().unique(),
    tokenHash: text('token_hash').unique(),
    simulated: boolean('simulated').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run, t.gauge] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

export const auditLog = pgTable(
  'audit_log',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    at: moment('at').notNull(),
    person: uuid('person'),
    what: text('what').notNull(),
    subject: text('subject').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);
