import 'server-only';
import { sql } from 'drizzle-orm';
import type { Exact } from '@/core/quantity/exact';
import type { TrendKey } from '@/core/record/trend';
import type { VerdictWord } from '@/core/verdict/words';
import { inOrganisation, type Tx } from '@/database/client';
import { now } from '@/server/now';
import { MOST_FIGURES, totalOf, type Trends } from '@/wire/trends';

/** So far back months are shown; steps and zeros come from so many of the newest records. House figures. */
const MONTHS = 24;
const NEWEST = 500;
const MOST_ZEROS = 60;
const MOST_GAUGES = 12;
/** Tested again so soon it was repeated, not due. House figure. */
const AGAIN_DAYS = 30;
/** A figure seen fewer times says nothing of the middle. */
const LEAST = 3;

/** Own records that count: sealed here, no practice, not void. */
const COUNTS = sql`source = 'own' and status <> 'practice' and voided is null`;
/** As the index of the ledger stands. */
const NEWEST_FIRST = sql`order by at desc nulls last, id desc nulls last`;
const rowsOf = async <R>(tx: Tx, query: ReturnType<typeof sql>): Promise<R[]> =>
  (await tx.execute(query)).rows as R[];

/** @param procedure whose steps are wanted; the one with the most records where none is named */
export function readTrends(scope: { readonly org: string }, procedure = ''): Promise<Trends> {
  const first = new Date(now());
  first.setUTCHours(0, 0, 0, 0);
  first.setUTCDate(1);
  first.setUTCMonth(first.getUTCMonth() - MONTHS + 1);
  const from = first.toISOString();
  return inOrganisation(scope, async (tx) => {
    // how many figures a row has the planner cannot know: what it would compile for them takes longer than they do
    await tx.execute(sql`set local jit = off`);
    interface Share {
      month: string;
      procedure: string;
      title: string;
      word: VerdictWord;
      n: number;
      again: number;
    }
    // once through the records; what is shown is put together from its few rows
    const shares = await rowsOf<Share>(
      tx,
      sql`select to_char(at at time zone 'UTC', 'YYYY-MM') as month, procedure, max(summary->>'procedure') as title, word, count(*)::int as n,
        (count(*) filter (where next < at + make_interval(days => ${AGAIN_DAYS})))::int as again
        from (select at, procedure, summary, word,
            case when system is not null then lead(at) over (partition by system, procedure order by at) end as next
          from ledger where ${COUNTS} and at >= ${from}) r
        group by 1, 2, 4 order by 1`,
    );
    const byProcedure = grouped(shares, (s) => s.procedure).map(([id, list]) => ({
      id,
      title: list[0]!.title,
      ...sums(list),
    }));
    byProcedure.sort((a, b) => totalOf(b.counts) - totalOf(a.counts));
    const asked = byProcedure.find((p) => p.id === procedure) ?? byProcedure[0];
    return {
      records: shares.reduce((n, s) => n + s.n, 0),
      from: from.slice(0, 10),
      months: monthsFrom(first).map((month) => ({
        month,
        ...sums(shares.filter((s) => s.month === month)),
      })),
      againDays: AGAIN_DAYS,
      procedures: byProcedure,
      steps: asked ? await stepsOf(tx, asked.id) : null,
      figures: await figuresOf(tx),
      zeros: await zerosOf(tx),
    };
  });
}
function grouped<T>(list: readonly T[], key: (t: T) => string): [string, T[]][] {
  const groups = new Map<string, T[]>();
  for (const t of list) groups.set(key(t), [...(groups.get(key(t)) ?? []), t]);
  return [...groups];
}
const sums = (list: readonly { word: VerdictWord; n: number; again: number }[]) => ({
  counts: grouped(list, (s) => s.word).map(([word, some]) => ({
    word: word as VerdictWord,
    n: some.reduce((n, s) => n + s.n, 0),
  })),
  again: list.reduce((n, s) => n + s.again, 0),
});
/** Every month shown, those in which nothing was sealed too. */
const monthsFrom = (first: Date): string[] =>
  Array.from({ length: MONTHS }, (_, n) =>
    new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + n, 1)).toISOString().slice(0, 7),
  );
async function stepsOf(tx: Tx, procedure: string): Promise<Trends['steps']> {
  const steps = await rowsOf<{
    title: string;
    low: number;
    middle: number;
    high: number;
    records: number;
    all: number;
  }>(
    tx,
    sql`with newest as (select id, facts from ledger where ${COUNTS} and procedure = ${procedure} ${NEWEST_FIRST} limit ${NEWEST})
      select max(s.title) as title, count(distinct id)::int as records, (select count(*)::int from newest) as all,
        percentile_cont(0.25) within group (order by s.minutes) as low,
        percentile_cont(0.5) within group (order by s.minutes) as middle,
        percentile_cont(0.75) within group (order by s.minutes) as high
      from newest, rows from (jsonb_to_recordset(coalesce(facts->'steps', '[]'::jsonb)) as (stage text, title text, minutes float8)) with ordinality as s(stage, title, minutes, n)
      group by s.stage order by min(n)`,
  );
  return steps.length ? { procedure, records: steps[0]!.all, steps } : null;
}
async function figuresOf(tx: Tx): Promise<Trends['figures']> {
  const rows = await rowsOf<{
    key: TrendKey;
    unit: string;
    year: number;
    low: number;
    middle: number;
    high: number;
    n: number;
  }>(
    tx,
    sql`select f.key, f.unit, extract(year from at at time zone 'UTC')::int as year, count(*)::int as n,
        percentile_cont(0.25) within group (order by f.value) as low,
        percentile_cont(0.5) within group (order by f.value) as middle,
        percentile_cont(0.75) within group (order by f.value) as high
      from (select at, figures from ledger where ${COUNTS} ${NEWEST_FIRST} limit ${MOST_FIGURES}) l,
        jsonb_to_recordset(figures) as f(key text, unit text, value float8)
      group by 1, 2, 3 having count(*) >= ${LEAST} order by 1, 3`,
  );
  return grouped(rows, (r) => `${r.key} ${r.unit}`).map(([, years]) => ({
    key: years[0]!.key,
    unit: years[0]!.unit,
    years: years.map(({ key: _key, unit: _unit, ...year }) => year),
  }));
}
async function zerosOf(tx: Tx): Promise<Trends['zeros']> {
  const rows = await rowsOf<{ gauge: string; name: string; at: string; figure: Exact }>(
    tx,
    sql`with newest as (select facts from ledger where ${COUNTS} ${NEWEST_FIRST} limit ${2 * NEWEST}),
        read as (select z.gauge, z.at, z.figure, row_number() over (partition by z.gauge order by z.at desc) as n
          from newest, jsonb_to_recordset(coalesce(facts->'zeros', '[]'::jsonb)) as z(gauge text, at float8, figure jsonb))
      select r.gauge, g.name, r.at, r.figure from read r join gauges g on g.id::text = r.gauge
      where n <= ${MOST_ZEROS} order by g.name, r.at`,
  );
  return grouped(rows, (r) => r.gauge)
    .map(([gauge, list]) => ({
      gauge,
      name: list[0]!.name,
      points: list.map(({ at, figure }) => ({ at: Number(at), figure })),
    }))
    .filter((g) => g.points.length >= LEAST)
    .sort((a, b) => b.points.length - a.points.length)
    .slice(0, MOST_GAUGES);
}
