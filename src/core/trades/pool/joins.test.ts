import {
  bruteForce,
  leastLooks,
  type Pool,
  randomLook,
  randomPool,
  seeded,
  wholeLine,
} from '@/core/testing/pools';
import { agree, clashes, joinsOf, type Look, nextLook, partitions, says } from './joins';

const ENDS = ['pump', 'return', 'skimmer', 'drain', 'r1', 'r2'];
const dry = new Set(['pump', 'return']);
const closed = (id: string, at: string, quiet: string[], flowing: string[]): Look => ({
  id,
  kind: 'closed',
  at,
  quiet,
  flowing,
});
const air = (id: string, at: string, over: Partial<Extract<Look, { kind: 'air' }>>): Look => ({
  id,
  kind: 'air',
  at,
  plugged: [],
  bubbled: [],
  still: [],
  ...over,
});

describe('what a look says', () => {
  test('silence counts only where nothing bubbled and the pressure stood', () => {
    const still = ['r1', 'r2'];
    expect(says(air('a', 'return', { still, stood: true })).apart).toHaveLength(2);
    expect(says(air('a', 'return', { still })).apart).toEqual([]);
    expect(says(air('a', 'return', { still, stood: false })).apart).toEqual([]);
    expect(says(air('a', 'return', { still, stood: true, bubbled: ['drain'] })).apart).toEqual([]);
    expect(
      says(air('a', 'return', { still, stood: true, elsewhere: 'in the shallow corner' })).apart,
    ).toEqual([]);
  });
  test('a pool in three looks: the pump’s line and the returns, nothing left open', () => {
    const looks = [
      closed('1', 'pump', ['skimmer', 'drain'], ['r1', 'r2']),
      air('2', 'return', { bubbled: ['r1'], still: ['r2'] }),
    ];
    expect(joinsOf(ENDS, looks).lines).toEqual([
      { ends: ['pump', 'skimmer', 'drain'], perhaps: [] },
      { ends: ['return', 'r1'], perhaps: ['r2'] },
      { ends: ['r2'], perhaps: ['return', 'r1'] },
    ]);
    expect(nextLook(ENDS, looks, dry)).toEqual({ at: 'return', tells: ['r2'] });
    const done = joinsOf(ENDS, [...looks, air('3', 'return', { plugged: ['r1'], bubbled: ['r2'] })]);
    expect([done.settled, done.lines.map((l) => l.ends)]).toEqual([
      true,
      [
        ['pump', 'skimmer', 'drain'],
        ['return', 'r1', 'r2'],
      ],
    ]);
    expect(
      nextLook(ENDS, [...looks, air('3', 'return', { plugged: ['r1'], bubbled: ['r2'] })], dry),
    ).toBeNull();
  });
  test('bubbles that could not be told apart are told by what else is known', () => {
    const looks: Look[] = [
      { id: '1', kind: 'among', at: 'return', of: ['r1', 'drain'] },
      closed('2', 'pump', ['drain'], ['return']),
    ];
    expect(joinsOf(ENDS, looks).bond('return', 'r1')).toBe('joined');
  });
  test('two that clash are named, and no third; the rest says what it says', () => {
    const looks = [
      closed('1', 'pump', ['skimmer'], ['r1']),
      air('2', 'return', { bubbled: ['r1', 'r2'] }),
      air('3', 'pump', { bubbled: ['r1'] }),
    ];
    const joins = joinsOf(ENDS, looks);
    expect(joins.clashes).toEqual([{ looks: ['1', '3'] }]);
    expect([joins.settled, joins.bond('return', 'r1'), joins.bond('pump', 'skimmer')]).toEqual([
      false,
      'joined',
      'open',
    ]);
  });
  test('one pipe or several, seen', () => {
    const one: Look = { id: '1', kind: 'pipe', ends: ['skimmer', 'drain'], joined: true };
    const two: Look = { id: '2', kind: 'pipe', ends: ['skimmer', 'drain', 'r1'], joined: false };
    expect(joinsOf(ENDS, [one]).bond('skimmer', 'drain')).toBe('joined');
    expect(joinsOf(ENDS, [two]).bond('drain', 'r1')).toBe('apart');
    expect(clashes(ENDS, [one, two])).toEqual([{ looks: ['1', '2'] }]);
  });
});

/** A tenth of what `npm run benchmarks` asks of them. */
const POOLS = 100;
const pools = Array.from({ length: POOLS }, (_, i): { pool: Pool; looks: Look[] } => {
  const r = seeded(i + 1);
  const pool = randomPool(r, 2 + (i % 7));
  const wrong = i % 3 === 2;
  return {
    pool,
    looks: Array.from({ length: 1 + Math.floor(r() * 5) }, (_x, k) =>
      randomLook(r, pool, String(k), wrong && k === 1),
    ),
  };
});
describe('against every partition there is', () => {
  const check = ({ pool: { ends }, looks }: (typeof pools)[number]) => {
    const left = bruteForce(ends, looks);
    expect(agree(ends, looks)).toBe(left.length > 0);
    expect(partitions(ends, looks)?.length).toBe(left.length);
    const found = clashes(ends, looks);
    expect(found.length > 0).toBe(left.length === 0);
    const byId = (ids: readonly string[]) => looks.filter((l) => ids.includes(l.id));
    for (const c of found) {
      expect(bruteForce(ends, byId(c.looks))).toEqual([]);
      // leaving any one out, the others agree
      for (const id of c.looks)
        expect(bruteForce(ends, byId(c.looks.filter((x) => x !== id))).length).toBeGreaterThan(0);
    }
    const sound = looks.filter((l) => !found.some((c) => c.looks.includes(l.id)));
    const rest = bruteForce(ends, sound);
    const { bond } = joinsOf(ends, looks);
    ends.forEach((a, i) =>
      ends.forEach((b, k) => {
        const joined = rest.filter((p) => p[i] === p[k]).length;
        expect(bond(a, b)).toBe(joined === rest.length ? 'joined' : joined === 0 ? 'apart' : 'open');
      }),
    );
  };
  test('each pool, with and without a wrong look', () => pools.forEach(check));
  test('a line too many to count is still worked out', () => {
    const many = Array.from({ length: 24 }, (_, i) => `e${i}`);
    expect(partitions(many, [])).toBeNull();
    expect(nextLook(many, [], new Set(['e3']))?.at).toBe('e3');
    expect(nextLook(many, [], new Set())?.tells).toHaveLength(23);
    const r = seeded(7);
    const pool = randomPool(r, 24);
    const looks: Look[] = [];
    for (let next = nextLook(pool.ends, looks, pool.dry); next; next = nextLook(pool.ends, looks, pool.dry))
      looks.push(wholeLine(pool, next.at, String(looks.length)));
    expect(joinsOf(pool.ends, looks).lines).toHaveLength(pool.dry.size);
  });
});
test('the next look is, on average, at most one above the best order there is', () => {
  let above = 0;
  let n = 0;
  for (let i = 0; i < 60; i++) {
    const r = seeded(500 + i);
    const pool = randomPool(r, 3 + (i % 5));
    const looks: Look[] = r() < 0.5 ? [] : [randomLook(r, pool, 'first')];
    const best = leastLooks(bruteForce(pool.ends, looks));
    const before = looks.length;
    for (let next = nextLook(pool.ends, looks, pool.dry); next; next = nextLook(pool.ends, looks, pool.dry))
      looks.push(wholeLine(pool, next.at, String(looks.length)));
    expect(joinsOf(pool.ends, looks).settled).toBe(true);
    above += looks.length - before - best;
    n += 1;
  }
  expect(above / n).toBeLessThanOrEqual(1);
});
