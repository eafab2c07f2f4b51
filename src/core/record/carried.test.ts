import { bakery, coarse, gauge } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import type { System } from '@/core/installation/section';
import { carriedWords, changedSince } from './carried';

const site = { id: 's', name: 'Bakery', address: '2 Fulling Yard', customer: 'A. Baker' };
const then = { site, system: bakery(), gauges: [gauge(), coarse], packHash: 'a' };

test('what is the same in another order of its keys, or without what is not said, does not differ', () => {
  const system = JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(bakery()).reverse()))) as System;
  expect(changedSince(then, { ...then, system: { ...system, everyMonths: undefined } as never })).toEqual([]);
});
test.each<[string, Partial<typeof then>, string[]]>([
  ['another customer', { site: { ...site, customer: 'B.' } }, ['name, address or customer of the place']],
  [
    'longer pipe, and so another network',
    { system: bakery({ pipes: bakery().pipes.slice(1), network: { parts: [], links: [] } as never }) },
    ['installation: pipes'],
  ],
  [
    'a network drawn anew that comes to the same lists',
    { system: bakery({ network: { parts: [], links: [] } as never }) },
    ['installation: other facts of it'],
  ],
  ['what was seen on a visit is no fact of the place', { system: bakery({ seen: [] }) }, []],
  [
    'a fact without a heading of its own',
    { system: bakery({ everyMonths: 12 }) },
    ['installation: other facts of it'],
  ],
  [
    'several at once',
    { system: bakery({ setPressure: q('30 mbar'), workingPressure: q('30 mbar') }) },
    ['installation: working pressure', 'installation: other facts of it'],
  ],
  [
    'a calibration that was renewed, a gauge that was taken out, one that was bought',
    { gauges: [gauge({ calibrationDue: '2030-01-01' }), gauge({ id: 'new', name: 'N' })] },
    ['gauge G-02', 'gauge G-01, not in the cabinet'],
  ],
  ['a newer edition of the rules', { packHash: 'b' }, ['version of the rules']],
])('%s', (_, over, words) => {
  expect(changedSince(then, { ...then, ...over })).toEqual(words);
});
test('the record says from when the knowledge was, when it arrived, and what stood otherwise', () => {
  const carried = { given: '2026-11-29T08:00:00Z', arrived: '2026-11-29T17:30:00Z', changed: ['gauge G-02'] };
  expect(carriedWords(carried, 'UTC')).toMatch(
    /^Begun without a signal from what the office gave the device at 29 Nov 2026.*08:00.*; arrived at .*17:30.*\. Otherwise at the office then: gauge G-02\.$/,
  );
  expect(carriedWords({ ...carried, given: null, changed: [] }, 'UTC')).toMatch(
    /from what was entered on the device; .* Nothing stood otherwise/,
  );
  expect(carriedWords(undefined, 'UTC')).toBe('');
});
