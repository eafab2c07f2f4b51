import { VALVE_WORDS } from '@/core/installation/parts';
import {
  freeSurface,
  largestSize,
  pipeVolume,
  sectionVolume,
  type System,
  systemStiffness,
  volumeUncertainty,
} from '@/core/installation/section';
import { HEIGHT_FACTS, HEIGHT_KEYS, WHOLE_FACTS } from '@/core/installation/whole';
import { notCoveredOf } from '@/core/network/installation';
import { showExact, toNumber } from '@/core/quantity/exact';
import { showFigure, significantText } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import { Why } from '@/ui/kit/why';
import type { ReactNode } from 'react';

const ROW =
  'border-t border-seam [&>td]:py-2 [&>td]:pr-3 [&>th]:py-2 [&>th]:pr-3 [&>th]:text-left [&>th]:font-normal';

type Facts = { readonly facts: System };
/** One fact under its name; nothing where it is not known. */
function Fact({
  name,
  wide,
  figure,
  children,
}: {
  name: string;
  wide?: true;
  figure?: true;
  children: ReactNode;
}) {
  return (
    <div className={wide ? 'col-span-2' : ''}>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className={figure ? 'figure' : ''}>{children}</dd>
    </div>
  );
}

function VolumeFact({ facts }: Facts) {
  const volume = sectionVolume(facts);
  return (
    <div>
      <dt className="text-sm text-quiet">Volume</dt>
      <dd className="figure">
        <Why guide="volume" facts={{ title: volume.name, ...volume }}>
          {showFigure(volume)}
        </Why>
      </dd>
      <dd className="figure-narrow text-sm text-quiet">
        {(volume.value * 1000).toFixed(1)} l ± {(volumeUncertainty(facts) * 100).toFixed(0)} %
      </dd>
    </div>
  );
}
/** What a millilitre and a kelvin show as in a section full of water. */
function StiffFact({ facts }: Facts) {
  const stiff = tradeOf(facts).stiff
    ? systemStiffness(facts, convert(toNumber(facts.workingPressure), facts.workingPressure.unit, 'Pa'))
    : null;
  return (
    stiff && (
      <Fact name="Full of water" wide>
        <span className="figure">
          <Why guide="stiffness" facts={{ title: stiff.figure.name, ...stiff.figure }}>
            {showFigure(stiff.figure)}
          </Why>
        </span>
        <span className="block text-sm text-quiet">
          1 ml of loss shows as {significantText(1e-11 / stiff.c, 2)} bar; 1 K as{' '}
          {significantText(stiff.perKelvin / 1e5, 2)} bar
        </span>
      </Fact>
    )
  );
}
function LevelFacts({ facts: { heights, ...facts } }: Facts) {
  return (
    <>
      {(facts.surfaces?.length ?? 0) > 0 && (
        <Fact name="Free surfaces at the level" wide>
          <span className="figure">{freeSurface(facts).toFixed(3)} l/mm</span>
          <span className="block text-sm text-quiet">
            {facts
              .surfaces!.map((x) => `${x.count} × ${x.name.toLowerCase()}, ${showExact(x.bore)}`)
              .join('; ')}
          </span>
        </Fact>
      )}
      {heights && (
        <Fact name={`Heights over ${heights.datum}`} wide>
          <span className="figure-narrow text-sm">
            {HEIGHT_KEYS.filter((k) => heights[k])
              .map((k) => `${HEIGHT_FACTS[k].label.toLowerCase()} ${showExact(heights[k]!)}`)
              .join('; ')}
          </span>
        </Fact>
      )}
    </>
  );
}

/** What is known of the section as a whole. */
export function SectionFacts({ facts }: Facts) {
  const largest = largestSize(facts);
  return (
    <section>
      <h2 className="text-lg font-semibold">Section</h2>
      <dl className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 border-t border-seam pt-3 sm:grid-cols-4">
        {!tradeOf(facts).unpiped && (
          <>
            <VolumeFact facts={facts} />
            <Fact name="Largest pipe" figure>
              {largest ? showExact(largest) : 'not entered'}
            </Fact>
          </>
        )}
        {tradeOf(facts).pressed && (
          <Fact name={tradeOf(facts).pressureOf ?? 'Working pressure'} figure>
            {tradeOf(facts).pressureOf && facts.workingPressure.digits === 0
              ? 'not known'
              : showExact(facts.workingPressure)}
          </Fact>
        )}
        {facts.condensing?.map((c) => (
          <Fact key={c.id} name={c.name}>
            {[
              c.refrigerant ?? 'refrigerant not known',
              c.charge ? showExact(c.charge) : 'charge not known',
            ].join(', ')}
          </Fact>
        ))}
        <LevelFacts facts={facts} />
        {!tradeOf(facts).parted && !tradeOf(facts).unpiped && <Fact name="Meter">{facts.meter.name}</Fact>}
        {(['surface', 'floorServed', 'ductSurface', 'ductPressure'] as const).map(
          (key) =>
            facts[key] && (
              <Fact key={key} name={WHOLE_FACTS[key].label} figure>
                {showExact(facts[key])}
              </Fact>
            ),
        )}
        <StiffFact facts={facts} />
        {facts.elements?.map((e) => (
          <Fact key={e.id} name={`Permits at most: ${e.name}`} figure>
            {showExact(e.most)}
          </Fact>
        ))}
        {facts.supplyValve && (
          <Fact name="Bounded by" wide>
            {facts.supplyValve} (owner: {facts.supplyValveOwner})
          </Fact>
        )}
        {(
          [
            ['Smallest test dial', facts.meter.testDial],
            ['Design pressure', facts.designPressure],
            ['Regulator set', facts.setPressure],
            ['Vent opens', facts.ventSetting],
          ] as const
        ).map(
          ([name, value]) =>
            value && (
              <Fact key={name} name={name} figure>
                {showExact(value)}
              </Fact>
            ),
        )}
        {(facts.noValves?.length ?? 0) > 0 && (
          <Fact name="Looked for, none here" wide>
            {facts.noValves!.map((k) => VALVE_WORDS[k]).join(', ')}
          </Fact>
        )}
        {facts.tank && (
          <Fact name="Tank">{[facts.tank.size, facts.tank.place].filter(Boolean).join(', ')}</Fact>
        )}
        <Fact name={tradeOf(facts).fuel ? 'Emergency line found on the meter' : 'Whom to call'} wide>
          <span className="figure-narrow">{facts.emergencyContact}</span>
        </Fact>
      </dl>
    </section>
  );
}

/** Runs of pipe with their volumes. */
export function PipesTable({ facts }: Facts) {
  if (!facts.pipes.length && tradeOf(facts).unpiped) return null;
  return (
    <section>
      <h2 className="text-lg font-semibold">Pipes</h2>
      <div className="overflow-x-auto" role="region" aria-label="Pipes" tabIndex={0}>
        <table className="mt-2 w-full min-w-[520px]">
          <thead>
            <tr className="text-left text-sm text-quiet [&>th]:pr-3 [&>th]:pb-1 [&>th]:font-normal">
              <th>Run</th>
              <th>Material</th>
              <th>Size</th>
              <th>Bore</th>
              <th>Length</th>
              <th>Volume</th>
            </tr>
          </thead>
          <tbody>
            {facts.pipes.map((p) => (
              <tr key={p.id} className={ROW}>
                <th scope="row">{p.name}</th>
                <td>{p.material}</td>
                {[
                  showExact(p.size),
                  showExact(p.bore),
                  showExact(p.length),
                  `${(pipeVolume(p) * 1000).toFixed(1)} l`,
                ].map((t, i) => (
                  <td key={i} className="figure-narrow text-sm whitespace-nowrap">
                    {t}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
/** Loops and appliances, each with its valve. */
export function ThingsTables({ facts }: Facts) {
  return (
    <>
      {(facts.loops?.length ?? 0) > 0 && (
        <section>
          <h2 className="text-lg font-semibold">Loops of the manifold</h2>
          <table className="mt-2 w-full">
            <tbody>
              {facts.loops!.map((l) => (
                <tr key={l.id} className={ROW}>
                  <th scope="row">{l.name}</th>
                  <td>{l.valve}</td>
                  <td className="text-quiet">flow meter {l.flowMeter}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {facts.appliances.length > 0 && (
        <section>
          <h2 className="text-lg font-semibold">Appliances</h2>
          <table className="mt-2 w-full">
            <tbody>
              {facts.appliances.map((a) => (
                <tr key={a.id} className={ROW}>
                  <th scope="row">
                    {a.name}
                    {(a.make || a.model || a.serial) && (
                      <span className="block text-sm font-normal text-quiet">
                        {[a.make, a.model, a.serial && `serial ${a.serial}`].filter(Boolean).join(', ')}
                      </span>
                    )}
                  </th>
                  <td>{a.place}</td>
                  <td className="text-quiet">{a.valve}</td>
                  <td className="figure-narrow text-sm">
                    {a.maxInlet ? `inlet ${showExact(a.maxInlet)}` : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </>
  );
}
export function ScopeWords({ facts }: Facts) {
  return (
    <section>
      <h2 className="text-lg font-semibold">Scope</h2>
      <p className="mt-2">Inside: {facts.inScope.join('; ')}.</p>
      <p className="mt-1">Not covered: {notCoveredOf(facts).join('; ')}.</p>
    </section>
  );
}
