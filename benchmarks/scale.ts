/** Every list and search at full scale: an organisation with 100,000 records beside another of the same size, as a browser asks for them. */
import { readFileSync } from 'node:fs';
import pg from 'pg';
import { freePort, startCluster } from '../scripts/cluster.mjs';
import { fill, FULL } from '../scripts/fill';
import { cookiesOf } from '../scripts/houses';
import { build, prepare, startProcesses } from '../scripts/supervise.mjs';
import type { JobSeen } from '../src/wire/jobs';
import type { Report } from './run';

const MOST_MS = 1_000;
const MOST_KB = 1_000;
const TRIES = 5;
const PEOPLE = '.run/bench-people.json';

export async function scale(report: Report): Promise<void> {
  const cluster = await startCluster('bench', 54900, () => {});
  let stop = async (): Promise<unknown> => undefined;
  try {
    const d = await cluster.database('vast_bench_scale', true);
    await prepare(
      d,
      { demo: true, second: true, peopleFile: PEOPLE, idsFile: '.run/bench-ids.json' },
      () => {},
    );
    const db = new pg.Client({ connectionString: d.superuser });
    await db.connect();
    const { rows } = await db.query<{ org: string }>(
      'select org from seals group by org order by count(*) desc',
    );
    for (const { org } of rows) await fill(db, org, FULL, () => {});
    await build();
    const processes = startProcesses({
      addresses: d,
      port: await freePort(3700),
      gaugePort: await freePort(3750),
      gaugeFolder: '.run/bench-gauge',
    });
    stop = () => processes.stop();
    await processes.ready;
    const [person] = JSON.parse(readFileSync(PEOPLE, 'utf8')) as { email: string; password: string }[];
    const cookie = await cookiesOf(processes.url, person!);
    const asked = async (path: string) => {
      const began = performance.now();
      const answer = await fetch(processes.url + path, { headers: { cookie } });
      const bytes = (await answer.arrayBuffer()).byteLength;
      if (answer.status !== 200) throw new Error(`${path} answered ${answer.status}`);
      return { ms: performance.now() - began, kB: bytes / 1000 };
    };
    const first = async (path: string, link: RegExp) =>
      link.exec(await (await fetch(processes.url + path, { headers: { cookie } })).text())![1]!;
    const system = await first('/places?find=house', /href="(\/places\/[0-9a-f-]{36})"/);
    const record = await first('/ledger', /href="(\/ledger\/[0-9a-f-]{36})"/);
    const [{ id: goes } = { id: '' }] = (
      await db.query<{ id: string }>("select id from people where org = $1 and role = 'tester' limit 1", [
        rows[0]!.org,
      ])
    ).rows;
    const pages: readonly (readonly [string, string])[] = [
      ['today', '/today'],
      ['places', '/places'],
      ['places, a word', '/places?find=weir'],
      ['places, three words', '/places?find=customer+17+loom'],
      ['places, a serial', '/places?find=SH-0000021'],
      ['a place', system],
      ['a place copied', `${system}/copy`],
      ['labels', '/cabinet/labels'],
      ['ledger', '/ledger'],
      ['ledger, a word', '/ledger?find=house17'],
      ['ledger, narrowed', '/ledger?word=not-tight&from=2020-01-01'],
      ['a record', record],
      ['reading in', '/ledger/import'],
      ['recall of a range', '/ledger/recall?make=Fullers&model=B7&from=SH-0001000&to=SH-0100000'],
      ['plan', '/plan'],
      ['a week of one person', `/plan?weeks=1&who=${goes}`],
      ['a day’s sheet', '/plan/day'],
      ['owed', '/owed'],
      ['trends', '/ledger/trends'],
      ['find: a word', '/api/find?words=weir'],
      ['find: a serial', '/api/find?words=SH-0000021'],
      ['find: a number', '/api/find?words=VS-00017'],
      ['find: two words of a customer', '/api/find?words=customer+17'],
      ['training', '/yard/board'],
    ];
    for (const [name, path] of pages) {
      const tries = [];
      for (let n = 0; n < TRIES; n += 1) tries.push(await asked(path));
      tries.sort((a, b) => a.ms - b.ms);
      const { ms, kB } = tries[Math.floor(TRIES / 2)]!;
      report(`100,000 records: ${name}`, ms, 'ms', MOST_MS);
      report(`  its size: ${name}`, kB, 'kB', MOST_KB);
    }
    const raw = async (text: string, values: unknown[]) => {
      const began = performance.now();
      await db.query(text, values);
      return performance.now() - began;
    };
    const org = rows[0]!.org;
    report(
      '  beside: raw SQL, a word in 5,000 places',
      await raw('select id, name from sites where org = $1 and search like $2 order by name limit 60', [
        org,
        '%weir%',
      ]),
      'ms',
    );
    report(
      '  beside: raw SQL, a serial among 200,000 plates',
      await raw('select id from sightings where org = $1 and plates like $2 order by at desc limit 200', [
        org,
        '%sh0000021%',
      ]),
      'ms',
    );
    const before = memory(processes.webPid());
    const csv = await asked('/api/ledger/csv');
    report('100,000 records as a table', csv.ms / 1000, 's');
    report('  what it takes of memory at most beside', memory(processes.webPid()) - before, 'MB', 200);
    const answered = async <T>(path: string, body?: unknown): Promise<T> =>
      (await (
        await fetch(processes.url + path, {
          headers: { cookie, 'content-type': 'application/json', origin: processes.url },
          ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
        })
      ).json()) as T;
    const most = memory(processes.webPid());
    const began = performance.now();
    const { id } = await answered<{ id: string }>('/api/jobs', { kind: 'export' });
    let job: JobSeen;
    do {
      await new Promise((go) => setTimeout(go, 1_000));
      job = (await answered<{ jobs: JobSeen[] }>('/api/jobs')).jobs.find((j) => j.id === id)!;
    } while (job.state === 'waiting' || job.state === 'running');
    if (job.state !== 'done') throw new Error(`The export ended ${job.state}: ${job.trouble}`);
    report('export of it all', (performance.now() - began) / 1000, 's');
    const file = await fetch(`${processes.url}/api/jobs/${id}/file`, { headers: { cookie } });
    let length = 0;
    for await (const chunk of file.body as unknown as AsyncIterable<Uint8Array>) length += chunk.length;
    if (length !== job.bytes) throw new Error(`The file has ${length} bytes, not ${job.bytes}.`);
    report('  its file', length / 1e6, 'MB');
    report('  what it takes of memory at most beside', memory(processes.webPid()) - most, 'MB', 200);
    await db.end();
  } finally {
    await stop();
    await cluster.stop();
  }
}
/** The most a process ever had in memory, MB. */
const memory = (pid: number): number =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;
