import { localDate } from '@/core/quantity/local-date';
import { canonical } from './canonical';
import { isSignedBy, publicKeyOf, signText, type PublishedKey } from './seal';

/** What was said of a sealed record afterwards. The record itself never changes and keeps its number. */
export interface RecordMark {
  readonly format: 1;
  readonly kind: 'superseded' | 'void';
  /** The record this is about, by number and fingerprint. */
  readonly number: string;
  readonly hash: string;
  /** The record that stands in its place, where one does. */
  readonly by?: string;
  readonly reason: string;
  readonly person: string;
  readonly at: string;
}
/** A mark as text with its signature: a notice that anyone can check, like a seal. */
export interface SignedMark {
  readonly body: string;
  readonly signature: string;
  readonly key: string;
}
/** @param secret Ed25519 private key, hex */
export function signMark(mark: RecordMark, secret: string): SignedMark {
  const body = canonical(mark);
  return { body, signature: signText(`mark\n${body}`, secret), key: publicKeyOf(secret) };
}
/** A mark as it reads. @throws SyntaxError when it is not JSON */
export const readMark = (signed: Pick<SignedMark, 'body'>): RecordMark =>
  JSON.parse(signed.body) as RecordMark;

/** What is wrong with a mark; empty = it is what the organisation said of this record. */
export function verifyMark(
  signed: SignedMark,
  record: { readonly number: string; readonly hash: string },
  keys?: readonly PublishedKey[],
): string[] {
  if (!isSignedBy(`mark\n${signed.body}`, signed.signature, signed.key))
    return ['A notice about this record was changed: its signature does not belong to it.'];
  let mark: RecordMark;
  try {
    mark = readMark(signed);
  } catch {
    return ['A notice about this record cannot be read.'];
  }
  return [
    ...(mark.number !== record.number || mark.hash !== record.hash
      ? [`A notice belongs to another record (${mark.number}).`]
      : []),
    ...(keys && !keys.some((k) => k.key === signed.key)
      ? ['A notice was signed with a key that is not one of the organisation’s.']
      : []),
  ];
}
/** Which record a plan stands in the place of, why, and everything that stands otherwise in it. */
export const supersedesWords = (said: {
  readonly number: string;
  readonly reason: string;
  readonly changed?: readonly string[];
}): string =>
  `${said.number}: ${said.reason}${said.changed?.length ? `. Changed from that record: ${said.changed.join('; ')}` : ''}`;

/** The mark in one sentence, dated where the test was made. */
export const markWords = (mark: RecordMark, zone = 'UTC'): string =>
  mark.kind === 'void'
    ? `Void since ${localDate(Date.parse(mark.at), zone)}, said by ${mark.person}: ${mark.reason}`
    : `Superseded by ${mark.by ?? 'a later record'} on ${localDate(Date.parse(mark.at), zone)}: ${mark.reason}`;
