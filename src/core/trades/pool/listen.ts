/**
 * Where along a run air escapes, from how loud it was at spots along it. A model with stated doubt, advice only: it says where to
 * listen next and how wide the place still is, never that there is a leak.
 */

/** How clear it was: a clear gurgle tells more than a murmur that could come from anywhere. */
export const CLARITY = {
  clear: { words: 'clear: single bubbles told apart', spread: 0.8 },
  fair: { words: 'fair', spread: 1.3 },
  murmur: { words: 'a murmur', spread: 2.2 },
} as const;
export type Clarity = keyof typeof CLARITY;
export interface Spot {
  /** m along the run from its beginning */
  readonly along: number;
  /** 0 nothing to 10 as loud as can be */
  readonly loud: number;
  readonly clear: Clarity;
}
export interface Fit {
  /** The most likely place, m */
  readonly best: number;
  /** The shortest stretch that holds 90 %, m */
  readonly from: number;
  readonly to: number;
  /** How likely each place is: m along the run, and its share of the most likely one's. */
  readonly course: readonly (readonly [along: number, share: number])[];
}
/** Part of the likelihood that the stretch holds. */
const HELD = 0.9;
const PLACES = 120;
/** How loud it is over the leak, and within how far it falls to a third: what soil and depth allow. House figures, m. */
export const OVER = [3, 5, 7, 9, 11] as const;
export const REACH = [0.4, 0.7, 1.2, 2, 3.5] as const;
/** Spots closer than this to one that was heard tell nothing new. m */
const APART = 0.3;
const LOUDEST = 10;

/** Loudness at a distance, before it is heard. @param over at the leak @param reach m @param distance m */
export const loudness = (over: number, reach: number, distance: number): number =>
  over * Math.exp(-Math.abs(distance) / reach);
/** Share of a bell curve below x. Source: Abramowitz and Stegun 26.2.17, error under 1e-7 */
function below(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    0.3989422804014327 *
    Math.exp((-x * x) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}
/** Steps in which true loudness is tabled. */
const STEPS = 20;
/**
 * How likely a loudness is heard as each whole number, by clarity and true loudness in steps: the ends of the scale take all
 * beyond them.
 */
const HEARD = Object.fromEntries(
  Object.entries(CLARITY).map(([clear, { spread }]) => [
    clear,
    Array.from({ length: LOUDEST + 1 }, (_, loud) =>
      Float64Array.from({ length: Math.max(...OVER) * STEPS + 2 }, (_x, k) => {
        const high = loud === LOUDEST ? 1 : below((loud + 0.5 - k / STEPS) / spread);
        const low = loud === 0 ? 0 : below((loud - 0.5 - k / STEPS) / spread);
        return Math.max(high - low, 1e-12);
      }),
    ),
  ]),
) as Record<Clarity, Float64Array[]>;
interface Model {
  readonly over: number;
  readonly reach: number;
}
const MODELS: readonly Model[] = OVER.flatMap((over) => REACH.map((reach) => ({ over, reach })));

/**
 * The place by everything heard: all loudnesses over the leak and all reaches weighed alike, likelihoods of whole numbers as
 * they are heard.
 * @param length of the run, m @returns null where nothing was heard above 0 anywhere: silence has no place
 * @throws RangeError on a run without length, a spot outside it or a loudness off the scale
 */
export function fitOf(spots: readonly Spot[], length: number): Fit | null {
  const heard = weigh(spots, length);
  if (!heard) return null;
  const { places, own, sum } = heard;
  const share = own.map((w) => w / sum);
  const top = share.indexOf(Math.max(...share));
  const { from, to } = shortest(share);
  return {
    best: places[top]!,
    from: places[from]!,
    to: places[to]!,
    course: places.map((x, i) => [x, share[i]! / share[top]!] as const),
  };
}
interface Heard {
  readonly places: readonly number[];
  /** Of each place, how likely it makes what was heard by each model; the sum over the models; the sum of all. */
  readonly weight: readonly Float64Array[];
  readonly own: readonly number[];
  readonly sum: number;
}
/** @throws RangeError as fitOf */
function weigh(spots: readonly Spot[], length: number): Heard | null {
  if (!(length > 0)) throw new RangeError('The run needs a length: measure it along the pipe.');
  for (const s of spots) {
    if (!(s.along >= 0) || s.along > length)
      throw new RangeError(`A spot at ${s.along} m does not lie on a run of ${length} m.`);
    if (!Number.isInteger(s.loud) || s.loud < 0 || s.loud > LOUDEST)
      throw new RangeError('Loudness goes in whole steps from 0 to 10.');
  }
  if (!spots.some((s) => s.loud > 0)) return null;
  const places = Array.from({ length: PLACES + 1 }, (_, i) => (i * length) / PLACES);
  const weight = places.map((x) =>
    Float64Array.from(MODELS, ({ over, reach }) => {
      let w = 1;
      for (const s of spots)
        w *= HEARD[s.clear][s.loud]![Math.round(loudness(over, reach, s.along - x) * STEPS)]!;
      return w;
    }),
  );
  const own = weight.map((row) => row.reduce((a, b) => a + b, 0));
  return { places, weight, own, sum: own.reduce((a, b) => a + b, 0) };
}
/** The shortest stretch that holds enough. */
function shortest(share: readonly number[]): { from: number; to: number } {
  let best = { from: 0, to: share.length - 1 };
  let from = 0;
  let held = 0;
  share.forEach((s, to) => {
    held += s;
    while (held - share[from]! >= HELD) held -= share[from++]!;
    if (held >= HELD && to - from < best.to - best.from) best = { from, to };
  });
  return best;
}
/**
 * Where to listen next, m: where places that are still possible sound most unlike each other, against what hearing blurs. null:
 * nothing was heard yet, or another spot would tell hardly anything. @throws RangeError as fitOf
 */
export function nextSpot(spots: readonly Spot[], length: number): number | null {
  const heard = weigh(spots, length);
  if (!heard) return null;
  const { places, weight, own, sum } = heard;
  const live = places.flatMap((_, i) => (own[i]! / sum > 1e-6 ? [i] : []));
  let best: number | null = null;
  let most = CLARITY.fair.spread ** 2 / 4;
  for (let k = 0; k < places.length; k += 4) {
    const at = places[k]!;
    if (spots.some((s) => Math.abs(s.along - at) < APART)) continue;
    // what a place makes of it, whatever the model: its mean; how far these means lie apart
    let mean = 0;
    let square = 0;
    for (const i of live) {
      let loud = 0;
      MODELS.forEach(({ over, reach }, m) => {
        loud += weight[i]![m]! * loudness(over, reach, at - places[i]!);
      });
      mean += loud;
      square += (loud * loud) / own[i]!;
    }
    const spread = square / sum - (mean / sum) ** 2;
    if (spread > most) {
      most = spread;
      best = at;
    }
  }
  return best;
}
