/** What keeps processes and the database up: real small programs, and a cluster of straw. */
import { EventEmitter } from 'node:events';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const until = async (there: () => boolean) => {
  for (let n = 0; !there(); n += 1) {
    if (n > 400) throw new Error('it never came');
    await new Promise((r) => setTimeout(r, 25));
  }
};
const alive = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

test('a program that spins and hears nothing is ended all the same', async () => {
  const { keepUp } = await import('./keep-up.mjs');
  const said: string[] = [];
  let heard = '';
  const spins = keepUp(
    'It',
    ['-e', "process.on('SIGTERM', () => {}); console.log('up'); setInterval(() => {}, 1e6)"],
    {},
    { say: (l) => said.push(l), log: { write: (d) => (heard += d.toString()) }, within: 200 },
  );
  await until(() => heard.includes('up'));
  await spins.stop();
  expect(alive(spins.pid)).toBe(false);
  expect(said).toEqual(['It does not stop when asked; it is ended.']);
});
test('what keeps stopping is given up, and whoever started it is told; what it said is kept', async () => {
  const { keepUp } = await import('./keep-up.mjs');
  const said: string[] = [];
  let log = '';
  let gaveUp = 0;
  const quiet = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  const kept = keepUp(
    'It',
    ['-e', "console.error('no port'); process.exit(3)"],
    {},
    {
      say: (l) => said.push(l),
      gaveUp: () => (gaveUp += 1),
      log: { write: (d) => (log += d.toString()) },
      most: 2,
      pause: 1,
    },
  );
  await until(() => gaveUp > 0);
  quiet.mockRestore();
  expect(said).toEqual([
    'It stopped (3); starting it again.',
    'It stopped (3); starting it again.',
    'It keeps stopping (3); giving up. See the messages above.',
  ]);
  expect(log.match(/no port/g)).toHaveLength(3);
  // what is gone need not be ended
  await kept.stop();
});
test('stopped between two starts it does not come again', async () => {
  const { keepUp } = await import('./keep-up.mjs');
  const said: string[] = [];
  const kept = keepUp('It', ['-e', ''], {}, { say: (l) => said.push(l), pause: 50 });
  await until(() => said.length === 1);
  await kept.stop();
  await new Promise((r) => setTimeout(r, 150));
  expect(said).toHaveLength(1);
});
test('the log is written on, and begun anew when it has grown', async () => {
  const { logFile } = await import('./keep-up.mjs');
  const folder = mkdtempSync(path.join(tmpdir(), 'vast-log-'));
  const line = `${'x'.repeat(1023)}\n`;
  const log = logFile(folder, 'server');
  for (let n = 0; n < 6 * 1024; n += 1) log.write(line);
  await new Promise<void>((done) => log.end(done));
  const files = readdirSync(folder).filter((f) => /server.*log/.test(f));
  expect(files.length).toBeGreaterThan(1);
  const again = logFile(folder, 'server');
  again.write('after a restart\n');
  await new Promise<void>((done) => again.end(done));
  expect(readFileSync(path.join(folder, 'server.log'), 'utf8')).toMatch(/after a restart\n$/);
});

describe('the database server', () => {
  class Child extends EventEmitter {}
  /** A cluster of straw: each start is asked what becomes of it. */
  async function kept(fates: (string | null)[]) {
    const { keptCluster } = await import('./cluster.mjs');
    const said: string[] = [];
    let starts = 0;
    const stopped: number[] = [];
    const start = () => {
      starts += 1;
      const n = starts;
      const fate = fates[n - 1];
      if (fate && fate !== 'left over') return Promise.reject(new Error(fate));
      return Promise.resolve({
        n,
        port: 1,
        child: fate === 'left over' ? null : new Child(),
        stop: () => Promise.resolve(void stopped.push(n)),
      });
    };
    const cluster = await keptCluster('x', 1, { say: (l: string) => said.push(l), start, waits: [1, 2, 3] });
    return { cluster, said, stopped, starts: () => starts };
  }
  test('is tried again for as long as it takes, and each new reason is said once', async () => {
    const full = 'No space left on device';
    const { cluster, said, starts } = await kept([
      null,
      ...Array<string>(12).fill(full),
      'could not bind',
      null,
    ]);
    cluster.now().child!.emit('exit', 1, null);
    await until(() => starts() === 15 && cluster.now().n === 15);
    expect(said).toEqual([
      'The database server stopped (1); starting it again.',
      `The database server does not start; it is tried again. ${full}`,
      'The database server does not start; it is tried again. could not bind',
      'The database server is back.',
    ]);
    // and watched again
    cluster.now().child!.emit('exit', null, 'SIGKILL');
    await until(() => starts() === 16);
    await cluster.stop();
  });
  test('left over from a start that was killed it makes room for one that can be watched', async () => {
    const { cluster, stopped } = await kept(['left over', null]);
    expect([stopped, cluster.now().n]).toEqual([[1], 2]);
  });
  test('stopped for good it is not started again', async () => {
    const { cluster, starts } = await kept([null]);
    const { child } = cluster.now();
    await cluster.stop();
    child!.emit('exit', 0, null);
    await new Promise((r) => setTimeout(r, 20));
    expect(starts()).toBe(1);
  });
});
