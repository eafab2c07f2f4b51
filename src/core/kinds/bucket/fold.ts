/** A pool held beside a bucket: marks, reading, and what is lost beyond evaporation. */
import { bucketLoss } from '@/core/limit/pool';
import {
  compare,
  inUnit,
  parseWithUnit,
  showExact,
  subtract,
  toNumber,
  type Exact,
} from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';
import type { BucketReading } from './state';

/** Seconds by which a device may be early. */
const EARLY_MS = 5000;
export const bucketOf = (state: RunState, visit: number): BucketReading | undefined =>
  [...state.rooms.buckets].reverse().find((b) => b.visit === visit && !b.read);
const inMillimetres = (a: Exact): Exact => (a.unit === 'mm' ? a : inUnit(a, 'mm', 1, 'down'));

export const bucketFold: Fold<'bucket-set' | 'bucket-read'> = {
  'bucket-set': {
    transition: true,
    apply: (_, on) => set(on),
    words: () => 'marks made on pool and bucket',
  },
  'bucket-read': {
    transition: true,
    misfit: (event) => lengths(event),
    apply: (event, on) => read(on, event),
    words: (event) =>
      `fell below the mark: pool ${showExact(event.pool)}, bucket ${showExact(event.bucket)}${worthless(event) ? `; ${worthless(event)}` : ''}`,
  },
};
function lengths(event: EventOf<'bucket-read'>): Refusal | null {
  const wrong = [event.pool, event.bucket].some(
    (x) => UNITS[x.unit].dimension !== 'length' || Math.abs(convert(toNumber(x), x.unit, 'm')) > 5,
  );
  return wrong ? no('unit', 'A fall is a length below the mark, in millimetres.') : null;
}
const worthless = (e: EventOf<'bucket-read'>): string =>
  [
    ...(e.rain ? ['it rained'] : []),
    ...(e.filled ? ['water was added'] : []),
    ...(e.bathers ? ['somebody bathed'] : []),
  ].join(', ');

function set({ state, stage, visit, at }: OnStage): Refusal | null {
  if (stage.kind !== 'bucket') return no('wrong-step', 'No marks are made now.');
  if (bucketOf(state, visit.ordinal)) return no('overtaken', 'The marks are made already.');
  state.rooms.buckets.push({ visit: visit.ordinal, title: stage.title, setAt: at });
  return null;
}
function read({ plan, state, stage, visit, at }: OnStage, event: EventOf<'bucket-read'>): Refusal | null {
  if (stage.kind !== 'bucket') return no('wrong-step', 'No bucket is read now.');
  const open = bucketOf(state, visit.ordinal);
  if (!open) return no('marks', 'Make both marks first.');
  const spoilt = worthless(event);
  const passed = at - open.setAt;
  if (!spoilt && passed < stage.minutes * 60000 - EARLY_MS)
    return no(
      'early',
      `Read it ${stage.minutes / 60} h after the marks: evaporation of a part of a day is too small to take off.`,
    );
  const surface = plan.system.surface;
  const hours = Math.max(passed, 1) / 3_600_000;
  const { loss, rate } = bucketLoss(
    {
      pool: convert(toNumber(event.pool), event.pool.unit, 'm'),
      bucket: convert(toNumber(event.bucket), event.bucket.unit, 'm'),
      hours,
    },
    surface ? convert(toNumber(surface), surface.unit, 'm2') : null,
  );
  open.read = { at, pool: event.pool, bucket: event.bucket, worthless: spoilt, loss, hours, rate };
  follow(plan, state, spoilt ? 'discarded' : outcome(event, stage.perceptible), at);
  return null;
}
/** By exact figures: a difference AT the perceptible one counts. */
function outcome(event: EventOf<'bucket-read'>, perceptible: string): 'loses' | 'gains' | 'same' {
  const difference = subtract(inMillimetres(event.pool), inMillimetres(event.bucket));
  const least = inMillimetres(parseWithUnit(perceptible));
  if (compare(difference, least) >= 0) return 'loses';
  return compare({ ...difference, digits: -difference.digits }, least) >= 0 ? 'gains' : 'same';
}
/** A comparison in a sentence, with litres where the surface is known. */
export function bucketWords(b: BucketReading): string {
  if (!b.read) return 'marks made, not read';
  const { pool, bucket, worthless: spoilt, loss, hours, rate } = b.read;
  const said = `pool fell ${showExact(pool)}, bucket ${showExact(bucket)} in ${hours.toFixed(1)} h`;
  if (spoilt) return `${said}: worthless, ${spoilt}`;
  const day =
    rate === null ? 'surface not entered: no litres' : `${(rate * 86_400_000).toFixed(0)} l in a day`;
  return `${said}: ${(loss * 1000).toFixed(1)} mm beyond evaporation, ${day}`;
}
const WORDS: Readonly<Record<string, string>> = {
  loses: 'loses water',
  same: 'nothing beyond evaporation',
  gains: 'gained against the bucket',
  discarded: 'worthless',
};
export const bucketCourse: Course = (visit) => ({ word: WORDS[visit.outcome ?? ''] ?? 'open', text: '' });
