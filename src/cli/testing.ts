import { buildSync } from 'esbuild';
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** A program of the command line as a person runs it: in a process of its own, bundled once as it ships. */
export function program(name: string): (...args: string[]) => SpawnSyncReturns<string> {
  const outfile = path.join(mkdtempSync(path.join(tmpdir(), 'vast-cli-')), `${name}.cjs`);
  buildSync({
    entryPoints: [`src/cli/${name}.ts`],
    outfile,
    bundle: true,
    platform: 'node',
    target: 'node20',
    logLevel: 'warning',
  });
  return (...args) => spawnSync(process.execPath, [outfile, ...args], { encoding: 'utf8' });
}
