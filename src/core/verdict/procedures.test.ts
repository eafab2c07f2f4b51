import { outsideDomain } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { holdSteps, judged, kiln, letBySteps, pipeSteps, planOf, type Step } from '@/core/testing/quarter';

describe('extension of an old installation', () => {
  const plan = planOf('gas-lowpressure-extension');
  const before: Step[] = [...letBySteps, ...holdSteps('18.50'), ...pipeSteps];
  const part: Step[] = [...letBySteps, ...holdSteps('20.50'), ['zero', '0']];
  test.each([
    ['18.50', 'within-allowance'], // exactly as before: no worse
    ['18.49', 'not-tight'],
  ])('2.00 mbar before, the whole to %s: %s', (end, word) => {
    const tail: Step[] =
      word === 'not-tight'
        ? [
            ['observe', 'accept', 'customer waits'],
            ['zero', '0'],
          ]
        : pipeSteps;
    const v = judged(plan, [...before, ...part, ...letBySteps, ...holdSteps(end), ...tail]);
    expect([v.word, v.parts!.map((p) => p.word)]).toEqual([word, ['within-allowance', 'tight', word]]);
  });
});

test('outside its domain a good reading is referred, never passed', () => {
  const plan = planOf('gas-meter-turn-on', {
    system: kiln({ workingPressure: q('14.1 inWC'), setPressure: q('7 inWC') }),
  });
  expect(outsideDomain(plan)).toEqual([expect.stringContaining('the procedure ends at 14 inWC')]);
});
test('a procedure for another medium does not start', () => {
  expect(() => planOf('lpg-vehicle', { system: kiln() })).toThrow(/not for natural gas/);
});
