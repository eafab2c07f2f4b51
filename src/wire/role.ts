import type { Usage } from '@/core/quantity/usage';

/** Who works in an organisation. What each may do stands in MAY and nowhere else. */
export const ROLES = ['owner', 'tester', 'apprentice', 'office'] as const;
export type Role = (typeof ROLES)[number];
interface Rule {
  readonly roles: readonly Role[];
  /** What is said to whoever may not. */
  readonly refusal: string;
}
/** Every action and the roles that may do it. Every route handler names one of them. */
export const MAY = {
  /** Reads places, plans, runs and records of the own organisation, and its own wishes: views, drafts, signing out. */
  read: { roles: ROLES, refusal: '' },
  /** Conducts tests, practice among them. */
  run: {
    roles: ['owner', 'tester', 'apprentice'],
    refusal: 'The office reads runs; a tester or apprentice conducts them.',
  },
  /** Signs as tester, seals, supersedes, makes void. */
  seal: {
    roles: ['owner', 'tester'],
    refusal: 'Only a tester or the owner signs, seals, supersedes a record or makes it void.',
  },
  /** Places, kit and visits; brings in records of others. */
  plan: {
    roles: ['owner', 'tester', 'office'],
    refusal:
      'An apprentice does not change places, kit or visits, nor bring in records. Ask a tester or the office.',
  },
  /** Writes into the log of a thing of the cabinet and into watches, and photographs parts of a place. */
  note: { roles: ROLES, refusal: '' },
  /** Gauges: what they are, when they were calibrated, and whether they are in use. */
  calibrate: {
    roles: ['owner', 'tester'],
    refusal:
      'Only a tester or the owner enters gauges and calibrations or takes a thing back into use. Ask one of them.',
  },
  /** Takes records out of the house: papers, links, messages, lists; sees to what follows from them. */
  share: {
    roles: ['owner', 'tester', 'office'],
    refusal: 'An apprentice does not share records or see to follow-ups. Ask a tester or the office.',
  },
  /** Rule packs, people, keys, the whole organisation. */
  govern: { roles: ['owner'], refusal: 'Only the owner does this. Ask the owner of your organisation.' },
} as const satisfies Readonly<Record<string, Rule>>;
export type Action = keyof typeof MAY;
export const may = (role: Role, action: Action): boolean =>
  (MAY[action].roles as readonly Role[]).includes(role);
/** The person of a session, as the device keeps it. */
export interface Identity {
  readonly org: string;
  readonly person: string;
  readonly name: string;
  readonly role: Role;
  readonly organisation: string;
  /** Units, days and times as they are used to them. */
  readonly usage?: Usage;
}
