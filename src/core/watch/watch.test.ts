import fc from 'fast-check';
import { exact, parseWithUnit as q } from '@/core/quantity/exact';
import { watchFall, watchState, type WatchEntry, type WatchFacts } from './watch';

const hour = 3_600_000;
const facts = (over: Partial<WatchFacts> = {}): WatchFacts => ({
  title: 'Mill hall loops',
  purpose: 'screed',
  place: { site: 'Mill hall', system: 'Floor heating' },
  gauge: { name: 'G', serial: '1', resolution: q('0.1 bar') },
  figure: q('4.0 bar'),
  fall: q('0.4 bar'),
  fallSource: 's',
  perKelvin: null,
  startedAt: 0,
  zone: 'UTC',
  until: '2026-12-24',
  call: '555-0100',
  ...over,
});
const at = (
  hours: number,
  figure: string,
  over: Partial<Extract<WatchEntry, { kind: 'reading' }>> = {},
): WatchEntry => ({
  kind: 'reading',
  id: `r${hours}`,
  at: hours * hour,
  figure: q(figure),
  who: 'Oumar',
  trade: 'screed',
  by: 'link',
  text: '',
  ...over,
});

test.each([
  ['3.7 bar', 'holds'],
  ['3.6 bar', 'lost'], // exactly the fall counts
])('4.0 bar left, %s read: %s', (figure, word) => {
  expect(watchState(facts(), [at(5, figure)]).word).toBe(word);
});
test('held until, lost between, and who was there in that span and no other', () => {
  const tiler: WatchEntry = {
    kind: 'on-site',
    id: 'o1',
    at: 7 * hour,
    who: 'Ines',
    trade: 'tiles',
    by: 'link',
    text: 'drilled the threshold',
  };
  const early: WatchEntry = { ...tiler, id: 'o0', at: 2 * hour, who: 'Aro' };
  const s = watchState(facts(), [at(5, '3.9 bar'), tiler, early, at(9, '1.2 bar'), at(11, '1.0 bar')]);
  expect([s.heldUntil, s.lost]).toEqual([5 * hour, { from: 5 * hour, to: 9 * hour }]);
  expect(s.onSite.map((o) => o.who)).toEqual(['Oumar', 'Ines', 'Oumar']);
});
test('a wrong entry is corrected and stays: the loss goes with it', () => {
  const wrong = at(5, '0.4 bar');
  const right: WatchEntry = {
    kind: 'correction',
    id: 'c',
    of: 'r5',
    at: 6 * hour,
    figure: q('4.0 bar'),
    who: 'Oumar',
    trade: '',
    by: 'link',
    text: 'misread',
  };
  expect(watchState(facts(), [wrong]).word).toBe('lost');
  const s = watchState(facts(), [wrong, right]);
  expect([s.word, s.readings[0]!.was]).toEqual(['holds', { figure: q('0.4 bar'), why: 'misread' }]);
});
test('temperature: cold rigid water falls, and corrected it holds; PE-X falls when warmed; without a temperature the raw figure counts', () => {
  const cold = at(5, '3.0 bar', { temperature: q('16 C') });
  const steel = watchState(facts({ temperature: q('20 C'), perKelvin: 25_000 }), [cold]);
  // 0.25 bar/K x 4 K is the whole fall: it holds, and says that it rests on the temperature
  expect([steel.word, steel.readings[0]!.doubt]).toEqual(['holds', true]);
  expect(watchState(facts({ perKelvin: 25_000 }), [cold]).word).toBe('lost');
  const pex = facts({ temperature: q('18 C'), perKelvin: -12_000 });
  expect(watchState(pex, [at(5, '3.5 bar', { temperature: q('22 C') })]).readings[0]!.change).toBeCloseTo(
    -0.02,
    6,
  );
});
test('law: the order in which entries arrive changes nothing; ended stays ended', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 0, max: 60 })), {
        maxLength: 12,
      }),
      fc.integer(),
      (list, seed) => {
        const log = list.map(([h, d], i): WatchEntry => ({
          ...(at(h, '4.0 bar') as Extract<WatchEntry, { kind: 'reading' }>),
          id: `x${i}`,
          figure: exact(d, 1, 'bar'),
        }));
        const shuffled = [...log].sort((a, b) => ((a.at * 7919 + seed) % 13) - ((b.at * 7919 + seed) % 13));
        expect(watchState(facts(), shuffled)).toEqual(watchState(facts(), log));
        const end: WatchEntry = {
          kind: 'end',
          id: 'e',
          at: 1000 * hour,
          who: 'F',
          trade: '',
          by: 'member',
          text: 'floor is down',
        };
        expect(watchState(facts(), [...log, end]).word).toBe('ended');
      },
    ),
  );
});
test('default fall: a tenth, never less than two steps', () => {
  expect(watchFall(q('4.00 bar'), q('0.01 bar')).fall).toEqual(q('0.40 bar'));
  expect(watchFall(q('1.0 bar'), q('0.1 bar')).fall).toEqual(q('0.2 bar'));
});
