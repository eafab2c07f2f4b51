import 'server-only';
import { demand } from '@/server/permission';
import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { and, desc, isNotNull, isNull, sql } from 'drizzle-orm';
import { publicKeyOf, type PublishedKey } from '@/core/record/seal';
import { inOrganisation, type Tx } from '@/database/client';
import { signingKeys } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';

/** The server's own key, under which the organisations' signing keys lie encrypted. */
function serverKey(): Buffer {
  const secret = process.env.VAST_SECRET;
  if (!secret || secret.length < 32)
    throw new Error('VAST_SECRET is not set (32 characters or more). ./start makes one.');
  return createHash('sha256').update(secret).digest();
}
export function encrypt(plain: string): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', serverKey(), iv);
  const body = Buffer.concat([cipher.update(plain, 'utf8'), cipher.final()]);
  return [iv, cipher.getAuthTag(), body].map((b) => b.toString('base64')).join('.');
}
export function decrypt(text: string): string {
  const [iv, tag, body] = text.split('.').map((p) => Buffer.from(p, 'base64'));
  const decipher = createDecipheriv('aes-256-gcm', serverKey(), iv!);
  decipher.setAuthTag(tag!);
  return Buffer.concat([decipher.update(body!), decipher.final()]).toString('utf8');
}

/** Makes an Ed25519 key for the organisation. @returns its public half */
export async function makeSigningKey(tx: Tx): Promise<string> {
  const secret = randomBytes(32).toString('hex');
  const publicKey = publicKeyOf(secret);
  // the one before is retired in the same step; the application's role cannot write keys in another way
  await tx.execute(
    sql`select new_signing_key(${publicKey}, ${encrypt(secret)}, ${new Date(now()).toISOString()}::timestamptz)`,
  );
  return publicKey;
}
/** The private key that signs now, hex. */
export async function signingSecret(tx: Tx): Promise<string> {
  const [row] = await tx
    .select()
    .from(signingKeys)
    .where(and(isNull(signingKeys.retired), isNotNull(signingKeys.sealedSecret)))
    .orderBy(desc(signingKeys.made))
    .limit(1);
  if (!row?.sealedSecret)
    throw new TroubleError(
      409,
      'no-key',
      'The organisation has no signing key. The owner makes one under Organisation.',
    );
  return decrypt(row.sealedSecret);
}
/** Every key the organisation ever signed with, the newest first: old records are checked against these. */
export const publishedKeys = async (
  tx: Tx,
): Promise<(PublishedKey & { readonly made: string; readonly broughtIn: string | null })[]> =>
  (
    await tx
      .select({
        key: signingKeys.publicKey,
        made: signingKeys.made,
        retired: signingKeys.retired,
        broughtIn: signingKeys.broughtIn,
      })
      .from(signingKeys)
      .orderBy(desc(signingKeys.made))
  ).map((k) => ({
    key: k.key,
    made: k.made.toISOString(),
    retired: k.retired?.toISOString() ?? null,
    broughtIn: k.broughtIn?.toISOString() ?? null,
  }));
export const readKeys = (scope: { org: string }) => inOrganisation(scope, publishedKeys);

/**
 * Takes a new signing key into use and retires the one before. What the old one signed stays proved by it.
 * @throws TroubleError 403 for anyone but the owner
 */
export async function rotateKey(session: Session): Promise<{ key: string }> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    const key = await makeSigningKey(tx);
    await audit(tx, session, 'changed the signing key', key);
    return { key };
  });
}
