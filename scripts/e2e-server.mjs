// The servers the browser tests run against: a database of its own, an adjustable clock, a stand-in gauge.
import { mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { freePort, root, startCluster } from './cluster.mjs';
import { answers, build, gaugeArgs, keepUp, prepare, secret, webArgs } from './supervise.mjs';

export async function startTestServers(cluster) {
  const folder = path.join(root, '.check');
  mkdirSync(folder, { recursive: true });
  const own = cluster ?? (await startCluster('check', 54400));
  const addresses = await own.database('vast_check_browser', true);
  await prepare(addresses, {
    demo: true,
    peopleFile: path.join(folder, 'people.json'),
    idsFile: path.join(folder, 'ids.json'),
  });
  build();
  const port = await freePort(3300);
  const gaugePort = await freePort(port + 1);
  const url = `http://127.0.0.1:${port}`;
  rmSync(path.join(folder, 'gauge'), { recursive: true, force: true });
  const env = {
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: addresses.app,
    VAST_SECRET: secret(),
    VAST_URL: url,
    VAST_GAUGE_URL: `http://127.0.0.1:${gaugePort}`,
    VAST_DEMO_PEOPLE: path.join(folder, 'people.json'),
    VAST_TEST_CLOCK: '1',
  };
  const web = keepUp('The web server', webArgs(port), env);
  const gauge = keepUp('The simulated gauge', gaugeArgs, {
    VAST_GAUGE_PORT: String(gaugePort),
    VAST_GAUGE_FOLDER: path.join(folder, 'gauge'),
  });
  await answers(`${url}/api/time`);
  return {
    url,
    addresses,
    webPid: () => web.pid,
    stop: async () => {
      web.stop();
      gauge.stop();
      if (!cluster) await own.stop();
    },
  };
}

if (process.argv[1] === import.meta.filename) {
  const { url, stop } = await startTestServers();
  console.log(url);
  const end = () => void stop().then(() => process.exit(0));
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
}
