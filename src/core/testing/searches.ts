/** Other ways to look for the part that leaks, in expected minutes: what the least is compared with. */
import { bits, type Isolation, type Splitting, telling, weightOf } from '@/core/splitting/order';

/** Expected minutes of a way that picks an isolation for what is left. */
function minutesOf(
  s: Splitting,
  pick: (mask: number, list: readonly Isolation[]) => Isolation | null,
): number {
  const go = (mask: number): number => {
    const isolation = pick(mask, telling(s, mask));
    if (!isolation) return 0;
    const share = weightOf(s.suspicion, isolation.holds & mask) / weightOf(s.suspicion, mask);
    return isolation.minutes + share * go(isolation.holds & mask) + (1 - share) * go(mask & ~isolation.holds);
  };
  return go(2 ** s.suspicion.length - 1);
}
/** One part after the other: always the isolation that leaves out, or holds, the fewest. */
export const oneByOne = (s: Splitting): number =>
  minutesOf(s, (mask, list) => {
    const alone = (i: Isolation) => Math.min(bits(i.holds & mask), bits(mask & ~i.holds));
    return [...list].sort((a, b) => alone(a) - alone(b))[0] ?? null;
  });
/** Always as near to half of the parts as it goes. */
export const halving = (s: Splitting): number =>
  minutesOf(s, (mask, list) => {
    const off = (i: Isolation) => Math.abs(bits(i.holds & mask) - bits(mask) / 2);
    return [...list].sort((a, b) => off(a) - off(b))[0] ?? null;
  });
