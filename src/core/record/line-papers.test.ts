import { SIGNED, uuid } from '@/core/testing/bakery';
import { playPool, poolPlan } from '@/core/testing/lido';
import { place, type ScriptLine } from '@/core/run/script';
import { faceOf } from './face';
import { earlierWords } from './line-papers';
import { paperOf, papersOf, type PaperKind } from './papers';
import { makeBody } from './record';

const sealer = { id: uuid(1, 2), name: 'Imre', role: 'tester', licence: null };
const faceFor = (procedure: string, lines: readonly ScriptLine[]) => {
  const plan = poolPlan(procedure, 'returns');
  const log = place(playPool(plan, [...lines, ...SIGNED(20_000)]).events);
  return faceOf(makeBody(plan, log, { sealer, signer: sealer }, '2026-06-01T18:00:00.000Z').body);
};
const dye = (seen: string) =>
  faceFor('pool-dye', [
    [10, 'checks'],
    [60, 'plugs', 'in', 'at-heater'],
    [90, 'observe', seen],
    [120, 'plugs', 'out'],
  ]);
const located = () =>
  faceFor('pool-locate', [
    [10, 'checks', 'air-returns=yes'],
    [20, 'observe', 'wet'],
    [60, 'plugs', 'in', 'at-heater'],
    [90, 'checks'],
    [100, 'run', 'return run', '14', 'at the gate, 30 m off'],
    ...['1', '5', '9', '5', '1'].map(
      (l, i) => [110 + i, 'heard', String(3 + i), l, 'clear', i === 2 ? 'beside the ladder' : ''] as const,
    ),
    [150, 'evidence', 'all', 'agrees'],
    [160, 'proceed'],
    [170, 'checks'],
    [180, 'plugs', 'out'],
  ]);
const kinds = (f: ReturnType<typeof dye>) => papersOf(f).map((p) => p.kind);
const text = (f: ReturnType<typeof dye>, kind: PaperKind, extra = {}) =>
  paperOf(f, kind, extra)
    .blocks.flatMap((b) => [b.heading ?? '', ...b.lines, ...(b.blank ?? [])])
    .join('\n');

test('a line that loses is handed on and has its list; one that was not shown to lose has neither', () => {
  expect(kinds(dye('drawn'))).toEqual(expect.arrayContaining(['repair', 'specialist']));
  expect(kinds(dye('not-drawn')).filter((k) => k === 'repair' || k === 'specialist')).toEqual([]);
  expect(kinds(located())).toEqual(expect.arrayContaining(['repair', 'specialist']));
});
test('the repair list: where, with what speaks for it, what is filled in by hand, and no pressure before it is cured', () => {
  const said = text(located(), 'repair');
  expect(said).toMatch(/Return run: most likely 4\.9 m along, nine in ten between/);
  expect(said).toMatch(/Soft or wet ground: agrees/);
  expect(said).toMatch(/5 m: beside the ladder/);
  expect(said).toMatch(/Cut points\nCouplings and fittings\nPrimer and cement/);
  expect(said).toMatch(/No pressure before every joint is cured/);
  expect(text(dye('drawn'), 'repair')).toMatch(/Not located: nobody has listened/);
});
test('loss before and now stand on one paper; a line without a record before says so', () => {
  const sectionHistory = [
    earlierWords({
      sealedAt: '2026-05-02T10:00:00.000Z',
      zone: 'UTC',
      number: 'HT-3',
      label: 'Not tight',
      procedure: 'Pressure of one pool line, with water',
      figures: [{ key: 'leak', value: 7.1834, unit: 'l/h' }],
    }),
  ];
  expect(sectionHistory[0]).toMatch(/^2 May 2026, HT-3: Not tight \(.*\), loss as measured 7\.2 l\/h$/);
  const said = text(dye('drawn'), 'repair', { sectionHistory });
  expect(said).toMatch(/HT-3.*7\.2 l\/h\.\nThis record, 1 Jun 2026: Not tight/);
  expect(text(dye('drawn'), 'repair')).toMatch(/No earlier record of this line/);
  // after the repair owner and buyer read both on one paper
  const after = dye('not-drawn');
  for (const kind of ['note', 'buyer'] as const) {
    expect(text(after, kind, { sectionHistory })).toMatch(
      /HT-3.*7\.2 l\/h\.\nThis record, 1 Jun 2026: Inconclusive/,
    );
    expect(text(after, kind)).not.toMatch(/This line before/);
  }
});
test('who locates gets the ends, how the joins are known, what was done, and what is not known', () => {
  const said = text(located(), 'specialist');
  expect(said).toMatch(/After the heater.*Return 1.*Return 2.*Spa jet/);
  expect(said).toMatch(/Return run: PVC, 2\.000 in, bore 2\.0670 in, 14 m/);
  expect(said).toMatch(/closed: Return 1, Return 2 and Spa jet, lower went quiet/);
  expect(said).toMatch(
    /did air come at the returns\? Yes\.\nIs ground or wall wet above the water level\? No\./,
  );
  expect(said).toMatch(/Air at the returns while the pump runs/);
  expect(said).not.toMatch(/undefined|null|NaN/);
});
test('what was cut and coupled stands on the record and on the list', () => {
  const face = faceFor('pool-line-pressure', [
    [10, 'checks', 'mended=yes'],
    [20, 'coupled', '2', '4', '120', 'primer and cement'],
    [60, 'curelater'],
  ]);
  expect(face.sections.find((s) => s.title === 'Cut and coupled')?.lines).toEqual([
    'Mended: cure: 2 cuts, 4 couplings, primer and cement; cures 2 h; left for another day',
  ]);
  expect(kinds(face)).toContain('repair');
  expect(text(face, 'repair')).toMatch(/2 cuts, 4 couplings/);
});
