import 'server-only';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { PackError } from '@/core/pack/error';
import { loadPack } from '@/core/pack/load';
import type { Pack } from '@/core/pack/schema';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { inOrganisation, lookUp, type Tx } from '@/database/client';
import { organisations, packs, people } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { makeSigningKey } from '@/server/sealing/keys';
import { hashPassword } from '@/server/session/password';
import { TroubleError } from '@/server/trouble';
import type { Begin } from '@/wire/people';
import type { Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';

/** What was checked in this process, by its text: a house more does not check them all again. */
const checked = new Map<string, { readonly pack: Pack; readonly hash: string }>();
/** A pack of the folder, with its hash; what is wrong with it is said with its file, its place and the cure. */
function shipped(file: string, text: string): { readonly pack: Pack; readonly hash: string } {
  try {
    const seen = checked.get(text);
    if (seen) return seen;
    const pack = loadPack(JSON.parse(text));
    const fresh = { pack, hash: sha256Hex(canonical(pack)) };
    checked.set(text, fresh);
    return fresh;
  } catch (error) {
    const place = error instanceof PackError && error.path ? `, ${error.path}` : '';
    throw new Error(`packs/${file}${place}: ${(error as Error).message}`);
  }
}
/**
 * Puts the shipped rule packs into an organisation: their text as written, the hash over the canonical form.
 * @returns which pack holds a procedure
 */
export async function bringPacks(tx: Tx, org: string): Promise<Map<string, string>> {
  const folder = path.join(process.cwd(), 'packs');
  const packOf = new Map<string, string>();
  const rows = readdirSync(folder)
    .filter((f) => f.endsWith('.json'))
    .sort()
    .map((file) => {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const { pack, hash } = shipped(file, text);
      for (const p of [...pack.procedures, ...(pack.sequences ?? [])]) packOf.set(p.id, pack.id);
      return { org, id: pack.id, version: pack.version, hash, body: text };
    });
  await tx.insert(packs).values(rows).onConflictDoNothing();
  return packOf;
}

export interface NewMember {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly password: string;
  readonly licence?: readonly [number: string, until: string];
}
/** One number for the lock that only making the first organisation takes. */
const FIRST_LOCK = 1;
const thereIsOne = (): TroubleError =>
  new TroubleError(
    409,
    'there-is-one',
    'An organisation is set up here already. Sign in, or ask its owner for an invitation.',
  );
/** Makes an organisation with its people, its signing key and the shipped packs. @returns ids of the people, in their order */
export async function makeOrganisation(
  name: string,
  contact: string,
  members: readonly NewMember[],
  onlyTheFirst = false,
): Promise<{ org: string; ids: string[]; packOf: Map<string, string> }> {
  const org = uuid7(now());
  const hashes = await Promise.all(members.map((m) => hashPassword(m.password)));
  const ids = members.map(() => uuid7(now()));
  const packOf = await inOrganisation({ org }, async (tx) => {
    if (onlyTheFirst) {
      // two who open a new installation at once: the second waits here, then sees the first
      await tx.execute(sql`select pg_advisory_xact_lock(${FIRST_LOCK})`);
      const { rows } = await tx.execute<{ there: boolean }>(sql`select has_organisation() as there`);
      if (rows[0]?.there) throw thereIsOne();
    }
    await tx.insert(organisations).values({ org, name, contact });
    await makeSigningKey(tx);
    await tx.insert(people).values(
      members.map((m, i) => ({
        org,
        id: ids[i]!,
        name: m.name,
        email: m.email.toLowerCase(),
        role: m.role,
        passwordHash: hashes[i]!,
        licenceNumber: m.licence?.[0] ?? null,
        licenceUntil: m.licence?.[1] ?? null,
      })),
    );
    await audit(tx, { org, person: ids[0]! }, 'made the organisation', name);
    return bringPacks(tx, org);
  });
  return { org, ids, packOf };
}

/** Whether anybody can sign in here at all. */
export async function hasOrganisation(): Promise<boolean> {
  const [row] = await lookUp<{ has_organisation: boolean }>('has_organisation()', []);
  return row?.has_organisation ?? false;
}
/**
 * The first organisation of a new installation, made by whoever opens it first; afterwards by the command line alone.
 * @throws TroubleError 409 when there is one already
 */
export async function beginHere(said: Begin): Promise<{ org: string }> {
  if (await hasOrganisation()) throw thereIsOne();
  const owner = {
    name: said.name.trim(),
    email: said.email,
    role: 'owner' as const,
    password: said.password,
  };
  const { org } = await makeOrganisation(said.organisation.trim(), said.contact.trim(), [owner], true);
  return { org };
}
