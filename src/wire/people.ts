import * as yup from 'yup';
import { free, maybeDay, shape, text, uuid } from './figure';
import { type Role, ROLES } from './role';

const email = () =>
  text(200).matches(/^[^\s@]+@[^\s@]+$/, 'must be an e-mail address, like imre@hollin.example');
const role = () => text(20).oneOf(ROLES);
/** Ten characters at least: length is what makes a password hard to guess. */
const password = () => text(200).min(10, 'must have at least 10 characters');
export const inviteSchema = shape({
  id: uuid(),
  name: text(120),
  email: email(),
  role: role(),
  /** Somebody who is in the organisation already and wants a new password. */
  person: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an id')
    .nullable()
    .defined(),
});
export type Invite = yup.InferType<typeof inviteSchema>;
export const joinSchema = shape({ password: password() });
export const personSchema = shape({
  name: text(120),
  role: role(),
  licenceNumber: free(60),
  licenceUntil: maybeDay(),
  left: yup.boolean().strict(true).required(),
});
export type PersonForm = yup.InferType<typeof personSchema>;
export const organisationSchema = shape({ name: text(120), contact: free(300) });
export const beginSchema = shape({
  organisation: text(120),
  contact: free(300),
  name: text(120),
  email: email(),
  password: password(),
});
export type Begin = yup.InferType<typeof beginSchema>;

/** A member as the organisation's page shows it. */
export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly licenceNumber: string;
  readonly licenceUntil: string;
  /** The licence is out of date today: what this person seals is no certificate. */
  readonly licenceOver: boolean;
  readonly left: string | null;
}
/** An invitation that is still open. */
export interface InvitationRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly expires: string;
}
