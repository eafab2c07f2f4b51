import 'server-only';
import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { publicKeyOf } from '@/core/record/record';
import type { Tx } from '@/database/client';
import { signingKeys } from '@/database/schema';

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

/** Makes the organisation's Ed25519 key once. */
export async function makeSigningKey(tx: Tx, org: string): Promise<void> {
  const secret = randomBytes(32).toString('hex');
  await tx
    .insert(signingKeys)
    .values({ org, publicKey: publicKeyOf(secret), sealedSecret: encrypt(secret) })
    .onConflictDoNothing();
}
/** @returns the organisation's private key, hex */
export async function signingSecret(tx: Tx, org: string): Promise<string> {
  const [row] = await tx.select().from(signingKeys).where(eq(signingKeys.org, org));
  if (!row) throw new Error('The organisation has no signing key.');
  return decrypt(row.sealedSecret);
}
export async function publicKey(tx: Tx): Promise<string | undefined> {
  const [row] = await tx.select({ key: signingKeys.publicKey }).from(signingKeys);
  return row?.key;
}
