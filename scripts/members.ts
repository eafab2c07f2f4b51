/** Houses for the database tests: people of each role, signed in, in an organisation of their own. */
import { sessionOf, signIn, type Session } from '../src/server/session/session';
import type { Role } from '../src/wire/role';
import { uuid7 } from '../src/wire/uuid7';
import { makeOrganisation } from './demo';
import { migrateDatabase } from './migrate';

/** Somebody of a house that was made for a test, signed in by the password that `makeOrganisation` gave. */
export const signedIn = async (key: string, domain: string): Promise<Session> =>
  (await sessionOf((await signIn(`${key}@${domain}`, `millrace-${key}`)).token))!;
let house = 0;
/** A fresh organisation with one person of each of these roles. */
export async function membersOf(roles: readonly Role[]): Promise<ReadonlyMap<Role, Session>> {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const domain = `${uuid7(Date.now() + house++)}.example`;
  await makeOrganisation(
    domain,
    '',
    roles.map((role) => ({ key: role, name: `A ${role}`, role })),
    domain,
  );
  const found = new Map<Role, Session>();
  for (const role of roles) found.set(role, await signedIn(role, domain));
  return found;
}
