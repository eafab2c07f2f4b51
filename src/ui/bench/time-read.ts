/**
 * The moment somebody means by a time of day: the newest one that is past, today's or yesterday's, in the device's own zone. A
 * run over midnight has readings on both sides of it.
 * @param typed like 14:05 or 14:05:30  @param now, began when it is typed and when the run began, UTC ms
 * @throws Error saying what to do: no time, or one that lies outside the run
 */
export function timeRead(typed: string, now: number, began: number): number {
  if (!/^\d\d?:\d\d(:\d\d)?$/.test(typed)) throw new Error('Type the time of the reading, like 14:05:30.');
  const [h, m, s] = typed.split(':').map(Number) as [number, number, number | undefined];
  const when = new Date(now);
  when.setHours(h, m, s ?? 0, 0);
  if (when.getTime() > now) when.setDate(when.getDate() - 1);
  if (when.getTime() >= began) return when.getTime();
  const clock = (t: number) => new Date(t).toTimeString().slice(0, 8);
  throw new Error(
    `This run has not had that time: it began at ${clock(began)}, and it is ${clock(now)} now. Type when the gauge was read.`,
  );
}
