import { ed25519 } from '@noble/curves/ed25519.js';
import { bytesToHex, hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import { localDate } from '@/core/quantity/local-date';
import { canonical, sha256Hex } from './canonical';
import { changedParts, partsText, readParts } from './parts';

export interface Seal {
  readonly number: string;
  readonly previous: string;
  readonly hash: string;
  readonly signature: string;
  readonly key: string;
  /** Fingerprints of the parts as canonical text, and its own signature; records sealed before 0.2 have none. */
  readonly parts?: string;
  readonly partsSignature?: string;
}
export interface SealedRecord {
  readonly body: string;
  readonly seal: Seal;
}

/** Records count apart from practice, each without gaps. */
export type Series = 'record' | 'practice';
export const recordNumber = (series: Series, n: number): string =>
  `${series === 'practice' ? 'PRACTICE' : 'VS'}-${String(n).padStart(5, '0')}`;
/** First link of every chain. */
export const CHAIN_START = '0'.repeat(64);

/** What is hashed into the chain: number, link to the one before, and the body's own hash. */
export const sealHash = (body: string, number: string, previous: string): string =>
  sha256Hex(`${number}\n${previous}\n${sha256Hex(body)}`);
/** What the signature of the parts stands over: they belong to this seal and no other. */
const partsMessage = (hash: string, parts: string): string => `parts\n${hash}\n${sha256Hex(parts)}`;

/** Ed25519 signature over a text, hex. @param secret private key, 32 bytes hex */
export const signText = (text: string, secret: string): string =>
  bytesToHex(ed25519.sign(utf8ToBytes(text), hexToBytes(secret)));
/** Whether a signature belongs to this text and key; false for anything malformed. */
export function isSignedBy(text: string, signature: string, key: string): boolean {
  try {
    return ed25519.verify(hexToBytes(signature), utf8ToBytes(text), hexToBytes(key));
  } catch {
    return false;
  }
}
export const publicKeyOf = (secret: string): string => bytesToHex(ed25519.getPublicKey(hexToBytes(secret)));

/** Signs a body into its place in the chain. @param secret Ed25519 private key, 32 bytes hex */
export function seal(body: string, number: string, previous: string, secret: string): Seal {
  const hash = sealHash(body, number, previous);
  const parts = partsText(body);
  return {
    number,
    previous,
    hash,
    signature: signText(hash, secret),
    key: publicKeyOf(secret),
    parts,
    partsSignature: signText(partsMessage(hash, parts), secret),
  };
}

/** A key an organisation has published; `retired`: from when on it no longer signs, ISO. */
export interface PublishedKey {
  readonly key: string;
  readonly retired: string | null;
}
export interface SealFault {
  readonly code: 'hash' | 'part' | 'parts' | 'signature' | 'key' | 'canonical';
  readonly text: string;
  /** Where in the body, for a part that was changed. */
  readonly path?: string;
}

/**
 * What a check of a sealed record found; empty = untouched. Needs nothing but the record itself; where the parts were
 * signed with it, it names each part that was changed, added or taken out.
 * @param keys the organisation's published keys, old and new; without them whose key it is stays open
 */
export function verifySeal(record: SealedRecord, keys?: readonly PublishedKey[]): SealFault[] {
  const faults: SealFault[] = [];
  const { body, seal: s } = record;
  const matches = sealHash(body, s.number, s.previous) === s.hash;
  const partsStand =
    s.parts !== undefined && isSignedBy(partsMessage(s.hash, s.parts), s.partsSignature ?? '', s.key);
  if (!matches) {
    const named = partsStand ? changedParts(body, readParts(s.parts)) : [];
    faults.push(...named.map((n): SealFault => ({ code: 'part', path: n.path, text: n.text })), {
      code: 'hash',
      text: !partsStand
        ? 'The record no longer matches its fingerprint: it was changed after sealing.'
        : named.length
          ? 'The record no longer matches its fingerprint: it was changed after sealing, in the parts named.'
          : 'Every part of the record is as it was sealed, but its number, its link to the record before, or the way it is written is not.',
    });
  }
  if (!isSignedBy(s.hash, s.signature, s.key))
    faults.push({ code: 'signature', text: 'The signature does not belong to this record.' });
  if (s.parts !== undefined && !partsStand)
    faults.push({
      code: 'parts',
      text: 'The fingerprints of the parts do not belong to this record: they were changed.',
    });
  if (keys) {
    const own = keys.find((k) => k.key === s.key);
    const sealed = sealedIn(body);
    if (!own)
      faults.push({
        code: 'key',
        text: 'The record was signed with a key that is not one of the organisation’s.',
      });
    else if (own.retired && (sealed.at ?? own.retired) > own.retired)
      faults.push({
        code: 'key',
        text: `The record was signed with a key that was retired on ${localDate(Date.parse(own.retired), sealed.zone)}, before it was sealed.`,
      });
  }
  try {
    if (canonical(JSON.parse(body)) !== body)
      faults.push({ code: 'canonical', text: 'The record is not in its canonical form.' });
  } catch {
    faults.push({ code: 'canonical', text: 'The record is not readable JSON.' });
  }
  return faults;
}
/** When it was sealed, and where the test was made, whose days its dates are; nothing of a body that cannot be read. */
function sealedIn(body: string): { readonly at?: string; readonly zone: string } {
  try {
    const { sealedAt, plan } = JSON.parse(body) as {
      sealedAt?: unknown;
      plan?: { made?: { zone?: string } };
    };
    return { ...(typeof sealedAt === 'string' ? { at: sealedAt } : {}), zone: plan?.made?.zone ?? 'UTC' };
  } catch {
    return { zone: 'UTC' };
  }
}
