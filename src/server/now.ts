interface Shift {
  ms: number;
}
const shift = ((globalThis as { vastClock?: Shift }).vastClock ??= { ms: 0 });

/** Whether the server was started with a clock that tests may shift; a banner says so on every page. */
export const clockIsAdjustable = (): boolean => process.env.VAST_TEST_CLOCK === '1';
/** The server's one clock, ms UTC. */
export const now = (): number => Date.now() + (clockIsAdjustable() ? shift.ms : 0);
/** How far the clock is shifted, ms. */
export const clockShift = (): number => shift.ms;
/** Shifts the clock of a server started for tests. @throws Error on any other server */
export function shiftClock(ms: number): void {
  if (!clockIsAdjustable()) throw new Error('This server’s clock cannot be shifted.');
  shift.ms = ms;
}
