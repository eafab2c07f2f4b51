import type { CurveLine } from '@/chart/curve';
import type { Plan } from '@/core/plan/plan';
import { type HoldProspect, type PartProspect, seenCurve } from '@/core/plan/prospect';
import { showExact, toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { unitLabel } from '@/core/quantity/unit';
import { Why } from '@/ui/kit/why';
import { minutesWords } from '@/ui/kit/words';
import { SeenCurves } from './seen-curves';

const leak = (v: number | null): string => (v === null ? '' : `${significantText(v, 2)} l/h`);

/** Rule, house standard and need side by side, each with the smallest leak it could see; the curve; what weather does. */
export function HoldPart({
  plan,
  prospect,
  gauge,
}: {
  plan: Plan;
  prospect: PartProspect;
  gauge: string | null;
}) {
  const hold = prospect.holds.find((h) => h.role !== 'strength') ?? prospect.holds[0] ?? null;
  const usable = prospect.gauges.filter((g) => g.usable && g.sees !== null).slice(0, 5);
  const most = hold
    ? Math.max(
        60,
        hold.times.planned * 2,
        typeof hold.times.needed === 'number' ? hold.times.needed * 1.3 : 0,
      )
    : 60;
  const lines: CurveLine[] = hold
    ? usable
        .sort((a, b) => Number(b.gauge.id === gauge) - Number(a.gauge.id === gauge))
        .map((g) => ({
          key: g.gauge.id,
          name: `${g.gauge.name}, steps of ${showExact(g.gauge.resolution)}`,
          points: seenCurve(plan, prospect.part, g.gauge, Math.min(1440, most)),
        }))
    : [];
  if (!hold)
    return gauge ? (
      <p className="text-quiet">
        This part is judged without a timed fall: by a rise, a regulator or a dial. No leak curve applies.
      </p>
    ) : (
      <p className="border-l-4 border-rust pl-3">
        No gauge in the cabinet may judge this part: see below why, and which would.
      </p>
    );
  const matters = toNumber(prospect.matters.leak);
  const s = prospect.sensitivity;
  return (
    <div>
      <h3 className="text-lg font-semibold">
        Hold <span className="figure ml-2">{minutesWords(hold.times.planned)}</span>
      </h3>
      <Times hold={hold} matters={matters} />
      <p className="mt-2">
        The leak that matters here is{' '}
        <Why
          guide="leak-that-matters"
          facts={{
            title: 'Leak that matters',
            source: prospect.matters.source,
            text: prospect.matters.binding
              ? 'Binding here: a hold that could not have seen it ends Inconclusive, not Tight.'
              : 'Printed beside the result: the rule judges, and the record says what it could not have seen.',
          }}
        >
          <span className="figure">{showExact(prospect.matters.leak)}</span>
        </Why>{' '}
        at {prospect.matters.at} pressure.
        {hold.times.needed === 'over-a-day' &&
          ' With this gauge and volume a day is not enough: choose a finer gauge or a smaller section.'}
        {hold.sees.planned > matters &&
          hold.times.needed !== 'over-a-day' &&
          ' The planned hold cannot see it; the record will say so.'}
      </p>
      {lines.length > 0 && (
        <SeenCurves lines={lines} matters={matters} chosen={gauge ?? ''} marks={marksOf(hold)} />
      )}
      {s && (
        <p className="mt-2">
          One kelvin moves the reading by{' '}
          <Why
            guide="temperature"
            facts={{
              title: 'Temperature against the limit',
              formula:
                s.perMillilitre === undefined ? 'ΔP = (P / T) × ΔT, absolute' : 'ΔP = V (β − 3α) / C × ΔT',
              inputs: [
                {
                  name: 'test pressure',
                  value: prospect.pressure.pressure ? showExact(prospect.pressure.pressure) : '',
                },
                { name: 'T', value: '293.15 K' },
                { name: 'limit', value: showExact(s.limit.value) },
              ],
              source: `${s.perMillilitre === undefined ? 'Gay-Lussac' : 'Elastic water and pipe wall'}; limit: ${s.limit.source}`,
            }}
          >
            <span className="figure">
              {significantText(s.perKelvin, 2)} {unitLabel(s.unit)}
            </span>
          </Why>
          : {significantText(s.kelvinToLimit, 2)} K alone make the limit of{' '}
          <span className="figure-narrow">{showExact(s.limit.value)}</span>.{' '}
          {s.perMillilitre === undefined
            ? 'One mbar of barometer moves it by'
            : 'One millilitre of loss shows as'}{' '}
          <span className="figure-narrow">
            {significantText(s.perMillilitre ?? s.perMillibar, 2)} {unitLabel(s.unit)}
          </span>
          . {s.kelvinToLimit < 0.5 && 'Settle well and log the temperature.'}
        </p>
      )}
    </div>
  );
}
function marksOf(h: HoldProspect): { minutes: number; name: string }[] {
  const { rule, house, needed } = h.times;
  const all = [
    { minutes: rule, name: 'rule' },
    ...(house !== null ? [{ minutes: house, name: 'house' }] : []),
    ...(typeof needed === 'number' ? [{ minutes: needed, name: 'needed' }] : []),
  ];
  const merged = new Map<number, string>();
  for (const m of all)
    merged.set(m.minutes, merged.has(m.minutes) ? `${merged.get(m.minutes)}, ${m.name}` : m.name);
  return [...merged].map(([minutes, name]) => ({ minutes, name }));
}

function Times({ hold, matters }: { hold: HoldProspect; matters: number }) {
  const { times, sees } = hold;
  const rows = [
    { name: 'Rule, at least', minutes: times.rule, sees: sees.rule, source: times.source },
    ...(times.house !== null
      ? [{ name: 'House standard', minutes: times.house, sees: sees.house, source: times.houseSource }]
      : []),
    ...(times.needed !== null
      ? [
          {
            name: 'Needed for this gauge and volume',
            minutes: times.needed,
            sees: sees.needed,
            source: 'Smallest visible leak equals the leak that matters',
          },
        ]
      : []),
  ];
  return (
    <table className="mt-1 w-full border-t border-seam">
      <thead>
        <tr className="text-left text-sm text-quiet [&>th]:py-1 [&>th]:pr-3 [&>th]:font-normal">
          <th>Hold</th>
          <th className="text-right">Minutes</th>
          <th className="text-right">Smallest leak seen</th>
          <th className="max-sm:hidden">Source</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => {
          const planned = r.minutes === times.planned;
          return (
            <tr
              key={r.name}
              className={`border-t border-seam [&>*]:py-1.5 [&>*]:pr-3 ${planned ? 'font-semibold' : ''}`}
            >
              <th
                scope="row"
                className={`text-left ${planned ? 'border-l-4 border-lake pl-2' : 'pl-3 font-normal'}`}
              >
                {r.name}
                {planned && <span className="text-sm text-lake"> planned</span>}
              </th>
              <td className="figure-narrow text-right whitespace-nowrap">
                {r.minutes === 'over-a-day' ? 'over a day' : minutesWords(r.minutes)}
              </td>
              <td
                className={`figure-narrow text-right whitespace-nowrap ${r.sees !== null && r.sees > matters ? 'text-ochre' : ''}`}
              >
                {leak(r.sees)}
                {r.sees !== null && r.sees > matters && <span className="block text-sm">not enough</span>}
              </td>
              <td className="text-sm font-normal text-quiet max-sm:hidden">{r.source}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
