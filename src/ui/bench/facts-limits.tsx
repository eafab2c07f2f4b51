'use client';
import type { HoldStage, Stage } from '@/core/kinds';
import { allowanceOf } from '@/core/plan/limits';
import { outsideDomain, ruleOf } from '@/core/plan/plan';
import { enteredCaps } from '@/core/plan/weakest';
import { breachWords, showExact, trimmed } from '@/core/quantity/exact';
import { gaugeOf, letByLimit, perceptibleOf, permittedDrop } from '@/core/run/read';
import { classBound } from '@/core/verdict/adequacy';
import type { BenchView } from '@/device/bench';
import { Why, type WhyFacts } from '@/ui/kit/why';
import type { ReactNode } from 'react';
import { ownLimit } from './facts-figures';

/** A limit by name, its figure with the reason behind it. */
function Line({
  name,
  why,
  value,
  children,
}: {
  name: string;
  why?: WhyFacts;
  value: string;
  children?: ReactNode;
}) {
  const figure = <span className="figure-narrow">{value}</span>;
  return (
    <div>
      <dt className="inline">{name}: </dt>
      <dd className="inline">
        {why ? (
          <Why guide="permitted" facts={why}>
            {figure}
          </Why>
        ) : (
          figure
        )}
        {children}
      </dd>
    </div>
  );
}

/** The limits that this run is held to now, each with its source. */
export function Limits({
  view,
  part,
  stages,
  judged,
}: {
  view: BenchView;
  part: string | null;
  stages: readonly Stage[];
  judged: Stage | undefined;
}) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const rule = ruleOf(plan, part);
  const holds = stages.flatMap((s): HoldStage[] => (s.kind === 'hold' ? [s] : []));
  const letBy = holds.find((s) => s.role === 'let-by');
  const letByOwn = gauge && letBy && letByLimit(plan, letBy, gauge);
  const pm = gauge && perceptibleOf(plan, gauge, part);
  const [cap = null] = enteredCaps(plan);
  return (
    <section>
      <h2 className="text-sm text-quiet">Limits</h2>
      <dl className="grid gap-2">
        {letByOwn && (
          <Line
            name="Let-by rise"
            value={breachWords(letByOwn)}
            why={{
              title: 'Let-by limit',
              source: letByOwn.source,
              text: `A rise of ${breachWords(letByOwn)} counts. ${letBy.why ?? ''}`,
            }}
          />
        )}
        {pm && (
          <Line
            name="Perceptible movement"
            value={showExact(trimmed(pm.value))}
            why={{
              title: 'Perceptible movement',
              source: pm.source,
              text: `The smallest movement this gauge can honestly show. ${breachWords(pm)} counts as movement.`,
            }}
          />
        )}
        {rule.classes?.map((c) => (
          <Line
            key={c.key}
            name={c.title}
            value={classBound(c.below)}
            why={{
              title: c.title,
              source: c.source,
              text: 'The class of the upper end of the 95 % interval: an interval that touches a bound falls into the worse class.',
            }}
          />
        ))}
        {holds.map((s) => {
          const own = ownLimit(plan, state, s, gauge);
          return own && <Line key={s.title} name={own.name} value={own.value} why={own.why} />;
        })}
        {!rule.classes && (judged?.kind === 'hold' ? judged.role === 'tightness' : !part) && (
          <PermittedDrop view={view} part={part} />
        )}
        {cap && (
          <Line name="Never above" value={showExact(cap.most)}>
            , {cap.name}
          </Line>
        )}
        {outsideDomain(plan, part).map((o) => (
          <div key={o} className="border-l-4 border-heather pl-2">
            {o} {rule.domain.outside}
          </div>
        ))}
      </dl>
    </section>
  );
}

function PermittedDrop({ view: { plan, state }, part }: { view: BenchView; part: string | null }) {
  const rule = ruleOf(plan, part);
  const allowance = allowanceOf(plan, part);
  const drop = permittedDrop(plan, state, part);
  const denied = allowance.conditions.filter((c) => state.denied.includes(c.key));
  return (
    <Line
      name="Permitted drop"
      value={drop ? showExact(drop.value) : 'nil'}
      why={{
        title: 'Permitted drop',
        source: drop?.source ?? rule.nilSource ?? rule.allowance?.source ?? rule.title,
        text: allowance.conditions.length
          ? `Row: ${allowance.row}. Applies only when all hold: ${allowance.conditions.map((c) => c.text).join(', ')}. Exactly the permitted drop is still met.`
          : 'No drop is permitted: any movement the gauge can show counts.',
      }}
    >
      {denied.length > 0 && (
        <span className="block text-ochre">Not met: {denied.map((d) => d.text).join(', ')}</span>
      )}
    </Line>
  );
}
