// Keeps a process up, writes down what it says, and ends it for good.
import { spawn } from 'node:child_process';
import { createStream } from 'rotating-file-stream';
import { root } from './cluster.mjs';

/** So large a file of the log grows, and so many are kept; house figures. */
const LOG = { size: '5M', maxFiles: 6 };
/** A process that was asked to stop and goes on is killed after this, ms; house figure. */
const STOPS_WITHIN = 8_000;
/** A file that is written on, and begun anew when it has grown: the old ones are kept beside it, numbered. */
export function logFile(folder, name) {
  const file = createStream(`${name}.log`, { path: folder, ...LOG });
  // a log that cannot be written (a full disk) must not take what it tells of along
  file.on('error', () => {});
  return file;
}

/**
 * Starts a process and keeps it up: restarted after a crash, with a pause that grows.
 * @param {object} [how] `log`: where what it says goes; `gaveUp`: told when it keeps stopping and is left
 */
export function keepUp(name, args, env, how = {}) {
  const { say = console.log, started = () => {}, gaveUp = () => {}, log, within = STOPS_WITHIN } = how;
  const { most, pause = 200 } = how;
  let child;
  let over = false;
  let crashes = 0;
  let again;
  const start = () => {
    child = spawn(process.execPath, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', log ? 'pipe' : 'ignore', log ? 'pipe' : 'inherit'],
    });
    const began = Date.now();
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (d) => log.write(d));
    child.stderr?.on('data', (d) => process.stderr.write(d));
    if (child.pid) started(child.pid);
    const ended = (code, signal) => {
      if (over) return;
      crashes = Date.now() - began > 60000 ? 1 : crashes + 1;
      if (crashes > (most ?? 8)) {
        say(`${name} keeps stopping (${signal ?? code}); giving up. See the messages above.`);
        gaveUp();
        return;
      }
      say(`${name} stopped (${signal ?? code}); starting it again.`);
      again = setTimeout(start, Math.min(5000, pause * crashes));
    };
    child.on('exit', ended);
    // what could not even be started has no end of its own
    child.on('error', (error) => child.pid || ended(error.message));
  };
  start();
  const running = () => child.pid !== undefined && child.exitCode === null && child.signalCode === null;
  return {
    get pid() {
      return child.pid;
    },
    /** Asked to stop; killed where it does not. Resolves when it is gone. */
    stop: () => {
      over = true;
      clearTimeout(again);
      if (!running()) return Promise.resolve();
      return new Promise((gone) => {
        const last = setTimeout(() => {
          say(`${name} does not stop when asked; it is ended.`);
          child.kill('SIGKILL');
        }, within);
        child.once('exit', () => (clearTimeout(last), gone()));
        child.kill('SIGTERM');
      });
    },
  };
}
