/** The cabinet beside gauges, and the log of everything in it. */
import { localDate } from '@/core/quantity/local-date';
import type { Exact } from '@/core/quantity/exact';
import type { Gauge } from './gauge';

export const KIT_KINDS = {
  fan: 'duct fan',
  thermometer: 'thermometer',
  barometer: 'barometer',
  pump: 'pump',
  vessel: 'graduated vessel',
  hose: 'hose or test rig',
  regulator: 'cylinder regulator',
  plug: 'plug',
  detector: 'detector',
  consumable: 'consumable',
} as const;
export type KitKind = keyof typeof KIT_KINDS;
/** A range of a fan: its flows and, where its sheet gives them, flow = k dp^m. */
export interface FanRange {
  readonly name: string;
  readonly least: Exact;
  readonly greatest: Exact;
  /** Flow in the unit of the range = k × (fan pressure in Pa) to the power m. */
  readonly k?: string;
  readonly m?: string;
}
/** Flow of a fan by the pressure at it, in the unit of its range; null where the sheet gives no k and m. Source: the fan's own sheet */
export function flowByFan(range: Pick<FanRange, 'k' | 'm'>, pascal: number): number | null {
  return range.k && range.m ? Number(range.k) * Math.abs(pascal) ** Number(range.m) : null;
}
export interface KitFacts {
  readonly id: string;
  readonly kind: KitKind;
  readonly name: string;
  readonly serial: string;
  /** Day by which it is to be checked, calibrated or tested again; '' where it never is. */
  readonly due: string;
  /** Days from one check to the next. */
  readonly interval: number | null;
  readonly note: string;
  /** Thermometer, barometer, vessel: its step. */
  readonly resolution?: Exact;
  /** Pump: what one stroke delivers. */
  readonly stroke?: Exact;
  /** Pump, hose, plug: what it is rated for. Regulator: what it can give. */
  readonly rating?: Exact;
  /** Fan: how well its flows are known, percent of the flow, 95 %. */
  readonly accuracy?: Exact;
  /** Vessel: what it holds. Plug: bores it fits, in words. */
  readonly size?: string;
  readonly ranges?: readonly FanRange[];
  /** Consumable: batch printed on it. */
  readonly batch?: string;
  /** Hose: the gas it holds inside. */
  readonly volume?: Exact;
  readonly withdrawn?: string;
}
/** A hose, plug or pump of the cabinet as a run may use it, with what it lost when it was last tested by itself. */
export interface OwnKit {
  readonly id: string;
  readonly name: string;
  readonly serial: string;
  readonly volume?: Exact;
  /** What it is, where a run asks for it by that: plugs with the bores they fit, regulators with what they give at most. */
  readonly kind?: KitKind;
  readonly size?: string;
  readonly rating?: Exact;
  readonly accuracy?: Exact;
  readonly ranges?: readonly FanRange[];
  /** What it passes when it is closed on itself, at a pressure; `below`: no flow could be read, this is the least of the range. */
  readonly through?: {
    readonly on: string;
    readonly days: number;
    readonly pressure: Exact;
    readonly flow: Exact;
    readonly below: boolean;
  };
  readonly blank?: {
    /** The local day it was tested, and how many days before the run that was. */
    readonly on: string;
    readonly days: number;
    readonly pressure: Exact;
    readonly loss: Exact;
    readonly minutes: number;
  };
}
const CONNECTED: ReadonlySet<KitKind> = new Set(['fan', 'hose', 'plug', 'pump', 'regulator']);
/** The things of the cabinet that can hang on a section, as the plan of a run takes them along; withdrawn ones not. */
export function ownKitOf(
  items: readonly { readonly item: KitFacts; readonly log: readonly DatedEntry[] }[],
  now: number,
  zone: string,
): OwnKit[] {
  return items.flatMap(({ item, log }) => {
    if (!CONNECTED.has(item.kind)) return [];
    const { withdrawn, lastBlank, lastThrough } = standingOf(log, now, zone);
    if (withdrawn || item.withdrawn) return [];
    const { id, name, serial, volume, kind, size, rating, accuracy, ranges } = item;
    const { at, ...test } = lastBlank ?? { at: '' };
    return [
      {
        id,
        name,
        serial,
        ...(volume ? { volume } : {}),
        ...(kind === 'pump' ? {} : { kind }),
        ...(kind === 'plug' && size ? { size } : {}),
        ...(rating ? { rating } : {}),
        ...(accuracy ? { accuracy } : {}),
        ...(ranges?.length ? { ranges } : {}),
        ...(lastThrough ? { through: throughOf(lastThrough, zone) } : {}),
        ...('loss' in test ? { blank: { on: localDate(Date.parse(at), zone), ...test } } : {}),
      },
    ];
  });
}

const throughOf = (
  { at, ...t }: NonNullable<Standing['lastThrough']>,
  zone: string,
): NonNullable<OwnKit['through']> => ({ on: localDate(Date.parse(at), zone), ...t });

/** What is written about a thing of the cabinet; entries are never changed. */
export type LogEntry =
  | { readonly what: 'zero'; readonly figure: Exact; readonly good: boolean; readonly run?: string }
  | {
      /** Own kit closed on itself: fall over a time, at a pressure. */
      readonly what: 'blank';
      readonly pressure: Exact;
      readonly loss: Exact;
      readonly minutes: number;
    }
  | {
      /** A fan's hose and ring closed on themselves: the flow that still passes; `below`: none could be read, this is the least of the range. */
      readonly what: 'through';
      readonly pressure: Exact;
      readonly flow: Exact;
      readonly below: boolean;
      readonly run?: string;
    }
  | { readonly what: 'calibrated'; readonly on: string; readonly due: string; readonly certificate: string }
  | { readonly what: 'dropped'; readonly text: string }
  | { readonly what: 'over-ranged'; readonly text: string }
  | { readonly what: 'rejected'; readonly text: string }
  | { readonly what: 'returned'; readonly text: string }
  | { readonly what: 'swapped'; readonly forName: string; readonly run: string }
  | { readonly what: 'note'; readonly text: string };
export interface DatedEntry {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly entry: LogEntry;
}
/** Newest first, what a log says of a gauge now. */
export interface Standing {
  /** Why it must be zeroed open to air before it judges; '' when it need not. */
  readonly mustZero: string;
  readonly withdrawn: string;
  readonly lastZero: { readonly at: string; readonly figure: Exact; readonly good: boolean } | null;
  readonly lastBlank: {
    readonly at: string;
    readonly days: number;
    readonly pressure: Exact;
    readonly loss: Exact;
    readonly minutes: number;
  } | null;
  readonly lastThrough: {
    readonly at: string;
    readonly days: number;
    readonly pressure: Exact;
    readonly flow: Exact;
    readonly below: boolean;
  } | null;
  readonly swaps: number;
  readonly rejections: number;
}
const DAY = 86_400_000;
/** @param log in any order  @param now ms  @param zone whose days are meant */
export function standingOf(log: readonly DatedEntry[], now: number, zone = 'UTC'): Standing {
  const dayOf = (at: string) => localDate(Date.parse(at), zone);
  const newest = [...log].sort((a, b) => b.at.localeCompare(a.at) || b.id.localeCompare(a.id));
  const zero = newest.find((e) => e.entry.what === 'zero');
  const shock = newest.find((e) => e.entry.what === 'dropped' || e.entry.what === 'over-ranged');
  const use = newest.find((e) => e.entry.what === 'rejected' || e.entry.what === 'returned');
  const blank = newest.find((e) => e.entry.what === 'blank');
  const through = newest.find((e) => e.entry.what === 'through');
  const daysSince = (at: string) => Math.max(0, Math.floor((now - Date.parse(at)) / DAY));
  const good = zero?.entry.what === 'zero' && zero.entry.good;
  const mustZero =
    zero && !good
      ? `off zero when last checked, ${dayOf(zero.at)}`
      : shock && (!zero || zero.at < shock.at)
        ? `${shock.entry.what}, ${dayOf(shock.at)}`
        : '';
  return {
    mustZero,
    withdrawn: use?.entry.what === 'rejected' ? use.entry.text : '',
    lastZero:
      zero?.entry.what === 'zero' ? { at: zero.at, figure: zero.entry.figure, good: zero.entry.good } : null,
    lastBlank:
      blank?.entry.what === 'blank'
        ? {
            at: blank.at,
            days: daysSince(blank.at),
            pressure: blank.entry.pressure,
            loss: blank.entry.loss,
            minutes: blank.entry.minutes,
          }
        : null,
    lastThrough:
      through?.entry.what === 'through'
        ? {
            at: through.at,
            days: daysSince(through.at),
            pressure: through.entry.pressure,
            flow: through.entry.flow,
            below: through.entry.below,
          }
        : null,
    swaps: log.filter((e) => e.entry.what === 'swapped').length,
    rejections: log.filter((e) => e.entry.what === 'rejected').length,
  };
}
/** A gauge with what its log says of it, as a plan takes it along. */
export function withStanding(gauge: Gauge, standing: Standing): Gauge {
  const { withdrawn: _w, mustZero: _z, ...rest } = gauge;
  return {
    ...rest,
    ...(standing.withdrawn ? { withdrawn: standing.withdrawn } : {}),
    ...(standing.mustZero ? { mustZero: standing.mustZero } : {}),
  };
}
/** A blank older than this is no use for a test that counts on it: it is made again. Days, house figure. */
export const BLANK_LASTS = 30;
/** Things of the cabinet that fall due, with what is due. */
export const dueWords = (kind: KitKind | 'gauge'): string =>
  kind === 'hose' || kind === 'plug'
    ? 'Own-kit test'
    : kind === 'consumable'
      ? 'Use before'
      : kind === 'detector'
        ? 'Sensitivity check'
        : 'Calibration';
