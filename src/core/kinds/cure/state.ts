/** What was cut and coupled in a stage, and how long it cures. */
export interface Cure {
  readonly visit: number;
  readonly title: string;
  readonly cuts: number;
  readonly couplings: number;
  readonly means: string;
  readonly minutes: number;
  readonly table: string;
  /** When the last joint was made, ms UTC. */
  readonly madeAt: number;
  /** When the time was over and somebody said so, or it was left for another day. */
  ended?: { readonly at: number; readonly cured: boolean };
}
export const newCures = (): Cure[] => [];
