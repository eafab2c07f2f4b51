/** A record of ducts: every edition beside the flow, own kit in sight, smoke and gains; and what it is never said to be. */
import { reduce } from '@/core/run/reduce';
import type { ScriptLine } from '@/core/run/script';
import { ductPlan, fanKit, playDuct } from '@/core/testing/loft';
import { ductLimits, ductSections } from './duct-sections';
import { papersOf } from './papers';
import { signatureLines } from './signatures';

const plan = ductPlan();
const TO_FAN: readonly ScriptLine[] = [
  [10, 'checks'],
  [60, 'checks'],
  [120, 'checks'],
  [200, 'gauge', 'P-500'],
  [205, 'zero', '0'],
  [215, 'fan', 'F-1', 'ring 2'],
  [220, 'fankept'],
  [300, 'checks'],
  [310, 'fanoff', '-0.5'],
];
const HOME: readonly ScriptLine[] = [
  [2000, 'checks'],
  [2050, 'zero', '0'],
  [2100, 'putback'],
];
const BEYOND: readonly ScriptLine[] = [
  ...TO_FAN,
  [330, 'blow', '24.5', '70'],
  [335, 'blow', '12.0', '46.2'],
  [340, 'fanjudge'],
];
const section = (lines: readonly ScriptLine[], key: string) =>
  ductSections(plan, playDuct(plan, lines).state)
    .filter((s) => s.key === key)
    .flatMap((s) => s.lines);
const papers = (lines: readonly ScriptLine[], of = plan) => {
  const { state, verdict } = playDuct(of, lines);
  return papersOf({ state, plan: of, body: { status: 'record', verdict: verdict! } as never }).map(
    (p) => p.kind,
  );
};

test('the edition that judges stands first with its clause, the others are told beside it and never judge', () => {
  const lines = section(
    [...TO_FAN, [330, 'blow', '24.5', '60'], [340, 'fancannot', 'second', 'it stops'], ...HOME],
    'editions',
  );
  expect(lines[0]).toMatch(
    /^Judges: Energy code 2021: .*48\.0 CFM .*measured 60\.0 CFM .*: above it\. .*check the edition/,
  );
  expect(lines.filter((l) => l.startsWith('Judges'))).toHaveLength(1);
  // 2009: 6 CFM for 100 ft² of 1200 ft²
  expect(lines.find((l) => l.includes('2009'))).toMatch(/72\.0 CFM .*not above it/);
  expect(lines.join(' ')).not.toMatch(/tight|passed|failed/i);
});
test('a bound is told as one: at most so much, not known to be below', () => {
  const of: readonly ScriptLine[] = [...TO_FAN, [315, 'fan', 'F-1', 'ring 1'], [330, 'blow', '24.5', 'below'], [340, 'fancannot', 'reading', 'no other ring'], [400, 'checks'], [410, 'fanoff', '0'], [420, 'blow', '24.5', 'below'], [430, 'fancannot', 'reading', 'no other ring'], ...HOME]; // prettier-ignore
  expect(section(of, 'editions')[0]).toMatch(/measured at most 91\.8 CFM .*: not known to be below it/);
});
test('own kit stands with its day; taken off only for comparison', () => {
  const lines = section([...BEYOND], 'hose');
  expect(lines[0]).toBe('6 CFM at 25 Pa, tested 2026-05-20; never taken off');
  expect(lines[1]).toMatch(
    /^Taken off, for comparison only: 64\.0 CFM .* what is judged is the flow as measured$/,
  );
});
test('findings and gains stand in their order, an unsealed one is said to be; a rise is told as one', () => {
  const lines: readonly ScriptLine[] = [
    ...BEYOND,
    [350, 'observe', 'search'],
    [400, 'checks'],
    [410, 'smokewithout', 'smoke pencil'],
    [420, 'found', 'boot', 'hall', 'jet'],
    [430, 'found', 'seam', 'trunk', 'wisp'],
    [500, 'sealed', '1', 'R. Osei', 'mastic', '52 CFM'],
    [600, 'smokeover', 'again', 'present', '90'],
    [700, 'checks'],
    [710, 'fanoff', '0'],
    [720, 'blow', '25', '53'],
    [725, 'blow', '12.5', '35'],
    [730, 'fanjudge'],
  ];
  expect(section(lines, 'smoke')).toEqual([
    'No smoke machine; looked for with: smoke pencil',
    'boot at a register, hall: a jet; sealed by R. Osei with mastic, the fan then showed 52 CFM',
    'seam or joint, trunk: a wisp; not sealed',
    'the installer was there; retest fee as agreed: 90',
  ]);
  expect(section(lines, 'gains').map((l) => l.replace(/ \([^)]*\)/g, ''))).toEqual([
    'measured first: 70.0 CFM',
    'boot at a register, hall, sealed: 52.0 CFM, 18.0 CFM less than before',
    'measured again, last: 53.0 CFM, 1.0 CFM MORE than before',
  ]);
});
test('leaky ducts stay in use: no label, no notice not to use them; the official and the customer get theirs', () => {
  const later: readonly ScriptLine[] = [
    ...BEYOND,
    [350, 'observe', 'search'],
    [400, 'checks'],
    [410, 'smokewithout', 'hand'],
    [420, 'smokeover', 'later', 'none', ''],
    [430, 'checks'],
    [440, 'zero', '0'],
    [450, 'putback'],
  ];
  expect(playDuct(plan, later).verdict).toMatchObject({ word: 'not-tight', use: 'in-use' });
  const kinds = papers(later);
  expect(kinds).toEqual(expect.arrayContaining(['note', 'inspector']));
  expect(kinds).not.toEqual(expect.arrayContaining(['label']));
  expect(kinds).not.toContain('fail');
});
test('limits are those of a flow, each with its source; no permitted drop', () => {
  const names = ductLimits(plan, playDuct(plan, BEYOND).state).map((l) => l.name);
  expect(names).toEqual(['Duct leakage, total, at 25 Pa', 'own hose and ring', 'exponent']);
});
test('own kit by itself is signed by the tester alone and has no papers about the place', () => {
  const kit = ductPlan({ procedure: 'duct-blank', kit: [fanKit()] });
  const lines: readonly ScriptLine[] = [
    [10, 'checks'],
    [20, 'gauge', 'P-500'],
    [25, 'zero', '0'],
    [30, 'fan', 'F-1', 'ring 2'],
    [40, 'blow', '150', '31'],
    [45, 'fanjudge'],
    [60, 'zero', '0'],
    [70, 'sign', 'Imre'],
  ];
  const { events } = playDuct(kit, lines);
  const state = reduce(kit, events);
  expect(state.phase).toBe('signed');
  expect(signatureLines({ plan: kit, state }).map((l) => l.role)).toEqual(['Tester (own test, no witness)']);
  expect(papers(lines, kit)).toEqual([]);
});
