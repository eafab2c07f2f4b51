import { outsideDomain } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { judged, kiln, planOf, type Step } from '@/core/testing/quarter';

describe('extension of an old installation', () => {
  const letBy: Step[] = [
    ['checks'],
    ['gauge', 'M-1'],
    ['zero', '0'],
    ['fill', '9.00'],
    ['start', '9.00'],
    [1.05, 'end', '9.00'],
  ];
  const hold = (end: string): Step[] => [
    ['fill', '20.50'],
    ['start', '20.50'],
    [1.05, 'end', '20.50'],
    ['start', '20.50'],
    [2.02, 'end', end],
  ];
  const pipe: Step[] = [['checks'], ...hold('20.50'), ['skip', '', 'known'], ['zero', '0']];
  const plan = planOf('gas-lowpressure-extension');
  const before: Step[] = [...letBy, ...hold('18.50'), ...pipe];
  const part: Step[] = [...letBy, ...hold('20.50'), ['zero', '0']];
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
        : pipe;
    const v = judged(plan, [...before, ...part, ...letBy, ...hold(end), ...tail]);
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
