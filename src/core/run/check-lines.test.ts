import type { ChecksStage } from '@/core/kinds';
import { bakery, plan } from '@/core/testing/bakery';
import { checkLines, UNKNOWN } from './read';

/** Lines of a list of valves of these kinds, on the bakery with other valves. */
const lines = (valves: Partial<ReturnType<typeof bakery>>, kinds: readonly string[], format = 2) => {
  const stage = {
    kind: 'checks',
    items: [{ key: 'shut', text: 'CLOSED', each: 'valve', valves: kinds }],
  } as unknown as ChecksStage;
  const p = plan();
  const { noValves: _none, ...open } = bakery();
  return checkLines({ ...p, format, system: { ...open, ...valves } } as typeof p, stage).map((l) => [
    l.id,
    l.subject?.name,
  ]);
};
const drop = { id: 'd', name: 'Drop', place: 'shed', kind: 'drop' } as const;

test('valves that nobody entered are asked for in one line; those said to be absent are not', () => {
  expect(lines({}, ['drop', 'hidden'])).toEqual([
    [`shut/${UNKNOWN}`, 'Every drop valve or hidden valve there is'],
  ]);
  expect(lines({ valves: [drop] }, ['drop', 'hidden'])).toEqual([
    ['shut/d', 'Drop'],
    [`shut/${UNKNOWN}`, 'Every hidden valve there is'],
  ]);
  expect(lines({ valves: [drop], noValves: ['hidden'] }, ['drop', 'hidden'])).toEqual([['shut/d', 'Drop']]);
  expect(lines({ noValves: ['drop', 'hidden'] }, ['drop', 'hidden'])).toEqual([]);
});
test('records of the first format keep the lines they were made with', () => {
  expect(lines({}, ['drop', 'hidden'], 1)).toEqual([]);
});
