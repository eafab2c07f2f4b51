import { lido } from '@/core/testing/lido';
import { poolEnds } from '@/core/trades/pool/ends';
import { joinsOf, type Look, nextLook } from '@/core/trades/pool/joins';
import { hiddenPool, seenFrom } from './pool-joins';

const ends = poolEnds(lido());
const ids = ends.map((e) => e.id);
const dry = new Set(ends.filter((e) => e.dry).map((e) => e.id));

test('the same run has the same lines, another one others; every outlet belongs to a connection', () => {
  const pool = hiddenPool('run-1', ends);
  expect(hiddenPool('run-1', ends)).toEqual(pool);
  expect(
    Array.from({ length: 12 }, (_, i) => [...hiddenPool(`run-${i}`, ends).line.values()].join()),
  ).not.toEqual(Array.from({ length: 12 }, () => [...pool.line.values()].join()));
  expect(ids.every((id) => dry.has(pool.line.get(id)!))).toBe(true);
  expect(
    hiddenPool(
      'x',
      ends.filter((e) => !e.dry),
    ).line.size,
  ).toBe(0);
});
test.each(Array.from({ length: 20 }, (_, i) => `run-${i}`))(
  '%s: whoever looks where the bench says finds its lines by air alone',
  (run) => {
    const pool = hiddenPool(run, ends);
    const looks: Look[] = [];
    for (let n = 0; n < 40; n++) {
      const next = nextLook(ids, looks, dry);
      if (!next) break;
      const plugged = ids.filter(
        (id) => id !== next.at && joinsOf(ids, looks).bond(next.at, id) === 'joined',
      );
      const { on, off, stood, elsewhere } = seenFrom(pool, 'air', next.at, plugged);
      // an outlet that nobody listed is plugged once it is found: then the line stands
      const found = elsewhere !== '';
      looks.push({
        id: String(n),
        kind: 'air',
        at: next.at,
        plugged: plugged.filter((id) => !dry.has(id)),
        bubbled: on,
        still: [...off, ...[...dry].filter((d) => d !== next.at)],
        stood: stood || found,
      });
    }
    const { lines, settled, clashes } = joinsOf(ids, looks);
    expect([settled, clashes]).toEqual([true, []]);
    for (const l of lines) expect(new Set(l.ends.map((e) => pool.line.get(e))).size).toBe(1);
    expect(lines).toHaveLength(dry.size);
  },
);
test('closing a line quiets all of it and nothing else', () => {
  const pool = hiddenPool('run-3', ends);
  const from = [...dry][0]!;
  const { on, off } = seenFrom(pool, 'closed', from, []);
  expect(on.every((id) => pool.line.get(id) === from)).toBe(true);
  expect(off.some((id) => pool.line.get(id) === from)).toBe(false);
  expect(on.length + off.length).toBe(ids.length - dry.size);
});
