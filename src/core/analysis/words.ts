/** An analysis in plain words: the cause, what speaks for it and against it, and the cheapest move that would tell it from the next. */
import { significantText } from '@/core/quantity/figure';
import { type Analysis, FEWEST_TOLD } from './analyse';
import { type Cause, LEAKS, unread } from './section';

/** How a cause is named in a sentence. */
export const CAUSE_WORDS: Readonly<Record<Cause, string>> = {
  steady: 'nothing that moves it',
  leak: 'a leak',
  temperature: 'warmth',
  'temperature+leak': 'a leak, and warmth',
  stretch: 'pipe that stretches',
  'stretch+leak': 'pipe that stretches, and a leak',
  'let-by': 'a valve that passes',
  'let-by+leak': 'a valve that passes, and a leak',
  air: 'air that is still settling',
  step: 'a draw or a knock',
  stuck: 'a gauge that does not follow',
  moisture: 'moisture inside',
  'moisture+leak': 'moisture inside, and a leak',
};
export const litresPerHour = (m3s: number): number => m3s * 3.6e6;
const two = (v: number): string => (v < 0.01 ? 'below 0.01' : significantText(v, 2));
/** A rate with its interval, as a sentence has it. */
export function rateWords(rate: NonNullable<Analysis['rate']>): string {
  const [value, low, high] = [rate.value, rate.low, rate.high].map((x) => two(litresPerHour(x)));
  return `${value} l/h (${low} to ${high})`;
}
/** The head of the card: the cause that stands out, or that none does. */
export function headline(a: Analysis): string {
  const [first, second] = a.causes;
  const much = a.rate && rateWords(a.rate);
  if (a.readings.t.length < FEWEST_TOLD) return 'Too few readings to name a cause.';
  const way = a.facts.filling === 'vacuum' ? 'Rises' : 'Falls';
  switch (a.told) {
    case 'steady':
      return 'Stands still as far as this gauge can show.';
    case 'leak':
      return `${way} like a leak of ${much}.`;
    case 'temperature':
      return 'Moves as warmth moves it.';
    case 'temperature+leak':
    case 'stretch+leak':
    case 'moisture+leak':
    case 'let-by+leak':
      return `${capital(CAUSE_WORDS[a.told].replace(', and a leak', '').replace('a leak, and ', ''))} is at work, and a leak of ${much} with it.`;
    case 'stretch':
      return 'Falls like pipe that stretches: slower and slower.';
    case 'let-by':
      return 'Rises towards the supply: a valve passes.';
    case 'air':
      return 'Falls like air that is still settling.';
    case 'step':
      return 'One sudden step, and little else: a draw, a valve or a hand.';
    case 'stuck':
      return 'The gauge does not follow any more.';
    case 'moisture':
      return 'Rises fast, then slower, like moisture inside.';
    default:
      // leaks of several kinds together stand out where none of them does alone
      if (a.leaks >= 0.9 && much) return `It leaks, ${much}; what else is at work cannot be told.`;
      return `Cannot tell ${first ? CAUSE_WORDS[first.cause] : 'anything'}${second ? ` from ${CAUSE_WORDS[second.cause]}` : ''}.`;
  }
}
const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);

export interface Told {
  readonly fors: readonly string[];
  readonly against: readonly string[];
}
/** How a display and a length of time are said, in the gauge's unit. */
export interface Saying {
  readonly movement: (reckoned: number) => string;
  readonly minutes: (seconds: number) => string;
}
/** Slopes of the first and the second half, by the readings alone. */
function halves(a: Analysis): readonly [number, number] {
  const { t, y } = a.readings;
  const mid = t[t.length - 1]! / 2;
  const slope = (inside: (t: number) => boolean) => {
    let [n, mt, my, tt, ty] = [0, 0, 0, 0, 0];
    for (let i = 0; i < t.length; i += 1)
      if (inside(t[i]!)) {
        n += 1;
        mt += t[i]!;
        my += y[i]!;
      }
    mt /= n || 1;
    my /= n || 1;
    for (let i = 0; i < t.length; i += 1)
      if (inside(t[i]!)) {
        tt += (t[i]! - mt) ** 2;
        ty += (t[i]! - mt) * (y[i]! - my);
      }
    return tt > 0 ? ty / tt : 0;
  };
  return [slope((s) => s <= mid), slope((s) => s >= mid)];
}
/** What speaks for and against the cause that comes first. */
export function evidence(a: Analysis, say: Saying): Told {
  const { facts, readings } = a;
  const cause = a.causes[0]!.cause;
  const span = readings.t[readings.t.length - 1]!;
  const moved = readings.y[readings.y.length - 1]! - readings.y[0]!;
  const fors: string[] = [];
  const against: string[] = [];
  const [early, late] = halves(a);
  const ratio = Math.abs(early) > 1e-12 ? late / early : 1;
  const clear = Math.abs(moved) > 3 * readings.step;
  if (clear && cause !== 'step' && cause !== 'stuck') {
    const line =
      ratio < 0
        ? 'It turned back half way.'
        : ratio < 0.65
          ? 'It gets slower: the second half moved less than the first.'
          : ratio > 1.5
            ? 'It gets faster: the second half moved more than the first.'
            : 'It goes on evenly: the second half is as steep as the first.';
    const slower = ratio < 0.65;
    const slows: readonly Cause[] = ['temperature', 'stretch', 'air', 'moisture'];
    (slower === slows.includes(cause) || LEAKS.has(cause) ? fors : against).push(line);
  }
  if (facts.perKelvin !== 0 && clear) {
    const k = moved / facts.perKelvin;
    const w = facts.warmth;
    const way = k < 0 ? 'colder' : 'warmer';
    if (w.length >= 2) {
      const seen = w[w.length - 1]!.k;
      const line = `The temperatures that were read explain ${say.movement(seen * facts.perKelvin)} of ${say.movement(moved)}.`;
      const explains = Math.abs(seen / k - 1) < 0.35;
      (explains === (cause === 'temperature') ? fors : against).push(line);
    } else {
      const likely = Math.abs(k) <= 2 * unread(facts, span);
      const size = `${significantText(Math.abs(k), 2)} K ${way} in ${say.minutes(span)}`;
      const line = likely
        ? `${size} would do the same; nobody read a temperature.`
        : `Warmth alone would have needed ${size}.`;
      (likely === (cause === 'temperature') ? fors : against).push(line);
    }
  }
  if ((cause === 'let-by' || cause === 'let-by+leak') && facts.supply !== null)
    fors.push(`Behind the closed valve stand ${say.movement(facts.supply)}: it moves towards that.`);
  if (facts.supply !== null && LEAKS.has(cause) && cause !== 'let-by+leak')
    against.push('A valve that passes could feed a larger leak than this.');
  if (a.correlation > 0.3)
    against.push('Neighbouring readings repeat each other: they count for less than they are.');
  if (readings.t.length < 8)
    against.push(`Only ${readings.t.length} readings: a few more between start and end would say much more.`);
  return { fors, against };
}
