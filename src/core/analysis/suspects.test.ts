import { reduce } from '@/core/run/reduce';
import type { ScriptLine } from '@/core/run/script';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { TRADES } from '@/core/trades';
import { suspectsOf } from '@/core/trades/suspects';
import type { Meaning } from './meaning';
import { inQuestion } from './in-question';
import { ranked } from './suspects';

const p = plan();
const after = (lines: ScriptLine[]) => reduce(p, play(p, [...upTo(['9.10', '9.10']), ...lines]));
const meaning = (causes: readonly (readonly [Meaning['causes'][number]['cause'], number])[]) =>
  ({
    enough: true,
    causes: causes.map(([cause, percent]) => ({ cause, percent, words: '' })),
  }) as unknown as Meaning;

test('every trade has its suspects: own kit, something within reach, something hidden, each with sign and proof', () => {
  for (const { name } of TRADES) {
    const list = suspectsOf(name);
    expect([name, [...new Set(list.map((s) => s.where))].sort()]).toEqual([
      name,
      name === 'duct' ? ['exposed', 'hidden', 'own'] : ['exposed', 'hidden', 'other', 'own'],
    ]);
    expect(new Set(list.map((s) => s.key)).size).toBe(list.length);
    for (const s of list) {
      expect(s.sign.length).toBeGreaterThan(20);
      expect(s.proof.length).toBeGreaterThan(15);
      expect(s.minutes).toBeGreaterThan(0);
    }
  }
});
describe('after a hold', () => {
  test('a fall is in question, own kit first, then what can be reached, then what is hidden', () => {
    const state = after(hold(200, '20.50', '12.00'));
    const found = inQuestion(p, state)!;
    expect(found.hold!.role).toBe('tightness');
    const list = ranked(p, found.hold, null);
    expect(list.map((s) => s.key).slice(0, 4)).toEqual(['kit', 'joint', 'appliance', 'hidden']);
    expect(list.some((s) => s.key === 'valve' || s.key === 'jet')).toBe(false);
    expect(list.every((s) => s.percent === null)).toBe(true);
  });
  test('the trace speaks: warmth before kit where it is warmth, and never hidden before kit', () => {
    const { hold: judged } = inQuestion(p, after(hold(200, '20.50', '12.00')))!;
    const warm = ranked(
      p,
      judged,
      meaning([
        ['temperature', 90],
        ['leak', 10],
      ]),
    );
    expect(warm[0]!.key).toBe('warmth');
    expect(warm[0]!.percent).toBe(90);
    const leak = ranked(
      p,
      judged,
      meaning([
        ['leak', 97],
        ['temperature', 3],
      ]),
    );
    expect(leak.map((s) => s.key).slice(0, 2)).toEqual(['kit', 'joint']);
    for (const list of [warm, leak]) {
      const at = (key: string) => list.findIndex((s) => s.key === key);
      expect(at('kit')).toBeLessThan(at('joint'));
      expect(at('joint')).toBeLessThan(at('hidden'));
    }
  });
  test('a rise is asked of the valve and the regulator, not of joints', () => {
    const state = reduce(p, play(p, upTo(['9.10', '9.60'])));
    const found = inQuestion(p, state)!;
    const list = ranked(
      p,
      found.hold,
      meaning([
        ['let-by', 95],
        ['temperature', 5],
      ]),
    );
    expect(list[0]!.key).toBe('valve');
    expect(list.some((s) => s.key === 'joint')).toBe(false);
  });
  test('nothing is in question after a good hold, while one runs, or when the run is over', () => {
    expect(inQuestion(p, after([]))).toBeNull();
    expect(inQuestion(p, after(hold(200, '20.50', '12.00').slice(0, -1)))).toBeNull();
    expect(inQuestion(p, after(hold(200, '20.50', '20.50')))).toBeNull();
  });
});
