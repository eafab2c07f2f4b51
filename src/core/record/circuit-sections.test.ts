import type { Hold, Visit } from '@/core/run/state';
import { circuitPlan, playCircuit } from '@/core/testing/coldstore';
import type { ScriptLine } from '@/core/run/script';
import { circuitSections, unwitnessed, vacuumLimits } from './circuit-sections';
import { boundedWords } from './face-words';

const HOUR = 3_600_000;
const visit = (readings: number[], trace: number[] = []) =>
  ({
    readings: readings.map((m) => ({ readMoment: m * HOUR, late: false })),
    trace: trace.map((m) => [m * HOUR, 1]),
  }) as never as Visit;
const hold = (from: number, to: number) =>
  ({ start: { readMoment: from * HOUR }, end: { readMoment: to * HOUR } }) as never as Hold;
test('a night is unwitnessed: the longest time without a reading, from two hours on', () => {
  expect(unwitnessed(visit([1, 2, 10, 11]), hold(0, 12))).toEqual({ from: 2 * HOUR, to: 10 * HOUR });
  expect(unwitnessed(visit([1.9, 3.8]), hold(0, 5.7))).toBeNull();
  expect(unwitnessed(visit([]), hold(0, 2))).toEqual({ from: 0, to: 2 * HOUR });
  // a display that streams has seen it
  expect(unwitnessed(visit([1], [2, 3, 4, 5, 6, 7, 8, 9, 10]), hold(0, 11))).toBeNull();
});
test('a circuit’s record: plate, joints, its logbook line, and what bounded it', () => {
  const plan = circuitPlan('refrigerant-vacuum');
  const lines: ScriptLine[] = [
    [10, 'checks'],
    [20, 'gauge', 'V-1'],
    [30, 'atair', 'over'],
    [3600, 'fill', '60'],
    [3700, 'start', '60'],
    ...[2, 4, 6, 8].map((m): ScriptLine => [3700 + m * 60, 'read', '60']),
    [4303, 'end', '60'],
    [4400, 'checks'],
    [4500, 'checks'],
    [4510, 'atair', 'over'],
  ];
  const { state } = playCircuit(plan, lines);
  const all = Object.fromEntries(circuitSections(plan, state).map((s) => [s.title, s.lines]));
  expect(all.Circuit).toEqual([
    'Condensing unit, R448A, charge 14 kg',
    'PS by the plate: high side 28 bar, low side 17 bar',
    expect.stringMatching(/^Volume under test/),
  ]);
  expect(all['Leak checks once charged']![0]).toMatch(/every 12 months/);
  expect(all['For the logbook of the circuit']).toEqual([
    expect.stringMatching(
      /2 Jun 2026; Cold store circuit; R448A 14 kg; Evacuation and standing vacuum; 60 Pa abs, .*; Vacuum held; Imre$/,
    ),
  ]);
  expect(vacuumLimits(plan, state).map((l) => l.value)).toEqual(['133 Pa abs', '67 Pa abs or more']);
  expect(boundedWords(plan)).toBe('Bounded by liquid line service valve, suction line service valve.');
  expect(boundedWords(circuitPlan('refrigerant-strength', 'high'))).toBe(
    'Bounded by liquid line service valve, expansion valve 1, expansion valve 2.',
  );
});
