import { perceptibleOf } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { faceOf } from '@/core/record/face';
import { makeBody } from '@/core/record/record';
import { place } from '@/core/run/script';
import { gauge, hold, pack, plan, play, SIGNED, upTo } from '@/core/testing/bakery';
import { makePlan } from '@/core/plan/plan';
import { packs } from '@/core/testing/quarter';
import { verdictOf } from '@/core/verdict/verdict';
import { citedPack, sourcesOf, WHOLE_PACK, worksToWords } from './editions';
import { comparePacks } from './lines';
import { loadPack } from './load';

const seen = perceptibleOf(plan(), gauge()).source;
const worksTo = [
  { source: WHOLE_PACK, edition: '2024', clause: '', jurisdiction: 'Quarter county' },
  { source: seen, edition: '', clause: '7.3', jurisdiction: '' },
];
const cited = citedPack(pack, worksTo, 'Hollin');

test('words of what was entered, only that', () => {
  expect(worksToWords({ source: '', edition: '2024', clause: '7.3', jurisdiction: 'X' })).toBe(
    'edition 2024, clause 7.3, X',
  );
  expect(worksToWords({ source: '', edition: '', clause: '', jurisdiction: '' })).toBe('');
});
test('each source of a procedure once, those of its limits among them', () => {
  const found = sourcesOf(pack.procedures[0]!);
  expect(new Set(found).size).toBe(found.length);
  expect(found).toContain(seen);
});
test('a source of nil is a source too', () => {
  const { imperial } = packs;
  const nil = imperial!.procedures[0]!.nilSource!;
  expect(sourcesOf(imperial!.procedures[0]!)).toContain(nil);
  const [named] = citedPack(
    imperial!,
    [{ source: nil, edition: '', clause: '9', jurisdiction: '' }],
    'H',
  ).procedures;
  expect(named!.nilSource).toBe(`${nil} (H works to clause 9)`);
});
test('a cited pack differs in nothing that judges, and loads', () => {
  expect(comparePacks(pack, cited)).toEqual([]);
  expect(loadPack(JSON.parse(JSON.stringify(cited))).procedures.length).toBe(pack.procedures.length);
  expect(citedPack(pack, [{ ...worksTo[0]!, edition: '', jurisdiction: '' }], 'Hollin')).toBe(pack);
});
test('edition and clause stand beside the limit at the bench, in the verdict, and on the record with its pack', () => {
  const p = makePlan({
    ...plan(),
    pack: cited,
    packHash: 'test',
    procedureId: pack.procedures[0]!.id,
  });
  const said = `${seen} (Hollin works to clause 7.3)`;
  expect(perceptibleOf(p, gauge()).source).toBe(said);
  const log = place(
    play(p, [
      ...upTo(['9.10', '9.10']),
      ...hold(200, '20.50', '20.50'),
      [450, 'zero', '0.00'],
      ...SIGNED(600),
    ]),
  );
  expect(verdictOf(p, reduce(p, log))!.reasons.some((r) => r.source === said)).toBe(true);
  const sealer = { id: log[0]!.by, name: 'Imre', role: 'owner', licence: null } as const;
  const face = faceOf(makeBody(p, log, { sealer, signer: sealer }, '2026-11-20T12:00:00.000Z').body);
  expect(face.limits.find((l) => l.name === 'perceptible movement')!.source).toBe(said);
  expect(face.plan.pack.edition).toBe(`${pack.edition} (Hollin works to edition 2024, Quarter county)`);
});
