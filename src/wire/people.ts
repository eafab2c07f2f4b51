import * as yup from 'yup';
import { free, maybeDay, shape, text, uuid } from './figure';
import { passwordTrouble } from './password';
import { type Role, ROLES } from './role';

const email = () =>
  text(200).matches(/^[^\s@]+@[^\s@]+$/, 'must be an e-mail address, like imre@hollin.example');
const role = () => text(20).oneOf(ROLES);
/** Long, and not what everybody tries first; where its address stands in the same form, not that either. */
const password = () =>
  text(200).test('password', (value, context) => {
    const { email: address } = context.parent as { email?: unknown };
    const trouble = passwordTrouble(value, typeof address === 'string' ? address : '');
    return trouble ? context.createError({ message: trouble }) : true;
  });
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
/** What a browser answers for a passkey: checked as a whole by the library that knows its form. */
const credential = () =>
  yup
    .object({
      id: text(2000),
      rawId: text(2000),
      type: text(20).oneOf(['public-key']),
      response: yup.object().required(),
    })
    .required();
export const passkeySchema = shape({ name: text(60), response: credential() });
export const passkeySignInSchema = shape({ response: credential() });
/** Whom the daily anchor is sent to, and whether it stands at a public address. */
export const anchorSchema = shape({
  to: free(200).matches(/^([^\s@]+@[^\s@]+)?$/, 'must be an e-mail address, like imre@hollin.example'),
  published: yup.boolean().strict(true).required(),
});
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
  /** The licence is out of date today: what this person signs is no certificate. */
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
