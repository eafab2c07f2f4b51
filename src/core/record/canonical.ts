import canonicalize from 'canonicalize';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/**
 * Canonical JSON (RFC 8785) of a value, with every string in Unicode form NFC and every non-integer number written
 * as a decimal string: the same value gives the same bytes everywhere.
 * @throws RangeError on numbers that are not finite
 */
export function canonical(value: unknown): string {
  const clean = (v: unknown): unknown => {
    if (typeof v === 'string') return v.normalize('NFC');
    if (typeof v === 'number') {
      if (!Number.isFinite(v)) throw new RangeError('A record cannot hold a number that is not finite.');
      return Number.isSafeInteger(v) ? v : String(v);
    }
    if (Array.isArray(v)) return v.map(clean);
    if (v && typeof v === 'object')
      return Object.fromEntries(
        Object.entries(v)
          .filter(([, x]) => x !== undefined)
          .map(([k, x]) => [k.normalize('NFC'), clean(x)]),
      );
    return v;
  };
  return canonicalize(clean(value)) ?? 'null';
}
export const sha256Hex = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));
/** SHA-256 of bytes, hex. */
export const sha256OfBytes = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
