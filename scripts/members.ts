/** Houses for the database tests: people of each role, signed in, in an organisation of their own. */
import { sessionOf, signIn, type Session } from '../src/server/session/session';
import type { Role } from '../src/wire/role';
import { uuid7 } from '../src/wire/uuid7';
import { makeOrganisation } from './demo';
import { migrateDatabase } from './migrate';

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
  for (const role of roles)
    found.set(role, (await sessionOf((await signIn(`${role}@${domain}`, `millrace-${role}`)).token))!);
  return found;
}
