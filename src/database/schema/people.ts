/** The organisation, its people, who is signed in, and what was done in its name. */
import type { Wishes } from '@/core/quantity/usage';
import type { Role } from '@/wire/role';
import {
  bigint,
  foreignKey,
  index,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { bytea, moment } from './columns';

export const organisations = pgTable('organisations', {
  org: uuid('org').primaryKey(),
  name: text('name').notNull(),
  contact: text('contact').notNull().default(''),
  /** Part of the public address of its daily anchors. */
  anchorToken: text('anchor_token').unique(),
  /** Whom each daily anchor is sent to; '' nobody. */
  anchorTo: text('anchor_to').notNull().default(''),
  /** Packs of schools that the house does not work to: their tests are folded away. */
  packsAside: jsonb('packs_aside').$type<readonly string[]>().notNull().default([]),
  /** Units, days and times its people are used to, where they wish nothing else. */
  usage: jsonb('usage').$type<Wishes>().notNull().default({}),
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
    /** What of them this person is used to otherwise. */
    usage: jsonb('usage').$type<Wishes>().notNull().default({}),
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
    /** When it was last used, to the hour: one that lies idle runs out. */
    used: moment('used'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** A device on which somebody signed in before: guessing at their address elsewhere does not lock it out. Only the hash is kept. */
export const knownDevices = pgTable(
  'known_devices',
  {
    org: uuid('org').notNull(),
    person: uuid('person').notNull(),
    tokenHash: text('token_hash').notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.person, t.tokenHash] }),
    index('known_devices_token').on(t.tokenHash),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** A passkey: the public half of a key that the person's device keeps. */
export const passkeys = pgTable(
  'passkeys',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    credential: text('credential').notNull().unique(),
    publicKey: bytea('public_key').notNull(),
    counter: bigint('counter', { mode: 'number' }).notNull(),
    name: text('name').notNull(),
    made: moment('made').notNull(),
    used: moment('used'),
    ended: moment('ended'),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
  ],
);

/** Where a device of a person can be rung while its page is shut: an address of its browser's push service, with its keys. */
export const pushDevices = pgTable(
  'push_devices',
  {
    org: uuid('org').notNull(),
    id: uuid('id').notNull(),
    person: uuid('person').notNull(),
    /** It rings as long as the person is signed in on it. */
    session: uuid('session').notNull(),
    endpoint: text('endpoint').notNull(),
    p256dh: text('p256dh').notNull(),
    auth: text('auth').notNull(),
    /** Minutes before the end of a wait at which it rings; 0 is the end. */
    minutes: jsonb('minutes').$type<readonly number[]>().notNull(),
    made: moment('made').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.id] }),
    unique('push_devices_endpoint').on(t.org, t.endpoint),
    foreignKey({ columns: [t.org, t.person], foreignColumns: [people.org, people.id] }),
    foreignKey({ columns: [t.org, t.session], foreignColumns: [sessions.org, sessions.id] }),
  ],
);
/** What was rung, once for each device: kept before it is sent, so that two servers never ring twice. */
export const rung = pgTable(
  'rung',
  {
    org: uuid('org').notNull(),
    device: uuid('device').notNull(),
    tag: text('tag').notNull(),
    at: moment('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.org, t.device, t.tag] }),
    foreignKey({ columns: [t.org, t.device], foreignColumns: [pushDevices.org, pushDevices.id] }).onDelete(
      'cascade',
    ),
  ],
);

/** Failed sign-ins, for the rate limit; no organisation is known yet. Reached only through definer functions. */
export const signInAttempts = pgTable(
  'sign_in_attempts',
  { key: text('key').notNull(), at: moment('at').notNull() },
  (t) => [index('sign_in_attempts_key').on(t.key, t.at)],
);

/** What was let through in a time, by a key that says of whom and what. Reached only through a definer function. */
export const turns = pgTable('turns', { key: text('key').notNull(), at: moment('at').notNull() }, (t) => [
  index('turns_key').on(t.key, t.at),
  index('turns_at').on(t.at),
]);

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
    /** Written elsewhere, and brought in with a whole organisation then: nothing here witnessed it. */
    broughtIn: moment('brought_in'),
  },
  (t) => [primaryKey({ columns: [t.org, t.id] }), index('audit_log_at').on(t.org, t.at)],
);
