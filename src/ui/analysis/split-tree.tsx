import { orderOf, type Step } from '@/core/splitting/order';
import type { NetworkSplitting } from '@/core/splitting/sections';

/** Names of the parts that are still in question. */
const among = (s: NetworkSplitting, step: Step): string =>
  s.sections
    .filter((_, i) => step.among & (1 << i))
    .map((x) => x.name)
    .join(', ');

function Branch({ s, step }: { s: NetworkSplitting; step: Step }) {
  if (!step.isolation)
    return (
      <p>
        It is <span className="font-semibold">{among(s, step)}</span>.
      </p>
    );
  return (
    <>
      <p>
        Close {s.closed[step.isolation.key]!.join(' and ')}; hold.{' '}
        <span className="figure-narrow whitespace-nowrap text-quiet">
          {Math.round(step.isolation.minutes)} min
        </span>
      </p>
      <dl className="mt-1 grid gap-1 border-l border-edge pl-3">
        {(
          [
            ['It falls', step.leaks!],
            ['It stands', step.sound!],
          ] as const
        ).map(([name, next]) => (
          <div key={name}>
            <dt className="text-quiet">{name}:</dt>
            <dd className="pl-3">
              <Branch s={s} step={next} />
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
/** Where to part the section first, and every step after it: the least time on average to the part that leaks. */
export function SplitTree({ splitting: s }: { splitting: NetworkSplitting }) {
  const { step, exact } = orderOf(s);
  if (!step.isolation) return null;
  return (
    <section aria-label="Where to part it" className="border-t border-seam py-2" data-split>
      <h3 className="font-semibold">Where to part it first</h3>
      <p>
        Close {s.closed[step.isolation.key]!.join(' and ')}, and hold. So the leaking one of{' '}
        {s.sections.length} parts is found in about{' '}
        <span className="figure-narrow">{Math.round(step.minutes)} min</span>
        {exact ? ', the least there is on average.' : ', looked one step ahead.'}
      </p>
      <details>
        <summary className="min-h-8 cursor-pointer py-1 text-lake">Every step of it</summary>
        <Branch s={s} step={step} />
      </details>
      <p className="text-sm text-quiet">
        By the drawing, and by how suspect its joints are (house figures). Every valve used as an end is a
        suspect itself.
      </p>
    </section>
  );
}
