import { inTurn } from './limits';

test('work is done so many at a time, in the order it came; too much waiting is refused; a failure gives its place on', async () => {
  let running = 0;
  let most = 0;
  const order: number[] = [];
  const ends: (() => void)[] = [];
  const work = (n: number) =>
    inTurn('t', { atOnce: 2, waiting: 3 }, async () => {
      running += 1;
      most = Math.max(most, running);
      order.push(n);
      await new Promise<void>((r) => ends.push(r));
      running -= 1;
      if (n === 1) throw new Error('spoilt');
      return n;
    });
  const all = [0, 1, 2, 3, 4].map((n) => work(n).catch((e: Error) => e.message));
  await expect(work(5)).rejects.toMatchObject({ status: 503 });
  for (let i = 0; i < 5; i++) {
    await new Promise((r) => setImmediate(r));
    ends.shift()!();
  }
  expect(await Promise.all(all)).toEqual([0, 'spoilt', 2, 3, 4]);
  expect([most, order]).toEqual([2, [0, 1, 2, 3, 4]]);
  const after = work(6);
  await new Promise((r) => setImmediate(r));
  ends.shift()!();
  expect(await after).toBe(6);
});
