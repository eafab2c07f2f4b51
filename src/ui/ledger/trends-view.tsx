import { around, ranges, stacked } from '@/chart/shares';
import { toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { capital } from '@/core/quantity/words';
import { TREND_WORDS } from '@/core/record/trend';
import { GRAVITY, WORDS, type VerdictWord } from '@/core/verdict/words';
import { VERDICT_INK } from '@/ui/kit/words';
import { type Count, MOST_FIGURES, totalOf, type Trends } from '@/wire/trends';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** From the foot of a column upwards. */
const ORDER = [...GRAVITY].reverse();
/** Signs beside the colours: what is grey on paper is still told apart. */
const HATCH: Partial<Record<VerdictWord, string>> = {
  'not-tight': 'M0 8 L8 0',
  void: 'M0 0 L8 8',
  inconclusive: 'M0 4 H8',
  refer: 'M4 0 V8',
};
const countOf = (counts: readonly Count[], word: VerdictWord): number =>
  counts.find((c) => c.word === word)?.n ?? 0;
const share = (n: number, of: number): string => (of ? `${Math.round((100 * n) / of)} %` : '');
const fill = (word: VerdictWord): string => (HATCH[word] ? `url(#hatch-${word})` : VERDICT_INK[word]);

function Part({ title, words, children }: { title: string; words: ReactNode; children: ReactNode }) {
  return (
    <section className="mt-8">
      <h2 className="text-lg font-semibold">{title}</h2>
      <p className="max-w-3xl text-quiet">{words}</p>
      {children}
    </section>
  );
}
const Hatches = () => (
  <svg width={0} height={0} className="absolute" aria-hidden focusable="false">
    <defs>
      {ORDER.map((w) => (
        <pattern key={w} id={`hatch-${w}`} width={8} height={8} patternUnits="userSpaceOnUse">
          <rect width={8} height={8} fill={VERDICT_INK[w]} />
          {HATCH[w] && <path d={HATCH[w]} stroke="var(--panel)" strokeWidth={1.5} />}
        </pattern>
      ))}
    </defs>
  </svg>
);
function Legend({ words }: { words: readonly VerdictWord[] }) {
  return (
    <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-hidden>
      {words.map((w) => (
        <li key={w} className="flex items-center gap-2">
          <svg width={16} height={16} focusable="false">
            <rect width={16} height={16} fill={fill(w)} />
          </svg>
          {WORDS[w]}
        </li>
      ))}
    </ul>
  );
}
const TH = 'py-1 pr-4 text-left font-normal';
function Table({ head, rows }: { head: readonly string[]; rows: readonly (readonly (string | number)[])[] }) {
  return (
    <details className="mt-2">
      <summary className="min-h-11 cursor-pointer py-2 text-lake">As a table</summary>
      <div className="overflow-x-auto" role="region" aria-label={head.join(', ')} tabIndex={0}>
        <table className="text-sm">
          <thead>
            <tr className="text-quiet">
              {head.map((h) => (
                <th key={h} className={TH}>
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={String(r[0])} className="border-t border-seam">
                {r.map((cell, i) => (
                  <td key={i} className={`py-1 pr-4 ${i ? 'figure-narrow' : ''}`}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', year: '2-digit', timeZone: 'UTC' });
const monthWords = (month: string): string => MONTH.format(new Date(`${month}-01T00:00:00Z`));

/** What the records of a house say together: results by month and procedure, repeats, minutes, figures by year, zeros of gauges. */
export function TrendsView({ trends: t }: { trends: Trends }) {
  const seen = ORDER.filter((w) => t.procedures.some((p) => countOf(p.counts, w) > 0));
  return (
    <>
      <Hatches />
      <h1 className="text-2xl font-bold">Trends</h1>
      <p className="max-w-3xl">
        {t.records} {t.records === 1 ? 'record' : 'records'} sealed here since {t.from}; practice and void
        ones are not among them. Nothing here judges: it shows where to look.
      </p>
      {t.records === 0 ? (
        <p className="mt-4">
          No record is sealed yet in this time. Results stand here from the first one on.
        </p>
      ) : (
        <>
          <Months t={t} seen={seen} />
          <Procedures t={t} seen={seen} />
        </>
      )}
      {t.steps && <Steps t={t} steps={t.steps} />}
      {t.figures.map((f) => (
        <Figures key={`${f.key} ${f.unit}`} figures={f} />
      ))}
      {t.zeros.length > 0 && <Zeros zeros={t.zeros} />}
    </>
  );
}
function Months({ t, seen }: { t: Trends; seen: readonly VerdictWord[] }) {
  const [width, height] = [900, 220];
  const g = stacked(
    t.months.map((m) => ({ name: m.month, counts: new Map(m.counts.map((c) => [c.word, c.n])) })),
    seen,
    width,
    height,
  );
  const every = Math.ceil(g.columns.length / 12);
  return (
    <Part title="Results by month" words="How many records were sealed, and to what they came.">
      <Legend words={seen} />
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="mt-2 block w-full max-w-4xl"
        aria-hidden
        focusable="false"
      >
        {g.yTicks.map((y) => (
          <g key={y.label} fontSize={13} fill="var(--quiet)">
            <line x1={g.left} x2={g.right} y1={y.y} y2={y.y} stroke="var(--seam)" />
            <text x={g.left - 6} y={y.y + 4} textAnchor="end">
              {y.label}
            </text>
          </g>
        ))}
        {g.pieces.map((p) => (
          <rect key={`${p.column} ${p.key}`} {...rectOf(p)} fill={fill(p.key as VerdictWord)} />
        ))}
        {g.columns.map((c, i) =>
          i % every === 0 ? (
            <text key={c.name} x={c.x} y={height - 8} textAnchor="middle" fontSize={13} fill="var(--quiet)">
              {monthWords(c.name)}
            </text>
          ) : null,
        )}
      </svg>
      <Table
        head={['Month', ...seen.map((w) => WORDS[w]), `Again within ${t.againDays} days`]}
        rows={t.months.map((m) => [
          monthWords(m.month),
          ...seen.map((w) => countOf(m.counts, w)),
          `${m.again} (${share(m.again, totalOf(m.counts))})`,
        ])}
      />
    </Part>
  );
}
const rectOf = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({
  x,
  y,
  width,
  height,
});
function Procedures({ t, seen }: { t: Trends; seen: readonly VerdictWord[] }) {
  return (
    <Part
      title="By procedure"
      words={`Shares of results, and how often the same place was tested again by the same procedure within ${t.againDays} days.`}
    >
      <ul className="mt-2 border-t border-seam">
        {t.procedures.map((p) => {
          const all = totalOf(p.counts);
          let from = 0;
          return (
            <li
              key={p.id}
              className="grid items-center gap-x-6 gap-y-1 border-b border-seam py-2 md:grid-cols-[18rem_1fr_13rem]"
            >
              <Link
                prefetch={false}
                className="text-lake underline-offset-4 hover:underline"
                href={`/ledger?procedure=${p.id}`}
              >
                {p.title}
              </Link>
              <span className="grid gap-1">
                <svg
                  viewBox="0 0 400 16"
                  preserveAspectRatio="none"
                  className="h-4 w-full"
                  aria-hidden
                  focusable="false"
                >
                  {seen.map((w) => {
                    const width = (400 * countOf(p.counts, w)) / all;
                    const x = from;
                    from += width;
                    return width ? <rect key={w} x={x} width={width} height={16} fill={fill(w)} /> : null;
                  })}
                </svg>
                <span className="text-sm text-quiet">
                  {seen
                    .filter((w) => countOf(p.counts, w))
                    .map((w) => `${WORDS[w]} ${share(countOf(p.counts, w), all)}`)
                    .join(', ')}
                </span>
              </span>
              <span className="text-sm">
                {all} {all === 1 ? 'record' : 'records'}, {p.again} tested again
              </span>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
interface Range {
  readonly name: string;
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly records: number;
}
const ROW = 26;
/** Ranges under each other on one scale, and the same as a table. @param room for the names, px of 900 */
function Ranges({
  lines,
  unit,
  of,
  room,
  show,
}: {
  lines: readonly Range[];
  unit: string;
  of: string;
  room: number;
  show: (value: number) => string;
}) {
  const width = 900;
  const g = ranges(lines, room, width - 90);
  const height = lines.length * ROW + 26;
  return (
    <>
      <div className="overflow-x-auto" role="region" aria-label={`${of}, ${unit}`} tabIndex={0}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          className="mt-2 block w-full max-w-4xl min-w-[560px]"
          role="img"
          aria-label={lines.map((l) => `${l.name}: ${show(l.middle)} ${unit}`).join('; ')}
        >
          {g.ticks.map((x) => (
            <g key={x.label} fontSize={13} fill="var(--quiet)">
              <line x1={x.x} x2={x.x} y1={0} y2={height - 22} stroke="var(--seam)" />
              <text x={x.x} y={height - 6} textAnchor="middle">
                {x.label} {unit}
              </text>
            </g>
          ))}
          {lines.map((l, i) => {
            const { x, width: wide, middle } = g.lines[i]!;
            return (
              <g key={l.name + i} transform={`translate(0 ${i * ROW})`} fontSize={14} fill="var(--ink)">
                <text x={room - 10} y={17} textAnchor="end">
                  {l.name.length > 40 ? `${l.name.slice(0, 39)}…` : l.name}
                </text>
                <rect x={x} width={wide} y={6} height={14} fill="var(--block)" stroke="var(--edge)" />
                <line x1={middle} x2={middle} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2.5} />
                <text x={x + wide + 6} y={17} fontSize={13}>
                  {show(l.middle)}
                </text>
              </g>
            );
          })}
        </svg>
      </div>
      <Table
        head={[of, `Middle, ${unit}`, `Half between, ${unit}`, 'Records']}
        rows={lines.map((l) => [l.name, show(l.middle), `${show(l.low)} to ${show(l.high)}`, l.records])}
      />
    </>
  );
}
function Steps({ t, steps }: { t: Trends; steps: NonNullable<Trends['steps']> }) {
  return (
    <Part
      title="Minutes by step"
      words={`Over the newest ${steps.records} records of the procedure: half of them lie in the bar, its line is the middle. Where it is long, or wide, a job loses time.`}
    >
      <form action="/ledger/trends" className="mt-2 flex flex-wrap items-end gap-3">
        <label className="text-sm">
          Procedure
          <select
            name="procedure"
            defaultValue={steps.procedure}
            className="mt-1 block min-h-12 max-w-full border border-edge bg-panel px-2 text-base"
          >
            {t.procedures.map((p) => (
              <option key={p.id} value={p.id}>
                {p.title}
              </option>
            ))}
          </select>
        </label>
        <button
          type="submit"
          className="min-h-12 border border-edge bg-panel px-4 font-semibold hover:border-ink"
        >
          Show
        </button>
      </form>
      <Ranges
        lines={steps.steps.map((s) => ({ ...s, name: s.title }))}
        unit="min"
        of="Step"
        room={300}
        show={(v) => v.toFixed(1)}
      />
    </Part>
  );
}
const Figures = ({ figures: f }: { figures: Trends['figures'][number] }) => (
  <Part
    title={`${capital(TREND_WORDS[f.key])}, by year`}
    words={`In ${unitLabel(f.unit as Unit)}: half of the year’s records lie in the bar, its line is the middle. Of the newest ${MOST_FIGURES.toLocaleString('en-GB')} records.`}
  >
    <Ranges
      lines={f.years.map((y) => ({ ...y, name: String(y.year), records: y.n }))}
      unit={unitLabel(f.unit as Unit)}
      of="Year"
      room={60}
      show={(v) => significantText(v, 3)}
    />
  </Part>
);
function Zeros({ zeros }: { zeros: Trends['zeros'] }) {
  const [width, height] = [320, 72];
  return (
    <Part
      title="Zeros of gauges"
      words="What each gauge showed open to the air, before and after its tests, the newest at the right. One that walks away from the line is sent for calibration before it is off zero."
    >
      <ul className="mt-2 grid gap-x-8 gap-y-4 sm:grid-cols-2 lg:grid-cols-3" data-judged-in="*">
        {zeros.map((z) => {
          const points = z.points.map((p) => ({ at: p.at, value: toNumber(p.figure) }));
          const { scale, unit } = z.points[0]!.figure;
          const g = around(points, 10 ** -scale, width, height);
          const most = Math.max(...points.map((p) => Math.abs(p.value)));
          const words = `${z.points.length} zeros, at most ${most.toFixed(scale)} ${unitLabel(unit)} off`;
          return (
            <li key={z.gauge}>
              <Link
                prefetch={false}
                className="font-semibold text-lake underline-offset-4 hover:underline"
                href={`/cabinet#item-${z.gauge}`}
              >
                {z.name}
              </Link>
              <span className="block text-sm text-quiet">{words}</span>
              <svg
                viewBox={`0 0 ${width} ${height}`}
                className="mt-1 block w-full border border-seam bg-panel"
                role="img"
                aria-label={`${z.name}: ${words}`}
              >
                <line x1={0} x2={width} y1={g.zero} y2={g.zero} stroke="var(--ink)" />
                {g.points.map((p, i) => (
                  <rect key={i} x={p.x - 3} y={p.y - 3} width={6} height={6} fill="var(--lake)" />
                ))}
              </svg>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
