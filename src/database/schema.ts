import type { FollowUpKind } from '@/core/after/follow-ups';
import type { LogMapping } from '@/core/gauge-log/mapping';
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { KitFacts, LogEntry } from '@/core/instrument/kit';
import { networkOf, readInstallation } from '@/core/network/enter';
import { type Installation, installationOf } from '@/core/network/installation';
import type { Plan } from '@/core/plan/plan';
import type { SignedMark } from '@/core/record/marks';
import type { PaperRef } from '@/core/record/papers';
import type { Seal } from '@/core/record/seal';
import type { RecordStatus } from '@/core/record/status';
import type { TrendFigure } from '@/core/record/trend';
import type { InventoryItem, RunEvent } from '@/core/run/events';
import type { VerdictWord } from '@/core/verdict/verdict';
import type { VisitFacts } from '@/core/visit/facts';
import type { WatchEntry, WatchFacts } from '@/core/watch/watch';
import type { LedgerSource, LedgerSummary } from '@/wire/ledger';
import type { Role } from '@/wire/role';
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

/**
 * Every table carries `org` and is under forced row-level security (migrations/0000_baseline.sql); references between
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
    /** When the person left the organisation: no sign-in any more; what they did keeps their name. */
    left: moment('left'),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

/** An invitation into the organisation, or a new password for somebody who is in it. Only the link's hash is kept. */
export const invitations = pgTable(
  'invitations',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    /** Who is invited again; null for somebody new. */
    person: uuid('person'),
    name: text('name').notNull(),
    email: text('email').notNull(),
    role: text('role').$type<Role>().notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    made: moment('made').notNull(),
    madeBy: text('made_by').notNull(),
    expires: moment('expires').notNull(),
    ended: moment('ended'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
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

/** A place's installation: kept as its network and the facts of the whole, read as the section that rules know. */
const installation = customType<{ data: System; driverData: unknown }>({
  dataType: () => 'jsonb',
  toDriver: (section) => JSON.stringify(installationOf(section, networkOf(section))),
  fromDriver: (kept) => readInstallation(kept as Installation | System),
});
export const systems = pgTable(
  'systems',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    site: uuid('site').notNull(),
    name: text('name').notNull(),
    facts: installation('facts').notNull(),
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
    /** Papers that would go with it: made anew from the sealed record when they are looked at. */
    papers: jsonb('papers').$type<readonly PaperRef[]>().notNull().default([]),
    /** Only the owner looks at it here: it carries a link that lets its reader in. */
    ownerOnly: boolean('owner_only').notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] })],
);

/** What the simulated site printer gave out: the strip as it came, in words. Append-only. */
export const prints = pgTable(
  'prints',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    run: uuid('run').notNull(),
    number: text('number').notNull(),
    paper: text('paper').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
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

/** Which edition, clause and jurisdiction the organisation works to, by pack and source; '' is the pack as a whole. */
export const sourceEditions = pgTable(
  'source_editions',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    pack: text('pack').notNull(),
    source: text('source').notNull(),
    edition: text('edition').notNull(),
    clause: text('clause').notNull(),
    jurisdiction: text('jurisdiction').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.pack, t.source] })],
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

/** What is still to be done, made by rules (core/after): repaired, reported, tested again, calibrated, watched. */
export const followUps = pgTable(
  'follow_ups',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    /** The record it came from; none for what runs out by date alone. */
    run: uuid('run'),
    system: uuid('system'),
    kind: text('kind').$type<FollowUpKind>().notNull(),
    /** What it is about where that is not a system: a gauge, a thing of the cabinet, a watch. */
    subject: uuid('subject'),
    text: text('text').notNull(),
    due: text('due').notNull(),
    made: moment('made').notNull(),
    /** Who sees to it; nobody yet where it is null. */
    owner: uuid('owner'),
    /** The later good record, or the person, that closed it, and what was said. */
    closedBy: text('closed_by'),
    closed: moment('closed'),
    closedText: text('closed_text').notNull().default(''),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('follow_ups_open').on(t.org, t.closed, t.due),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
    foreignKey({ columns: [t.org, t.owner], foreignColumns: [people.org, people.id] }),
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

/** Signing keys, one after the other: the newest signs, the retired ones still prove what they signed. */
export const signingKeys = pgTable(
  'signing_keys',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    publicKey: text('public_key').notNull(),
    /** Private key, AES-256-GCM under the server's own key; null for a key whose private half is elsewhere. */
    sealedSecret: text('sealed_secret'),
    made: moment('made').notNull().defaultNow(),
    retired: moment('retired'),
  },
  (t) => [primaryKey({ columns: [t.org, t.publicKey] })],
);

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
    /** Fingerprints of the parts, and their signature: so that a check can name what was changed. */
    parts: text('parts'),
    partsSignature: text('parts_signature'),
    sealedAt: moment('sealed_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run] }),
    unique('seals_number').on(t.org, t.series, t.number),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

/** What was said of a sealed record afterwards: superseded by another, or void. Signed like a seal; append-only. */
export const recordMarks = pgTable(
  'record_marks',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    run: uuid('run').notNull(),
    body: text('body').notNull(),
    signature: text('signature').notNull(),
    key: text('key').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('record_marks_run').on(t.org, t.run),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
  ],
);

const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
/**
 * What the ledger searches and lists: one line a sealed record, own or brought in from outside. Derived from seals,
 * marks and outside records, and made anew from them at any time; never the truth.
 */
export const ledger = pgTable(
  'ledger',
  {
    org: uuid('org').notNull(),
    /** The run, or the outside record. */
    id: uuid('id').notNull(),
    source: text('source').$type<LedgerSource>().notNull(),
    number: text('number').notNull(),
    word: text('word').$type<VerdictWord>().notNull(),
    status: text('status').$type<RecordStatus>().notNull(),
    at: moment('at').notNull(),
    site: text('site').notNull(),
    system: uuid('system'),
    procedure: text('procedure').notNull(),
    tester: text('tester').notNull(),
    gauges: text('gauges').array().notNull(),
    /** Superseded by this number; void for this reason. */
    superseded: text('superseded'),
    voided: text('voided'),
    words: tsvector('words').notNull(),
    glyph: jsonb('glyph').$type<unknown>().notNull(),
    summary: jsonb('summary').$type<LedgerSummary>().notNull(),
    figures: jsonb('figures').$type<readonly TrendFigure[]>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('ledger_newest').on(t.org, t.at.desc(), t.id.desc()),
    index('ledger_site').on(t.org, t.site, t.at.desc()),
    index('ledger_system').on(t.org, t.system, t.at.desc()),
    index('ledger_word').on(t.org, t.word, t.at.desc()),
    index('ledger_procedure').on(t.org, t.procedure, t.at.desc()),
    index('ledger_tester').on(t.org, t.tester, t.at.desc()),
    index('ledger_words').using('gin', t.words),
  ],
);

/** Records brought in from another Vast Stone, as they came, with what the check of them found. Append-only. */
export const outsideRecords = pgTable(
  'outside_records',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: uuid('id').notNull(),
    number: text('number').notNull(),
    hash: text('hash').notNull(),
    body: text('body').notNull(),
    seal: jsonb('seal').$type<Seal>().notNull(),
    /** Untouched and signed, or what is wrong with it. */
    faults: jsonb('faults').$type<readonly string[]>().notNull(),
    marks: jsonb('marks').$type<readonly SignedMark[]>().notNull().default([]),
    imported: moment('imported').notNull(),
    by: text('by').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] }), unique('outside_records_hash').on(t.org, t.hash)],
);
export const outsidePhotos = pgTable(
  'outside_photos',
  {
    org: uuid('org').notNull(),
    record: uuid('record').notNull(),
    hash: text('hash').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.record, t.hash] }),
    foreignKey({ columns: [t.org, t.record], foreignColumns: [outsideRecords.org, outsideRecords.id] }),
  ],
);

/** A search of the ledger kept under a name, for its maker or for everybody. */
export const ledgerViews = pgTable(
  'ledger_views',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    name: text('name').notNull(),
    query: text('query').notNull(),
    shared: boolean('shared').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** How a kind of gauge log was read the last time, known by the shape of its columns. */
export const logMappings = pgTable(
  'log_mappings',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    shape: text('shape').notNull(),
    mapping: jsonb('mapping').$type<LogMapping>().notNull(),
    used: moment('used').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.shape] })],
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

/** Unguessable links to the public page of a certificate; revocable. */
export const publicLinks = pgTable(
  'public_links',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    token: text('token').notNull().unique(),
    made: moment('made').notNull().defaultNow(),
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
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('audit_log_at').on(t.org, t.at)],
);
