// Runs the product's processes: builds when sources changed, starts web server and stand-in gauge, restarts what crashes.
import { execFile, execFileSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { root } from './cluster.mjs';
import { keepUp } from './keep-up.mjs';
import { writeShellManifest } from './shell-manifest.mjs';
import { makeTools, tool } from './tools.mjs';

export const run = path.join(root, '.run');
export const node = process.execPath;

/** A secret of this checkout, made once. */
export function secret() {
  const file = path.join(run, 'secret');
  mkdirSync(run, { recursive: true });
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) =>
    a.name < b.name ? -1 : 1,
  )) {
    const full = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* files(full);
    else yield full;
  }
}
/** Hash of everything the built application is made of. */
export function sourceHash() {
  const hash = createHash('sha256');
  for (const part of [
    'src',
    'public',
    'packs',
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
    'postcss.config.mjs',
  ]) {
    const full = path.join(root, part);
    for (const file of statSync(full).isDirectory() ? files(full) : [full]) {
      if (/\.test\.tsx?$/.test(file)) continue;
      hash.update(path.relative(root, file)).update('\0').update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}
/** Builds the application, with the list of what opens without a signal, unless the same sources are built already. */
export async function build(say = console.log) {
  await makeTools();
  const marker = path.join(root, '.next', 'vast-build');
  const wanted = sourceHash();
  if (existsSync(marker) && readFileSync(marker, 'utf8') === wanted) return false;
  say('Building the application …');
  rmSync(marker, { force: true });
  try {
    await promisify(execFile)(node, [path.join(root, 'node_modules/next/dist/bin/next'), 'build'], {
      cwd: root,
      env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
      maxBuffer: 1e8,
    });
  } catch (error) {
    throw new Error(
      `The build failed:\n${String(error.stdout ?? '').slice(-6000)}\n${String(error.stderr ?? '').slice(-3000)}`,
    );
  }
  writeShellManifest(path.join(root, '.next'));
  writeFileSync(marker, wanted);
  return true;
}

/** Migrates and, where the database is still empty, loads the demo. Skipped when nothing is to be done. */
export async function prepare(addresses, { demo, peopleFile, idsFile, second = false }, say = console.log) {
  const migrations = readdirSync(path.join(root, 'src/database/migrations')).filter((f) =>
    f.endsWith('.sql'),
  ).length;
  const client = new pg.Client({ connectionString: addresses.owner });
  await client.connect();
  let done = 0;
  let organisations = 0;
  try {
    done = (await client.query('select count(*)::int as n from drizzle.__drizzle_migrations')).rows[0].n;
    // the owner is under row-level security too; it sees how many there are by their keys in the catalogue's statistics
    organisations = (await client.query('select count(*)::int as n from people')).rows[0].n;
  } catch {
    /* a new database */
  } finally {
    await client.end();
  }
  const wantsDemo = demo && organisations === 0;
  if (done >= migrations && !wantsDemo) return;
  await makeTools();
  say(wantsDemo ? 'Preparing the database and playing in the demo …' : 'Preparing the database …');
  execFileSync(
    node,
    [...tool('prepare'), ...(wantsDemo ? ['--demo'] : []), ...(second ? ['--second'] : [])],
    {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: {
        ...process.env,
        DATABASE_URL: addresses.app,
        VAST_OWNER_URL: addresses.owner,
        VAST_SECRET: secret(),
        VAST_DEMO_PEOPLE: peopleFile,
        VAST_DEMO_IDS: idsFile,
      },
    },
  );
}

/** Waits until an address answers. */
async function answers(url, ms = 30000) {
  const until = Date.now() + ms;
  for (;;) {
    try {
      const r = await fetch(url, { signal: AbortSignal.timeout(2000) });
      if (r.status < 500) return;
    } catch {
      /* not yet */
    }
    if (Date.now() > until) throw new Error(`${url} does not answer.`);
    await new Promise((r) => setTimeout(r, 100));
  }
}
const webArgs = (port) => [
  '--require',
  path.join(root, 'scripts', 'at-the-door.cjs'),
  path.join(root, 'node_modules/next/dist/bin/next'),
  'start',
  '-H',
  '127.0.0.1',
  '-p',
  String(port),
];

/** Starts web server and stand-in gauge over one database; `ready` resolves when they answer. `extra` adds to the web server's settings. */
export function startProcesses({
  addresses,
  port,
  gaugePort,
  gaugeFolder,
  extra = {},
  started,
  gaveUp,
  log,
  most,
}) {
  const url = `http://127.0.0.1:${port}`;
  const env = {
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: addresses.app,
    VAST_SECRET: secret(),
    VAST_URL: url,
    VAST_GAUGE_URL: `http://127.0.0.1:${gaugePort}`,
    ...extra,
  };
  const web = keepUp('The web server', webArgs(port), env, { started, gaveUp, log, most });
  const gauge = keepUp(
    'The simulated gauge',
    tool('gauge'),
    { VAST_GAUGE_PORT: String(gaugePort), VAST_GAUGE_FOLDER: gaugeFolder },
    { started, log },
  );
  const stop = () => Promise.all([web.stop(), gauge.stop()]);
  return { url, webPid: () => web.pid, stop, ready: answers(`${url}/api/health`) };
}

/** Starts the stand-in of a push service; the web server is told of it by VAST_PUSH_STAND_IN. */
export function startPushStandIn(port) {
  const push = keepUp('The simulated push service', tool('push'), { VAST_PUSH_PORT: String(port) }, {});
  return { url: `http://127.0.0.1:${port}`, stop: () => push.stop() };
}
