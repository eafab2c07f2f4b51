import { type UnzipFileInfo, unzipSync, zipSync } from 'fflate';
import * as yup from 'yup';
import { canonical, sha256OfBytes } from '@/core/record/canonical';
import { isSignedBy, publicKeyOf, signText } from '@/core/record/seal';
import { shape, text } from './figure';

/**
 * A bundle: a ZIP without compression whose first file lists all others with their SHA-256, signed. The same files give
 * the same bytes, so that any flipped bit can be named: by file where it is in one, else by its place in the archive.
 */
export const MANIFEST = 'manifest.json';
const FORMAT = 'vast-stone-bundle-1';
/** Every entry carries this day: when a bundle was packed says nothing about the record. */
const DAY = '1980-01-02T00:00:00Z';
const MOST_BYTES = 500_000_000;
/** Photos of a long test, and the papers. */
const MOST_FILES = 20_000;
const MOST_MANIFEST = 5_000_000;
/** Text shrinks to a tenth, a photo not at all. */
const MOST_RATIO = 100;

export interface BundleFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}
export interface Manifest {
  readonly format: typeof FORMAT;
  readonly number: string;
  /** Fingerprint of the record's seal. */
  readonly hash: string;
  /** SHA-256 by name. */
  readonly files: Readonly<Record<string, string>>;
}
const manifestFileSchema = shape({
  manifest: text(MOST_BYTES),
  signature: text(128).matches(/^[0-9a-f]{128}$/, 'is not a signature'),
  key: text(64).matches(/^[0-9a-f]{64}$/, 'is not a key'),
});
const manifestSchema = shape({
  format: text(40).oneOf([FORMAT]),
  number: text(40),
  hash: text(64).matches(/^[0-9a-f]{64}$/, 'is not a fingerprint'),
  files: yup
    .mixed<Record<string, string>>()
    .required()
    .test(
      'files',
      'must name files with their SHA-256',
      (v) =>
        typeof v === 'object' &&
        v !== null &&
        !Array.isArray(v) &&
        Object.values(v as object).every((h) => typeof h === 'string' && /^[0-9a-f]{64}$/.test(h)),
    ),
});
const utf8 = new TextEncoder();
const decode = (bytes: Uint8Array): string => new TextDecoder('utf-8', { fatal: true }).decode(bytes);

const pack = (files: readonly BundleFile[]): Uint8Array =>
  zipSync(Object.fromEntries(files.map((f) => [f.name, f.bytes])), { level: 0, mtime: DAY, os: 0 });

/** The signed list of the files of an archive. @param files SHA-256 by name  @param secret Ed25519 private key, hex */
export function manifestOf(
  { number, hash }: { readonly number: string; readonly hash: string },
  files: Readonly<Record<string, string>>,
  secret: string,
): Uint8Array {
  const manifest = canonical({ format: FORMAT, number, hash, files } satisfies Manifest);
  return utf8.encode(
    JSON.stringify({
      manifest,
      signature: signText(`bundle\n${manifest}`, secret),
      key: publicKeyOf(secret),
    }),
  );
}
/** A signed list as it came, and what is wrong with it. @param most bytes it may have */
export function readManifest(
  bytes: Uint8Array,
  most = MOST_MANIFEST,
): { readonly manifest: Manifest | null; readonly key: string | null; readonly faults: readonly string[] } {
  try {
    if (bytes.length > most) throw new Error('too large');
    const file = manifestFileSchema.validateSync(JSON.parse(decode(bytes)), { strict: true });
    return {
      manifest: manifestSchema.validateSync(JSON.parse(file.manifest), { strict: true }) as Manifest,
      key: file.key,
      faults: isSignedBy(`bundle\n${file.manifest}`, file.signature, file.key)
        ? []
        : ['manifest.json was changed: its signature does not belong to it.'],
    };
  } catch {
    return { manifest: null, key: null, faults: ['manifest.json was changed: it cannot be read.'] };
  }
}
/** @param secret Ed25519 private key, hex */
export function writeBundle(
  seal: { readonly number: string; readonly hash: string },
  files: readonly BundleFile[],
  secret: string,
): Uint8Array {
  const hashes = Object.fromEntries(files.map((f) => [f.name, sha256OfBytes(f.bytes)]));
  return pack([{ name: MANIFEST, bytes: manifestOf(seal, hashes, secret) }, ...files]);
}

export interface BundleCheck {
  readonly files: readonly BundleFile[];
  readonly manifest: Manifest | null;
  readonly key: string | null;
  /** What was changed, added or taken out. */
  readonly faults: readonly string[];
  /** What differs without touching any file: the archive was packed anew. */
  readonly notes: readonly string[];
}
/** Whether bytes begin like a ZIP. */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

class TooMuch extends Error {}
/** Stops before anything is unpacked that would be larger, or more, than a bundle ever is. */
function withinCaps() {
  let count = 0;
  let total = 0;
  return ({ name, originalSize, size }: UnzipFileInfo): boolean => {
    count += 1;
    total += originalSize;
    if (count > MOST_FILES || total > MOST_BYTES)
      throw new TooMuch('The archive holds more than a bundle does. It was not unpacked.');
    if (originalSize > MOST_RATIO * Math.max(size, 1000))
      throw new TooMuch(`${name} in the archive would unpack to a multiple of itself. It was not unpacked.`);
    return true;
  };
}

/** Reads a bundle and says exactly what in it is not as it was written. Needs nothing but the bytes. */
export function readBundle(bytes: Uint8Array): BundleCheck {
  const fail = (text: string): BundleCheck => ({
    files: [],
    manifest: null,
    key: null,
    faults: [text],
    notes: [],
  });
  if (bytes.length > MOST_BYTES) return fail('The file is too large to be a bundle.');
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes, { filter: withinCaps() });
  } catch (error) {
    if (error instanceof TooMuch) return fail(error.message);
    return fail('The archive is broken: its list of files cannot be read. Ask for the bundle again.');
  }
  const files = Object.entries(entries).map(([name, content]): BundleFile => ({ name, bytes: content }));
  const first = files.find((f) => f.name === MANIFEST);
  if (!first)
    return { ...fail('The signed list of files, manifest.json, is missing or was renamed.'), files };
  const { manifest, key, faults: wrong } = readManifest(first.bytes);
  if (!manifest) return { ...fail(wrong[0]!), files };
  const faults = [...wrong];
  for (const [name, hash] of Object.entries(manifest.files)) {
    const file = files.find((f) => f.name === name);
    if (!file) faults.push(`${name} is missing from the bundle or was renamed.`);
    else if (sha256OfBytes(file.bytes) !== hash) faults.push(`${name} was changed.`);
  }
  for (const f of files)
    if (f.name !== MANIFEST && !Object.hasOwn(manifest.files, f.name))
      faults.push(`${f.name} was added to the bundle.`);
  // every file is as it was written: what still differs is the archive around them
  const again = faults.length ? null : pack(files);
  const notes: string[] = [];
  if (again) {
    const at = firstDifference(again, bytes);
    if (at !== null)
      notes.push(
        `Every file is untouched, but the archive around them is not as it was written, from byte ${at} on: it was packed anew or damaged there.`,
      );
  }
  return { files, manifest, key, faults, notes };
}
function firstDifference(a: Uint8Array, b: Uint8Array): number | null {
  const most = Math.min(a.length, b.length);
  for (let i = 0; i < most; i++) if (a[i] !== b[i]) return i;
  return a.length === b.length ? null : most;
}
