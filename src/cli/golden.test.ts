import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { loadPack } from '@/core/pack/load';
import { canonical, sealedVerdict, verifySeal } from '@/core/record/record';
import { restoreBody } from '@/core/record/restore';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { readRecordFile } from '@/wire/record-file';

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
