/**
 * Fills a database with many organisations' worth of made-up data, by copying what the demo played in: `npm run fill -- [ORGS] [RECORDS]`,
 * with VAST_SUPERUSER_URL to a database that has the demo. For measuring at full scale; never for a database that is used.
 */
import pg from 'pg';

export interface Scale {
  readonly records: number;
  readonly sites: number;
  readonly systems: number;
  readonly events: number;
  readonly plates: number;
}
export const FULL: Scale = {
  records: 100_000,
  sites: 5_000,
  systems: 20_000,
  events: 1_000_000,
  plates: 200_000,
};
/** So many rows go into one statement. */
const AT_ONCE = 5_000;

/** Fills an organisation that has the demo's records up to a scale; ids follow from the number of a row. */
export async function fill(db: pg.ClientBase, org: string, scale: Scale, say = console.log): Promise<void> {
  const ask = async <R extends pg.QueryResultRow>(text: string, values: unknown[] = []) =>
    (await db.query<R>(text, values)).rows;
  const id = (kind: string, n: string) => `md5('${kind}' || $1::text || ${n})::uuid`;
  const batches = async (what: string, most: number, text: string) => {
    for (let from = 0; from < most; from += AT_ONCE)
      await db.query(text, [org, from, Math.min(most, from + AT_ONCE) - 1]);
    say(`${what}: ${most}`);
  };
  // nothing here is entered by anybody: what the database does beside is done for all at the end
  await db.query('set session_replication_role = replica');
  await batches(
    'places',
    scale.sites,
    `insert into sites (org, id, name, address, customer)
      select $1::uuid, ${id('site', 'i')}, 'House ' || i || ' ' || (array['Mill', 'Weir', 'Loom', 'Quay', 'Tenter', 'Fulling', 'Madder'])[1 + i % 7],
        i % 90 || ' ' || (array['Water lane', 'Loom street', 'Mill yard', 'Sluice walk'])[1 + i % 4] || ', Row ' || i / 90, 'Customer ' || i % 1700
      from generate_series($2::int, $3::int) i on conflict do nothing`,
  );
  await batches(
    'installations',
    scale.systems,
    `with own as (select facts, row_number() over (order by id) - 1 as n, count(*) over () as all_of from systems where org = $1::uuid and id not in (
        select md5('system' || $1::text || j)::uuid from generate_series(0, 0) j) order by id limit 12)
      insert into systems (org, id, site, name, facts)
      select $1::uuid, ${id('system', 'i')}, ${id('site', `(i % ${scale.sites})`)}, 'Gas ' || i, own.facts
      from generate_series($2::int, $3::int) i join own on own.n = i % least(12, own.all_of) on conflict do nothing`,
  );
  const [run] = await ask<{ id: string; site: string; system: string }>(
    'select r.id, r.site, r.system from runs r join seals s on s.org = r.org and s.run = r.id where r.org = $1 and not r.practice order by r.made limit 1',
    [org],
  );
  if (!run) throw new Error('This organisation has no sealed record to copy: play the demo in first.');
  await batches(
    'runs',
    scale.records,
    `insert into runs (org, id, site, system, practice, plan, made, made_by)
      select r.org, ${id('run', 'i')}, ${id('site', `(i % ${scale.sites})`)}, ${id('system', `(i % ${scale.systems})`)}, false, r.plan,
        timestamptz '2010-01-01' + i * interval '80 minutes', r.made_by
      from generate_series($2::int, $3::int) i, runs r where r.org = $1::uuid and r.id = '${run.id}' on conflict do nothing`,
  );
  await batches(
    'seals',
    scale.records,
    `insert into seals select (jsonb_populate_record(s, jsonb_build_object('run', ${id('run', 'i')}, 'number', 'VF-' || lpad(i::text, 6, '0'),
        'hash', md5('a' || i) || md5('b' || i), 'sealed_at', timestamptz '2010-01-01' + i * interval '80 minutes'))).*
      from generate_series($2::int, $3::int) i, seals s where s.org = $1::uuid and s.run = '${run.id}' on conflict do nothing`,
  );
  await batches(
    'entries',
    scale.events,
    `with e as (select body, row_number() over (order by position) - 1 as n, count(*) over () as all_of from events where org = $1::uuid and run = '${run.id}')
      insert into events (org, id, run, position, received, body)
      select $1::uuid, ${id('event', 'i')}, ${id('run', `(i % ${scale.records})`)}, 1 + i / ${scale.records}, 0, e.body
      from generate_series($2::int, $3::int) i join e on e.n = i % e.all_of on conflict do nothing`,
  );
  await batches(
    'plates',
    scale.plates,
    `insert into sightings (org, id, run, system, item, at, by, facts, search)
      select $1::uuid, ${id('plate', 'i')}, ${id('run', `(i % ${scale.records})`)}, ${id('system', `(i % ${scale.systems})`)}, 'thing ' || i,
        timestamptz '2010-01-01' + i * interval '40 minutes', 'Tester ' || i % 30,
        jsonb_build_object('id', 'thing ' || i, 'kind', 'appliance', 'name', 'Boiler ' || i, 'place', 'loft',
          'make', (array['Fullers', 'Quernstone', 'Hotwell'])[1 + i % 3], 'model', 'B' || i % 40, 'serial', 'SH-' || lpad((i::bigint * 7919 % 1000003)::text, 7, '0')),
        lower('Boiler ' || i || ' ' || (array['Fullers', 'Quernstone', 'Hotwell'])[1 + i % 3] || ' B' || i % 40 || ' SH-' || lpad((i::bigint * 7919 % 1000003)::text, 7, '0') || ' House ' || i % ${scale.sites})
      from generate_series($2::int, $3::int) i on conflict do nothing`,
  );
  const mark = org.slice(-6);
  await batches(
    'ledger',
    scale.records,
    `insert into ledger (org, id, source, number, word, status, at, site, system, procedure, tester, gauges, words, glyph, summary, figures, facts)
      select l.org, ${id('run', 'i')}, 'own', 'VF-' || lpad(i::text, 6, '0'),
        (array['tight', 'within-allowance', 'not-tight', 'void', 'inconclusive', 'refer'])[1 + (i * 7919) % 6], 'certificate',
        timestamptz '2010-01-01' + i * interval '80 minutes', ${id('site', `(i % ${scale.sites})`)}::text, ${id('system', `(i % ${scale.systems})`)},
        l.procedure, 'Tester ' || i % 30, l.gauges,
        array_to_tsvector(array['${mark}vf' || i, '${mark}house' || i % ${scale.sites}, '${mark}tester', '${mark}gas', '${mark}sh' || (i::bigint * 104729) % 1000003]),
        l.glyph, l.summary || jsonb_build_object('site', 'House ' || i % ${scale.sites}), l.figures, l.facts
      from generate_series($2::int, $3::int) i, ledger l where l.org = $1::uuid and l.id = '${run.id}' on conflict do nothing`,
  );
  await db.query('set session_replication_role = origin');
  for (const table of ['sites', 'systems', 'runs', 'seals', 'events', 'sightings', 'ledger', 'open_runs'])
    await db.query(`analyze ${table}`);
}

if (process.argv[1] === import.meta.filename) {
  const url = process.env.VAST_SUPERUSER_URL;
  if (!url) throw new Error('Say in VAST_SUPERUSER_URL which database is filled. It needs the demo.');
  const [orgs = 1, records = FULL.records] = process.argv.slice(2).map(Number);
  const share = records / FULL.records;
  const scale = Object.fromEntries(
    Object.entries(FULL).map(([k, v]) => [k, Math.max(1, Math.round(v * share))]),
  ) as unknown as Scale;
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  const { rows } = await db.query<{ org: string }>(
    'select org from organisations o where exists (select 1 from seals s where s.org = o.org) order by org limit 1',
  );
  const from = rows[0]?.org;
  if (!from) throw new Error('No organisation here has a sealed record: play the demo in first.');
  await fill(db, from, scale);
  for (let n = 1; n < orgs; n += 1) {
    const org = (await db.query<{ org: string }>('select gen_random_uuid() as org')).rows[0]!.org;
    await copyHouse(db, from, org, n);
    await fill(db, org, scale);
  }
  await db.end();
}
/** Another organisation with the first one's people, rules and one record to copy. */
async function copyHouse(db: pg.ClientBase, from: string, org: string, n: number): Promise<void> {
  await db.query('set session_replication_role = replica');
  const tables: readonly (readonly [string, string, string])[] = [
    ['organisations', `'name', 'House ' || ${n}`, ''],
    ['people', `'email', t.email || '.${n}'`, ''],
    ['sites', `'x', 0`, ''],
    ['systems', `'x', 0`, ''],
    ['runs', `'x', 0`, ''],
    ['seals', `'x', 0`, ''],
    ['events', `'x', 0`, ''],
    ['ledger', `'x', 0`, ''],
  ];
  for (const [table, over] of tables) {
    const { rows } = await db.query<{ c: string }>(
      `select string_agg(quote_ident(attname), ', ' order by attnum) as c from pg_attribute where attrelid = $1::regclass and attnum > 0 and not attisdropped and attgenerated = ''`,
      [table],
    );
    const columns = rows[0]!.c;
    await db.query(
      `insert into ${table} (${columns}) select ${columns
        .split(', ')
        .map((c) => `p.${c}`)
        .join(
          ', ',
        )} from ${table} t, jsonb_populate_record(t, jsonb_build_object('org', '${org}'::text, ${over})) p where t.org = '${from}'
        and not (t::text like '%md5%') limit 5000 on conflict do nothing`,
    );
  }
  await db.query('set session_replication_role = origin');
}
