import { gauge, plan as bakeryPlan, uuid } from '@/core/testing/bakery';
import { recordStatus } from '@/core/record/status';
import { goodPath } from '@/core/plan/good-path';
import { verdictOf } from '@/core/verdict/verdict';
import type { Plan } from '@/core/plan/plan';
import { outsideEvents, outsideNeeds, type OutsideHold } from './outside';
import { parseEvent } from './events';
import { reduce } from './reduce';

const outside = { file: 'logger-7.csv', hash: 'a'.repeat(64), by: 'Brannock Pipework' };
const plan: Plan = { ...bakeryPlan(), outside };
const began = Date.parse(plan.made.at) + 600_000;
const writer = {
  device: uuid(1, 6),
  pageLoad: uuid(1, 7),
  zone: 'UTC',
  by: uuid(1, 2),
  byName: 'Imre',
  id: (n: number) => uuid(n, 8),
};
/** Holds of the good path one after the other, ten minutes each, with what each lost. */
const holds = (falls: Record<string, number> = {}, from: Record<string, number> = {}): OutsideHold[] =>
  outsideNeeds(plan).holds.map((h, i) => {
    const start = from[h.stage] ?? (i === 0 ? 910 : 2050);
    return {
      stage: h.stage,
      start: { at: began + i * 900_000, digits: start },
      end: { at: began + i * 900_000 + 600_000, digits: start - (falls[h.stage] ?? 0) },
    };
  });
const judge = (h: OutsideHold[]) => {
  const events = outsideEvents(plan, { holds: h, points: [[began + 1000, 910]], gauge: gauge().id }, writer);
  for (const e of events) parseEvent(e);
  const state = reduce(plan, events);
  return { state, verdict: verdictOf(plan, state)! };
};
const last = () => outsideNeeds(plan).holds.at(-1)!.stage;

test('a log says which holds must be shown, and which lists somebody answers for', () => {
  const needs = outsideNeeds(plan);
  expect(needs.trouble).toBe('');
  expect(needs.holds.map((h) => h.stage)).toEqual(
    goodPath(plan)
      .filter((s) => s.kind === 'hold')
      .map((s) => s.stage),
  );
  expect(needs.lines.length).toBeGreaterThan(3);
});
test('a good log is judged by the same rules to the same result, and is never a certificate', () => {
  const { state, verdict } = judge(holds());
  expect(state.phase).toBe('put-back');
  expect(verdict.word).toBe('tight');
  expect(state.imports).toMatchObject([{ file: 'logger-7.csv', points: 1 }]);
  const sealer = { id: '', name: 'Imre', role: 'tester', licence: { number: 'GT-1', until: '2030-01-01' } };
  const by = { signer: sealer, sealer, day: '2026-11-25', impossible: [] };
  expect(recordStatus(plan, by)).toMatchObject({
    status: 'not-a-certificate',
    reason: expect.stringMatching(/Brannock Pipework with another program/),
  });
});
test('a log that falls is never tight; one that rises proves nothing', () => {
  for (const fall of [-400, 60, 1000]) {
    const { verdict, state } = judge(holds({ [last()]: fall }));
    expect([fall, verdict.word === 'tight' || verdict.word === 'within-allowance']).toEqual([fall, false]);
    expect(state.phase).not.toBe('running');
  }
});
test('marks that make no test are refused with the reason', () => {
  const good = holds();
  expect(() => judge([good[0]!, { ...good[1]!, start: { ...good[1]!.start, at: began } }])).toThrow(
    /follow one another/,
  );
  expect(() => judge([{ ...good[0]!, end: { ...good[0]!.end, at: began - 1 } }])).toThrow(
    /must end after it began/,
  );
  expect(() => judge(holds({}, { [last()]: 4000 }))).toThrow(/mbar/); // raised to what the procedure does not ask
  expect(() =>
    outsideEvents({ ...plan, outside: undefined }, { holds: good, points: [], gauge: gauge().id }, writer),
  ).toThrow(/Choose the gauge/);
  expect(judge(good.slice(0, 1)).state.ending).toMatchObject({ by: 'stop' }); // the log ends early
});
