// The servers the browser tests run against: each with a database, an adjustable clock and a stand-in gauge of its own.
import { copyFileSync, mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { freePort, root, startCluster } from './cluster.mjs';
import { build, prepare, startProcesses, startPushStandIn } from './supervise.mjs';

const name = (lane) => `vast_check_browser_${lane}`;
const folder = (lane) => path.join(root, '.check', `lane-${lane}`);
const files = (lane) => ({
  peopleFile: path.join(folder(lane), 'people.json'),
  idsFile: path.join(folder(lane), 'ids.json'),
});
const fresh = (lane) => {
  rmSync(folder(lane), { recursive: true, force: true });
  mkdirSync(folder(lane), { recursive: true });
};
/** A database into which the demo has been played, to be copied by whoever needs it. @returns its name and addresses, and who stands in it */
export async function playedDemo(cluster) {
  fresh(0);
  const addresses = await cluster.database(name(0), true);
  await prepare(addresses, { demo: true, second: true, ...files(0) });
  return { name: name(0), addresses, ...files(0) };
}

/** A slow machine is no failure: a connection is waited for longer than a person would be let wait. */
const TEST = { VAST_TEST_CLOCK: '1', VAST_DATABASE_WAIT_MS: '60000' };
/** As many servers as journeys run at the same time; the demo is played once, the other databases are copies. */
export async function startTestServers(cluster, lanes = 1, demo = undefined) {
  const own = cluster ?? (await startCluster('check', 54400));
  await build();
  const servers = [];
  const databases = [(demo ?? (await playedDemo(own))).addresses];
  for (let lane = 1; lane < lanes; lane++) {
    fresh(lane);
    databases[lane] = await own.database(name(lane), true, name(0));
    copyFileSync(files(0).peopleFile, files(lane).peopleFile);
  }
  // a house into which nobody has come yet
  const bare = await own.database('vast_check_browser_empty', true);
  await prepare(bare, { demo: false, ...files(0) }, () => {});
  const push = startPushStandIn(await freePort(3395));
  for (let lane = 0; lane < lanes; lane++) {
    const port = await freePort(3300 + 20 * lane);
    const processes = startProcesses({
      addresses: databases[lane],
      port,
      gaugePort: await freePort(port + 1),
      gaugeFolder: path.join(folder(lane), 'gauge'),
      extra: {
        VAST_DEMO_PEOPLE: files(lane).peopleFile,
        ...TEST,
        VAST_PUSH_STAND_IN: push.url,
      },
    });
    servers.push(processes);
    await processes.ready;
  }
  // a second server on the first one's database: both behave as one
  const twinPort = await freePort(3360);
  const twin = startProcesses({
    addresses: databases[0],
    port: twinPort,
    gaugePort: await freePort(twinPort + 1),
    gaugeFolder: path.join(root, '.check', 'lane-twin', 'gauge'),
    extra: { VAST_DEMO_PEOPLE: files(0).peopleFile, ...TEST },
  });
  await twin.ready;
  const emptyPort = await freePort(3380);
  const empty = startProcesses({
    addresses: bare,
    port: emptyPort,
    gaugePort: await freePort(emptyPort + 1),
    gaugeFolder: path.join(root, '.check', 'lane-empty', 'gauge'),
    extra: TEST,
  });
  await empty.ready;
  return {
    empty: empty.url,
    twin: twin.url,
    push: push.url,
    /** Addresses, one for each journey at a time. */
    url: servers.map((s) => s.url).join(','),
    addresses: databases[0],
    webPid: () => servers[0].webPid(),
    stop: async () => {
      await Promise.all([...servers, twin, empty, push].map((s) => s.stop()));
      if (!cluster) await own.stop();
    },
  };
}

if (process.argv[1] === import.meta.filename) {
  const { url, empty, push, twin, stop } = await startTestServers();
  console.log(`VAST_E2E_EMPTY=${empty} VAST_E2E_PUSH=${push} VAST_E2E_TWIN=${twin} VAST_E2E_URL=${url}`);
  const end = () => void stop().then(() => process.exit(0));
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
}
