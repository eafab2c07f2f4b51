import canonicalize from 'canonicalize';
import { ed25519 } from '@noble/curves/ed25519.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import { showFigure, type Figure } from '@/core/quantity/figure';
import type { Plan } from '@/core/plan/plan';
import { recordStatus, type RecordStatus, type Sealer } from './status';
import { inOrder, reduce } from '@/core/run/reduce';
import type { PlacedEvent } from '@/core/run/events';
import {
  verdictOf,
  type PartResult,
  type Reason,
  type Verdict,
  type VerdictWord,
} from '@/core/verdict/verdict';
import type { Use } from '@/core/pack/types';
import { type StageLine } from '@/core/verdict/stage-lines';

/** A calculated figure in the record: printed digits as a string, so that no float is ever sealed. */
export interface SealedFigure {
  readonly name: string;
  readonly value: string;
  readonly formula: string;
  readonly inputs: readonly { readonly name: string; readonly value: string }[];
  readonly source: string;
  readonly note?: string;
}
export interface SealedVerdict {
  readonly word: VerdictWord;
  readonly label: string;
  readonly sentence: string;
  readonly plain: string;
  readonly reasons: readonly Reason[];
  readonly stages: readonly StageLine[];
  readonly leakRate: SealedFigure | null;
  readonly adequacy: { readonly figure: SealedFigure; readonly text: string } | null;
  /** Results of the parts, where the procedure has parts. */
  readonly parts?: readonly PartResult[];
  /** How the system may be left, where it is not simply in use or shut off by the verdict. */
  readonly use?: Use;
}
/** What is sealed: the plan with its pack, every event, and the verdict. The seal itself stands beside it. */
export interface RecordBody {
  readonly format: 1;
  readonly status: RecordStatus;
  readonly statusReason: string;
  readonly plan: unknown;
  readonly events: readonly unknown[];
  readonly verdict: SealedVerdict;
  readonly sealer: Sealer;
  readonly sealedAt: string;
}
export interface Seal {
  readonly number: string;
  readonly previous: string;
  readonly hash: string;
  readonly signature: string;
  readonly key: string;
}
export interface SealedRecord {
  readonly body: string;
  readonly seal: Seal;
}

/** First link of every chain. */
export const CHAIN_START = '0'.repeat(64);

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

/** What is hashed into the chain: number, link to the one before, and the body's own hash. */
export const sealHash = (body: string, number: string, previous: string): string =>
  sha256Hex(`${number}\n${previous}\n${sha256Hex(body)}`);

/** Signs a body into its place in the chain. @param secret Ed25519 private key, 32 bytes hex */
export function seal(body: string, number: string, previous: string, secret: string): Seal {
  const hash = sealHash(body, number, previous);
  const key = hexToBytes(secret);
  return {
    number,
    previous,
    hash,
    signature: bytesToHex(ed25519.sign(utf8ToBytes(hash), key)),
    key: bytesToHex(ed25519.getPublicKey(key)),
  };
}
export const publicKeyOf = (secret: string): string => bytesToHex(ed25519.getPublicKey(hexToBytes(secret)));

/** What a check of a sealed record found; empty = untouched. `expectedKey` is the organisation's published key. */
export function verifySeal(
  record: SealedRecord,
  expectedKey?: string,
): { code: 'hash' | 'signature' | 'key' | 'canonical'; text: string }[] {
  const faults: ReturnType<typeof verifySeal> = [];
  const { body, seal: s } = record;
  if (sealHash(body, s.number, s.previous) !== s.hash)
    faults.push({
      code: 'hash',
      text: 'The record no longer matches its fingerprint: it was changed after sealing.',
    });
  let signed = false;
  try {
    signed = ed25519.verify(hexToBytes(s.signature), utf8ToBytes(s.hash), hexToBytes(s.key));
  } catch {
    signed = false;
  }
  if (!signed) faults.push({ code: 'signature', text: 'The signature does not belong to this record.' });
  if (expectedKey && expectedKey !== s.key)
    faults.push({ code: 'key', text: 'The record was signed with another key than the organisation’s.' });
  try {
    if (canonical(JSON.parse(body)) !== body)
      faults.push({ code: 'canonical', text: 'The record is not in its canonical form.' });
  } catch {
    faults.push({ code: 'canonical', text: 'The record is not readable JSON.' });
  }
  return faults;
}

const sealedFigure = (f: Figure): SealedFigure => ({
  name: f.name,
  value: showFigure(f),
  formula: f.formula,
  inputs: f.inputs,
  source: f.source,
  ...(f.note ? { note: f.note } : {}),
});
/** The verdict as it is sealed: floats turned into printed figures. */
export function sealedVerdict(v: Verdict): SealedVerdict {
  const { word, label, sentence, plain, reasons, stages } = v;
  return {
    word,
    label,
    sentence,
    plain,
    reasons,
    stages,
    leakRate: v.leakRate && sealedFigure(v.leakRate),
    adequacy: v.adequacy && { figure: sealedFigure(v.adequacy.figure), text: v.adequacy.text },
    ...(v.parts ? { parts: v.parts } : {}),
    ...(v.use === 'limited' ? { use: v.use } : {}),
  };
}

/** Why a run cannot be sealed. */
export class SealError extends Error {
  constructor(
    readonly code: 'phase' | 'role' | 'unplaced',
    text: string,
  ) {
    super(text);
    this.name = 'SealError';
  }
}

/**
 * Builds the canonical body of a record from plan and log; the verdict is computed here, never taken from outside.
 * @throws SealError when the run is not signed, its list not cleared, or events are still unplaced
 */
export function makeBody(
  plan: Plan,
  events: readonly PlacedEvent[],
  sealer: Sealer,
  sealedAt: string,
): { body: string; verdict: Verdict; status: RecordStatus } {
  const state = reduce(plan, events);
  if (sealer.role === 'apprentice')
    throw new SealError(
      'role',
      'An apprentice can run a test but not seal it. Ask a tester or the owner to sign and seal.',
    );
  if (sealer.role === 'office')
    throw new SealError('role', 'The office reads and exports; a tester or the owner seals.');
  if (state.phase === 'running') throw new SealError('phase', 'The test has not ended.');
  if (state.phase === 'put-back') throw new SealError('phase', 'The put-back list is not cleared.');
  if (state.phase !== 'signed') throw new SealError('phase', 'The signatures are missing.');
  const log = inOrder(events);
  if (log.some((e) => e.position === undefined))
    throw new SealError('unplaced', 'Some entries are not with the office yet.');
  const verdict = verdictOf(plan, state)!;
  const { status, reason } = recordStatus(plan, sealer, sealedAt.slice(0, 10));
  const body: RecordBody = {
    format: 1,
    status,
    statusReason: reason,
    plan,
    events: log,
    verdict: sealedVerdict(verdict),
    sealer,
    sealedAt,
  };
  return { body: canonical(body), verdict, status };
}
