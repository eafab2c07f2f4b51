/**
 * Makes a further organisation on an installation: `npm run -s organisation -- NAME OWNER E-MAIL`. Its owner chooses a
 * password by the link that is printed. Needs DATABASE_URL, VAST_SECRET and VAST_URL, as ./start sets them.
 */
import { randomBytes } from 'node:crypto';
import { closePool } from '@/database/client';
import { makeOrganisation } from '@/server/people/organisation';
import { invite } from '@/server/people/people';
import { beginSchema } from '@/wire/people';
import { uuid7 } from '@/wire/uuid7';

const [organisation = '', name = '', email = ''] = process.argv.slice(2);
try {
  const said = beginSchema.validateSync(
    { organisation, contact: '', name, email, password: randomBytes(18).toString('base64url') },
    { strict: true },
  );
  const { org, ids } = await makeOrganisation(said.organisation, '', [
    { name: said.name, email: said.email, role: 'owner', password: said.password },
  ]);
  const session = {
    org,
    person: ids[0]!,
    name: said.name,
    role: 'owner' as const,
    organisation: said.organisation,
    licence: null,
    session: '',
  };
  const { link } = await invite(
    session,
    { id: uuid7(Date.now()), name: said.name, email: said.email, role: 'owner', person: ids[0]! },
    process.env.VAST_URL ?? 'http://127.0.0.1:3000',
  );
  console.log(`${said.organisation} is made. ${said.name} chooses a password here: ${link}`);
} catch (error) {
  const e = error as Error & { path?: string; cause?: { code?: string } };
  console.error(
    e.cause?.code === '23505' || /unique/.test(e.message)
      ? 'Somebody signs in with this address already. Use another one.'
      : `${e.path ? `${e.path}: ` : ''}${e.message}\nUsage: npm run -s organisation -- "NAME" "OWNER" E-MAIL`,
  );
  process.exitCode = 1;
} finally {
  await closePool();
}
