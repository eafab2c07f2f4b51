/** Practice: scenarios of the house, what was practised, what was done in it, what came of it, and what was set to whom. */
import {
  boolean,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { YardAct } from '@/core/yard/acts';
import type { Scenario } from '@/core/yard/scenario';
import type { Simulation } from '@/core/simulation/simulation';
import type { ResultBody } from '@/core/yard/progress';
import type { Statement } from '@/core/yard/statement';
import type { Way } from '@/core/yard/words';
import { moment } from './columns';
import { organisations, people } from './people';
import { runs } from './runs';

/** Scenarios that somebody in the house wrote or brought in; each version stays. The newest of an id is the one in use. */
export const yardScenarios = pgTable(
  'yard_scenarios',
  {
    org: uuid('org')
      .notNull()
      .references(() => organisations.org),
    id: text('id').notNull(),
    made: moment('made').notNull(),
    by: text('by').notNull(),
    body: jsonb('body').$type<Scenario>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.org, t.id, t.made] })],
);

/** What was set to somebody: a scenario with all it hides, a way, and until when. */
export const yardTasks = pgTable(
  'yard_tasks',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    scenario: jsonb('scenario').$type<Scenario>().notNull(),
    way: text('way').$type<Way>().notNull(),
    /** So many minutes it may take; null: no limit. */
    minutes: integer('minutes'),
    due: text('due').notNull(),
    note: text('note').notNull(),
    by: uuid('by').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('yard_tasks_person').on(t.org, t.person),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
    foreignKey({ columns: [t.org, t.by], foreignColumns: [people.org, people.id] }),
  ],
);

/** A practice run by a scenario, with all it hides as it was then. Append-only. */
export const yardRuns = pgTable(
  'yard_runs',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    person: uuid('person').notNull(),
    scenario: jsonb('scenario').$type<Scenario>().notNull(),
    world: jsonb('world').$type<Simulation>().notNull(),
    way: text('way').$type<Way>().notNull(),
    task: uuid('task'),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run] }),
    index('yard_runs_person').on(t.org, t.person),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [runs.org, runs.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
    foreignKey({ columns: [t.org, t.task], foreignColumns: [yardTasks.org, yardTasks.id] }),
  ],
);

/** What was done by hand, came in between, was answered and concluded (core/yard/acts.ts). Append-only. */
export const yardActs = pgTable(
  'yard_acts',
  {
    org: uuid('org').notNull(),
    run: uuid('run').notNull(),
    position: integer('position').notNull(),
    at: moment('at').notNull(),
    by: text('by').notNull(),
    body: jsonb('body').$type<YardAct>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.run, t.position] }),
    foreignKey({ columns: [t.org, t.run], foreignColumns: [yardRuns.org, yardRuns.run] }),
  ],
);

/** What came of each practice, from which a person's progress follows (core/yard/progress.ts). Append-only. */
export const yardResults = pgTable(
  'yard_results',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    at: moment('at').notNull(),
    body: jsonb('body').$type<ResultBody>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('yard_results_person').on(t.org, t.person, t.at),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** Who is in which group of the one who trains, as it was said: the newest word counts. Append-only. */
export const yardGroups = pgTable(
  'yard_groups',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    name: text('name').notNull(),
    within: boolean('within').notNull(),
    by: uuid('by').notNull(),
    at: moment('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    index('yard_groups_person').on(t.org, t.person, t.at),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
    foreignKey({ columns: [t.org, t.by], foreignColumns: [people.org, people.id] }),
  ],
);

/** Statements of practice, in a series of their own: what was practised up to a day (core/yard/statement.ts). Append-only. */
export const yardStatements = pgTable(
  'yard_statements',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    number: text('number').notNull(),
    person: uuid('person').notNull(),
    by: uuid('by').notNull(),
    made: moment('made').notNull(),
    body: jsonb('body').$type<Statement>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    uniqueIndex('yard_statements_number').on(t.org, t.number),
    index('yard_statements_person').on(t.org, t.person, t.made),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
    foreignKey({ columns: [t.org, t.by], foreignColumns: [people.org, people.id] }),
  ],
);
