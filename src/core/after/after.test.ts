import { addMonths } from '@/core/quantity/local-date';
import { reduce } from '@/core/run/reduce';
import { place } from '@/core/run/script';
import { hold, plan, play, SIGNED, upTo } from '@/core/testing/bakery';
import fc from 'fast-check';
import { FOLLOW_UPS, type FollowUpKind } from './follow-ups';
import { compareSerials, inSerialRange, isRecalled } from './recall';
import { applianceChanges, endedBy, owedBy } from './rules';

const oven = { name: 'Deck oven', make: 'Corven', model: 'DK-2', serial: 'SH-0880' };
test('a recall finds by make, model and a range of serials with both ends in it', () => {
  const any = { make: '', model: '', from: '', to: '' };
  expect(isRecalled(oven, any)).toBe(false); // nothing asked, nothing found
  expect(isRecalled(oven, { ...any, make: 'corv' })).toBe(true);
  expect(isRecalled(oven, { ...any, make: 'corv', model: 'dk 3' })).toBe(false);
  for (const [from, to, found] of [
    ['SH-880', 'SH-900', true],
    ['SH-800', 'SH-880', true],
    ['SH-881', 'SH-900', false],
    ['SH-800', 'SH-879', false],
    ['SH-880', '', true],
    ['', 'SH-881', false],
    ['AB-1', 'ZZ-9', false],
  ] as const)
    expect([from, to, inSerialRange(oven.serial, from, to)]).toEqual([from, to, found]);
  expect(inSerialRange('', 'SH-1', 'SH-9')).toBe(false);
  expect(compareSerials('A1', '1A')).toBeNull();
});
test('ordering serials is an order: the same both ways round, numbers by value', () => {
  const serial = fc
    .tuple(fc.constantFrom('SH', 'AB', ''), fc.nat(1e9), fc.constantFrom('', 'X'))
    .map(([a, n, z]) => `${a}${n}${z}`);
  fc.assert(
    fc.property(serial, serial, (a, b) => {
      const forth = compareSerials(a, b);
      const back = compareSerials(b, a);
      expect(forth === null ? null : -forth + 0).toEqual(back === null ? null : back + 0);
    }),
  );
  fc.assert(
    fc.property(fc.nat(1e9), fc.nat(1e9), (m, n) => {
      expect(compareSerials(`SH-${m}`, `sh ${n}`)).toBe(Math.sign(m - n));
    }),
  );
});
test('the same day so many months on; the last of the month where it has fewer days', () => {
  expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
  expect(addMonths('2024-02-29', 12)).toBe('2025-02-28');
  expect(addMonths('2026-11-25', 12)).toBe('2027-11-25');
});
test('what closes a follow-up: a good record, the same procedure or the repeat that names it; a report only by hand', () => {
  const pending = (kind: FollowUpKind) => ({ kind, procedure: 'a', run: 'r1' });
  const good = { word: 'tight' as const, procedure: 'b' };
  const closedBy = (later: Parameters<typeof endedBy>[1]) =>
    (Object.keys(FOLLOW_UPS) as FollowUpKind[]).filter((k) => endedBy(pending(k), later));
  expect(closedBy(good)).toEqual(['repair', 'unsafe', 'swapped']);
  expect(closedBy({ ...good, procedure: 'a' })).toEqual([
    'repair',
    'unsafe',
    'refer',
    'retest',
    'swapped',
    'yearly',
  ]);
  expect(closedBy({ ...good, retestOf: 'r1' })).toEqual([
    'repair',
    'unsafe',
    'refer',
    'retest',
    'swapped',
    'yearly',
  ]);
  for (const word of ['not-tight', 'void', 'inconclusive', 'refer'] as const)
    expect(closedBy({ ...good, word, procedure: 'a' })).toEqual([]);
});
test('a part is another when make, model or serial is; a new one counts too', () => {
  const a = { id: '1', ...oven } as never;
  expect(applianceChanges({ appliances: [a] }, { appliances: [a] })).toEqual([]);
  expect(
    applianceChanges({ appliances: [a] }, { appliances: [{ ...(a as object), serial: 'SH-0999' } as never] }),
  ).toEqual([expect.stringMatching(/serial was SH-0880, is SH-0999/)]);
  expect(applianceChanges({ appliances: [] }, { appliances: [a] })).toEqual(['Deck oven was added']);
});
test('what a record owes: the next test where the place has a rhythm, a repeat where it was not good, an answer where it was referred', () => {
  const p = plan();
  const yearly = { ...p, system: { ...p.system, everyMonths: 12 } };
  const state = reduce(
    p,
    place(
      play(p, [
        ...upTo(['9.10', '9.10']),
        ...hold(200, '20.50', '20.48'),
        [450, 'zero', '0.00'],
        ...SIGNED(500),
      ]),
    ),
  );
  const ended = Date.parse('2026-11-20T09:00:00Z');
  const owed = (q: typeof p, word: 'tight' | 'not-tight' | 'refer', changes: string[] = []) =>
    owedBy(q, state, { word, label: word }, ended, changes).map((o) => [o.kind, o.due]);
  expect(owed(p, 'tight')).toEqual([]);
  expect(owed(yearly, 'tight')).toEqual([['yearly', '2027-11-20']]);
  expect(owed(yearly, 'not-tight')).toEqual([['retest', '2026-11-27']]);
  expect(owed(p, 'refer')).toEqual([['refer', '2026-12-04']]);
  expect(owed(p, 'not-tight', ['Oven: serial was 1, is 2'])).toEqual([
    ['retest', '2026-11-27'],
    ['swapped', '2026-11-20'],
  ]);
});
