// A copy of the whole database in one file, and a database made from one, by PostgreSQL's own tools:
//   npm run backup -- FILE          npm run restore -- FILE [DATABASE]
// Without VAST_SUPERUSER_URL the cluster of this folder is meant. The secret that unlocks the signing keys is not in the file.
import { execFileSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import pg from 'pg';
import { binaries, needDebian, startCluster } from './cluster.mjs';
import { makeTools, tool } from './tools.mjs';

const PORT = 54329;
/** Runs a tool of PostgreSQL; what it says is its own. @throws Error in a sentence where it fails */
function postgres(name, args) {
  if (!binaries()) needDebian(['postgresql-15'], 'PostgreSQL');
  try {
    execFileSync(path.join(binaries(), name), args, { stdio: ['ignore', 'inherit', 'pipe'], maxBuffer: 1e8 });
  } catch (error) {
    throw new Error(
      `${name} failed: ${String(error.stderr ?? error.message)
        .trim()
        .split('\n')
        .slice(0, 3)
        .join(' ')}`,
    );
  }
}
const megabytes = (file) => `${(statSync(file).size / 1e6).toFixed(1)} MB`;

/** @param {string} url superuser's address of the database @param {string} file */
export function backup(url, file) {
  if (existsSync(file))
    throw new Error(`${file} is there already. Name another file: a copy is never written over.`);
  const part = `${file}.part`;
  rmSync(part, { force: true });
  postgres('pg_dump', ['--format=custom', '--compress=6', `--file=${part}`, url]);
  // a copy that was broken off never stands under its own name
  renameSync(part, file);
  return megabytes(file);
}
/** @param {string} url superuser's address of an empty database with this product's roles @returns what was checked, in words */
export async function restore(url, file) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  const { rows } = await db.query("select count(*)::int as n from pg_tables where schemaname = 'public'");
  await db.end();
  if (rows[0].n)
    throw new Error(
      'This database has tables already. A copy is put into an empty one: name another database.',
    );
  postgres('pg_restore', ['--exit-on-error', '--single-transaction', `--dbname=${url}`, file]);
  await makeTools();
  try {
    return execFileSync(process.execPath, tool('seals'), {
      env: { ...process.env, VAST_SUPERUSER_URL: url },
      encoding: 'utf8',
    }).trim();
  } catch (error) {
    throw new Error(
      `Restored, but not everything in it stands:\n${String(error.stdout ?? error.message).trim()}`,
    );
  }
}

async function asked() {
  const [what, file, name] = process.argv.slice(2);
  const outside = process.env.VAST_SUPERUSER_URL;
  let cluster;
  try {
    if (!['backup', 'restore'].includes(what) || !file)
      throw new Error('npm run backup -- FILE, or npm run restore -- FILE [DATABASE].');
    cluster = outside ? null : await startCluster('app', PORT);
    if (what === 'backup') {
      const url = outside ?? cluster.superuser.replace(/[^/]*$/, name ?? 'vast_stone');
      console.log(`${file}: ${backup(url, path.resolve(file))}`);
      console.log(
        'Keep the secret (.run/secret, or VAST_SECRET) apart from it: without it the signing keys stay locked.',
      );
    } else {
      const into = name ?? 'vast_stone_restored';
      const url = outside ?? (await cluster.database(into)).superuser;
      console.log(await restore(url, path.resolve(file)));
      console.log(
        `Restored${outside ? '' : ` into ${into}`}. Start with its DATABASE_URL and VAST_OWNER_URL, and the same secret.`,
      );
    }
  } catch (error) {
    console.error(error.message);
    process.exitCode = 1;
  } finally {
    // one that ran before goes on
    if (cluster?.child) await cluster.stop();
  }
}
if (process.argv[1] === import.meta.filename) void asked();
