/** What a person may do: owner and tester seal; an apprentice runs but does not seal; the office plans, reads, exports. */
export const ROLES = ['owner', 'tester', 'apprentice', 'office'] as const;
export type Role = (typeof ROLES)[number];
export const maySeal = (role: Role): boolean => role === 'owner' || role === 'tester';
/** Places, gauges and visits are changed by everyone but the apprentice, who may write into logs. */
export const mayPlan = (role: Role): boolean => role !== 'apprentice';
export const mayRun = (role: Role): boolean => role !== 'office';
/** The person of a session, as the device keeps it. */
export interface Identity {
  readonly org: string;
  readonly person: string;
  readonly name: string;
  readonly role: Role;
  readonly organisation: string;
}
