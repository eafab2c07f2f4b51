/** What every simulated installation is: something that is worked by hand, passes through time, and shows itself on a gauge. */
export interface World<A extends Act = Act, V = unknown> {
  /** Lets time pass. @param to ms; earlier than now: nothing happens */
  advance(to: number): void;
  /** Something is done at the moment that stands. */
  act(action: A): void;
  /** Digits that the gauge shows now. */
  display(): number;
  /** Digits of a second display: null below its range; undefined where there is none. */
  flow(): number | null | undefined;
  /** Tenths of a degree C on the probe; undefined where the stand-in has none. */
  probe(): number | undefined;
  /** What a person at the installation can see: never what is hidden. */
  view(): V;
  /** What nobody at the installation could know. */
  truth(): TruthNow;
}
export interface Act {
  readonly at: number;
}
export interface TruthNow {
  /** What a perfect gauge would show, in the display's own steps. */
  readonly steps: number;
  /** K above the beginning. */
  readonly warmth: number;
  /** m3/s that leaves what the gauge stands on; null where no such figure is kept. */
  readonly leaking: number | null;
}

/** Brings a world to a moment through what was done up to then. @param from how many of the actions it has seen @returns how many it has now */
export function bring<A extends Act>(world: World<A>, actions: readonly A[], at: number, from = 0): number {
  let next = from;
  for (; next < actions.length && actions[next]!.at <= at; next += 1) {
    world.advance(actions[next]!.at);
    world.act(actions[next]!);
  }
  world.advance(at);
  return next;
}
/** Asks a world at several moments, by one run through. @param at ms, ascending */
export function along<A extends Act, V, T>(
  world: World<A, V>,
  actions: readonly A[],
  at: readonly number[],
  ask: (world: World<A, V>, at: number) => T,
): T[] {
  const inOrder = [...actions].sort((x, y) => x.at - y.at);
  let seen = 0;
  return at.map((moment) => {
    seen = bring(world, inOrder, moment, seen);
    return ask(world, moment);
  });
}
