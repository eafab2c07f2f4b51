import { gauge } from '@/core/testing/bakery';
import { planOf, run } from '@/core/testing/quarter';
import { meanwhile } from './meanwhile';
import type { ScriptLine } from './script';

const plan = planOf('gas-lowpressure-staged', { case: 'existing', gauges: [gauge()] });
const TO_HOLD: readonly ScriptLine[] = [
  ['checks'],
  ['gauge', 'G-02'],
  ['zero', '0'],
  ['fill', '9.10'],
  ['start', '9.10'],
] as unknown as readonly ScriptLine[];
const list = (...more: readonly unknown[]) => {
  const { state } = run(plan, [...TO_HOLD, ...more] as never);
  return meanwhile(plan, state, state.visits.at(-1)!, null);
};
test('what can be done while a hold runs, each with how much is done; what is done is counted', () => {
  const before = list();
  expect(before.map((m) => m.what)).toEqual(expect.arrayContaining(['joints', 'photo']));
  expect(before.find((m) => m.what === 'photo')).toMatchObject({ done: 0, of: 1 });
  for (const m of before) expect(m.left.length).toBe(m.of - m.done);
  const { state } = run(plan, TO_HOLD as never);
  const visit = state.visits.at(-1)!;
  const own = { id: 'j1', name: 'Union', place: '', looks: [] };
  const joint = (looks: object[]) =>
    meanwhile(plan, { ...state, joints: [{ ...own, looks }] } as never, visit, null).find(
      (m) => m.what === 'joints',
    )!;
  const known = (plan.system.joints ?? []).length;
  expect([joint([]).done, joint([]).of]).toEqual([0, known + 1]);
  expect(joint([{ found: 'none' }])).toMatchObject({ done: 1 });
  // foam is looked at again: it is not done
  expect(joint([{ found: 'foam' }])).toMatchObject({ done: 0, left: expect.arrayContaining(['Union']) });
});
test('a photo of an earlier stage does not stand for this one', () => {
  const { state } = run(plan, TO_HOLD as never);
  const visit = state.visits.at(-1)!;
  const at = (moment: number) =>
    meanwhile(plan, { ...state, photos: [{ at: moment }] } as never, visit, null).find(
      (m) => m.what === 'photo',
    )!.done;
  expect([at(visit.entered - 1), at(visit.entered), at(visit.entered + 1)]).toEqual([0, 1, 1]);
});
