import { hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { networkOf } from '@/core/network/enter';
import { partOf, valveFor } from '@/core/network/network';
import { place, type ScriptLine } from '@/core/run/script';
import { faceOf } from './face';
import { paperOf, papersOf } from './papers';
import { makeBody } from './record';

const p = plan();
const network = networkOf(p.system);
const valve = (id: string) => valveFor(network, partOf(network, id)!)!.id;
const sealer = { id: uuid(1, 2), name: 'Imre', role: 'tester', licence: null };
const face = (lines: ScriptLine[]) => {
  const log = place(play(p, [...upTo(['9.10', '9.10']), ...lines]));
  return faceOf(makeBody(p, log, { sealer, signer: sealer }, '2026-11-20T12:00:00.000Z').body);
};
const UNSAFE: ScriptLine = [2000, 'unsafe', 'at-risk', 'disconnected', 'capped at the meter', 'A. Baker'];
const FAILED: ScriptLine[] = [
  ...hold(200, '20.50', '12.00'),
  [500, 'worked', 'hob'],
  [510, 'isolate', '20.50', valve('hob')],
  [690, 'isolated', '20.50'],
  [700, 'reopened'],
  [720, 'stop'],
  [725, 'reason', 'abandoned', 'the leak is handed on'],
  UNSAFE,
  ...SIGNED(2100),
];
const text = (of: ReturnType<typeof face>, leaks?: string[]) =>
  paperOf(of, 'specialist', { ...(leaks ? { leaks } : {}), history: ['2 May 2026, HT-3: Tight (Staged)'] })
    .blocks.flatMap((b) => [b.heading ?? '', ...b.lines])
    .join('\n');

test('a section that leaks has a pack for whoever looks for the leak, with all that was tried', () => {
  const failed = face(FAILED);
  const said = text(failed, ['union at the hob (not mended); found by leak fluid, bubbles like a pea']);
  expect(said).toMatch(/Natural gas, working at 21 mbar; tested with the installation's own gas/);
  expect(said).toMatch(/Volume: 19\.\d l, by pipes and plates/);
  expect(said).toContain('Worked on today: Hob.');
  expect(said).toMatch(/The valve of Hob closed: the rest from 20\.50 mbar to 20\.50 mbar/);
  expect(said).toMatch(/By these: Hob, 9\d %\./);
  expect(said).toContain('Union at the hob (not mended); found by leak fluid, bubbles like a pea.');
  expect(said).toContain('2 May 2026, HT-3: Tight (Staged).');
  expect(said).toMatch(/Upstream of the supply valve|upstream/i);
});
test('a good record has none', () => {
  const good = face([...hold(200, '20.50', '20.50'), [500, 'zero', '0.00'], ...SIGNED(600)]);
  expect(papersOf(good).some((o) => o.kind === 'specialist')).toBe(false);
  expect(() => text(good)).toThrow(/does not call for/);
});
test('where no part was held it says so', () => {
  const plain = face([
    ...hold(200, '20.50', '12.00'),
    [720, 'stop'],
    [725, 'reason', 'abandoned', 'x'],
    UNSAFE,
    ...SIGNED(2100),
  ]);
  expect(text(plain)).toContain('No part was held by itself in this test.');
});
