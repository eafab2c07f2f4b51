import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { loadPack } from '@/core/pack/load';
import { anchorLine } from '@/core/record/anchor';
import { canonical } from '@/core/record/canonical';
import { sealedVerdict } from '@/core/record/record';
import { verifySeal } from '@/core/record/seal';
import { restoreBody } from '@/core/record/restore';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { readRecordFile, writeRecordFile } from '@/wire/record-file';
import { program } from './testing';

const folder = path.join(__dirname, 'golden');
/** Records sealed by earlier versions of the program with earlier versions of the packs: never re-made. */
test.each(readdirSync(folder))('%s still verifies, loads and judges as it was sealed', (file) => {
  const record = readRecordFile(readFileSync(path.join(folder, file), 'utf8'));
  expect(verifySeal(record)).toEqual([]);
  const body = restoreBody(record.body);
  const { hash: _hash, ...pack } = body.plan.pack;
  expect(() => loadPack({ format: 1, ...pack, procedures: [body.plan.procedure] })).not.toThrow();
  const verdict = verdictOf(body.plan, reduce(body.plan, body.events))!;
  expect(canonical(sealedVerdict(verdict))).toBe(canonical(body.verdict));
});

const verify = program('verify');
test('the command line verifies every record, and names what was changed in one', () => {
  const files = readdirSync(folder).map((f) => path.join(folder, f));
  const all = verify(...files);
  expect([all.status, all.stdout.match(/Untouched since it was sealed/g)?.length]).toEqual([0, files.length]);
  const newest = files.find((f) => f.includes('parts'))!;
  const record = readRecordFile(readFileSync(newest, 'utf8'));
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'vast-')), 'changed.json');
  writeFileSync(
    file,
    writeRecordFile({ ...record, body: record.body.replace('"digits":418', '"digits":419') }),
  );
  const changed = verify(file);
  expect(changed.status).toBe(1);
  expect(changed.stdout).toMatch(/Changed after sealing: entry \d+ of the log/);
  const { key } = record.seal;
  const held = (given: string) => {
    const { status, stdout, stderr } = verify(newest, `--key=${given}`);
    return [
      status,
      /key is the one expected/.test(stdout),
      /another key than the one expected/.test(stdout),
      stderr !== '',
    ];
  };
  expect(held('0'.repeat(64))).toEqual([1, false, true, false]);
  expect(held(key.slice(0, 8).toUpperCase())).toEqual([0, true, false, false]);
  expect(held(key.slice(0, 7))).toEqual([2, false, false, true]); // too few figures tell no key from another
  const line = anchorLine({ day: '2026-11-12', number: 'VS-00038', hash: 'e'.repeat(64) }, '55'.repeat(32));
  const anchored = verify(newest, `--anchor=${line}`);
  expect([anchored.status, anchored.stdout]).toEqual([
    1,
    expect.stringMatching(/not the record that stood there on 2026-11-12/),
  ]);
  expect([verify('none.json').status, verify().status]).toEqual([2, 2]);
}, 60_000);
