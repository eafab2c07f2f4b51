import { canonical, sha256OfBytes } from '@/core/record/canonical';
import { faceOf, inZone } from '@/core/record/face';
import { markWords, readMark, verifyMark } from '@/core/record/marks';
import { sealedVerdict } from '@/core/record/record';
import { againstAnchor, readAnchor } from '@/core/record/anchor';
import { verifySeal, type PublishedKey, type Seal } from '@/core/record/seal';
import { photosOf } from '@/core/run/photos';
import { verdictOf } from '@/core/verdict/verdict';
import { isZip, readBundle, type BundleFile } from './bundle';
import { readRecordFile, RecordFileError, type RecordFile } from './record-file';

/** What a check of a file found. It needs no server: the file is enough. */
export interface FileCheck {
  /** Nothing in it was changed since it was sealed. Whose key it is stays for the reader to compare. */
  readonly untouched: boolean;
  readonly faults: readonly string[];
  readonly notes: readonly string[];
  /** Said about the record since: superseded, void. */
  readonly marks: readonly string[];
  readonly facts: FileFacts | null;
  readonly record: RecordFile | null;
  readonly photos: readonly BundleFile[];
}
export interface FileFacts {
  readonly number: string;
  readonly title: string;
  readonly statusLine: string;
  readonly organisation: string;
  readonly place: string;
  readonly label: string;
  readonly sentence: string;
  readonly sealed: string;
  readonly key: string;
  readonly hash: string;
}
const PHOTO = /^photos\/([0-9a-f]{64})\.jpg$/;

/** What the reader has from elsewhere to hold a file against. */
export interface Expected {
  /** The first figures of the key, as the organisation gave them through another channel: hex, eight or more. */
  readonly key?: string;
  /** Anchors that were given out, one a line. */
  readonly anchors?: readonly string[];
  /** Seals of further records, for the chain between a record and an anchor. */
  readonly others?: readonly Seal[];
}
/** What anchors say of a record. */
function anchorFindings(seal: Seal, expected: Expected): { faults: string[]; notes: string[] } {
  const faults: string[] = [];
  const notes: string[] = [];
  for (const line of expected.anchors ?? []) {
    const anchor = readAnchor(line);
    if (!anchor)
      faults.push('The anchor cannot be read: a figure of it is missing or wrong. Copy the whole line.');
    else if (expected.key && !anchor.key.startsWith(expected.key))
      faults.push(`The anchor of ${anchor.day} was signed with another key than the one expected.`);
    else {
      const finding = againstAnchor(anchor, seal, expected.others);
      (finding.word === 'differs' ? faults : notes).push(finding.text);
    }
  }
  return { faults, notes };
}

/**
 * Checks a record file or a bundle.
 * @param keys the keys the organisation has published, where the reader has them
 * @param expected what the reader has from elsewhere
 */
export function verifyFile(
  bytes: Uint8Array,
  keys?: readonly PublishedKey[],
  expected: Expected = {},
): FileCheck {
  const faults: string[] = [];
  const notes: string[] = [];
  let text: Uint8Array = bytes;
  let photos: readonly BundleFile[] = [];
  const nothing = (fault: string): FileCheck => ({
    untouched: false,
    faults: [...faults, fault],
    notes,
    marks: [],
    facts: null,
    record: null,
    photos,
  });
  if (isZip(bytes)) {
    const bundle = readBundle(bytes);
    faults.push(...bundle.faults);
    notes.push(...bundle.notes);
    photos = bundle.files.filter((f) => PHOTO.test(f.name));
    const file = bundle.files.find((f) => f.name === 'record.json');
    if (!file) return nothing('There is no record.json in it.');
    text = file.bytes;
  }
  let record: RecordFile;
  try {
    record = readRecordFile(new TextDecoder('utf-8', { fatal: true }).decode(text));
  } catch (error) {
    return nothing(
      error instanceof RecordFileError
        ? `The record cannot be read${error.path ? ` at ${error.path}` : ''}: ${error.message}`
        : 'The record cannot be read: it is not text.',
    );
  }
  faults.push(...verifySeal(record, keys).map((f) => f.text));
  const other = expected.key
    ? [record.seal.key, ...record.marks.map((m) => m.key)].find((k) => !k.startsWith(expected.key!))
    : undefined;
  if (other)
    faults.push(
      `It was signed with another key than the one expected: its key begins with ${other.slice(0, 16)}. Ask the organisation which keys are theirs.`,
    );
  else if (expected.key) notes.push(`The key is the one expected: it begins with ${expected.key}.`);
  const anchored = anchorFindings(record.seal, expected);
  faults.push(...anchored.faults);
  notes.push(...anchored.notes);
  const marks: string[] = [];
  for (const m of record.marks) {
    const wrong = verifyMark(
      m,
      record.seal,
      keys ?? [
        { key: record.seal.key, retired: null },
        { key: m.key, retired: null },
      ],
    );
    faults.push(...wrong);
    if (!wrong.length) marks.push(markWords(readMark(m)));
  }
  let facts: FileFacts | null = null;
  try {
    const face = faceOf(record.body);
    const { plan, state, body } = face;
    facts = {
      number: record.seal.number,
      title: face.title,
      statusLine: face.statusLine,
      organisation: plan.organisation.name,
      place: `${plan.site.name}, ${plan.site.address}: ${plan.system.name}`,
      label: body.verdict.label,
      sentence: body.verdict.sentence,
      sealed: inZone(Date.parse(body.sealedAt), plan.made.zone),
      key: record.seal.key,
      hash: record.seal.hash,
    };
    const again = verdictOf(plan, state);
    if (!again || canonical(sealedVerdict(again)) !== canonical(body.verdict))
      notes.push(
        `This program judges the same readings to: ${again?.label ?? 'no result'}. The sealed verdict is the one that was given.`,
      );
    if (isZip(bytes)) {
      const here = new Map(photos.map((p) => [PHOTO.exec(p.name)![1]!, p]));
      for (const hash of photosOf(state)) {
        const photo = here.get(hash);
        const caption = state.photos.find((p) => p.hash === hash)?.caption;
        const name = caption ? `“${caption}” (${hash.slice(0, 12)})` : hash.slice(0, 12);
        if (!photo) faults.push(`The photo ${name} that the record names is missing.`);
        else if (sha256OfBytes(photo.bytes) !== hash) faults.push(`The photo ${name} was changed.`);
      }
    }
  } catch {
    faults.push('The record is signed or not, but this program cannot read what stands in it.');
  }
  return {
    untouched: faults.length === 0,
    faults: [...new Set(faults)],
    notes,
    marks,
    facts,
    record,
    photos,
  };
}
/** The result in one sentence. */
export const verifyWords = (check: FileCheck): string =>
  !check.untouched
    ? 'Changed: do not rely on this file.'
    : check.marks.length
      ? 'Untouched, but it stands no more as it was sealed.'
      : 'Untouched since it was sealed.';
