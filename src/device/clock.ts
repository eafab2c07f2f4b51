/** The device's one clock, ms UTC; tests replace the browser's. */
export const now = (): number => Date.now();
/** The zone this device stands in, IANA name. */
export const deviceZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
/** Monotonic ms since the page was loaded. */
export const mono = (): number => Math.max(0, Math.round(performance.now()));

const KEY = 'vast-stone.clock-offset';
let offset: number | null = null;

/** Server minus device, ms, as last measured; kept over restarts of the browser. */
export function clockOffset(): number {
  if (offset === null) offset = Number(globalThis.localStorage?.getItem(KEY) ?? 0) || 0;
  return offset;
}
/** Learns the offset from an answer: the server's moment against the middle of the round trip. Jitter under a second is kept out. */
export function learnOffset(serverNow: number, sentAt: number, receivedAt: number): void {
  const measured = Math.round(serverNow - (sentAt + receivedAt) / 2);
  const roundTrip = receivedAt - sentAt;
  if (roundTrip > 5000) return;
  if (Math.abs(measured - clockOffset()) < Math.max(300, roundTrip)) return;
  offset = measured;
  globalThis.localStorage?.setItem(KEY, String(measured));
}
const AHEAD = 'vast-stone.ahead.';
let ahead = 0;
/** The moment on the server's line at which the clock of that run stands; null: it goes. */
let stands: number | null = null;
/** Time that was passed at once in the practice run that stands open, ms: its clock goes by so much more. */
export const aheadNow = (): number => (stands === null ? ahead : stands - now() - clockOffset());
/** A bench opens, or another is left (null): its clock stands where it stood on this device. */
export function recallAhead(run: string | null): void {
  ahead = run ? Number(globalThis.sessionStorage?.getItem(AHEAD + run) ?? 0) || 0 : 0;
  stands = null;
}
/** @param at where its clock stands meanwhile, because the one who trains has stopped it */
export function setAhead(run: string, ms: number, at: number | null = null): void {
  ahead = ms;
  stands = at;
  globalThis.sessionStorage?.setItem(AHEAD + run, String(ms));
}
/** The present moment on the server's line. */
export const serverNow = (): number => now() + clockOffset() + aheadNow();
