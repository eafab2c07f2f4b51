/** Places, their installations, the cabinet, and what is planned there. */
import type { LeakBody } from '@/core/after/leaks';
import type { Gauge } from '@/core/instrument/gauge';
import type { KitFacts } from '@/core/instrument/kit';
import type { VisitFacts } from '@/core/visit/facts';
import { sql } from 'drizzle-orm';
import { foreignKey, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { bytea, installation, moment } from './columns';
import { organisations, people } from './people';

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
    /** What it is found by, as it is compared: the database keeps it. */
    search: text('search').generatedAlwaysAs(
      sql`compact_text(name) || ' ' || compact_text(address) || ' ' || compact_text(customer)`,
    ),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('sites_name').on(t.org, t.name, t.id)],
);

export const systems = pgTable(
  'systems',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    site: uuid('site').notNull(),
    name: text('name').notNull(),
    facts: installation('facts').notNull(),
    /** As it is compared: its name; and everything that stands on plates in it, so that no installation is opened to look. */
    search: text('search').generatedAlwaysAs(sql`compact_text(name)`),
    plates: text('plates').generatedAlwaysAs(sql`plates_of(facts)`),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('systems_site').on(t.org, t.site, t.name),
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

/** Photos that hang on parts of an installation: where a valve is, what a plate says. Evidence of a test is in `photos`. */
export const partPhotos = pgTable(
  'part_photos',
  {
    org: uuid('org').notNull(),
    system: uuid('system').notNull(),
    part: text('part').notNull(),
    hash: text('hash').notNull(),
    bytes: bytea('bytes').notNull(),
    at: moment('at').notNull(),
    person: uuid('person').notNull(),
    by: text('by').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.system, t.hash] }),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** The leak book of an installation: what was found, done and said of each leak (core/after/leaks.ts). Append-only. */
export const leakEntries = pgTable(
  'leak_entries',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    system: uuid('system').notNull(),
    /** The entry that found the leak; itself for that one. */
    leak: uuid('leak').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    body: jsonb('body').$type<LeakBody>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('leak_entries_system').on(t.org, t.system),
    foreignKey({ columns: [t.org, t.system], foreignColumns: [systems.org, systems.id] }),
  ],
);
