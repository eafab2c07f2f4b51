// The servers the browser tests run against: a database of its own, an adjustable clock, a stand-in gauge.
import { mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { freePort, root, startCluster } from './cluster.mjs';
import { build, prepare, startProcesses } from './supervise.mjs';

export async function startTestServers(cluster) {
  const folder = path.join(root, '.check');
  mkdirSync(folder, { recursive: true });
  const own = cluster ?? (await startCluster('check', 54400));
  const addresses = await own.database('vast_check_browser', true);
  await prepare(addresses, {
    demo: true,
    second: true,
    peopleFile: path.join(folder, 'people.json'),
    idsFile: path.join(folder, 'ids.json'),
  });
  build();
  const port = await freePort(3300);
  const gaugePort = await freePort(port + 1);
  rmSync(path.join(folder, 'gauge'), { recursive: true, force: true });
  const processes = startProcesses({
    addresses,
    port,
    gaugePort,
    gaugeFolder: path.join(folder, 'gauge'),
    extra: { VAST_DEMO_PEOPLE: path.join(folder, 'people.json'), VAST_TEST_CLOCK: '1' },
  });
  await processes.ready;
  return {
    url: processes.url,
    addresses,
    webPid: processes.webPid,
    stop: async () => {
      processes.stop();
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
