/** Other ways to look for the part that leaks, in expected minutes: what the least is compared with. */
import type { Isolation, Splitting } from '@/core/splitting/order';

const count = (m: number): number => {
  let n = 0;
  for (; m; m &= m - 1) n += 1;
  return n;
};
/** Expected minutes of a way that picks an isolation for what is left. */
function minutesOf(
  s: Splitting,
  pick: (mask: number, telling: readonly Isolation[]) => Isolation | null,
): number {
  const weight = (m: number) => s.suspicion.reduce((sum, w, i) => (m & (1 << i) ? sum + w : sum), 0);
  const go = (mask: number): number => {
    const isolation = pick(
      mask,
      s.isolations.filter((i) => (i.holds & mask) !== 0 && (i.holds & mask) !== mask),
    );
    if (!isolation) return 0;
    const share = weight(isolation.holds & mask) / weight(mask);
    return isolation.minutes + share * go(isolation.holds & mask) + (1 - share) * go(mask & ~isolation.holds);
  };
  return go(2 ** s.suspicion.length - 1);
}
/** One part after the other: always the isolation that leaves out, or holds, the fewest. */
export const oneByOne = (s: Splitting): number =>
  minutesOf(s, (mask, telling) => {
    const alone = (i: Isolation) => Math.min(count(i.holds & mask), count(mask & ~i.holds));
    return [...telling].sort((a, b) => alone(a) - alone(b))[0] ?? null;
  });
/** Always as near to half of the parts as it goes. */
export const halving = (s: Splitting): number =>
  minutesOf(s, (mask, telling) => {
    const off = (i: Isolation) => Math.abs(count(i.holds & mask) - count(mask) / 2);
    return [...telling].sort((a, b) => off(a) - off(b))[0] ?? null;
  });
