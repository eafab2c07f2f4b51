/** What is sealed, where it is found, and what follows from it and goes out. */
import type { FollowUpKind } from '@/core/after/follow-ups';
import type { SignedMark } from '@/core/record/marks';
import type { LedgerFacts } from '@/core/record/ledger-facts';
import type { PaperRef } from '@/core/record/papers';
import type { Seal } from '@/core/record/seal';
import type { RecordStatus } from '@/core/record/status';
import type { TrendFigure } from '@/core/record/trend';
import type { VerdictWord } from '@/core/verdict/verdict';
import type { LedgerSource, LedgerSummary } from '@/wire/ledger';
import {
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
import { bytea, moment, tsvector } from './columns';
import { organisations, people } from './people';
import { systems } from './places';
import { runs } from './runs';

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
    /** It came with a whole organisation: first seen here then. */
    broughtIn: moment('brought_in'),
  },
  (t) => [primaryKey({ columns: [t.org, t.publicKey] })],
);

/** The head of the chain of records at the end of a day, as a signed line that is given out: a later rewrite shows against it. Append-only. */
export const anchors = pgTable(
  'anchors',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    /** ISO day whose end it stands for, UTC. */
    day: text('day').notNull(),
    number: text('number').notNull(),
    line: text('line').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.day] })],
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
    /** It was sealed elsewhere and came with a whole organisation then. */
    broughtIn: moment('brought_in'),
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
    /** Figures and names, for files and for courses over the years; {} in lines made before there were any. */
    facts: jsonb('facts').$type<Partial<LedgerFacts>>().notNull().default({}),
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
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('outside_records_hash').on(t.org, t.hash)],
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
