/** Rule packs and how things are read. */
import type { LogMapping } from '@/core/gauge-log/mapping';
import type { TableMapping } from '@/wire/bring-in/tables';
import { jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { moment } from './columns';
import { organisations } from './people';

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

/** How a kind of gauge log was read the last time, known by the shape of its columns. */
export const logMappings = pgTable(
  'log_mappings',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    shape: text('shape').notNull(),
    mapping: jsonb('mapping').$type<LogMapping | TableMapping>().notNull(),
    used: moment('used').notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.shape] })],
);
