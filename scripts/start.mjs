import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { freePort, isAway, keptCluster, root } from './cluster.mjs';
import { logFile } from './keep-up.mjs';
import { build, prepare, run, startProcesses } from './supervise.mjs';

const began = Date.now();
const empty = process.argv.includes('--empty');
mkdirSync(run, { recursive: true });
const pidFile = path.join(run, 'processes.json');

/** Ends what a crashed start of this checkout left running, so that its ports are free again. */
async function endLeftovers() {
  if (!existsSync(pidFile)) return;
  const { starter, pids = [] } = JSON.parse(readFileSync(pidFile, 'utf8'));
  const command = (pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    } catch {
      return '';
    }
  };
  if (command(starter).includes(path.join(root, 'scripts/start.mjs')))
    throw new Error(
      `Vast Stone of this folder is already running (process ${starter}). Stop it with Ctrl-C there, or: kill ${starter}`,
    );
  for (const pid of pids)
    if (command(pid).includes(root) || command(pid).includes('next-server')) process.kill(pid, 'SIGKILL');
  rmSync(pidFile);
  await new Promise((r) => setTimeout(r, 200));
}

/** Tries what asks the database until it is there: a server of one's own may come up after this one. */
async function whenThere(work) {
  for (let wait = 1000; ; wait = Math.min(30000, 2 * wait)) {
    try {
      return await work();
    } catch (error) {
      if (stopping || !isAway(error)) throw error;
      console.log(
        `The database does not answer (${error.message || error.code}); it is tried again in ${wait / 1000} s.`,
      );
      await new Promise((r) => setTimeout(r, wait));
    }
  }
}
const stops = [];
let stopping = false;
async function stop(code = 0) {
  if (stopping) return;
  stopping = true;
  console.log('\nStopping …');
  for (const s of stops.reverse()) await s();
  rmSync(pidFile, { force: true });
  process.exit(code);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

try {
  if (process.env.VAST_TEST_CLOCK)
    throw new Error(
      'VAST_TEST_CLOCK is set: a clock that can be shifted is for tests alone. Unset it, then start again.',
    );
  await endLeftovers();
  const peopleFile = path.join(run, 'demo-people.json');
  let addresses;
  if (process.env.DATABASE_URL) {
    if (!process.env.VAST_OWNER_URL)
      throw new Error(
        'With DATABASE_URL (role vast_app), VAST_OWNER_URL (role vast_owner) is needed too: it migrates.',
      );
    addresses = { app: process.env.DATABASE_URL, owner: process.env.VAST_OWNER_URL };
  } else {
    const cluster = await keptCluster('app', Number(process.env.VAST_DATABASE_PORT ?? 54329));
    stops.push(cluster.stop);
    addresses = await cluster.now().database(empty ? 'vast_stone_empty' : 'vast_stone');
  }
  await whenThere(() =>
    prepare(addresses, { demo: !empty, peopleFile, idsFile: path.join(run, 'demo-ids.json') }),
  );
  await build();
  const wished = Number(process.env.PORT ?? 3000);
  const port = await freePort(wished);
  if (port !== wished)
    console.log(
      `Port ${wished} is taken by another program; serving on ${port} instead. Set PORT to choose.`,
    );
  const gaugePort = await freePort(3100, new Set([port]));
  const pids = [];
  const started = (pid) =>
    writeFileSync(pidFile, JSON.stringify({ starter: process.pid, pids: (pids.push(pid), pids) }));
  const processes = startProcesses({
    addresses,
    port,
    gaugePort,
    gaugeFolder: path.join(run, 'gauge'),
    extra: empty ? {} : { VAST_DEMO_PEOPLE: peopleFile },
    started,
    log: logFile(path.join(run, 'log'), 'server'),
    // what keeps stopping is not left standing as if it served: whoever keeps this program up sees that it ended
    gaveUp: () => void stop(1),
  });
  stops.push(processes.stop);
  await processes.ready;
  console.log(
    `\nVast Stone: ${processes.url}   (ready in ${((Date.now() - began) / 1000).toFixed(1)} s; Ctrl-C stops it)`,
  );
  if (empty) console.log(`Whoever opens it first sets it up: ${processes.url}/begin`);
  if (!empty && existsSync(peopleFile)) {
    console.log('Demo sign-ins:');
    for (const p of JSON.parse(readFileSync(peopleFile, 'utf8')))
      console.log(`  ${p.role.padEnd(11)} ${p.email.padEnd(34)} ${p.password}`);
  }
} catch (error) {
  console.error(`\n${error.message}`);
  await stop(1);
}
