import { ofProcess } from '@/database/process';

interface Shift {
  ms: number;
  /** Between one setting and the next: the server tells nobody the time. */
  moving?: boolean;
}
const shift = ofProcess<Shift>('clock', () => ({ ms: 0 }));

/** Whether the server was started with a clock that tests may shift; every page says so, and everything made under it. */
export const clockIsAdjustable = (): boolean => process.env.VAST_TEST_CLOCK === '1';
/** The program that plays the demo in sets its own clock to the days of the demo. No server does. */
const playsDemo = (): boolean => process.env.VAST_TEST_CLOCK === 'demo';
/** The server's one clock, ms UTC. */
export const now = (): number => Date.now() + (clockIsAdjustable() || playsDemo() ? shift.ms : 0);
/** How far the clock is shifted, ms. */
export const clockShift = (): number => shift.ms;
/** Shifts the clock of a server started for tests. @throws Error on any other server */
export function shiftClock(ms: number, moving = false): void {
  if (!clockIsAdjustable() && !playsDemo()) throw new Error('This server’s clock cannot be shifted.');
  shift.ms = ms;
  shift.moving = moving;
}
/** Whether the clock is being moved just now, together with a browser's: no device may set its own by it meanwhile. */
export const clockMoves = (): boolean => shift.moving === true;
