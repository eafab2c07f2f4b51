import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { makeBody } from '@/core/record/record';
import { CHAIN_START, seal } from '@/core/record/seal';
import { place } from '@/core/run/script';
import { writeRecordFile } from '@/wire/record-file';
import { program } from './testing';

const folder = mkdtempSync(path.join(tmpdir(), 'rejudge-'));
const secret = '33'.repeat(32);
const log = place(
  play(plan(), [
    ...upTo(['9.10', '9.10']),
    ...hold(200, '20.35', '20.35'),
    [450, 'zero', '0.00'],
    ...SIGNED(500),
  ]),
);
const imre = { id: uuid(1, 2), name: 'Imre', role: 'tester', licence: null };
const { body } = makeBody(plan(), log, { sealer: imre, signer: imre }, '2026-11-20T09:00:00.000Z');
const rejudge = program('rejudge');
const run = (text: string) => {
  const file = path.join(folder, 'record.json');
  writeFileSync(file, text);
  const { status, stdout } = rejudge(file);
  return {
    status,
    out: JSON.parse(stdout) as Record<string, unknown> & { error?: { path: string; text: string } },
  };
};

test('an untouched record agrees: exit 0, with verdict, sentence, reasons and stages', () => {
  const { status, out } = run(writeRecordFile({ body, seal: seal(body, 'VS-00001', CHAIN_START, secret) }));
  expect(status).toBe(0);
  expect(out).toMatchObject({
    verdict: 'tight',
    sealedVerdict: 'tight',
    agrees: true,
    reasons: [{ code: 'nil' }],
  });
  expect((out.stages as unknown[]).length).toBe(8);
});
test('a verdict that the log does not give differs, even under a good seal: exit 1', () => {
  const forged = body.replace('"word":"tight"', '"word":"refer"');
  const { status, out } = run(
    writeRecordFile({ body: forged, seal: seal(forged, 'VS-00001', CHAIN_START, secret) }),
  );
  expect([status, out.agrees, out.verdict, out.sealedVerdict]).toEqual([1, false, 'tight', 'refer']);
});
test('unreadable: exit 2, and the JSON error names the path', () => {
  const good = JSON.parse(writeRecordFile({ body, seal: seal(body, 'VS-00001', CHAIN_START, secret) })) as {
    body: string;
  };
  const spoilt = { ...good, body: good.body.replace('"kind":"zero"', '"kind":"nil"') };
  expect(run('not json')).toMatchObject({ status: 2, out: { error: { text: 'The file is not JSON.' } } });
  expect(run(JSON.stringify(spoilt)).out.error!.path).toMatch(/^body\.events\[\d+\]/);
  expect(run(JSON.stringify({ ...good, seal: {} }))).toMatchObject({
    status: 2,
    out: { error: { path: expect.stringMatching(/^seal\./) } },
  });
});
