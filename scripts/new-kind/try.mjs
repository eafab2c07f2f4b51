// Puts a made-up kind of stage into a copy of the registries held in memory, asks the types, and plays a run with it.
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import esbuild from 'esbuild';
import ts from 'typescript';
import { root } from '../cluster.mjs';
import { FILES, LINES } from './lines.mjs';

const here = path.join(root, 'scripts', 'new-kind');
/** Every file that is written or changed, as it would then read. @param without of registries that are forgotten */
function tree(without = []) {
  const files = new Map();
  for (const [file, from] of Object.entries(FILES))
    files.set(path.join(root, file), readFileSync(path.join(here, from), 'utf8'));
  for (const { file, after, add } of LINES) {
    const at = path.join(root, file);
    const text = files.get(at) ?? readFileSync(at, 'utf8');
    if (text.split(`${after}\n`).length !== 2) throw new Error(`${file} has no line, or several: ${after}`);
    files.set(at, without.includes(file) ? text : text.replace(`${after}\n`, `${after}\n${add}\n`));
  }
  return files;
}
const { options } = ts.parseJsonConfigFileContent(
  ts.readConfigFile(path.join(root, 'tsconfig.json'), (f) => readFileSync(f, 'utf8')).config,
  ts.sys,
  root,
);
let before;
/** What the types say of a tree; of the files that it changes and of whatever speaks of the kind. */
function typesSay(files) {
  const host = ts.createCompilerHost({ ...options, incremental: false });
  const { readFile, fileExists, directoryExists } = host;
  host.directoryExists = (d) =>
    [...files.keys()].some((f) => path.dirname(f) === path.resolve(d)) || directoryExists.call(host, d);
  host.readFile = (f) => files.get(path.resolve(f)) ?? readFile.call(host, f);
  host.fileExists = (f) => files.has(path.resolve(f)) || fileExists.call(host, f);
  const play = path.join(here, 'play.tsx');
  const program = ts.createProgram({
    rootNames: [play, ...files.keys(), path.join(root, 'next-env.d.ts')],
    options: { ...options, incremental: false, tsBuildInfoFile: undefined },
    host,
    oldProgram: before,
  });
  before ??= program;
  return [...files.keys(), play].flatMap((f) => {
    const source = program.getSourceFile(f);
    return source
      ? program
          .getSemanticDiagnostics(source)
          .map((d) => `${path.relative(root, f)}: ${ts.flattenDiagnosticMessageText(d.messageText, ' ')}`)
      : [`${path.relative(root, f)} is not read`];
  });
}
async function play(files) {
  const out = path.join(root, '.run', 'new-kind.mjs');
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: [path.join(here, 'play.tsx')],
    outfile: out,
    bundle: true,
    packages: 'external',
    alias: { 'next/link': 'next/link.js', 'next/navigation': 'next/navigation.js' },
    platform: 'node',
    format: 'esm',
    jsx: 'automatic',
    logLevel: 'error',
    plugins: [
      {
        name: 'registries as they would be',
        setup(build) {
          // from a folder that is not there nothing else would be found
          build.onResolve({ filter: /^(@\/|\.)/ }, ({ path: p, resolveDir, importer }) => {
            if (!/knock/.test(p + importer)) return undefined;
            const dir = files.has(importer) ? path.dirname(importer) : resolveDir;
            const base = p.startsWith('@/') ? path.join(root, 'src', p.slice(2)) : path.resolve(dir, p);
            const names = ['.ts', '.tsx', '/index.ts'].map((end) => base + end);
            const found = names.find((f) => files.has(f) || existsSync(f));
            return found ? { path: found } : undefined;
          });
          build.onLoad({ filter: /\.tsx?$/ }, ({ path: p }) =>
            files.has(p)
              ? {
                  contents: files.get(p),
                  loader: p.endsWith('x') ? 'tsx' : 'ts',
                  resolveDir: path.dirname(p),
                }
              : undefined,
          );
        },
      },
    ],
  });
  return (await import(pathToFileURL(out).href)).played;
}
const types = typesSay(tree());
const REGISTRIES = ['src/core/run/folds.ts', 'src/core/run/courses.ts', 'src/ui/bench/panels/index.ts'];
const forgotten = typesSay(tree(REGISTRIES)).filter((m) => REGISTRIES.some((r) => m.startsWith(r)));
const played = types.length ? null : await play(tree());
process.stdout.write(JSON.stringify({ types, forgotten, played }));
