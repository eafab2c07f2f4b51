import fc from 'fast-check';
import type { Account, Told } from './account';
import { answerOf, type Condition, conditionSchema } from './condition';

const hand = (at: number, act: string, value?: string, seen?: object): Told =>
  ({
    at,
    stage: 'letby',
    act: { kind: 'hand', at, work: { act, value }, action: {} },
    seen,
  }) as unknown as Told;
const entry = (at: number, kind: string, stage = 'letby', more = {}): Told =>
  ({ at, stage, entry: { kind, ...more } }) as unknown as Told;
const reached = (at: number, stage: string): Told => ({ at, stage, reached: stage });
const account = (told: Told[], over: Partial<Account> = {}): Account =>
  ({
    told,
    until: 1e6,
    result: null,
    ended: null,
    owes: 0,
    cause: null,
    place: null,
    left: [],
    holds: [],
    ...over,
  }) as Account;
const met = (told: Told[], c: Condition, over: Partial<Account> = {}) => answerOf(account(told, over), c);

test('done in time, too late, never: with the moment that decided it', () => {
  const c: Condition = { did: { hand: 'fluid', is: { value: ['kit'] } }, before: { stage: 'tightness' } };
  expect(met([hand(5, 'fluid', 'kit'), reached(9, 'tightness')], c)).toEqual({ met: true, at: 5 });
  expect(met([reached(9, 'tightness'), hand(12, 'fluid', 'kit')], c)).toEqual({ met: false, at: 9 });
  expect(met([hand(5, 'fluid', 'valve')], c)).toEqual({ met: false, at: null });
});
test('so often, and not one less', () => {
  const c: Condition = { did: { hand: 'air-out' }, times: 3 };
  const outs = (n: number) => Array.from({ length: n }, (_, i) => hand(i + 1, 'air-out'));
  expect(met(outs(2), c).met).toBe(false);
  expect(met(outs(3), c)).toEqual({ met: true, at: 3 });
});
test('never, while it stood so: the installation as it was at that moment counts', () => {
  const c: Condition = { never: { entry: 'hold-start', seen: { supply: ['open', 'crack'] } } };
  const start = (supply: string) => ({ ...entry(7, 'hold-start'), seen: { supply } }) as unknown as Told;
  expect(met([start('shut')], c).met).toBe(true);
  expect(met([start('crack')], c)).toEqual({ met: false, at: 7 });
});
test('within so long after something: on the last moment still, a moment later not', () => {
  const c: Condition = { did: { entry: 'stop' }, after: { happened: 'smell' }, within: '60 s' };
  const smell = {
    at: 1000,
    stage: 'x',
    act: { kind: 'happened', at: 1000, happening: 'smell' },
  } as unknown as Told;
  expect(met([smell, entry(61_000, 'stop')], c).met).toBe(true);
  expect(met([smell, entry(61_001, 'stop')], c)).toEqual({ met: false, at: 61_000 });
  // before the time is over nobody has missed it
  expect(met([smell], c, { until: 30_000 }).at).toBeNull();
});
test('a figure of a hold, exactly at its bound, is not below it', () => {
  const c = (below: string): Condition => ({ reading: { stage: 'letby', at: 'start', below } });
  const holds = [
    { stage: 'letby', from: 3, ms: 9, start: { digits: 760, scale: 2, unit: 'mbar' } },
  ] as Account['holds'];
  expect(met([], c('7.6 mbar'), { holds }).met).toBe(false);
  expect(met([], c('7.61 mbar'), { holds })).toEqual({ met: true, at: 3 });
  expect(met([], c('0.111 psi'), { holds }).met).toBe(true);
  expect(met([], c('7.6 mbar')).met).toBe(false);
});
test('held for so long: exactly so long is enough', () => {
  const c: Condition = { held: { stage: 'bounce', atLeast: '5 min' } };
  const of = (ms: number) => ({ holds: [{ stage: 'bounce', from: 0, ms }] as unknown as Account['holds'] });
  expect(met([], c, of(300_000)).met).toBe(true);
  expect(met([], c, of(299_999)).met).toBe(false);
});
test('all and any are what they say, whatever is in them', () => {
  const yes: Condition = { cause: ['leak'] };
  const no: Condition = { cause: ['air'] };
  fc.assert(
    fc.property(fc.array(fc.boolean(), { minLength: 1, maxLength: 6 }), (answers) => {
      const parts = answers.map((a) => (a ? yes : no));
      const told = (c: Condition) => met([], c, { cause: 'leak' }).met;
      expect(told({ all: parts })).toBe(answers.every(Boolean));
      expect(told({ any: parts })).toBe(answers.some(Boolean));
    }),
  );
});
test('what is written wrongly is refused with its path', () => {
  const wrong = (c: unknown) => {
    try {
      conditionSchema.validateSync(c, { strict: true });
      return '';
    } catch (e) {
      return (e as Error).message;
    }
  };
  expect(wrong({ did: { hand: 'fluid' } })).toBe('');
  expect(wrong({ all: [{ did: { hand: 'fluid' } }, { any: [{ owes: 'nothing' }] }] })).toBe('');
  expect(wrong({ done: { hand: 'fluid' } })).toMatch(/done/);
  expect(wrong({ did: { hands: 'fluid' } })).toMatch(/hands/);
  expect(wrong({ held: { stage: 'x', atLeast: 'long' } })).toMatch(/figure with its unit/);
});
