import { zoned } from '@/core/quantity/in-zone';
import Link from 'next/link';
import { TREND_WORDS, type Trend } from '@/core/record/trend';
import { localDate } from '@/core/quantity/local-date';
import { unitLabel } from '@/core/quantity/unit';
import { trendGeometry } from '@/chart/trend';
import { WallGlyph } from '@/ui/charts/wall';
import { markOf, recordHref, type RecordLine } from '@/ui/ledger/row';
import { VERDICT_COLOUR } from '@/ui/kit/words';

const day = (iso: string, zone: string) =>
  zoned(zone, { day: 'numeric', month: 'short' }).format(new Date(iso));

/**
 * A system over the years: each record a course on the ones before, the newest on top, with its year at the margin; beside
 * them what was measured again and again.
 */
export function SystemHistory({
  system,
  lines,
  trends,
  sections = {},
  zone,
}: {
  system: string;
  lines: readonly RecordLine[];
  trends: readonly Trend[];
  /** Of several sections the one a run was of, by run. */
  sections?: Readonly<Record<string, string>>;
  /** Whose days and years are meant. */
  zone: string;
}) {
  const yearOf = (l: RecordLine) => localDate(Date.parse(l.sealedAt), zone).slice(0, 4);
  const newest = [...lines].reverse();
  return (
    <section aria-labelledby="history">
      <h2 id="history" className="text-lg font-semibold">
        Over the years
      </h2>
      {lines.length === 0 ? (
        <p className="mt-2 text-quiet">No record yet.</p>
      ) : (
        <>
          <ol className="mt-2" reversed>
            {newest.map((l, i) => {
              const year = yearOf(l);
              const mark = markOf(l);
              return (
                <li key={l.run} className="grid grid-cols-[3.2rem_1fr]">
                  <span className="figure-narrow pt-3 text-sm text-quiet">
                    {i === 0 || yearOf(newest[i - 1]!) !== year ? year : ''}
                  </span>
                  <Link
                    prefetch={false}
                    href={recordHref(l)}
                    className={`flex min-h-14 items-center gap-4 border border-b-0 border-edge px-3 py-2 hover:border-ink ${l.status === 'practice' ? 'border-dashed' : 'bg-block/40'}`}
                  >
                    <WallGlyph courses={l.glyph} label={`Wall of the run: ${l.summary.label}`} />
                    <span className="min-w-0 grow">
                      <span className={`font-semibold ${mark ? 'line-through' : VERDICT_COLOUR[l.word]}`}>
                        {l.summary.label}
                      </span>
                      {mark && <span className="font-semibold"> · {mark}</span>}
                      <span className="block text-sm text-quiet">
                        {l.summary.procedure}
                        {sections[l.run] ? `: ${sections[l.run]}` : ''}
                        {l.status === 'practice' ? ', practice' : ''}
                        {l.source === 'outside' ? ', from outside' : ''}
                      </span>
                    </span>
                    <span className="text-right text-sm">
                      <span className="figure-narrow whitespace-nowrap">{l.number}</span>
                      <span className="block text-quiet">{day(l.sealedAt, zone)}</span>
                    </span>
                  </Link>
                </li>
              );
            })}
          </ol>
          <div className="ml-[3.2rem] border-t-2 border-ink" aria-hidden />
          <p className="mt-2 text-sm">
            <Link
              prefetch={false}
              className="text-lake underline underline-offset-4"
              href={`/ledger?system=${system}`}
            >
              These in the ledger
            </Link>
          </p>
        </>
      )}
      {trends.map((t) => (
        <TrendChart key={t.key} trend={t} zone={zone} />
      ))}
    </section>
  );
}

/** One figure over the years: points joined in order, with what it was first and last. No line beyond the last point. */
function TrendChart({ trend, zone }: { trend: Trend; zone: string }) {
  const width = 560;
  const height = 130;
  const g = trendGeometry(trend.points, width, height);
  const unit = unitLabel(trend.unit);
  return (
    <figure className="mt-5">
      <figcaption>
        <span className="font-semibold">{TREND_WORDS[trend.key]}</span>
        <span className="text-quiet">, {unit}: </span>
        {trend.words}
      </figcaption>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="mt-1 block w-full max-w-2xl"
        role="img"
        aria-label={`${TREND_WORDS[trend.key]}: ${trend.points.map((p) => `${localDate(new Date(p.at).getTime(), zone)} ${p.value} ${unit}`).join('; ')}`}
      >
        {g.yTicks.map((t) => (
          <g key={t.label}>
            <line x1={g.left} x2={g.right} y1={t.y} y2={t.y} stroke="var(--seam)" />
            <text x={g.left - 6} y={t.y + 4} textAnchor="end" fontSize={11} fill="var(--quiet)">
              {t.label}
            </text>
          </g>
        ))}
        {g.xTicks.map((t) => (
          <text key={t.label} x={t.x} y={height - 4} textAnchor="middle" fontSize={11} fill="var(--quiet)">
            {t.label}
          </text>
        ))}
        <path d={g.path} fill="none" stroke="var(--lake)" strokeWidth={2} />
        {g.points.map((p, i) => (
          <rect key={i} x={p.x - 3.5} y={p.y - 3.5} width={7} height={7} fill="var(--ink)">
            <title>{`${trend.points[i]!.number}: ${trend.points[i]!.value} ${unit}`}</title>
          </rect>
        ))}
      </svg>
    </figure>
  );
}
