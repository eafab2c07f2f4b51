import { circuitPlan } from '@/core/testing/coldstore';
import { ductPlan } from '@/core/testing/loft';
import { dyeHouse } from '@/core/testing/quarter';
import { simulationOf } from '@/core/yard/setup';
import { type CircuitFault } from './circuit';
import { HANDS, handWork } from './hands';
import { parting } from './parted';

const circuit = circuitPlan('refrigerant-tightness', 'high');
const ducts = ductPlan();
const turn = (id: string, value = 'open') => ({ act: 'valve', id, value });

test.each([
  ['a solenoid valve', 'solenoid-1', /opened by its magnet/],
  ['an expansion valve', 'expansion-1', /no hand turns it/],
  ['a service valve', 'liquid', /the unit with its charge/],
  ['a valve of another installation', 'damper-1', /no such valve/],
] as const)('%s of a circuit is not turned by hand, and is told why', (_, id, words) => {
  expect(handWork(circuit.system, 'circuit', turn(id))).toMatch(words);
});
test('a damper is turned, a register is not', () => {
  expect(handWork(ducts.system, 'duct', turn('damper-2', 'shut'))).toEqual({
    act: 'valve',
    id: 'damper-2',
    open: false,
  });
  expect(handWork(ducts.system, 'duct', turn('supply-1'))).toMatch(/no such valve/);
});
test('what no installation knows, and what this one does not, is refused in words', () => {
  for (const [kind, knows] of Object.entries(HANDS))
    for (const act of ['constructor', '__proto__', '', ...(Object.hasOwn(knows, 'dye') ? [] : ['dye'])])
      expect(handWork(dyeHouse(), kind as 'gas', { act })).toMatch(/cannot be done/);
});
describe('made of their drawing', () => {
  const simulated = (fault: CircuitFault | 'damper', of = circuit) =>
    simulationOf(of, { seed: 3, began: 0, fault });
  test('a circuit is parted by its solenoid valves; a hidden one hides what lies behind it', () => {
    const s = simulated('solenoid');
    if (s.kind !== 'circuit') throw new Error(s.kind);
    const { parted, lies, truth } = s;
    const parts = parting(parted!).map((v) => v.key);
    expect(parts.toSorted()).toEqual(['solenoid-1', 'solenoid-2']);
    expect(parted!.cells.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 9);
    expect(truth.stuck).toMatch(/^solenoid-/);
    expect(lies![truth.place!]).not.toBe(parted!.point);
    expect(truth.place).toBe(`expansion valve ${truth.stuck!.at(-1)}`);
  });
  test('with hoses on both ports and the sides joined nothing lies behind one solenoid valve alone', () => {
    const s = simulated('solenoid', circuitPlan('refrigerant-tightness', 'both'));
    if (s.kind !== 'circuit') throw new Error(s.kind);
    expect(s.parted!.valves.map((v) => v.key)).toContain('works:manifold');
    expect(s.truth).toMatchObject({ stuck: 'solenoid-1', place: expect.any(String) });
    // the unit behind its service valves is no part of it
    expect(s.parted!.cells.flatMap((c) => c.holds)).not.toContain('unit');
  });
  test('ducts are parted by their dampers, each branch with its register', () => {
    const s = simulated('damper', ducts);
    if (s.kind !== 'duct') throw new Error(s.kind);
    expect(s.parted!.valves.map((v) => v.key).toSorted()).toEqual(['damper-1', 'damper-2']);
    expect([s.lies!['supply-3'], s.lies!['return-1']]).toEqual([s.parted!.point, s.parted!.point]);
    expect(s.truth.boot).toBe(s.truth.shut[0]!.replace('damper', 'supply'));
  });
});
