import { parseWithUnit } from '@/core/quantity/exact';
import { longHoldLines } from '@/core/record/long-holds';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { verdictOf } from '@/core/verdict/verdict';
import { coarseBarometer } from './barometer';
import { plannedMinutes, UNWITNESSED, unwitnessed } from './long-hold';
import { reduce } from './reduce';
import type { ScriptLine } from './script';

const p = plan();
const raised = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50').slice(0, -1)];
const START = 270;
const run = (lines: ScriptLine[], allowRefused = false) =>
  reduce(p, play(p, [...raised, ...lines], {}, { allowRefused }));
const BAROMETER: ScriptLine[] = [
  [302, 'barometer', 'start', '1013.25'],
  [43_580, 'barometer', 'end', '1013.25'],
];
const last = (state: ReturnType<typeof run>) => {
  const visit = state.visits.findLast((v) => v.holds.some((h) => h.role === 'tightness'))!;
  return { visit, hold: visit.holds.at(-1)! };
};

describe('a hold that is extended', () => {
  const overnight: ScriptLine[] = [
    [300, 'extend', '720', 'left overnight'],
    ...BAROMETER,
    [START + 722 * 60, 'end', '20.50'],
  ];
  test('counts down to its new end, and may not end well before it is said why', () => {
    const { hold: own } = last(run(overnight.slice(0, 1)));
    expect(own.minutes).toBe(722);
    expect(plannedMinutes(own)).toBe(2);
    // the rule's own minutes were kept: it can be ended, with a word
    const short = last(run([overnight[0]!, [START + 125, 'short', '20.50', 'called away']])).hold;
    expect(short.short).toBe('called away');
    expect(short.judgement!.outcome).toBe('nil');
  });
  test('is judged over all of its time: no movement is nil, a permitted drop belongs to the planned minutes', () => {
    expect(last(run(overnight)).hold.judgement!.outcome).toBe('nil');
    const fell = run([...overnight.slice(0, -1), [START + 722 * 60, 'end', '14.00']]);
    expect(last(fell).hold.judgement!.outcome).toBe('late');
    // within the permitted drop after twelve hours: less than it permits in two minutes
    expect(
      last(run([...overnight.slice(0, -1), [START + 722 * 60, 'end', '18.00']])).hold.judgement!.outcome,
    ).toBe('allowance');
  });
  test('is told on the record: by how much, who read it when, and by rate', () => {
    const lines = longHoldLines(p, run([...overnight.slice(0, -1), [START + 722 * 60, 'end', '18.00']]));
    expect(lines[0]).toMatch(
      /^Tightness: planned for 2 min, extended by 720 min at .* \(Imre: left overnight\)$/,
    );
    expect(lines[1]).toMatch(/^Tightness: read by nobody from .* to .*, 12 h [12] min$/);
    expect(lines[2]).toMatch(
      /^Tightness, by rate over 12 h 2 min: (below )?[\d.]+ l\/h \(.* to .*\) where it leaks at all; 1(\.0)? l\/h matters here/,
    );
    expect(longHoldLines(p, run([[START + 121, 'end', '20.50']]))).toEqual([]);
  });
  test('its barometer is read as finely as what counts, in whatever unit it shows, and is told so in that', () => {
    // 0.25 mbar counts on this gauge: half of it is 0.125 mbar, 0.0037 inHg, 0.094 mmHg
    const told = (figure: string) => {
      const state = run([[300, 'extend', '720', 'x']]);
      const { visit, hold: own } = last(state);
      return (
        coarseBarometer(p, state, p.procedure.stages[visit.stage]!, own, parseWithUnit(figure))?.text ?? ''
      );
    };
    expect(told('1013 mbar')).toMatch(/type the barometer with 1 decimal in hPa/);
    expect(told('29.9 inHg')).toMatch(/with 3 decimals in inHg/);
    expect(told('760 mmHg')).toMatch(/with 2 decimals in mmHg/);
    for (const fine of ['1013.2 mbar', '29.921 inHg', '760.02 mmHg', '101.32 kPa'])
      expect([fine, told(fine)]).toEqual([fine, '']);
  });
  test('not without a running hold, not in a settling period, not for more than a week', () => {
    const code = (lines: ScriptLine[]) => run(lines, true).withoutEffect.at(-1)?.code;
    expect(
      code([
        [START + 121, 'end', '20.50'],
        [START + 130, 'extend', '60', 'x'],
      ]),
    ).toBeDefined();
    expect(code([...Array(3)].map((_, i): ScriptLine => [300 + i, 'extend', '4320', 'x']))).toBe('too-long');
    const settling = reduce(
      p,
      play(p, [...raised.slice(0, -2), [250, 'extend', '60', 'x']], {}, { allowRefused: true }),
    );
    expect(settling.withoutEffect.at(-1)).toMatchObject({ code: 'settle' });
  });
  test('verdict and fold stand whatever it was extended by', () => {
    const state = run([...overnight, [START + 722 * 60 + 60, 'zero', '0.00']]);
    expect(verdictOf(p, state)!.word).toBe('tight');
  });
});
describe('who read it', () => {
  test('exactly half an hour without a reading counts; a minute less does not', () => {
    const at = (minutes: number) => {
      const { visit, hold: own } = last(run([[300, 'extend', '120', 'x']]));
      return unwitnessed(visit, { ...own, extended: [] }, own.startedAt + minutes * 60_000);
    };
    expect(at(30)).toHaveLength(1);
    expect(at(29.99)).toEqual([]);
    expect(UNWITNESSED).toBe(30 * 60_000);
  });
  test('a reading parts it, a logger that sends fills it, a late entry does not', () => {
    const { visit, hold: own } = last(
      run([
        [300, 'extend', '120', 'x'],
        [START + 3600, 'read', '20.50'],
      ]),
    );
    const until = own.startedAt + 100 * 60_000;
    expect(unwitnessed(visit, own, until)).toHaveLength(2);
    const trace = Array.from({ length: 101 }, (_, i) => [own.startedAt + i * 60_000, 2050] as const);
    expect(unwitnessed({ ...visit, trace: [...trace] }, own, until)).toEqual([]);
  });
});
