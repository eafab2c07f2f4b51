/** Choices by a seed and a place in the row, so that the same question comes again for the same seed. */
import { uniform } from '@/core/simulation/noise';

export class Pick {
  private n = 0;
  constructor(private readonly seed: number) {}
  /** In [0, 1). */
  next = (): number => uniform(this.seed, this.n++);
  between = (low: number, high: number): number => low + (high - low) * this.next();
  whole = (below: number): number => Math.floor(this.next() * below);
  one = <T>(of: readonly T[]): T => of[this.whole(of.length)]!;
  /** The same things in another order (Fisher-Yates). */
  mixed<T>(of: readonly T[]): T[] {
    const all = [...of];
    for (let i = all.length - 1; i > 0; i -= 1) {
      const j = this.whole(i + 1);
      [all[i], all[j]] = [all[j]!, all[i]!];
    }
    return all;
  }
}
