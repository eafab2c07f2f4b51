import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { unzipSync, zipSync } from 'fflate';
import { faceOf } from '@/core/record/face';
import { canonical } from '@/core/record/canonical';
import { signMark } from '@/core/record/marks';
import { publicKeyOf, seal, CHAIN_START, type SealedRecord } from '@/core/record/seal';
import { readBundle, writeBundle } from './bundle';
import { readingsCsv, READING_COLUMNS } from './readings-csv';
import { readCsv } from './csv';
import { readRecordFile, writeRecordFile } from './record-file';
import { verifyFile } from './verify-file';

const folder = 'src/cli/golden';
const secret = '33'.repeat(32);
const golden = readdirSync(folder).map((f) => readRecordFile(readFileSync(path.join(folder, f), 'utf8')));
/** A record sealed by this version: with fingerprints of its parts. */
const body = golden[0]!.body;
const record: SealedRecord = { body, seal: seal(body, 'VS-00007', CHAIN_START, secret) };
const utf8 = (text: string) => new TextEncoder().encode(text);
const files = [
  { name: 'record.json', bytes: utf8(writeRecordFile(record)) },
  { name: 'readings.csv', bytes: utf8(readingsCsv(body)) },
  { name: 'photos/' + '0'.repeat(64) + '.jpg', bytes: Uint8Array.from({ length: 400 }, (_, i) => i % 251) },
];
const bundle = writeBundle(record.seal, files, secret);

test('records of earlier versions still verify; whose key it is can be asked', () => {
  for (const g of golden) {
    const check = verifyFile(utf8(writeRecordFile(g)));
    expect([check.untouched, check.faults, check.notes]).toEqual([true, [], []]);
    expect(
      verifyFile(utf8(writeRecordFile(g)), [{ key: '0'.repeat(64), retired: null }]).faults.join(),
    ).toMatch(/not one of the organisation/);
  }
});
test('a changed figure, a removed entry and an added one are each named', () => {
  const changed = (text: string) => verifyFile(utf8(writeRecordFile({ ...record, body: text }))).faults;
  const parsed = JSON.parse(body) as { events: Record<string, unknown>[]; plan: { site: { name: string } } };
  const said = (change: (b: typeof parsed) => void) => {
    const b = JSON.parse(body) as typeof parsed;
    change(b);
    return changed(canonical(b)).join(' ');
  };
  const at = parsed.events.findIndex((e) => e.kind === 'hold-end');
  expect(said((b) => ((b.events[at]!.figure as { digits: number }).digits += 1))).toMatch(
    new RegExp(`Changed after sealing: entry ${at + 1} of the log \\(hold-end of`),
  );
  expect(said((b) => void b.events.splice(at, 1))).toMatch(
    new RegExp(`Taken out after sealing: the entry of the log .* once number ${at + 1}\\.`),
  );
  expect(said((b) => (b.plan.site.name = 'Elsewhere'))).toMatch(/Changed after sealing: plan\.site\.name/);
  expect(said((b) => void b.events.reverse())).toMatch(/order of the log was changed/);
});
test('a mark travels with the record; a forged one is told', () => {
  const mark = signMark(
    {
      format: 1,
      kind: 'void',
      number: 'VS-00007',
      hash: record.seal.hash,
      reason: 'wrong section',
      person: 'Imre',
      at: '2026-11-25T00:00:00Z',
    },
    secret,
  );
  const check = verifyFile(utf8(writeRecordFile({ ...record, marks: [mark] })));
  expect([check.untouched, check.marks]).toEqual([
    true,
    [expect.stringMatching(/Void since 2026-11-25.*wrong section/)],
  ]);
  const forged = { ...mark, body: mark.body.replace('wrong', 'right') };
  expect(verifyFile(utf8(writeRecordFile({ ...record, marks: [forged] }))).faults.join()).toMatch(
    /notice about this record was changed/,
  );
});
test('the same files give the same bundle; it reads back untouched', () => {
  expect(writeBundle(record.seal, files, secret)).toEqual(bundle);
  const check = readBundle(bundle);
  expect([check.faults, check.notes, check.key]).toEqual([[], [], publicKeyOf(secret)]);
  expect(check.files.slice(1).map((f) => f.name)).toEqual(files.map((f) => f.name));
  expect(verifyFile(bundle).untouched).toBe(true);
});
test('a bit flipped anywhere in a bundle is named', () => {
  const places = [...Array(bundle.length).keys()];
  const flip = (at: number, bit: number) => {
    const spoilt = Uint8Array.from(bundle);
    spoilt[at]! ^= 1 << bit;
    const check = readBundle(spoilt);
    return [...check.faults, ...check.notes];
  };
  // the archive's own structure whole, bit by bit at its edges; the files by chance
  fc.assert(
    fc.property(fc.integer({ min: 0, max: places.length - 1 }), fc.integer({ min: 0, max: 7 }), (at, bit) => {
      expect(flip(at, bit).length).toBeGreaterThan(0);
    }),
    { numRuns: 400 },
  );
  for (let at = 0; at < 60; at++) expect([at, flip(at, at % 8).length > 0]).toEqual([at, true]);
  for (let at = bundle.length - 420; at < bundle.length; at++)
    expect([at, flip(at, at % 8).length > 0]).toEqual([at, true]);
});
test('what was flipped is told by name: a file by its own, the archive by its place', () => {
  const inPhoto = bundle.findIndex(
    (_, i) =>
      bundle[i] === 0 &&
      bundle[i + 1] === 1 &&
      bundle[i + 2] === 2 &&
      bundle[i + 3] === 3 &&
      bundle[i + 4] === 4,
  );
  const spoilt = Uint8Array.from(bundle);
  spoilt[inPhoto + 3]! ^= 1;
  expect(readBundle(spoilt).faults).toEqual([`photos/${'0'.repeat(64)}.jpg was changed.`]);
  const again = zipSync(Object.fromEntries(readBundle(bundle).files.map((f) => [f.name, f.bytes])), {
    level: 6,
  });
  const check = readBundle(again);
  expect([check.faults, check.notes.length]).toEqual([[], 1]); // packed anew by another program: told, not held against it
  expect(readBundle(writeBundle(record.seal, files.slice(0, 2), secret)).faults).toEqual([]);
  const missing = zipSync(
    Object.fromEntries(
      readBundle(bundle)
        .files.slice(0, 2)
        .map((f) => [f.name, f.bytes]),
    ),
  );
  expect(readBundle(missing).faults.join()).toMatch(/photos.* is missing.*readings.csv is missing/);
});
test('a file that is none of ours gets a plain answer', () => {
  for (const text of ['', '{', '{"format":"x"}', 'PK nothing']) {
    const check = verifyFile(utf8(text));
    expect([check.untouched, check.faults.length > 0]).toEqual([false, true]);
  }
});
test('the CSV of readings holds every reading with its source, and no cell that a spreadsheet would run', () => {
  for (const g of golden) {
    const rows = readCsv(readingsCsv(g.body), ',').filter((r) => r.length > 1);
    expect(rows[0]).toEqual([...READING_COLUMNS]);
    // a line looked for by ear, a vacuum gauge that logs by itself: some have few readings, every hold has two
    const { plan, state } = faceOf(g.body);
    expect([plan.procedure.id, rows.length - 1 >= 2 * state.visits.flatMap((v) => v.holds).length]).toEqual([
      plan.procedure.id,
      true,
    ]);
    for (const r of rows.slice(1)) {
      expect(r).toHaveLength(READING_COLUMNS.length);
      expect(Number.isFinite(Number(r[2]))).toBe(true);
      expect(r[4]).toMatch(/^\d{4}-\d\d-\d\dT/);
    }
  }
});

test('a file that was put into a bundle is named, whatever its name', () => {
  for (const name of ['constructor', 'toString', '__proto__x', 'photos/stray.jpg']) {
    const { 'manifest.json': list, ...rest } = unzipSync(bundle);
    const more = zipSync({ 'manifest.json': list!, ...rest, [name]: new Uint8Array([1]) }, { level: 0 });
    expect(readBundle(more).faults).toEqual([`${name} was added to the bundle.`]);
  }
});
test('what would unpack to more than a bundle ever holds is not unpacked', () => {
  const bomb = zipSync({ 'manifest.json': new Uint8Array(50_000_000) }, { level: 9 });
  expect(bomb.length).toBeLessThan(100_000);
  expect(readBundle(bomb).faults).toEqual([
    'manifest.json in the archive would unpack to a multiple of itself. It was not unpacked.',
  ]);
  const many = zipSync(
    Object.fromEntries(Array.from({ length: 20_001 }, (_, i) => [`f${i}`, new Uint8Array(0)])),
    { level: 0 },
  );
  expect(readBundle(many).faults).toEqual([
    'The archive holds more than a bundle does. It was not unpacked.',
  ]);
});
