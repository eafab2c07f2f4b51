import { networkOf } from '@/core/network/enter';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { capital } from '@/core/quantity/words';
import { isolatedWords, standing } from '@/core/run/isolations';
import type { RunState } from '@/core/run/state';
import type { Step } from '@/core/splitting/order';
import type { Searching } from '@/core/splitting/search';
import type { NetworkSplitting } from '@/core/splitting/sections';
import { NetworkDrawing } from '@/ui/network/drawing';
import { useMemo } from 'react';

/** Names of the parts that are still in question. */
const among = (s: NetworkSplitting, step: Step): string =>
  s.sections
    .filter((_, i) => step.among & (1 << i))
    .map((x) => x.name)
    .join(', ');
/** What is closed for an isolation, as it is said. */
export const closedWords = (s: NetworkSplitting, key: string): string => s.closed[key]!.join(' and ');
const percent = (p: number): string =>
  p > 0.99 ? '> 99 %' : p < 0.01 ? '< 1 %' : `${Math.round(100 * p)} %`;

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
        Close {closedWords(s, step.isolation.key)}; hold.{' '}
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
/** Where it can still be, and what each hold of a part said of it; the parts that are left, with how sure that is. */
export function SearchSaid({ plan, state, search }: { plan: Plan; state: RunState; search: Searching }) {
  const { results, found, whole, splitting } = search;
  if (!found) return null;
  const sure = found.confidence > 0.9;
  return (
    <div className="grid gap-2" data-search-said>
      <p className="text-lg">
        {sure ? 'It is ' : 'Most probably '}
        <span className="font-semibold">{splitting.sections[found.part]!.name}</span>,{' '}
        <span className="figure">{percent(found.confidence)}</span>
        {sure ? '. Look for it there: leak fluid on each joint, under pressure.' : '.'}
      </p>
      {found.doubts.map((d) => (
        <p key={d} className="border-l-4 border-rust pl-3">
          {d}
        </p>
      ))}
      <ol className="grid gap-1">
        {results.map((r) => (
          <li key={r.of.at} className="border-t border-seam pt-1">
            {capital(isolatedWords(plan, r.of))}.{' '}
            <span className="font-semibold">{r.moved ? 'It leaks there.' : 'It stood.'}</span>
            {whole !== null && r.moved && !r.of.flow && (
              <span className="figure-narrow text-quiet">
                {' '}
                {significantText(r.rate, 2)} of {significantText(whole, 2)} l/h
              </span>
            )}
            {r.of.flow && whole !== null && (
              <span className="figure-narrow text-quiet"> {showExact(r.of.flow)}</span>
            )}
          </li>
        ))}
      </ol>
      <SearchDrawn plan={plan} state={state} search={search} />
    </div>
  );
}
/** The drawing with how probable each part is, and what is closed for the search. */
export function SearchDrawn({ plan, state, search }: { plan: Plan; state: RunState; search: Searching }) {
  const network = useMemo(() => networkOf(plan.system), [plan.system]);
  const { positions, reach } = standing(network, state);
  const { sections, suspicion } = search.splitting;
  const all = suspicion.reduce((a, b) => a + b, 0);
  const odds = search.found?.probability ?? suspicion.map((w) => w / all);
  const suspect = new Map(sections.flatMap((s, i) => s.parts.map((id) => [id, odds[i]!] as const)));
  const notes = new Map(
    sections.flatMap((s, i) => {
      const named = network.parts.find((p) => s.parts.includes(p.id) && p.name);
      return named ? [[named.id, percent(odds[i]!)] as const] : [];
    }),
  );
  return (
    <div
      className="overflow-x-auto border border-seam bg-panel p-1"
      role="region"
      aria-label="Where it can be"
      tabIndex={0}
    >
      <NetworkDrawing
        network={network}
        reach={reach}
        positions={positions}
        notes={notes}
        suspect={suspect}
        label={`Where the leak can be: ${sections.map((s, i) => `${s.name} ${percent(odds[i]!)}`).join('; ')}`}
        least={0.5}
      />
    </div>
  );
}
/** How long it takes from here, and every step of it. */
export function Steps({ search: { splitting: s, order, results } }: { search: Searching }) {
  const { step, exact } = order;
  if (!step.isolation) return null;
  return (
    <>
      <p>
        {results.length
          ? 'The leaking part is found in about '
          : `So the leaking one of ${s.sections.length} parts is found in about `}
        <span className="figure-narrow">{Math.round(step.minutes)} min</span>
        {exact ? ', the least there is on average.' : ', looked one step ahead.'}
      </p>
      <details>
        <summary className="min-h-8 cursor-pointer py-1 text-lake">Every step of it</summary>
        <Branch s={s} step={step} />
        <p className="text-sm text-quiet">
          By the drawing, and by how suspect its joints are (house figures). Every valve used as an end is a
          suspect itself.
        </p>
      </details>
    </>
  );
}
/** Where to part the section next: the least time on average to the part that leaks. */
export function SplitTree({ search }: { search: Searching }) {
  const { isolation } = search.order.step;
  if (!isolation) return null;
  return (
    <section aria-label="Parting the section" className="border-t border-seam py-2" data-split>
      <h3 className="font-semibold">
        {search.results.length ? 'Where to part it next' : 'Where to part it first'}
      </h3>
      <p>Close {closedWords(search.splitting, isolation.key)}, and hold.</p>
      <Steps search={search} />
    </section>
  );
}
