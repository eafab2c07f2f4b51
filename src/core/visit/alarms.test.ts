import { goesTo, visitAlarms } from './alarms';

const START = Date.UTC(2026, 10, 30, 8, 30);
const visit = { id: 'v', title: 'Mill', start: '08:30', tests: [] };

test('a visit rings half an hour before it begins and when it does; at another time anew', () => {
  const alarms = visitAlarms(visit, START);
  expect(alarms.map((a) => [a.at - START, a.text])).toEqual([
    [-1_800_000, 'Mill: begins in 30 minutes, at 08:30.'],
    [0, 'Mill: begins now.'],
  ]);
  const later = visitAlarms(visit, START + 60_000);
  expect(later.map((a) => a.tag)).not.toEqual(expect.arrayContaining(alarms.map((a) => a.tag)));
});
test('once a test of it has begun it rings no more: the run rings', () => {
  expect(visitAlarms({ ...visit, tests: [{ run: 'r' } as never] }, START)).toEqual([]);
});
test.each([
  ['Imre Castellane', true],
  [' imre castellane ', true],
  ['Tamsin Okoro', true],
  ['Imre', false],
])('%s goes to it: %s', (name, goes) => {
  expect(goesTo({ present: ['Imre Castellane', 'the tenant'] }, 'Tamsin Okoro', name)).toBe(goes);
});
