/** What pages that must open without a signal are built from, written where the service worker reads it. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Pages that work without a signal, as routes of the build. */
const SHELL = ['bench/[run]/page', 'offline/page', 'desk/page', 'guide/page'];
const NAMED = /static\/(?:chunks|media)\/[^"'\\\s)]+/g;
const walk = (dir) =>
  readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? walk(path.join(dir, e.name)) : [path.join(dir, e.name)],
  );
/** Styles name their faces from where they lie. */
const named = (file) =>
  readFileSync(file, 'utf8').replaceAll('../media/', 'static/media/').match(NAMED) ?? [];

/**
 * @param dist the folder of the build
 * @returns `shell`: what the pages load, also later and by need; `all`: everything of this build. Paths as a browser asks for them.
 * @throws Error when a page of the shell is not in the build
 */
export function shellManifest(dist) {
  const app = path.join(dist, 'server/app');
  const files = walk(app);
  const found = new Set();
  for (const page of SHELL) {
    const own = files.filter(
      (f) =>
        path
          .relative(app, f)
          .replace(/\([^)]*\)\//g, '')
          .startsWith(page) && f.includes('manifest'),
    );
    if (!own.length) throw new Error(`The build has no page ${page}: what it needs offline is not known.`);
    for (const f of own) for (const name of named(f)) found.add(name);
  }
  // a part that is loaded by need is named in the part that loads it
  for (const name of found) {
    const file = path.join(dist, name);
    if (existsSync(file) && /\.(js|css)$/.test(name)) for (const next of named(file)) found.add(next);
  }
  const asked = (name) => `/_next/${name}`;
  return {
    build: readFileSync(path.join(dist, 'BUILD_ID'), 'utf8').trim(),
    shell: [...found]
      .filter((name) => existsSync(path.join(dist, name)))
      .map(asked)
      .sort(),
    all: walk(path.join(dist, 'static'))
      .map((f) => asked(path.relative(dist, f)))
      .sort(),
  };
}
export const writeShellManifest = (dist) =>
  writeFileSync(path.join(dist, 'static/shell.json'), JSON.stringify(shellManifest(dist)));
