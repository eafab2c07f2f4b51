/** Numbers that follow from a seed and a counter: no stream to keep, so that a simulation resumes anywhere. */

/** A uniform number in [0, 1), by a 32-bit integer hash. */
export function uniform(seed: number, n: number): number {
  let x = (seed ^ Math.imul(n + 1, 0x9e3779b1)) >>> 0;
  x = Math.imul(x ^ (x >>> 16), 0x21f0aaad);
  x = Math.imul(x ^ (x >>> 15), 0x735a2d97);
  return ((x ^ (x >>> 15)) >>> 0) / 4294967296;
}
/** One of a list by a uniform number; undefined of none. */
export const pickOf = <T>(list: readonly T[], at: number): T | undefined =>
  list[Math.floor(at * list.length)];
/** A standard normal number (Box-Muller). */
export function normal(seed: number, n: number): number {
  const u = Math.max(uniform(seed, 2 * n), 1e-12);
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * uniform(seed, 2 * n + 1));
}
