import { holdSetting } from '@/core/run/hold-setting';
import { hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { place } from '@/core/run/script';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { neededMinutes, smallestVisibleLeak } from '@/core/adequacy/gas';
import { readRecordFile, writeRecordFile } from '@/wire/record-file';
import { canonical } from './canonical';
import { makeBody, sealedVerdict } from './record';
import { CHAIN_START, publicKeyOf, seal, verifySeal } from './seal';
import { recordStatus, type Sealer } from './status';
import { faceOf } from './face';
import { storyOf } from './story';
import { restoreBody } from './restore';
import { packs } from '@/core/testing/quarter';
import { composeSequence } from '@/core/plan/sequence';

const secret = '11'.repeat(32);
const sealer: Sealer = {
  id: uuid(1, 2),
  name: 'Imre',
  role: 'tester',
  licence: { number: 'GT-1', until: '2026-11-20' },
};
const p = plan();
const log = place(
  play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48'), [450, 'zero', '0.00'], ...SIGNED(500)]),
);
const { body } = makeBody(p, log, { sealer, signer: sealer }, '2026-11-20T09:00:00.000Z');
const record = { body, seal: seal(body, 'VS-00001', CHAIN_START, secret) };

test('canonical form: keys in order, NFC, fractions as strings, nothing infinite', () => {
  expect(canonical({ b: 1, a: 'e\u0301', c: [0.05, undefined], d: undefined })).toBe(
    '{"a":"\u00e9","b":1,"c":["0.05",null]}',
  );
  expect(() => canonical({ a: Infinity })).toThrow(/finite/);
  JSON.parse(body, (_k, v: unknown) => {
    if (typeof v === 'number') expect(Number.isSafeInteger(v)).toBe(true);
    return v;
  });
});
test('a sealed body comes back whole and judges the same', () => {
  const back = restoreBody(body);
  expect(back.plan.procedure).toEqual(p.procedure);
  expect(back.events).toEqual(log);
  const again = verdictOf(back.plan, reduce(back.plan, back.events))!;
  expect(canonical(sealedVerdict(again))).toBe(canonical(back.verdict));
});
test('any changed character of body, number, link, hash, signature or key is found', () => {
  expect(verifySeal(record, [{ key: publicKeyOf(secret), retired: null }])).toEqual([]);
  const spoilt = [
    { ...record, body: body.replace('20.48', '20.49') },
    { ...record, body: body.replace('2048', '2049') },
    { ...record, seal: { ...record.seal, number: 'VS-00002' } },
    { ...record, seal: { ...record.seal, previous: 'a'.repeat(64) } },
    { ...record, seal: { ...record.seal, hash: 'a'.repeat(64) } },
    { ...record, seal: { ...record.seal, signature: 'b'.repeat(128) } },
    { ...record, seal: { ...record.seal, signature: 'zz' } },
  ];
  for (const s of spoilt) expect(verifySeal(s)).not.toEqual([]);
  const other = { body, seal: seal(body, 'VS-00001', CHAIN_START, '22'.repeat(32)) };
  expect(verifySeal(other)).toEqual([]);
  expect(verifySeal(other, [{ key: publicKeyOf(secret), retired: null }]).map((f) => f.code)).toEqual([
    'key',
  ]);
});
test('certificate only with a licence in date, the last day included; practice never', () => {
  const status = (by: Sealer, day = '2026-11-20', of = p) =>
    recordStatus(of, { signer: by, sealer: by, day, impossible: [] });
  expect(status(sealer).status).toBe('certificate');
  expect(status(sealer, '2026-11-21')).toMatchObject({
    status: 'not-a-certificate',
    reason: expect.stringContaining('ran out on 2026-11-20'),
  });
  expect(status({ ...sealer, licence: null }).status).toBe('not-a-certificate');
  expect(status(sealer, '2026-11-20', plan({ practice: true })).status).toBe('practice');
});
test('the exported file reads back; a broken one names its path', () => {
  expect(readRecordFile(writeRecordFile(record))).toEqual({ ...record, marks: [] });
  expect(() => readRecordFile('{')).toThrow(/not JSON/);
  expect(() =>
    readRecordFile(
      JSON.stringify({ format: 'vast-stone-record-1', body, seal: { ...record.seal, hash: 'x' } }),
    ),
  ).toThrow(expect.objectContaining({ path: 'seal.hash' }));
});
test('the face and the story tell every event once', () => {
  const face = faceOf(body);
  expect(face.holds.map((h) => h.word)).toEqual(['proved', 'settled', 'nil']);
  expect(storyOf(face, face.body.events)).toHaveLength(log.length);
  expect(face.limits.map((l) => l.name)).toEqual(['let-by rise', 'perceptible movement', 'permitted drop']);
});
test('adequacy: longer holds and finer gauges see less; the needed time reaches the leak that matters', () => {
  const state = reduce(p, log);
  const d = p.procedure.temperatureDefault;
  const at = (minutes: number) => smallestVisibleLeak(holdSetting(p, state, minutes)!, d).value;
  expect(at(2)).toBeLessThan(at(1));
  // 2 min: pm 0.25 + 1.65 x sqrt(2 x 0.01^2/12 + (1033.25/293.15 x 0.1)^2 + (2/60)^2) mbar over 20 l, by hand
  const volume = holdSetting(p, state, 2)!.volume;
  const change =
    0.25 + 1.65 * Math.sqrt((2 * 0.01 ** 2) / 12 + (((1013.25 + 21) / 293.15) * 0.1) ** 2 + (2 / 60) ** 2);
  expect(at(2)).toBeCloseTo(((volume * 1000) / 1013.25) * change * 30, 6);
  const setting = holdSetting(p, state, 1)!;
  const needed = neededMinutes(setting, 0.1, d)!;
  expect(at(needed)).toBeLessThanOrEqual(0.1);
  expect(at(needed - 0.5)).toBeGreaterThan(0.1);
});
test('the word certificate stands only over a good result', () => {
  const failed = place(
    play(p, [
      ...upTo(['9.10', '9.10']),
      ...hold(200, '20.50', '12.00'),
      [400, 'observe', 'accept', 'customer waits'],
      [450, 'zero', '0.00'],
      [460, 'unsafe', 'at-risk', 'labelled', 'Loses gas', 'A. Baker'],
      ...SIGNED(500),
    ]),
  );
  expect(faceOf(body).title).toBe('Gas tightness certificate');
  expect(faceOf(makeBody(p, failed, { sealer, signer: sealer }, '2026-11-20T09:00:00.000Z').body).title).toBe(
    'Test report: staged low-pressure test',
  );
  expect(
    faceOf(
      makeBody(
        p,
        log,
        { sealer: { ...sealer, licence: null }, signer: { ...sealer, licence: null } },
        '2026-11-20T09:00:00.000Z',
      ).body,
    ).title,
  ).toMatch(/not a certificate/);
});

test('a key retired before the record was sealed is named by the day where the test was made', () => {
  const elsewhere = { ...p, made: { ...p.made, zone: 'Pacific/Auckland' } };
  const at = (retired: string) => {
    const sealed = makeBody(elsewhere, log, { sealer, signer: sealer }, '2026-11-21T09:00:00.000Z').body;
    const s = seal(sealed, 'VS-00001', CHAIN_START, secret);
    return verifySeal({ body: sealed, seal: s }, [{ key: s.key, retired }]).map((f) => f.text);
  };
  expect(at('2026-11-20T23:30:00.000Z').join()).toContain('retired on 2026-11-21, before it was sealed');
  expect(at('2026-11-21T09:00:00.000Z')).toEqual([]);
});

test('every procedure comes back from a sealed body as it was: numbers as numbers, texts as texts', () => {
  for (const pack of Object.values(packs))
    for (const procedure of [
      ...pack.procedures,
      ...(pack.sequences ?? []).flatMap((q) => q.cases.map((c) => composeSequence(pack, q, c.key))),
    ]) {
      const back = restoreBody(canonical({ plan: { ...p, procedure }, events: [] })).plan.procedure;
      expect([procedure.id, back]).toEqual([procedure.id, JSON.parse(JSON.stringify(procedure))]);
    }
});
