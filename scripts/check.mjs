// Everything that must hold, in one command: format, lint, types, unit, database and browser tests.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { freePort, needDebian, root, startCluster } from './cluster.mjs';
import { build, node, secret } from './supervise.mjs';
import { startTestServers } from './e2e-server.mjs';

const folder = path.join(root, '.check');
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
let passed = 0;
let failed = 0;
let skipped = 0;
const bin = (name) => path.join(root, 'node_modules', ...name.split('/'));
const sh = (args, env = {}, capture = false) =>
  new Promise((resolve) => {
    const child = spawn(node, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', capture ? 'pipe' : 'inherit', 'inherit'],
    });
    let out = '';
    child.stdout?.on('data', (d) => (out += d));
    child.on('exit', (code) => resolve({ code: code ?? 1, out }));
  });
async function gate(name, args) {
  const began = Date.now();
  const { code, out } = await sh(args, {}, true);
  if (code === 0) passed += 1;
  else {
    failed += 1;
    console.log(out.slice(-8000));
  }
  console.log(`${code === 0 ? 'ok  ' : 'FAIL'} ${name} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
}
async function jest(project, env = {}) {
  const file = path.join(folder, `jest-${project}.json`);
  await sh(
    [
      bin('jest/bin/jest.js'),
      '--selectProjects',
      project,
      '--json',
      `--outputFile=${file}`,
      '--silent',
      ...(project === 'database' ? ['--runInBand'] : []),
    ],
    env,
    true,
  );
  if (!existsSync(file)) {
    failed += 1;
    console.log(`FAIL ${project} tests did not run`);
    return;
  }
  const r = JSON.parse(readFileSync(file, 'utf8'));
  passed += r.numPassedTests;
  failed += r.numFailedTests + r.numRuntimeErrorTestSuites;
  console.log(
    `${r.success ? 'ok  ' : 'FAIL'} ${project} tests: ${r.numPassedTests} passed, ${r.numFailedTests} failed`,
  );
  for (const suite of r.testResults) if (suite.status === 'failed') console.log(suite.message);
}

const stops = [];
try {
  const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (!existsSync(chromium)) needDebian(['chromium'], 'Chromium');
  await gate('format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
  await gate('lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']);
  build();
  await gate('types', [bin('typescript/bin/tsc'), '--noEmit', '-p', '.']);
  await jest('unit');

  let cluster = await startCluster('check', 54400);
  let over = false;
  const watch = () =>
    cluster.child?.on('exit', async () => {
      if (over) return;
      cluster = await startCluster('check', cluster.port, () => {});
      watch();
    });
  watch();
  stops.push(async () => {
    over = true;
    await cluster.stop();
  });
  const d = await cluster.database('vast_check_unit', true);
  await jest('database', {
    DATABASE_URL: d.app,
    VAST_OWNER_URL: d.owner,
    VAST_SUPERUSER_URL: d.superuser,
    VAST_SECRET: secret(),
    VAST_TEST_CLOCK: '1',
  });

  const servers = await startTestServers(cluster);
  stops.push(servers.stop);
  const controlPort = await freePort(3390);
  const kill = (pid) => {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      /* gone already */
    }
  };
  const control = createServer((request, response) => {
    const url = new URL(request.url, 'http://x');
    if (url.pathname === '/kill-server') kill(servers.webPid());
    if (url.pathname === '/kill-database') kill(cluster.pid);
    if (url.pathname === '/kill-browser') {
      const profile = url.searchParams.get('profile');
      for (const pid of readdirSync('/proc').filter((n) => /^\d+$/.test(n))) {
        try {
          if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--user-data-dir=${profile}`))
            kill(Number(pid));
        } catch {
          /* ended in the meantime */
        }
      }
    }
    response.end('ok');
  }).listen(controlPort, '127.0.0.1');
  const file = path.join(folder, 'browser.json');
  await sh([bin('@playwright/test/cli.js'), 'test'], {
    VAST_E2E_URL: servers.url,
    VAST_E2E_JSON: file,
    VAST_E2E_CONTROL: `http://127.0.0.1:${controlPort}`,
    VAST_SUPERUSER_URL: servers.addresses.superuser,
  });
  control.close();
  if (existsSync(file)) {
    const { stats } = JSON.parse(readFileSync(file, 'utf8'));
    passed += stats.expected + stats.flaky;
    failed += stats.unexpected;
    skipped += stats.skipped;
  } else failed += 1;
} catch (error) {
  failed += 1;
  console.error(error.message);
} finally {
  for (const stop of stops.reverse()) await stop();
}
console.log(`${passed} passed, ${failed} failed${skipped ? `, ${skipped} skipped` : ''}`);
process.exit(failed ? 1 : 0);
