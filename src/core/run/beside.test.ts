import { gateDrain, gatehouse, gauges, packs, planOf, run, type Step } from '@/core/testing/quarter';
import { pairsOf } from '@/core/plan/beside-offer';
import { loadPack } from '@/core/pack/load';
import { besideOf, heldBack, urgentOwed } from './beside';

const runs = [
  { run: 'd', procedure: 'drain-fill-hold' },
  { run: 's', procedure: 'water-supply-static' },
];
const beside = besideOf(packs.waterHouse!, 'supply-and-drain', runs)!;
const drain = { ...planOf('drain-fill-hold', { system: gateDrain() }), beside };
const supply = {
  ...planOf('water-supply-static', { system: gatehouse(), gauges: [gauges.psiHigh] }),
  beside,
};
const filled: Step[] = [
  ['checks'],
  ['checks'],
  ['fill', '20'],
  ['start', '20'],
  [4, 'read', '12'],
  [6.1, 'end', '12'],
];
const zeroed: Step[] = [['checks'], ['observe', 'still'], ['gauge', 'P-300'], ['zero', '0']];
const at = (plan: typeof drain, steps: readonly Step[]) => ({ plan, state: run(plan, steps).state });

test('the gauge waits for the hose, the meter for the level: and for nothing once they are past', () => {
  const gaugeOn = at(supply, zeroed);
  const held = (own: ReturnType<typeof at>, other: ReturnType<typeof at>) =>
    heldBack(own.plan, own.state, other).map((c) => c.past);
  expect(held(gaugeOn, at(drain, filled))).toEqual(['hose-off']);
  expect(held(gaugeOn, at(drain, [...filled, ['checks']]))).toEqual([]);
  const shut = at(supply, [...zeroed, ['fill', '60.0']]);
  expect(held(shut, at(drain, filled.slice(0, 4)))).toEqual(['bounce']);
  expect(held(shut, at(drain, filled))).toEqual([]);
  // nothing of the drain waits, and a run that was stopped holds nobody back
  expect(held(at(drain, filled), shut)).toEqual([]);
  expect(held(gaugeOn, at(drain, [...filled, ['stop']]))).toEqual([]);
  expect(heldBack(supply, gaugeOn.state, null)).toEqual([]);
});
test('supply off rings every five minutes until it is on, but never during a hold', () => {
  const shut: Step[] = [...zeroed, ['fill', '60.0'], ['checks']];
  const owed = (steps: readonly Step[]) => {
    const { plan, state } = at(supply, steps);
    return urgentOwed(plan, state);
  };
  const gas = planOf('gas-meter-turn-on');
  const open = { ...at(supply, shut).state, debts: [{ key: 'meter-open', openedAt: 1 }] } as never;
  // shut off for good reason: nothing rings for it to be turned on again
  expect(urgentOwed(gas, open, 'shut-off')).toBeNull();
  expect(urgentOwed(gas, open, 'in-use')?.everyMs).toBe(600_000);
  expect(owed(zeroed)).toBeNull();
  expect(owed(shut)?.everyMs).toBe(300_000);
  const held: Step[] = [
    ...shut,
    ['start', '60.0'],
    [1, 'read', '60.0'],
    [1.2, 'end', '60.0'],
    ['start', '60.0'],
  ];
  expect(owed(held)).toBeNull();
  const stopped: Step[] = [...held, ['stop'], ['reason', 'abandoned', 'away']];
  expect(owed(stopped)?.text).toMatch(/Supply ON/);
  expect(owed([...stopped, ['putback']])).toBeNull();
});
test('a pack whose couplings name what is not there is refused with the place', () => {
  const spoil = (change: (p: never) => void) => {
    const copy = JSON.parse(JSON.stringify(packs.waterHouse));
    change(copy as never);
    return () => loadPack(copy);
  };
  expect(
    spoil(
      (p: { besides: { couplings: { past: string }[] }[] }) =>
        (p.besides[0]!.couplings[0]!.past = 'ghost') as never,
    ),
  ).toThrow(/no stage "ghost"/);
  expect(
    spoil(
      (p: { besides: { runs: { procedure: string }[] }[] }) =>
        (p.besides[0]!.runs[1]!.procedure = 'ghost') as never,
    ),
  ).toThrow(/not one of the procedures/);
  expect(besideOf(packs.waterHouse!, 'supply-and-drain', runs.slice(1))).toBeNull();
});

test('on a visit the two tests are a pair until one of them has begun', () => {
  const tests = [
    { id: 't1', pack: 'water-house', procedure: 'water-supply-static' },
    { id: 't2', pack: 'water-house', procedure: 'drain-fill-hold' },
  ];
  const all = [packs.waterHouse!, packs.metric!];
  // the drain begins: it is named first by the pack
  expect(pairsOf(all, tests)[0]!.tests.map((x) => x.test)).toEqual(['t2', 't1']);
  expect(pairsOf(all, tests.slice(0, 1))).toEqual([]);
  expect(pairsOf(all, [{ ...tests[0]!, run: 'r' }, tests[1]!])).toEqual([]);
});
