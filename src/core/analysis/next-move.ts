/** The cheapest next move that would tell the two most probable causes apart, with the minutes it costs. Advice. */
import { type Analysis, type Fitted } from './analyse';
import { fit, QUICK } from './fit';
import { likelihoodOf, type Readings } from './noise';
import { type Cause, LEAKS } from './section';

export interface Move {
  readonly text: string;
  /** Minutes of hands and of waiting. */
  readonly minutes: number;
}
/** Odds at which one cause is told from another: 20 to 1. */
const ODDS = Math.log(20);
const TRIED = [2, 5, 10, 20, 30, 60, 120];
const SOAP = 3;
const LOG = 2;

/** How long it takes until the readings of one course can no longer be the other's, min; null: two hours are not enough. */
export function minutesToTell(a: Analysis, first: Fitted, second: Fitted): number | null {
  const { t, y, weight, step } = a.readings;
  const n = t.length;
  const each = Math.max(1, t[n - 1]! / Math.min(n, 40));
  for (const minutes of TRIED) {
    const more = Math.min(60, Math.ceil((minutes * 60) / each));
    const times = Float64Array.of(
      ...t,
      ...Array.from({ length: more }, (_, i) => t[n - 1]! + ((i + 1) * minutes * 60) / more),
    );
    const course = new Float64Array(times.length);
    first.course.mean(first.fit.x, times, course);
    const readings: Readings = {
      t: times,
      y: course.map((m, i) => (i < n ? y[i]! : m)),
      weight: Float64Array.from(times, (_, i) => (i < n ? weight[i]! : 1)),
      step: step * 1e-3,
    };
    const like = likelihoodOf(readings, Math.hypot(a.sigma, step / Math.sqrt(12)), 1, Infinity);
    const [one, other] = [first, second].map((f) => fit(readings, like, f.course, [f.fit.x], QUICK));
    if (one && other && one.evidence - other.evidence > ODDS) return minutes;
  }
  return null;
}
const has = (pair: readonly Cause[], ...of: readonly Cause[]) => of.some((c) => pair.includes(c));

/** @returns null where nothing more is needed: it stands still */
export function nextMove(a: Analysis): Move | null {
  const first = a.causes[0]!.cause;
  const second = a.causes[1]?.cause ?? first;
  const pair: Cause[] = a.told ? [a.told] : [first, second];
  if (a.told === 'steady') return null;
  if (has(pair, 'stuck'))
    return {
      text: 'Tap the gauge, let a little out and watch whether it follows; if not, connect another gauge.',
      minutes: 3,
    };
  if (has(pair, 'step'))
    return { text: 'Ask who drew or touched something, then hold again with nobody at it.', minutes: 2 };
  if (a.told && has(pair, 'let-by', 'let-by+leak'))
    return {
      text: 'Soap the barrel of the closed valve, then a let-by hold started at a lower pressure: two slopes tell valve and leak apart.',
      minutes: 5,
    };
  if ((a.told && LEAKS.has(a.told)) || a.leaks >= 0.9)
    return { text: 'Soap your own kit first, then the joints you can reach.', minutes: SOAP };
  if (a.told === 'stretch' || a.told === 'air' || a.told === 'moisture') return waiting(a, 5);
  const warmth = has(pair, 'temperature', 'temperature+leak');
  if (warmth && a.facts.perKelvin !== 0 && a.facts.warmth.length < 2)
    return {
      text: 'Read the pipe’s temperature now and again before the end: it tells warmth from a leak.',
      minutes: LOG,
    };
  if (a.told === 'temperature')
    return { text: 'Let it settle until pipe and room are alike, then hold again.', minutes: 15 };
  if (has(pair, 'let-by', 'let-by+leak'))
    return {
      text: 'Start a let-by hold lower: what the valve passes grows, what leaks gets less.',
      minutes: 5,
    };
  return waiting(a, 10);
}
/** Waits until the two most probable courses part, where two hours are enough. */
function waiting(a: Analysis, usual: number): Move {
  const one = a.fits[0];
  const other = one && a.fits.find((f) => f.course.cause !== one.course.cause);
  const minutes = one && other ? minutesToTell(a, one, other) : usual;
  return minutes === null
    ? {
        text: 'Waiting would not tell them apart within two hours: isolate a part and hold it by itself.',
        minutes: 10,
      }
    : { text: `Wait ${minutes} min more and look again: by then the courses have parted.`, minutes };
}
