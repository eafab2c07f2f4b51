import { begin } from './reduce';
import { gauge } from '@/core/testing/bakery';
import { ductPlan, playDuct } from '@/core/testing/loft';
import { planOf, run } from '@/core/testing/quarter';
import type { ScriptLine } from './script';
import { waitOf } from './waits';

const plan = ductPlan();
const began = Date.parse(plan.made.at);
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
const waits = (...more: readonly ScriptLine[]) => waitOf(plan, playDuct(plan, [...TO_FAN, ...more]).state);

test('a smoke machine that warms up is on the board until smoke was found with it', () => {
  expect(waits()).toBeNull();
  expect(waits([320, 'smokeon'])).toEqual({ ends: began + 620_000, then: 'smoke machine is warm' });
  const found = waits(
    [320, 'smokeon'],
    [330, 'blow', '24.5', '70'],
    [335, 'blow', '12.0', '46.2'],
    [340, 'fanjudge'],
    [350, 'observe', 'search'],
    [400, 'checks'],
    [700, 'found', 'boot', 'hall'],
  );
  expect(found).toBeNull();
});
test('a hold is, and says that the gauge is read; nothing is before anything began', () => {
  const staged = planOf('gas-lowpressure-staged', { case: 'existing', gauges: [gauge()] });
  expect(waitOf(staged, begin(staged))).toBeNull();
  const { state } = run(staged, [
    ['checks'],
    ['gauge', 'G-02'],
    ['zero', '0'],
    ['fill', '9.10'],
    ['start', '9.10'],
  ]);
  expect(waitOf(staged, state)).toEqual({ ends: expect.any(Number), then: 'read the gauge' });
});
