// The product's own PostgreSQL: finds the server binaries, makes a cluster of its own on a loopback port, repairs
// what a crash left, and runs the server as a child process.
import { execFileSync, spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import pg from 'pg';

export const root = path.resolve(import.meta.dirname, '..');
const isRoot = process.getuid?.() === 0;
const BINARIES = ['/usr/lib/postgresql/15/bin', '/usr/lib/postgresql/16/bin', '/usr/lib/postgresql/17/bin'];

/** Folder of the server's binaries, or null. */
export const binaries = () => BINARIES.find((b) => existsSync(path.join(b, 'postgres'))) ?? null;

/** Installs Debian packages when run as root; otherwise says the one command to type. */
export function needDebian(packages, why) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (!isRoot) throw new Error(`${why} is missing. Type once:  sudo ${command}`);
  console.log(`Installing ${packages.join(', ')} (${why}) …`);
  const options = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  execFileSync('apt-get', ['update', '-qq'], options);
  execFileSync('apt-get', ['install', '-y', '--no-install-recommends', ...packages], options);
}

/** A port that nothing listens on: the wished one, or the next free. */
export async function freePort(wished, taken = new Set()) {
  for (let port = wished; port < wished + 200; port++) {
    if (taken.has(port)) continue;
    const free = await new Promise((resolve) => {
      const probe = createServer();
      probe.once('error', () => resolve(false));
      probe.listen({ port, host: '127.0.0.1', exclusive: true }, () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
  throw new Error(`No free port between ${wished} and ${wished + 200}.`);
}

const account = () => {
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((l) => l.startsWith('postgres:'));
  if (!line)
    throw new Error('There is no postgres account on this machine; reinstall the postgresql package.');
  const [, , uid, gid, , home] = line.split(':');
  return { uid: Number(uid), gid: Number(gid), home };
};

/** Where the data lives: under the postgres account when run as root (its server refuses to run as root), else here. */
function dataFolder(name) {
  if (!isRoot) return path.join(root, '.run', `postgres-${name}`);
  const hash = createHash('sha256').update(root).digest('hex').slice(0, 12);
  return path.join(account().home || '/var/lib/postgresql', 'vast-stone', `${hash}-${name}`);
}

/**
 * Where the data of a cluster lies: as it was noted when it was made, so that a checkout that was moved finds it again.
 * @throws Error where this folder is a copy of one that still stands: both would work on one database
 */
function keptIn(name, secretsFile) {
  const noted = existsSync(secretsFile) ? JSON.parse(readFileSync(secretsFile, 'utf8')) : {};
  if (noted.of && noted.of !== root && existsSync(path.join(noted.of, '.run', `cluster-${name}.json`)))
    throw new Error(
      `This folder is a copy of ${noted.of}, and both would work on one database. Remove .run here to begin with a new one, or remove ${noted.of}.`,
    );
  const data = isRoot || !noted.data?.startsWith(path.join(noted.of ?? '', '.run')) ? noted.data : undefined;
  return data && existsSync(data) ? data : dataFolder(name);
}
/** Ends the server of this data folder if one is left over, and removes the lock of one that died. */
function clearLeftover(data) {
  const lock = path.join(data, 'postmaster.pid');
  if (!existsSync(lock)) return;
  const [pid = '', , , port = ''] = readFileSync(lock, 'utf8').split('\n');
  let command = '';
  try {
    command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    /* no such process */
  }
  // a recycled pid belongs to somebody else: only a server of this very folder counts
  if (command.includes('postgres') && command.includes(data)) return { pid: Number(pid), port: Number(port) };
  rmSync(lock);
  return undefined;
}

/**
 * Starts the cluster `name` (made on first use). Returns its addresses and a stop function.
 * @param {string} name one cluster for the application, another for checks
 * @param {(line: string) => void} say
 */
export async function startCluster(name, wishedPort, say = console.log) {
  if (!binaries()) needDebian(['postgresql-15'], 'PostgreSQL');
  const bin = binaries();
  if (!bin)
    throw new Error('PostgreSQL was installed but its server was not found under /usr/lib/postgresql.');
  const as = isRoot ? account() : undefined;
  const run = path.join(root, '.run');
  mkdirSync(run, { recursive: true });
  const secretsFile = path.join(run, `cluster-${name}.json`);
  const data = keptIn(name, secretsFile);
  if (isRoot) {
    mkdirSync(path.dirname(data), { recursive: true });
    chownSync(path.dirname(data), as.uid, as.gid);
  }
  if (existsSync(data) && (!existsSync(path.join(data, 'PG_VERSION')) || !existsSync(secretsFile))) {
    const left = existsSync(path.join(data, 'postmaster.pid')) ? clearLeftover(data) : undefined;
    if (left) process.kill(left.pid, 'SIGQUIT');
    const aside = `${data}.unreadable-${Date.now()}`;
    say(
      `The data folder could not be used (its passwords or version file are missing); it is kept as ${aside}.`,
    );
    execFileSync('mv', [data, aside]);
  }
  if (!existsSync(data)) {
    say('Making the database cluster …');
    const secrets = {
      superuser: randomBytes(18).toString('hex'),
      owner: randomBytes(18).toString('hex'),
      app: randomBytes(18).toString('hex'),
    };
    mkdirSync(data, { recursive: true, mode: 0o700 });
    if (as) chownSync(data, as.uid, as.gid);
    const passwordFile = path.join(isRoot ? path.dirname(data) : run, `pw-${process.pid}`);
    writeFileSync(passwordFile, secrets.superuser, { mode: 0o600 });
    if (as) chownSync(passwordFile, as.uid, as.gid);
    try {
      execFileSync(
        path.join(bin, 'initdb'),
        [
          '-D',
          data,
          '-U',
          'postgres',
          '--auth=scram-sha-256',
          `--pwfile=${passwordFile}`,
          '-E',
          'UTF8',
          '--locale=C.UTF-8',
        ],
        {
          stdio: ['ignore', 'ignore', 'pipe'],
          cwd: '/',
          ...(as ? { uid: as.uid, gid: as.gid } : {}),
        },
      );
    } finally {
      rmSync(passwordFile, { force: true });
    }
    writeFileSync(secretsFile, JSON.stringify(secrets), { mode: 0o600 });
    chmodSync(secretsFile, 0o600);
  }
  const secrets = JSON.parse(readFileSync(secretsFile, 'utf8'));
  if (secrets.data !== data || secrets.of !== root)
    writeFileSync(secretsFile, JSON.stringify({ ...secrets, data, of: root }), { mode: 0o600 });
  const left = clearLeftover(data);
  let port = left?.port;
  let child;
  if (left) say(`The database server was still running (port ${port}); using it.`);
  else {
    port = await freePort(wishedPort);
    if (port !== wishedPort) say(`Port ${wishedPort} is taken; the database uses ${port}.`);
    child = spawn(
      path.join(bin, 'postgres'),
      [
        '-D',
        data,
        '-p',
        String(port),
        '-c',
        'listen_addresses=127.0.0.1',
        '-c',
        'unix_socket_directories=',
        '-c',
        'logging_collector=off',
        '-c',
        'log_min_messages=warning',
        '-c',
        'max_connections=60',
        // what a check writes need not outlive a power cut: a killed server still finds it all
        ...(name === 'check' ? ['-c', 'fsync=off', '-c', 'full_page_writes=off'] : []),
      ],
      {
        stdio: ['ignore', 'ignore', 'pipe'],
        cwd: '/',
        detached: true,
        ...(as ? { uid: as.uid, gid: as.gid } : {}),
      },
    );
    let tail = '';
    child.stderr.on('data', (d) => (tail = (tail + d).slice(-4000)));
    child.tail = () => tail;
  }
  const url = (user, database) =>
    `postgres://${user}:${secrets[{ postgres: 'superuser', vast_owner: 'owner', vast_app: 'app' }[user]]}@127.0.0.1:${port}/${database}`;
  await ready(url('postgres', 'postgres'), child);
  await makeRoles(url('postgres', 'postgres'), secrets);
  const pid = child?.pid ?? left?.pid;
  return {
    port,
    pid,
    url,
    child,
    superuser: url('postgres', 'postgres'),
    /** Makes a database (fresh when asked, as a copy of another where one is named) and gives the addresses of it. */
    database: (wanted, fresh, like) =>
      makeDatabase(url('postgres', 'postgres'), wanted, fresh, like).then(() => ({
        owner: url('vast_owner', wanted),
        app: url('vast_app', wanted),
        superuser: url('postgres', wanted),
      })),
    stop: () => stopServer(pid),
  };
}

/** Whether an error means that no database server answers yet. */
export const isAway = (error) =>
  /^(ECONN|EHOSTUNREACH|ENOTFOUND|ETIMEDOUT|57P0|08)/.test(error?.code ?? '') ||
  (error?.errors ?? []).some(isAway);
/** Waits between two tries to bring a database server back, ms; the last goes on. House figures. */
const TRIES_AGAIN = [500, 1000, 2000, 4000, 8000, 15000, 30000];
/**
 * A cluster that is started again whenever its server ends, as often as it takes: a full disk is freed one day, a lock goes.
 * @returns `now()` the cluster as it runs, `stop()` which ends it for good
 */
export async function keptCluster(
  name,
  wishedPort,
  { say = console.log, start = startCluster, waits = TRIES_AGAIN } = {},
) {
  let cluster = await start(name, wishedPort, say);
  // what an end of this program left running is nobody's child: it could not be watched, so it makes room for one that can
  if (!cluster.child) {
    await cluster.stop();
    cluster = await start(name, wishedPort, say);
  }
  let over = false;
  const bringBack = async () => {
    let told = '';
    for (let n = 0; !over; n += 1) {
      await new Promise((r) => setTimeout(r, waits[Math.min(n, waits.length - 1)]));
      if (over) return;
      try {
        const next = await start(name, cluster.port, () => {});
        if (over) return void (await next.stop());
        cluster = next;
        if (told) say('The database server is back.');
        return watch();
      } catch (error) {
        if (error.message !== told)
          say(`The database server does not start; it is tried again. ${error.message}`);
        told = error.message;
      }
    }
  };
  const watch = () =>
    cluster.child?.on('exit', (code, signal) => {
      if (over) return;
      say(`The database server stopped (${signal ?? code}); starting it again.`);
      void bringBack();
    });
  watch();
  return {
    now: () => cluster,
    stop: async () => {
      over = true;
      await cluster.stop();
    },
  };
}

async function ready(address, child) {
  const until = Date.now() + 30000;
  for (;;) {
    if (child && child.exitCode !== null) throw new Error(`PostgreSQL did not start:\n${child.tail()}`);
    const client = new pg.Client({ connectionString: address });
    try {
      await client.connect();
      await client.end();
      return;
    } catch (error) {
      client.end().catch(() => {});
      if (Date.now() > until) throw new Error(`PostgreSQL does not answer: ${error.message}`);
      await new Promise((r) => setTimeout(r, 100));
    }
  }
}

async function withClient(address, work) {
  const client = new pg.Client({ connectionString: address });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

async function makeRoles(address, secrets) {
  await withClient(address, async (c) => {
    const { rows } = await c.query("select rolname from pg_roles where rolname like 'vast_%'");
    const has = (r) => rows.some((x) => x.rolname === r);
    if (!has('vast_owner'))
      await c.query(`create role vast_owner login nosuperuser nobypassrls password '${secrets.owner}'`);
    if (!has('vast_app'))
      await c.query(
        `create role vast_app login nosuperuser nobypassrls nocreatedb nocreaterole password '${secrets.app}'`,
      );
    if (!has('vast_lookup')) await c.query('create role vast_lookup nologin nosuperuser nobypassrls');
    await c.query('grant vast_lookup to vast_owner');
  });
}

async function makeDatabase(address, name, fresh, like) {
  await withClient(address, async (c) => {
    if (fresh) await c.query(`drop database if exists "${name}" with (force)`);
    const { rowCount } = await c.query('select 1 from pg_database where datname = $1', [name]);
    if (!rowCount)
      await c.query(`create database "${name}" owner vast_owner${like ? ` template "${like}"` : ''}`);
    // a copy takes its tables along, not what may be done in the database itself
    if (like) await c.query(`revoke temporary on database "${name}" from public`);
  });
}

/** Fast shutdown; waits until the server is gone. */
export async function stopServer(pid) {
  const alive = () => {
    try {
      process.kill(pid, 0);
      return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
    } catch {
      return false;
    }
  };
  if (!pid || !alive()) return;
  process.kill(pid, 'SIGINT');
  for (let i = 0; i < 150 && alive(); i++) await new Promise((r) => setTimeout(r, 100));
  if (alive()) process.kill(pid, 'SIGQUIT');
}
