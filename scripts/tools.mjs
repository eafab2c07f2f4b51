// The product's programs beside the web server, bundled from their TypeScript: nothing of it is translated when it runs.
// As a command: node scripts/tools.mjs NAME [arguments] bundles and runs one of them.
import { existsSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './cluster.mjs';

const entries = {
  prepare: 'scripts/prepare.ts',
  gauge: 'stand-ins/gauge/gauge.ts',
  push: 'stand-ins/push/run.ts',
  organisation: 'scripts/organisation.ts',
  verify: 'src/cli/verify.ts',
  rejudge: 'src/cli/rejudge.ts',
  desk: 'src/cli/desk.ts',
  unpack: 'src/server/unpack/worker.ts',
  jobs: 'src/server/jobs/worker.ts',
  seals: 'scripts/seals.ts',
};
const folder = path.join(root, '.run', 'tools');
/** Arguments that start a bundled program. */
export const tool = (name) => [path.join(folder, `${name}.mjs`)];

let made;
/** Bundles them all, once; where only what runs is installed, those that are there already serve. */
export const makeTools = () => (made ??= bundle());
async function bundle() {
  const esbuild = await import('esbuild').catch(() => null);
  if (!esbuild) {
    const missing = Object.keys(entries).filter((name) => !existsSync(tool(name)[0]));
    if (missing.length) throw new Error(`Not built: ${missing.join(', ')}. Run npm install, then ./start.`);
    return;
  }
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: Object.entries(entries).map(([out, file]) => ({ out, in: file })),
    outdir: folder,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    packages: 'external',
    platform: 'node',
    target: 'node20',
    format: 'esm',
    alias: { 'server-only': path.join(root, 'scripts/empty.cjs'), 'next/headers': 'next/headers.js' },
    logLevel: 'warning',
  });
}

async function asked() {
  const [name = '', ...args] = process.argv.slice(2);
  if (!Object.hasOwn(entries, name)) {
    console.error(`Which one? ${Object.keys(entries).join(', ')}`);
    process.exit(2);
  }
  await makeTools();
  // in this process: a wrapper would leave its child behind when killed
  process.argv = [process.execPath, ...tool(name), ...args];
  await import(pathToFileURL(tool(name)[0]).href);
}
if (process.argv[1] === import.meta.filename) void asked();
