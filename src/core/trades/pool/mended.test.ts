import { cureWords } from '@/core/kinds/cure/fold';
import { raisingSteps } from '@/core/kinds/pump/fold';
import { parseWithUnit, showExact, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { minutesFor, stageBand } from '@/core/run/hold-spec';
import type { ScriptLine } from '@/core/run/script';
import { playPool, poolPlan } from '@/core/testing/lido';

describe('cut, coupled, cured', () => {
  const mended = () => poolPlan('pool-line-pressure', 'returns');
  const begin = [[10, 'checks', 'mended=yes']] as const;
  const made = [20, 'coupled', '2', '4', '120', 'primer and cement'] as const;
  const hours = (h: number) => 20 + h * 3600;
  test('nothing is pressed before the time is over: a second early is refused, on it the way is open', () => {
    const wait = (at: number) => playPool(mended(), [...begin, made, [at, 'proceed']]);
    expect(() => wait(hours(2) - 6)).toThrow(/cures 1 min more/);
    const { state } = wait(hours(2));
    expect(state.visits.map((v) => [v.stage, v.outcome])).toEqual([
      ['prepare', 'mended'],
      ['mended', 'cured'],
      ['prepare', undefined],
    ]);
    expect(cureWords(state.rooms.cures[0]!)).toBe(
      'Mended: cure: 2 cuts, 4 couplings, primer and cement; cures 2 h; pressed after 2 h',
    );
  });
  test('a joint made over starts the time anew; less than the rule leaves wants the table that says so', () => {
    const again = [hours(1), 'coupled', '2', '5', '120', 'primer and cement'] as const;
    expect(() => playPool(mended(), [...begin, made, again, [hours(2), 'proceed']])).toThrow(/1 h more/);
    const fast = ['coupled', '1', '2', '45', 'fast cement'] as const;
    expect(() => playPool(mended(), [...begin, [20, ...fast]])).toThrow(/its own table|own table/);
    const { state } = playPool(mended(), [
      ...begin,
      [20, ...fast, 'table on the can, 2 in, 70 °F'],
      [20 + 45 * 60, 'proceed'],
    ]);
    expect(state.rooms.cures).toMatchObject([{ minutes: 45, ended: { cured: true } }]);
  });
  test('nothing counted, nothing to wait for; who will not wait ends it unpressed, with a day to come back', () => {
    expect(() => playPool(mended(), [...begin, [20, 'coupled', '0', '0', '120', 'x']])).toThrow(
      /one of both/,
    );
    expect(() => playPool(mended(), [...begin, [20, 'proceed']])).toThrow(/first what was cut/);
    const { state, verdict } = playPool(mended(), [...begin, made, [60, 'curelater']]);
    expect([verdict?.word, state.phase, state.followUps.map((f) => f.days)]).toEqual([
      'inconclusive',
      'put-back',
      [2],
    ]);
    expect(state.rooms.cures[0]!.ended).toMatchObject({ cured: false });
  });
  test('a line that was never mended is not asked', () => {
    const { state } = playPool(mended(), [[10, 'checks']]);
    expect(state.visits.map((v) => v.stage)).toEqual(['prepare', 'plugs']);
  });
});

describe('raised by 5 psi', () => {
  const stage = (of: string) => {
    const found = poolPlan('pool-line-pressure', 'returns').procedure.stages[of]!;
    return found.kind === 'pump' ? found : undefined;
  };
  test.each([
    ['13.5 psi', '15 psi', [37, 74, 100]],
    ['15 psi', '20 psi', [33, 67, 100]],
    ['25 psi', '35 psi', [20, 40, 60, 80, 100]],
    ['4.5 psi', '5 psi', [100]],
    ['5 psi', '10 psi', [100]],
    ['1.7237 bar', '2.4131 bar', [20, 40, 60, 80, 100]],
  ])('to %s: never more than 5 psi at once', (low, high, percents) => {
    const band = { low: parseWithUnit(low), high: parseWithUnit(high) };
    const steps = raisingSteps(stage('raise')!, band);
    expect(steps.map((s) => s.percent)).toEqual(percents);
    const levels = [
      0,
      ...steps.map((s) => (s.percent / 100) * convert(toNumber(band.low), band.low.unit, 'psi')),
    ];
    for (const [i, p] of levels.slice(1).entries()) expect(p - levels[i]!).toBeLessThan(5.2);
  });
  test('new pipe by code: 25 to 35 psi for 15 min whatever the pump; a weak cap lowers it and is said', () => {
    const plan = poolPlan('pool-line-pressure', 'returns', {}, { case: 'new' });
    const band = (script: readonly ScriptLine[]) => {
      const found = stageBand(plan, playPool(plan, script).state, stage('raise')!);
      if (!('value' in found) || !found.value) throw new Error('no band');
      const { low, high, working } = found.value;
      return [showExact(low), showExact(high), working?.text];
    };
    const ready = [
      [10, 'checks'],
      [60, 'plugs', 'in', 'at-heater'],
      [70, 'gauge', 'P-30'],
    ] as const;
    expect(band(ready)).toEqual([
      '25.0 psi',
      '30.0 psi',
      'New pipe by code; the weakest plug at this bore sets it.',
    ]);
    expect(band([[10, 'checks']])[2]).toMatch(/not known: 15 psi.*lies below the band asked for/);
    const hold = plan.procedure.stages.hold!;
    const { state } = playPool(plan, ready);
    expect(hold.kind === 'hold' && minutesFor(plan, state, hold.part, hold.minutes, '', true).rule).toBe(15);
  });
});
