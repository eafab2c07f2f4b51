/**
 * A section left under pressure with a gauge on it, read by whoever passes: what the readings say about when it was
 * lost, and who worked there then. Entries are never changed: a wrong one is corrected by a later one.
 * Source: house practice of a watch
 */
import { compare, showExact, subtract, toNumber, type Exact } from '@/core/quantity/exact';
import { convert, toKelvin } from '@/core/quantity/unit';

export interface WatchFacts {
  readonly title: string;
  readonly purpose: 'watch' | 'screed';
  readonly place: { readonly site: string; readonly system: string };
  readonly gauge: { readonly name: string; readonly serial: string; readonly resolution: Exact };
  /** What it was left at. */
  readonly figure: Exact;
  readonly temperature?: Exact;
  /** A fall by this much or more, for temperature as far as it is known, is a loss. */
  readonly fall: Exact;
  readonly fallSource: string;
  /** What a kelvin does to the reading, Pa/K; null where it is not known. */
  readonly perKelvin: number | null;
  readonly startedAt: number;
  readonly zone: string;
  /** Day by which somebody must say that it is over. */
  readonly until: string;
  /** Who to call when it falls. */
  readonly call: string;
}
export type WatchEntry = {
  readonly id: string;
  /** ms, when it was entered */ readonly at: number;
  readonly who: string;
  readonly trade: string;
  readonly by: 'link' | 'member';
} & (
  | { readonly kind: 'reading'; readonly figure: Exact; readonly temperature?: Exact; readonly text: string }
  /** Somebody worked there: no figure. */
  | { readonly kind: 'on-site'; readonly text: string }
  | { readonly kind: 'correction'; readonly of: string; readonly figure: Exact; readonly text: string }
  | { readonly kind: 'end'; readonly text: string }
);
export interface WatchReading {
  readonly id: string;
  readonly at: number;
  readonly figure: Exact;
  /** Change with the temperature's part taken out, gauge's unit; the raw change where no temperature was given. */
  readonly change: number;
  readonly corrected: boolean;
  readonly who: string;
  readonly trade: string;
  readonly text: string;
  readonly lost: boolean;
  /** Raw figure and the one without the temperature's part disagree about a loss: to be looked at. */
  readonly doubt: boolean;
  readonly was?: { readonly figure: Exact; readonly why: string };
}
export interface WatchState {
  readonly readings: readonly WatchReading[];
  readonly word: 'holds' | 'lost' | 'ended';
  /** "Held until ..., lost between ... and ...", as moments. */
  readonly heldUntil: number;
  readonly lost: { readonly from: number; readonly to: number } | null;
  /** Who was there in that span, newest last. */
  readonly onSite: readonly {
    readonly at: number;
    readonly who: string;
    readonly trade: string;
    readonly text: string;
  }[];
  readonly ended: { readonly at: number; readonly who: string; readonly text: string } | null;
}

/**
 * What a reading says once the temperature's part is taken out. Raw where either temperature is missing.
 * @returns change in the gauge's unit
 */
export function watchChange(
  facts: Pick<WatchFacts, 'figure' | 'temperature' | 'perKelvin'>,
  reading: { readonly figure: Exact; readonly temperature?: Exact },
): { change: number; corrected: boolean } {
  const raw = toNumber(subtract(reading.figure, facts.figure));
  if (!facts.temperature || !reading.temperature || facts.perKelvin === null)
    return { change: raw, corrected: false };
  const kelvin =
    toKelvin(toNumber(reading.temperature), reading.temperature.unit) -
    toKelvin(toNumber(facts.temperature), facts.temperature.unit);
  return { change: raw - convert(facts.perKelvin * kelvin, 'Pa', facts.figure.unit), corrected: true };
}

/** What the log of a watch says. Order of arrival does not matter: moments do, then ids. */
export function watchState(facts: WatchFacts, log: readonly WatchEntry[]): WatchState {
  const sorted = [...log].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
  const corrections = new Map<string, Extract<WatchEntry, { kind: 'correction' }>>();
  for (const e of sorted) if (e.kind === 'correction') corrections.set(e.of, e);
  const fall = toNumber(facts.fall);
  const readings = sorted.flatMap((e): WatchReading[] => {
    if (e.kind !== 'reading') return [];
    const right = corrections.get(e.id);
    const figure = right?.figure ?? e.figure;
    const { change, corrected } = watchChange(facts, {
      figure,
      ...(e.temperature ? { temperature: e.temperature } : {}),
    });
    const raw = compare(subtract(facts.figure, figure), facts.fall) >= 0;
    // raw figures are compared exactly; what is corrected is physics and has rounding
    const clean = corrected ? -change >= fall - 1e-9 : raw;
    const lost = raw && clean;
    return [
      {
        id: e.id,
        at: e.at,
        figure,
        change,
        corrected,
        who: e.who,
        trade: e.trade,
        text: e.text,
        lost,
        doubt: raw !== clean,
        ...(right ? { was: { figure: e.figure, why: right.text } } : {}),
      },
    ];
  });
  const end = sorted.find((e) => e.kind === 'end');
  const first = readings.findIndex((r) => r.lost);
  const held = first < 0 ? readings[readings.length - 1] : readings[first - 1];
  const heldUntil = held?.at ?? facts.startedAt;
  const lost = first < 0 ? null : { from: heldUntil, to: readings[first]!.at };
  return {
    readings,
    word: end ? 'ended' : lost ? 'lost' : 'holds',
    heldUntil,
    lost,
    onSite: lost
      ? sorted
          .filter((e) => e.kind !== 'correction' && e.kind !== 'end' && e.at >= lost.from && e.at <= lost.to)
          .map((e) => ({ at: e.at, who: e.who, trade: e.trade, text: 'text' in e ? e.text : '' }))
      : [],
    ended: end?.kind === 'end' ? { at: end.at, who: end.who, text: end.text } : null,
  };
}

/** Default fall that counts: a tenth of what it was left at, at least two steps of the gauge. House figure. */
export function watchFall(figure: Exact, resolution: Exact): { fall: Exact; source: string } {
  const tenth: Exact = { digits: Math.ceil(figure.digits / 10), scale: figure.scale, unit: figure.unit };
  const steps: Exact = { digits: resolution.digits * 2, scale: resolution.scale, unit: resolution.unit };
  const fall = compare(tenth, steps) >= 0 ? tenth : steps;
  return { fall, source: `House figure: a tenth of ${showExact(figure)}, at least two display steps` };
}
