/** Long work that is asked for, left, and come back to; and the files that belong to it, in pieces. */
import type { JobAsked, JobKind, JobResult, JobState } from '@/wire/jobs';
import { sql } from 'drizzle-orm';
import {
  bigint,
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
import { bytea, moment } from './columns';
import { people } from './people';

export const jobs = pgTable(
  'jobs',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    kind: text('kind').$type<JobKind>().notNull(),
    asked: jsonb('asked').$type<JobAsked>().notNull(),
    by: uuid('by').notNull(),
    made: moment('made').notNull(),
    state: text('state').$type<JobState>().notNull(),
    /** What is being done, in words. */
    step: text('step').notNull().default(''),
    done: bigint('done', { mode: 'number' }).notNull().default(0),
    of: bigint('of', { mode: 'number' }).notNull().default(0),
    /** Of the file that belongs to it. */
    bytes: bigint('bytes', { mode: 'number' }).notNull().default(0),
    result: jsonb('result').$type<JobResult>(),
    trouble: text('trouble'),
    /** The server that works on it, and when it last said so by the database's clock. */
    heldBy: uuid('held_by'),
    beat: moment('beat'),
    tries: integer('tries').notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.by], foreignColumns: [people.org, people.id] }),
    // one at a time for each organisation
    uniqueIndex('jobs_under_way')
      .on(t.org)
      .where(sql`state in ('uploading', 'waiting', 'running')`),
    index('jobs_to_do')
      .on(t.made)
      .where(sql`state in ('waiting', 'running')`),
  ],
);
export const jobPieces = pgTable(
  'job_pieces',
  {
    org: uuid('org').notNull(),
    job: uuid('job').notNull(),
    n: integer('n').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.job, t.n] }),
    foreignKey({ columns: [t.org, t.job], foreignColumns: [jobs.org, jobs.id] }).onDelete('cascade'),
  ],
);
