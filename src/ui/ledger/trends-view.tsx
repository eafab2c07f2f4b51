import { around } from '@/chart/shares';
import { toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { capital } from '@/core/quantity/words';
import { TREND_WORDS } from '@/core/record/trend';
import { WORDS, type VerdictWord } from '@/core/verdict/words';
import { dayWords } from '@/ui/visit/times';
import { type Count, MOST_FIGURES, totalOf, type Trends } from '@/wire/trends';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Columns, fill, Hatches, Legend, ORDER, type Range, RangeLines } from './trend-charts';

const countOf = (counts: readonly Count[], word: VerdictWord): number =>
  counts.find((c) => c.word === word)?.n ?? 0;
const share = (n: number, of: number): string => (of ? `${Math.round((100 * n) / of)} %` : '');
function Part({ title, words, children }: { title: string; words: ReactNode; children: ReactNode }) {
  return (
    <section className="mt-8">
      <h2 className="text-lg font-semibold">{title}</h2>
      <p className="max-w-3xl text-quiet">{words}</p>
      {children}
    </section>
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
        {t.records} {t.records === 1 ? 'record' : 'records'} sealed here since {dayWords(t.from)}; practice
        and void ones are not among them. Nothing here judges: it shows where to look.
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
  const columns = t.months.map((m) => ({
    name: monthWords(m.month),
    counts: new Map(m.counts.map((c) => [c.word, c.n])),
  }));
  return (
    <Part title="Results by month" words="How many records were sealed, and to what they came.">
      <Legend words={seen} />
      <Columns columns={columns} seen={seen} />
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
/** Ranges under each other on one scale, and the same as a table. */
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
  return (
    <>
      <RangeLines lines={lines} unit={unit} room={room} show={show} />
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
