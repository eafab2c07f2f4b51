/** Runs: plan, events, and what belongs to them while they run or is watched after them. */
import type { LogEntry } from '@/core/instrument/kit';
import type { Plan } from '@/core/plan/plan';
import type { InventoryItem, RunEvent } from '@/core/run/events';
import type { WatchEntry, WatchFacts } from '@/core/watch/watch';
import { sql } from 'drizzle-orm';
import {
  bigint,
  bigserial,
  boolean,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { bytea, moment } from './columns';
import { organisations, people } from './people';
import { sites, systems } from './places';

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
    /** The same as it is compared. */
    plates: text('plates').generatedAlwaysAs(sql`compact_text(search)`),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('sightings_newest').on(t.org, t.at.desc(), t.id.desc()),
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

/** Pieces of a photo on its way in: an upload goes on where the signal left it. Gone when the photo is whole. */
export const photoParts = pgTable(
  'photo_parts',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    hash: text('hash').notNull(),
    at: integer('at').notNull(),
    bytes: bytea('bytes').notNull(),
    received: moment('received').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run, t.hash, t.at] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
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

/** A link by which a customer or witness signs on a device of their own. Only its hash is kept. */
export const signatureLinks = pgTable(
  'signature_links',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    run: uuid('run').notNull(),
    role: text('role').$type<'customer' | 'witness'>().notNull(),
    name: text('name').notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    made: moment('made').notNull(),
    madeBy: uuid('made_by').notNull(),
    expires: moment('expires').notNull(),
    ended: moment('ended'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.madeBy], foreignColumns: [people.org, people.id] }),
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

/**
 * A gauge of the cabinet that sends what it shows by itself, into whatever open run it judges. By its code it is paired once;
 * then its token opens that and nothing else. Only hashes are kept.
 */
export const pairedGauges = pgTable(
  'paired_gauges',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    gauge: uuid('gauge').notNull(),
    codeHash: text('code_hash').unique(),
    codeExpires: moment('code_expires').notNull(),
    tokenHash: text('token_hash').unique(),
    made: moment('made').notNull(),
    madeBy: uuid('made_by').notNull(),
    /** When it was paired, what it says of itself, and when that was ended. */
    paired: moment('paired'),
    device: text('device').notNull(),
    ended: moment('ended'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('paired_gauges_gauge').on(t.org, t.gauge),
    foreignKey({ columns: [t.org, t.madeBy], foreignColumns: [people.org, people.id] }),
  ],
);

/**
 * Runs without a seal, so that nobody looks for them among all there ever were. Derived: written by the database itself when a run
 * begins and when it is sealed.
 */
export const openRuns = pgTable(
  'open_runs',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    made: moment('made').notNull(),
    practice: boolean('practice').notNull(),
    /** The gauge whose display belongs to it now: the one that judges, before one is chosen the one that is meant. */
    shows: uuid('shows'),
    /** In which order gauges were put to runs, whatever any clock says: a display belongs to the last. */
    turn: bigserial('turn', { mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run] }),
    index('open_runs_made').on(t.org, t.made),
    index('open_runs_shows').on(t.org, t.shows),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);
