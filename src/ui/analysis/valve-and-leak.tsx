import { significantText } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { type Masked, maskedIn, maskedWords } from '@/core/verdict/masked';
import type { BenchView } from '@/device/bench';

const litres = (m3s: number) => convert(m3s, 'm3/s', 'l/h');
const say = (v: number) => (v < 0.005 ? '0' : significantText(v, 2));

/** A rate with its interval against its limit, on one scale for all of them. */
function Bar({
  name,
  rate,
  limit,
  said,
  most,
}: {
  name: string;
  rate: Masked['leak'];
  limit: number | null;
  said: string;
  most: number;
}) {
  const at = (v: number) => Math.min(100, (100 * litres(v)) / most);
  return (
    <div className="grid items-center gap-x-3 sm:grid-cols-[9rem_minmax(0,1fr)]">
      <dt>{name}</dt>
      <dd>
        <svg className="h-6 w-full max-w-md" viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden>
          <rect width="100" height="12" fill="none" stroke="var(--seam)" vectorEffect="non-scaling-stroke" />
          <rect width={at(rate.value)} height="12" fill="var(--lake)" opacity="0.55" />
          <path
            d={`M${at(rate.low)},6L${at(rate.high)},6`}
            stroke="var(--ink)"
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
          {limit !== null && (
            <path
              d={`M${at(limit)},0V12`}
              stroke="var(--rust)"
              strokeWidth="2"
              strokeDasharray="3 2"
              vectorEffect="non-scaling-stroke"
            />
          )}
        </svg>
        <span className="figure-narrow">
          {say(litres(rate.value))} l/h ({say(litres(rate.low))} to {say(litres(rate.high))})
        </span>
        {limit !== null && (
          <span className="text-quiet">
            {' '}
            beside <span className="figure-narrow">{say(litres(limit))} l/h</span> {said}
          </span>
        )}
      </dd>
    </div>
  );
}
/** What the closed valve passes and what the section leaks, by two slopes at two pressures: what neither shows by itself. */
export function ValveAndLeak({ masked }: { masked: Masked }) {
  const most =
    1.1 *
    Math.max(
      litres(masked.leak.high),
      litres(masked.letBy.high),
      litres(masked.matters),
      litres(masked.passes ?? 0),
    );
  const [a, b] = masked.pressures.map((p) => significantText(convert(p, 'Pa', 'mbar'), 3));
  return (
    <section
      aria-label="Valve and leak apart"
      className="grid gap-2 border-l-4 border-ochre bg-panel px-4 py-3"
    >
      <p className="font-semibold">Valve and leak apart</p>
      <dl className="grid gap-2">
        <Bar name="The leak" rate={masked.leak} limit={masked.matters} said="that matters" most={most} />
        <Bar
          name="What the valve passes"
          rate={masked.letBy}
          limit={masked.passes}
          said="that the let-by permits"
          most={most}
        />
      </dl>
      <p className="text-sm text-quiet">
        From the slopes at {a} and {b} mbar. A valve that passes and a leak can stand in balance at one
        pressure; at two they cannot.{' '}
        {masked.counts
          ? 'Both holds were let-by holds and the temperature stood still: what they show counts.'
          : 'Advice: only two let-by holds with the temperature read, and still, could take a Tight away.'}
      </p>
    </section>
  );
}
/** On the bench, once both were held; a leak that the valve hides is said before anything is raised. */
export function Apart({ view: { plan, state } }: { view: BenchView }) {
  const masked = maskedIn(plan, state, null);
  if (!masked?.apart) return null;
  const words = maskedWords(masked);
  return (
    <>
      {words && <p className="font-semibold text-rust">{words} Tight will not stand after it.</p>}
      <ValveAndLeak masked={masked} />
    </>
  );
}
