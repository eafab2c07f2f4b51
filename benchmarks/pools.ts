/** Lines of pools: inference against every partition, the next look against the best order, places against walks. */
import { bruteForce, leastLooks, randomLook, randomPool, seeded, wholeLine } from '@/core/testing/pools';
import { coverage } from '@/core/testing/walks';
import { agree, joinsOf, type Look, nextLook } from '@/core/trades/pool/joins';
import type { Report } from './run';

const POOLS = 1000;
const WALKS = 2000;
/** A law of sound that the fit does not know: what a stretch is worth where the model is wrong. */
const otherLaw = (over: number, reach: number, distance: number) => over / (1 + (distance / reach) ** 2);

export function pools(report: Report): void {
  let wrong = 0;
  let slowest = 0;
  for (let i = 0; i < POOLS; i++) {
    const r = seeded(i + 1);
    const { ends, ...rest } = randomPool(r, 2 + (i % 7));
    const looks = Array.from({ length: 1 + Math.floor(r() * 5) }, (_, k) =>
      randomLook(r, { ends, ...rest }, String(k), i % 3 === 2 && k === 1),
    );
    const began = performance.now();
    const joins = joinsOf(ends, looks);
    slowest = Math.max(slowest, performance.now() - began);
    const clashing = new Set(joins.clashes.flatMap((c) => c.looks));
    const left = bruteForce(
      ends,
      looks.filter((l) => !clashing.has(l.id)),
    );
    const same = ends.every((a, x) =>
      ends.every((b, y) => {
        const joined = left.filter((p) => p[x] === p[y]).length;
        return joins.bond(a, b) === (joined === left.length ? 'joined' : joined === 0 ? 'apart' : 'open');
      }),
    );
    if (!same || agree(ends, looks) !== bruteForce(ends, looks).length > 0) wrong += 1;
  }
  report(`pools of up to 8 ends judged otherwise, of ${POOLS}`, wrong, '');
  report('lines of a pool, slowest', slowest, 'ms');
  let above = 0;
  const orders = 200;
  for (let i = 0; i < orders; i++) {
    const r = seeded(5000 + i);
    const pool = randomPool(r, 3 + (i % 5));
    const looks: Look[] = r() < 0.5 ? [] : [randomLook(r, pool, 'first')];
    const best = leastLooks(bruteForce(pool.ends, looks));
    const before = looks.length;
    for (let next = nextLook(pool.ends, looks, pool.dry); next; next = nextLook(pool.ends, looks, pool.dry))
      looks.push(wholeLine(pool, next.at, String(looks.length)));
    above += looks.length - before - best;
  }
  report('looks above the best order, on average', above / orders, '');
  const held = coverage(seeded(16), WALKS) * 100;
  report(`places inside their 90 % stretch, of ${WALKS} walks`, held, '%');
  report('that share beside 90 %', Math.abs(held - 90), '%');
  report('the same under another law of sound', coverage(seeded(16), WALKS, otherLaw) * 100, '%');
}
