/**
 * Faults in random order while several people enter: `npm run faults -- [HOW MANY]` (200). Kills web server and database with -9, cuts
 * connections, stops the server for a while, makes the database read only, fills its disk (as root, where one can be mounted). Each once
 * in the first round, then as they come. At the end every entry that was sent stands in its log once,
 * places have no gaps, and the server answered again soon after each fault. On a cluster and a port of its own.
 */
import { execFileSync } from 'node:child_process';
import { randomBytes, randomInt } from 'node:crypto';
import { appendFileSync, lstatSync, mkdirSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import pg from 'pg';
import { freePort, keptCluster, startCluster } from './cluster.mjs';
import { addGauge, beginTest, cookiesOf, makeHouse } from './houses';
import { migrateDatabase } from './migrate';
import { build, startProcesses } from './supervise.mjs';
import { uuid7 } from '../src/wire/uuid7';

const CLIENTS = 6;
const MOST_MS = 4_000;
/** A server that takes nothing for so long will not any more. */
const GIVEN_UP_MS = 60_000;
const many = Number(process.argv[2] ?? 200);
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));

interface Client {
  readonly run: string;
  readonly sent: Set<string>;
  readonly over: Promise<void>;
}
/** What is put away whatever comes of it, the newest first. */
const ends: (() => unknown)[] = [];
async function main(): Promise<boolean> {
  const disk = await smallDisk();
  if (disk) ends.unshift(disk.remove);
  const kept = await keptCluster('faults', 55100, { say: () => undefined, waits: [200, 500, 1000] });
  ends.unshift(() => kept.stop());
  const d = await kept.now().database('vast_faults', true);
  if (disk) {
    await asked(d.superuser, "alter system set max_wal_size = '48MB'");
    await asked(d.superuser, 'select pg_reload_conf()');
  }
  await migrateDatabase(d.owner);
  process.env.DATABASE_URL = d.app;
  process.env.VAST_SECRET = randomBytes(32).toString('hex');
  await build();
  const processes = startProcesses({
    addresses: d,
    port: await freePort(3800),
    gaugePort: await freePort(3850),
    gaugeFolder: '.run/faults-gauge',
    extra: { VAST_SECRET: process.env.VAST_SECRET },
    most: Infinity,
  });
  ends.unshift(() => processes.stop());
  await processes.ready;
  let going = true;
  const clients = await house(processes.url, () => going);
  const faults = {
    'the web server killed': () => process.kill(processes.webPid(), 'SIGKILL'),
    'the database killed': () => process.kill(kept.now().pid, 'SIGKILL'),
    'connections cut': () =>
      asked(d.superuser, "select pg_terminate_backend(pid) from pg_stat_activity where usename = 'vast_app'"),
    'the web server stopped for a second': async () => {
      const pid = processes.webPid();
      process.kill(pid, 'SIGSTOP');
      await wait(1_000);
      process.kill(pid, 'SIGCONT');
    },
    'the database read only for a second': async () => {
      // said from another database: what is read only cannot be told to be otherwise from inside
      const beside = d.superuser.replace(/[^/]*$/, 'postgres');
      const cut = "select pg_terminate_backend(pid) from pg_stat_activity where usename = 'vast_app'";
      await asked(beside, 'alter database vast_faults set default_transaction_read_only = on');
      await asked(beside, cut);
      await wait(1_000);
      await asked(beside, 'alter database vast_faults reset default_transaction_read_only');
      await asked(beside, cut);
    },
    ...(disk && {
      'the disk full for a second': async () => {
        disk.fill();
        // what is written next needs a new file of the log: the database ends, and does not start while there is no room
        await asked(d.superuser, 'select pg_switch_wal()').catch(() => undefined);
        for (let n = 0; n < 10; n += 1) {
          await wait(100);
          disk.fill();
        }
        disk.free();
      },
    }),
  };
  const names = Object.keys(faults) as (keyof typeof faults)[];
  const first = names.toSorted(() => Math.random() - 0.5);
  const back: number[] = [];
  const counted: Record<string, number> = {};
  for (let n = 0; n < many; n += 1) {
    const name = first.pop() ?? names[randomInt(names.length)]!;
    counted[name] = (counted[name] ?? 0) + 1;
    const before = total(clients);
    const began = performance.now();
    await Promise.resolve(faults[name]!()).catch(() => undefined); // what is to be hit may be gone already
    while (!(await well(processes.url)) || total(clients) === before) {
      if (performance.now() - began > GIVEN_UP_MS)
        throw new Error(`After ${name} nothing was taken any more.`);
      await wait(50);
    }
    back.push(performance.now() - began);
    if (process.env.VAST_FAULTS_SHOW) console.log(n, name, Math.round(performance.now() - began));
    await wait(200 + randomInt(600));
  }
  going = false;
  await Promise.all(clients.map((c) => c.over));
  const faultsFound = await looked(d.superuser, clients);
  back.sort((a, b) => a - b);
  const median = back[Math.floor(back.length / 2)] ?? 0;
  console.log(names.map((n) => `${n}: ${counted[n] ?? 0}`).join('; '));
  console.log(
    `${total(clients)} entries sent; ${faultsFound.join('; ') || 'none lost, none doubled, no gap'}`,
  );
  console.log(
    `serves again after ${(median / 1000).toFixed(1)} s (median), ${((back.at(-1) ?? 0) / 1000).toFixed(1)} s at most`,
  );
  return faultsFound.length === 0 && median <= MOST_MS;
}
async function tried(): Promise<void> {
  const good = await main().catch((error: unknown) => {
    console.error(error);
    return false;
  });
  for (const end of ends) await end();
  process.exit(good ? 0 : 1);
}
const DISK_MB = 400;
/** The data of this cluster on a disk that is soon full; null where none can be mounted. */
async function smallDisk(): Promise<{ fill: () => void; free: () => void; remove: () => void } | null> {
  const kept = await startCluster('faults', 55100, () => undefined);
  const data = (JSON.parse(readFileSync('.run/cluster-faults.json', 'utf8')) as { data: string }).data;
  await kept.stop();
  // left by an end before this one
  if (lstatSync(data).isSymbolicLink()) {
    rmSync(data);
    return smallDisk();
  }
  const disk = `${data}.disk`;
  try {
    mkdirSync(disk, { recursive: true });
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'none', disk], { stdio: 'ignore' });
  } catch {
    console.log('no disk can be mounted here: a full one is not tried');
    return null;
  }
  execFileSync('cp', ['-a', data, `${disk}/data`]);
  rmSync(data, { recursive: true });
  symlinkSync(`${disk}/data`, data);
  const filler = `${disk}/filler`;
  return {
    fill: () => {
      try {
        for (;;) appendFileSync(filler, Buffer.alloc(65_536));
      } catch {
        /* full */
      }
    },
    free: () => rmSync(filler, { force: true }),
    remove: () => {
      rmSync(data);
      execFileSync('umount', ['-l', disk], { stdio: 'ignore' });
    },
  };
}
const total = (clients: readonly Client[]): number => clients.reduce((sum, c) => sum + c.sent.size, 0);
const well = (url: string) =>
  fetch(`${url}/api/health`, { signal: AbortSignal.timeout(2_000) })
    .then((r) => r.ok)
    .catch(() => false);
async function asked(url: string, text: string): Promise<pg.QueryResultRow[]> {
  const db = new pg.Client({ connectionString: url });
  db.on('error', () => undefined);
  await db.connect();
  try {
    const { rows } = await db.query<pg.QueryResultRow>(text);
    return rows;
  } finally {
    await db.end().catch(() => undefined);
  }
}
/** A house with a run for each client, who enters and sends again until it is taken. */
async function house(url: string, going: () => boolean): Promise<Client[]> {
  const made = await makeHouse('Fault House');
  await addGauge(made, 'G-1');
  const cookie = await cookiesOf(url, made);
  const clients: Client[] = [];
  for (let n = 0; n < CLIENTS; n += 1) {
    const run = await beginTest(made, `Kiln ${n}`);
    const sent = new Set<string>();
    clients.push({ run, sent, over: enters(url, cookie, run, made.who.person, sent, going) });
  }
  await (await import('../src/database/client')).closePool();
  return clients;
}
async function enters(
  url: string,
  cookie: string,
  run: string,
  by: string,
  sent: Set<string>,
  going: () => boolean,
): Promise<void> {
  const device = uuid7(Date.now());
  for (let n = 1; going();) {
    const events = Array.from({ length: 1 + randomInt(3) }, () => ({
      kind: 'note',
      text: `entry ${n}`,
      id: uuid7(Date.now()),
      run,
      device,
      deviceSeq: n++,
      at: Date.now(),
      zone: 'UTC',
      offset: 0,
      mono: 0,
      pageLoad: device,
      by,
      byName: 'Fault House',
      expects: '',
    }));
    for (;;) {
      const answer = await fetch(`${url}/api/runs/${run}/events`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ events }),
        signal: AbortSignal.timeout(5_000),
      }).catch(() => null);
      if (answer?.ok) break;
      // only what may be taken later is sent again; anything else is a fault of its own
      if (answer && answer.status < 500) throw new Error(`${answer.status}: ${await answer.text()}`);
      await wait(100);
    }
    for (const e of events) sent.add(e.id);
    await wait(20 + randomInt(60));
  }
}
async function looked(url: string, clients: readonly Client[]): Promise<string[]> {
  const found: string[] = [];
  for (const { run, sent } of clients) {
    const rows = (await asked(
      url,
      `select id, position from events where run = '${run}' order by position`,
    )) as {
      id: string;
      position: number;
    }[];
    const ids = new Set(rows.map((r) => r.id));
    const lost = [...sent].filter((id) => !ids.has(id)).length;
    if (lost) found.push(`${lost} lost`);
    if (ids.size !== rows.length) found.push(`${rows.length - ids.size} doubled`);
    if (rows.some((r, n) => r.position !== n + 1)) found.push('a gap in the places');
  }
  return found;
}
void tried();
