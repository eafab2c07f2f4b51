// What must hold, in one command: format, lint, types, unit, database and browser tests; with `further` all that
// takes longer too, as continuous integration does; with `journeys` every journey and nothing else.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { needChromium } from './chromium.mjs';
import { freePort, keptCluster, root } from './cluster.mjs';
import { build, node, secret } from './supervise.mjs';
import { playedDemo, startTestServers } from './e2e-server.mjs';

const folder = path.join(root, '.check');
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const began = Date.now();
const count = { passed: 0, failed: 0, skipped: 0 };
const seconds = (since) => `${((Date.now() - since) / 1000).toFixed(0)} s`;
const bin = (name) => path.join(root, 'node_modules', ...name.split('/'));
/** Runs a program of this project; what it says is kept, or shown as it comes. */
const run = (args, { env = {}, show = false } = {}) =>
  new Promise((resolve) => {
    const child = spawn(node, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', show ? 'inherit' : 'pipe', show ? 'inherit' : 'pipe'],
    });
    let out = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (d) => (out += d));
    child.on('exit', (code) => resolve({ code: code ?? 1, out }));
  });
async function gate(name, args) {
  const since = Date.now();
  const { code, out } = await run(args);
  count[code === 0 ? 'passed' : 'failed'] += 1;
  console.log(`${code === 0 ? 'ok  ' : 'FAIL'} ${name} (${seconds(since)})`);
  if (code) console.log(out.slice(-8000));
}
/** Suites that lie among those of a project and are none of them. */
const OTHERS = { unit: ['\\.database\\.test'], database: [] };
/** @param shard `1/3`: the first third of its suites */
async function jest(project, { env, but = [], shard }) {
  const since = Date.now();
  const name = shard ? `${project} (${shard})` : project;
  const file = path.join(folder, `jest-${name.replace(/\W+/g, '-')}.json`);
  const { out } = await run(
    [
      bin('jest/bin/jest.js'),
      ...['--selectProjects', project, '--json', `--outputFile=${file}`, '--silent', '--maxWorkers=1'],
      ...(shard ? [`--shard=${shard}`] : []),
      // what is named here takes the place of what the project itself leaves out
      ...(but.length ? ['--testPathIgnorePatterns', 'node_modules', ...OTHERS[project], ...but] : []),
    ],
    { env },
  );
  if (!existsSync(file)) {
    count.failed += 1;
    console.log(`FAIL ${name} tests did not run\n${out.slice(-8000)}`);
    return;
  }
  const r = JSON.parse(readFileSync(file, 'utf8'));
  count.passed += r.numPassedTests;
  count.failed += r.numFailedTests + r.numRuntimeErrorTestSuites;
  console.log(
    `${r.success ? 'ok  ' : 'FAIL'} ${name} tests: ${r.numPassedTests} passed, ${r.numFailedTests} failed (${seconds(since)})`,
  );
  for (const suite of r.testResults) if (suite.status === 'failed') console.log(suite.message);
}

/** Journeys at the same time, each with a server of its own. On two cores four take longer than two. */
const LANES = 2;
/** Parts of the unit tests, taken one after the other by whoever is free. */
const SHARDS = 8;
/** How the first line of a suite says that it is left out of the shorter checks, as the journeys say it: `// @further why`. */
const LEFT = { core: /^\/\/ @further /, further: /(?!)/, journeys: /(?!)/ };
const leftOut = (asked) =>
  ['src', 'scripts', 'benchmarks']
    .flatMap((folder) =>
      readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => `${folder}/${name}`),
    )
    .filter((name) => /\.test\.tsx?$/.test(name) && LEFT[asked].test(readFileSync(name, 'utf8')))
    .map((name) => name.replaceAll('.', '\\.'));
/** Logs made up for each procedure, by which the fold is shown to be total; otherwise as many as its suite says. */
const TOTAL_RUNS = { core: '10' };
const stops = [];
/** The database server, started again when it is killed. */
async function database() {
  const kept = await keptCluster('check', 54400);
  stops.push(kept.stop);
  return kept;
}
async function databaseTests(cluster, demo, but) {
  const d = await cluster.database('vast_check_unit', true, demo.name);
  await jest('database', {
    but,
    env: {
      DATABASE_URL: d.app,
      VAST_OWNER_URL: d.owner,
      VAST_SUPERUSER_URL: d.superuser,
      VAST_SECRET: secret(),
      VAST_DEMO_IDS: demo.idsFile,
      VAST_TEST_CLOCK: '1',
      VAST_DATABASE_WAIT_MS: '60000',
    },
  });
}
/** Kills what the browser test of faults names. */
function faults(servers, cluster) {
  const kill = (pid) => {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      /* gone already */
    }
  };
  const commandLine = (pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    } catch {
      return ''; // ended in the meantime
    }
  };
  return createServer((request, response) => {
    const url = new URL(request.url, 'http://x');
    if (url.pathname === '/kill-server') kill(servers.webPid());
    if (url.pathname === '/kill-database') kill(cluster.now().pid);
    if (url.pathname === '/kill-browser')
      for (const pid of readdirSync('/proc').filter((n) => /^\d+$/.test(n)))
        if (commandLine(pid).includes(`--user-data-dir=${url.searchParams.get('profile')}`))
          kill(Number(pid));
    response.end('ok');
  });
}
async function journeys(projects, env) {
  const since = Date.now();
  const file = path.join(folder, `browser-${projects[0]}.json`);
  await run([bin('@playwright/test/cli.js'), 'test', ...projects.flatMap((p) => ['--project', p])], {
    env: { ...env, VAST_E2E_JSON: file, VAST_E2E_OUTPUT: `.check/playwright-${projects[0]}` },
    show: true,
  });
  if (!existsSync(file)) {
    count.failed += 1;
    return;
  }
  const { stats } = JSON.parse(readFileSync(file, 'utf8'));
  count.passed += stats.expected + stats.flaky;
  count.failed += stats.unexpected;
  count.skipped += stats.skipped;
  console.log(`journeys ${projects.join(', ')} (${seconds(since)})`);
}

try {
  if (process.argv[2] && !Object.hasOwn(LEFT, process.argv[2]))
    throw new Error(`./check knows: ${Object.keys(LEFT).join(', ')}. Without a word it is core.`);
  // two things at a time, as there are at least two cores
  const cluster = await database();
  const asked = process.argv[2] ?? 'core';
  needChromium(asked !== 'core');
  const but = leftOut(asked);
  const runs = TOTAL_RUNS[asked];
  const unit = (shard) => jest('unit', { but, shard, env: runs ? { TOTAL_RUNS: runs } : {} });
  // both lanes take what is left of the unit tests, so that they end together
  const shards = Array.from({ length: SHARDS }, (_, i) => `${i + 1}/${SHARDS}`);
  const units = async () => {
    for (let next = shards.shift(); next; next = shards.shift()) await unit(next);
  };
  // the build leaves a core idle half the time; what is looked at meanwhile needs nothing of it
  const built = build();
  const looks = async () => {
    await gate('format', [bin('oxfmt/bin/oxfmt'), '--check', '.']);
    await gate('lint, types and circles', [
      bin('oxlint/bin/oxlint'),
      ...['-c', 'oxlint.config.mjs', '--type-aware', '--type-check', '.'],
    ]);
    await units();
  };
  // the longest first: it is one suite after the other
  const stored = async () => {
    await built;
    const played = await playedDemo(cluster.now());
    await databaseTests(cluster.now(), played, but);
    await units();
    return played;
  };
  const alone = asked === 'journeys';
  const [demo] = await Promise.all([...(alone ? [undefined] : [stored(), looks()]), built]);

  const servers = await startTestServers(cluster.now(), LANES, demo);
  stops.push(servers.stop);
  const port = await freePort(3390);
  const control = faults(servers, cluster).listen(port, '127.0.0.1');
  const env = {
    VAST_E2E_CONTROL: `http://127.0.0.1:${port}`,
    VAST_E2E_EMPTY: servers.empty,
    VAST_E2E_PUSH: servers.push,
    VAST_E2E_TWIN: servers.twin,
  };
  await journeys(['wide', 'phone'], { ...env, VAST_E2E_URL: servers.url, VAST_JOURNEYS: asked });
  // what is killed, and the second server, wait for others more than they work
  if (asked !== 'core') await journeys(['fault'], { ...env, VAST_E2E_URL: servers.url.split(',')[0] });
  control.close();
  // each kind of fault once, in an order of its own
  if (asked !== 'core' && !alone)
    await gate('faults in random order', [
      bin('tsx/dist/cli.mjs'),
      ...['--conditions=react-server', 'scripts/faults.ts', '6'],
    ]);
} catch (error) {
  count.failed += 1;
  console.error(error.message);
} finally {
  for (const stop of stops.reverse()) await stop();
}
console.log(`everything took ${seconds(began)}`);
console.log(
  `${count.passed} passed, ${count.failed} failed${count.skipped ? `, ${count.skipped} skipped` : ''}`,
);
process.exit(count.failed ? 1 : 0);
