import { gauge, plan as staged } from '@/core/testing/bakery';
import { packs } from '@/core/testing/quarter';
import { againOf, type LastTest } from './again';
import { offersFor } from './offer';

const p = staged();
const offers = Object.values(packs).flatMap((x) => offersFor(x, p.system));
const last: LastTest = {
  pack: p.pack.id,
  procedure: p.procedure.id,
  case: 'existing',
  choices: { 'letby-equality': 'above', gone: 'x', 'u16-drop': 'no such answer' },
  section: null,
  on: '2026-11-12',
  gauge: gauge().id,
};
const again = (over: Partial<LastTest> = {}, gauges = [gauge()], day = '2026-11-29') =>
  againOf({ ...last, ...over }, offers, gauges, day, []);

test('what was chosen is carried, answers that no longer stand are not', () => {
  expect(again()).toMatchObject({
    case: { key: 'existing' },
    choices: { 'letby-equality': 'above' },
    gauge: { name: 'G-02' },
    on: '2026-11-12',
  });
  expect(Object.keys(again()!.choices)).toEqual(['letby-equality']);
});
test('what permits more is asked afresh, and only that', () => {
  expect(again()!.asks).toBe(true);
  expect(again({ case: 'new' })!.asks).toBe(false);
  expect(again({ case: 'pipework' })!.asks).toBe(false);
});
test('a gauge that ran out, or is gone, is left to be chosen; on its last day, or without dates, it stands ready', () => {
  const due = (calibrationDue: string) => again({}, [gauge({ calibrationDue })])!.gauge?.name;
  expect([due('2026-11-28'), due('2026-11-29'), due('')]).toEqual([undefined, 'G-02', 'G-02']);
  expect(again({}, [])!.gauge).toBeNull();
});
test('what is no longer offered, has no such case, or is of a line that nobody knows now, is not begun again', () => {
  expect(again({ procedure: 'no-more' })).toBeNull();
  expect(again({ case: 'no-more' })).toBeNull();
  expect(againOf(null, offers, [], '2026-11-29', [])).toBeNull();
  const line = { ...offers[0]!, oneSection: true, pack: 'x', id: 'line' };
  const of = (section: string | null, known: string[]) =>
    againOf(
      { ...last, pack: 'x', procedure: 'line', case: line.cases[0]!.key, section },
      [line],
      [],
      '2026-11-29',
      known,
    );
  expect([of('a', ['a'])?.section, of('a', ['b']), of(null, ['a'])]).toEqual(['a', null, null]);
});
