'use client';
import { settling } from '@/core/analysis/live';
import type { Meaning } from '@/core/analysis/meaning';
import { samplesOf } from '@/core/analysis/of-hold';
import type { AloneOf } from '@/core/fillings/filling';
import type { Gauge } from '@/core/instrument/gauge';
import { add, type Exact, type Limit, showChange, subtract, toNumber } from '@/core/quantity/exact';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import type { Hold, Visit } from '@/core/run/state';
import { Why } from '@/ui/kit/why';
import { countdown } from '@/ui/kit/words';

/** Re-adjustments in all, with their sign: what went in or out by hand. */
export function toppedUp(hold: Hold): Exact | null {
  return hold.topUps.reduce<Exact | null>((sum, u) => {
    const change = subtract(u.after, u.before);
    return sum ? add(sum, change) : change;
  }, null);
}

/** Beside the reading: where the hold is heading, whether it stands still, what warmth alone does, what was re-adjusted. */
export function LiveFacts({
  visit,
  hold,
  gauge,
  at,

  perceptible,
  alone,
  windowMs,
  meaning,
}: {
  visit: Visit;
  hold: Hold;
  gauge: Gauge;
  at: number;

  perceptible: Limit;
  /** What warmth and barometer alone do here: the judge's own. */
  alone: AloneOf | null;
  /** What the readings so far mean; null while they are too few. */
  meaning: Meaning | null;
  /** Over which a settling period must stand still, ms. */
  windowMs: number;
}) {
  const unit = gauge.resolution.unit;
  const decimals = gauge.resolution.scale;
  const say = (v: number) => `${v.toFixed(decimals).replace('-', '−')} ${unitLabel(unit)}`;
  const samples = samplesOf(visit, hold, gauge);
  const end = hold.startedAt + hold.minutes * 60_000;
  const settles = hold.role === 'settle';
  const ahead = settles || hold.topUps.length || at >= end ? null : (meaning?.ahead ?? null);
  const still = settles
    ? settling(
        samples,
        at,
        windowMs,
        toNumber(perceptible.value),
        hold.topUps[hold.topUps.length - 1]?.at ?? null,
      )
    : null;
  const { start, end: later } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const logged = {
    ...(start && later ? { temperature: [start, later] as const } : {}),
    ...(b0 && b1 ? { barometer: [b0, b1] as const } : {}),
  };
  const found =
    alone && UNITS[unit].dimension === 'pressure'
      ? alone(convert(toNumber(hold.start.figure), unit, 'Pa'), logged)
      : null;
  const warm = typeof found === 'number' ? convert(found, 'Pa', unit) : null;
  const what = logged.barometer ? (logged.temperature ? 'Warmth and barometer' : 'Barometer') : 'Temperature';
  const last = samples[samples.length - 1];
  const change = last ? last.p - toNumber(hold.start.figure) : 0;
  const topped = toppedUp(hold);
  const judged = roleOf(hold.role).still;
  return (
    <div className="grid gap-0.5 text-sm sm:text-base" data-live>
      {ahead && (
        <p>
          Heading for{' '}
          <Why
            guide="heading"
            facts={{
              title: 'Where the hold is heading',
              formula:
                'every course that this section can have, each by how probable the readings make it, carried to the end of the hold',
              inputs: [
                { name: '95 % band at the end', value: `${say(ahead.low)} to ${say(ahead.high)}` },
                ...(meaning?.rests ?? []),
              ],
              source: 'Projection of the readings so far',
              text: 'Advice: the end reading judges.',
            }}
          >
            <span className="figure-narrow">{say(ahead.value)}</span>
          </Why>{' '}
          at the end (<span className="figure-narrow">{say(ahead.low)}</span> to{' '}
          <span className="figure-narrow">{say(ahead.high)}</span>)
        </p>
      )}
      {judged && meaning?.warning && (
        <p role="status" className="font-semibold text-ochre">
          {meaning.warning.words}
        </p>
      )}
      {still && (
        <p className={still.steady ? 'font-semibold' : ''} aria-live="polite">
          {still.moved === null
            ? `Steadiness shows once readings reach back ${countdown(still.windowMs)}.`
            : still.steady
              ? `Stands still: moved ${say(still.moved)} in the last ${countdown(still.windowMs)}.`
              : `Still moving: ${say(still.moved)} in the last ${countdown(still.windowMs)}.`}
        </p>
      )}
      {warm !== null && (
        <p>
          {what} alone: <span className="figure-narrow">{`${warm > 0 ? '+' : ''}${say(warm)}`}</span>; without
          it the change is <span className="figure-narrow">{say(change - warm)}</span>. The raw reading
          judges.
        </p>
      )}
      {topped && (
        <p>
          Re-adjusted {hold.topUps.length} {hold.topUps.length === 1 ? 'time' : 'times'}, in all{' '}
          <span className="figure-narrow">{showChange(topped)}</span>
        </p>
      )}
    </div>
  );
}
