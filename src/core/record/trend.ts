/** Figures of a record that are worth following over the years on one system. */
import type { Plan } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { convert, type Unit } from '@/core/quantity/unit';
import type { RunState } from '@/core/run/state';
import type { Verdict } from '@/core/verdict/verdict';

export type TrendKey = 'leak' | 'lock-up' | 'make-up' | 'decay';
/** One figure in the unit its course over time is drawn in. */
export interface TrendFigure {
  readonly key: TrendKey;
  readonly value: number;
  readonly unit: Unit;
}
export const TREND_WORDS: Record<TrendKey, string> = {
  leak: 'leak rate as measured',
  'lock-up': 'lock-up pressure',
  'make-up': 'make-up at test pressure',
  decay: 'decay loss',
};
const HOUR_MS = 3_600_000;

/**
 * What a finished run adds to the trends of its system: leak rate (l/h), lock-up (mbar), make-up and decay loss (l/h).
 * Practice adds nothing.
 */
export function trendFigures(plan: Plan, state: RunState, verdict: Pick<Verdict, 'leakRate'>): TrendFigure[] {
  if (plan.practice) return [];
  const holds = state.visits.flatMap((v) => v.holds);
  const lockUp = holds.filter((h) => h.role === 'lock-up' && h.end).pop()?.end;
  const madeUp = holds.filter((h) => h.judgement?.makeUp).pop()?.judgement;
  const drawn = state.visits.flatMap((v) => (v.drawn ? [v.drawn] : [])).pop();
  const rounded = (value: number, places: number) => Number(value.toFixed(places));
  return [
    ...(verdict.leakRate
      ? [
          {
            key: 'leak' as const,
            value: rounded(convert(verdict.leakRate.value, verdict.leakRate.unit, 'l/h'), 4),
            unit: 'l/h' as const,
          },
        ]
      : []),
    ...(lockUp
      ? [
          {
            key: 'lock-up' as const,
            value: rounded(convert(toNumber(lockUp.figure), lockUp.figure.unit, 'mbar'), 2),
            unit: 'mbar' as const,
          },
        ]
      : []),
    ...(madeUp?.makeUp && madeUp.elapsedMs > 0
      ? [
          {
            key: 'make-up' as const,
            value: rounded(
              (convert(toNumber(madeUp.makeUp.added), madeUp.makeUp.added.unit, 'l') * HOUR_MS) /
                madeUp.elapsedMs,
              3,
            ),
            unit: 'l/h' as const,
          },
        ]
      : []),
    ...(drawn
      ? [
          {
            key: 'decay' as const,
            value: rounded(convert(drawn.rate.value, drawn.rate.unit, 'l/h'), 3),
            unit: 'l/h' as const,
          },
        ]
      : []),
  ];
}

/** One measured point of a trend. */
export interface TrendPoint {
  readonly at: number;
  readonly value: number;
  readonly number: string;
  readonly run: string;
}
export interface Trend {
  readonly key: TrendKey;
  readonly unit: Unit;
  readonly points: readonly TrendPoint[];
  /** In words: how it moved from the first to the last record and between what; no forecast. */
  readonly words: string;
}
/** The trends of one system from its records, oldest first; a figure seen once is no trend and is left out. */
export function trendsOf(
  records: readonly {
    readonly at: number;
    readonly number: string;
    readonly run: string;
    readonly figures: readonly TrendFigure[];
  }[],
): Trend[] {
  const keys = [...new Set(records.flatMap((r) => r.figures.map((f) => f.key)))];
  return keys.flatMap((key): Trend[] => {
    const points = records
      .flatMap((r) =>
        r.figures
          .filter((f) => f.key === key)
          .map((f) => ({ at: r.at, number: r.number, run: r.run, value: f.value })),
      )
      .sort((a, b) => a.at - b.at);
    const unit = records.flatMap((r) => r.figures).find((f) => f.key === key)!.unit;
    if (points.length < 2) return [];
    const [first, last] = [points[0]!, points[points.length - 1]!];
    const years = (last.at - first.at) / (365.25 * 86_400_000);
    const difference = last.value - first.value;
    const amount = `${Number(Math.abs(difference).toPrecision(2))} ${unit}`;
    const span = years >= 1 ? `${years.toFixed(1)} years` : `${Math.round(years * 12)} months`;
    const over = `over ${span} (${points.length} records)`;
    // what stood between counts too: a leak that was mended since is no "the same"
    const values = points.map((p) => p.value);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const between =
      least < Math.min(first.value, last.value) || most > Math.max(first.value, last.value)
        ? `; between ${Number(least.toPrecision(3))} and ${Number(most.toPrecision(3))} ${unit}`
        : '';
    const course =
      difference === 0
        ? between
          ? 'ends where it began'
          : 'the same'
        : `${difference > 0 ? 'up' : 'down'} by ${amount}`;
    const words = `${course} ${over}${between}`;
    return [{ key, unit, points, words }];
  });
}
