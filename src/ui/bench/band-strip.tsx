import { formatExact, showExact, subtract, toNumber, type Exact, type Limit } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';

interface Props {
  readonly start: Exact;
  readonly now: Exact | null;
  /** Permitted fall and the smallest rise that counts. */
  readonly fall: Limit;
  readonly rise: Limit;
}
/** Change against limit: spans one and a half times the limit to either side, not the gauge's range. */
export function BandStrip({ start, now, fall, rise }: Props) {
  const left = toNumber(fall.value);
  const right = toNumber(rise.value);
  const span = 1.5 * (left + right);
  // a label near an end turns inwards, so that it is never cut
  const turn = (percent: number) =>
    percent < 18 ? '' : percent > 82 ? '-translate-x-full' : '-translate-x-1/2';
  const place = (change: number) => Math.min(100, Math.max(0, ((change + 1.5 * left) / span) * 100));
  const change = now ? subtract(now, start) : null;
  const at = change ? toNumber(change) : null;
  const words = change
    ? `Change ${formatExact(change)} ${unitLabel(start.unit)} from ${showExact(start)}; limits: fall ${showExact(fall.value)}, rise ${showExact(rise.value)}.`
    : 'No reading yet.';
  return (
    <div role="img" aria-label={words} className="relative h-[66px] shrink-0 pt-6">
      <div className="relative h-5 border border-edge bg-panel">
        <span
          className="absolute inset-y-0 bg-moss/20"
          style={{ left: `${place(-left)}%`, width: `${place(right) - place(-left)}%` }}
        />
        <span
          className="absolute -inset-y-1 w-0 border-l-2 border-dashed border-ink"
          style={{ left: `${place(-left)}%` }}
        />
        <span
          className="absolute -inset-y-1 w-0 border-l-2 border-dashed border-ink"
          style={{ left: `${place(right)}%` }}
        />
        <span className="absolute inset-y-0 w-px bg-quiet" style={{ left: `${place(0)}%` }} />
        {at !== null && (
          <span
            className="absolute -top-2 bottom-0 w-[6px] -translate-x-1/2 bg-lake"
            style={{ left: `${place(at)}%` }}
          />
        )}
      </div>
      <span
        className={`figure-narrow absolute top-0 text-xs whitespace-nowrap ${turn(place(-left))}`}
        style={{ left: `${place(-left)}%` }}
      >
        −{formatExact(fall.value)}
      </span>
      <span
        className={`figure-narrow absolute top-0 text-xs whitespace-nowrap ${turn(place(right))}`}
        style={{ left: `${place(right)}%` }}
      >
        +{formatExact(rise.value)}
      </span>
      <span
        className={`absolute bottom-0 text-xs text-quiet whitespace-nowrap ${turn(place(0))}`}
        style={{ left: `${place(0)}%` }}
      >
        start {showExact(start)}
      </span>
    </div>
  );
}
