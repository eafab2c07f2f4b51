import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createRequire } from 'node:module';
import { pack } from '@/core/testing/bakery';
import { loadPack } from '@/core/pack/load';
import { printable } from '@/server/certificate/glyphs';
import { KIND_NAMES } from '@/core/kinds';
import { HOLD_ROLES } from '@/core/roles';
import { schemas } from './schemas';

const files = (dir: string): string[] =>
  readdirSync(dir).flatMap((n) =>
    statSync(path.join(dir, n)).isDirectory() ? files(path.join(dir, n)) : [path.join(dir, n)],
  );

test('no procedure id, nor any stage key of a pack that only it uses, stands in src', () => {
  const ids = readdirSync('packs').flatMap((f) =>
    loadPack(JSON.parse(readFileSync(path.join('packs', f), 'utf8'))).procedures.flatMap((p) => [
      p.id,
      ...Object.keys(p.stages).filter((k) => k.includes('-')),
    ]),
  );
  // kinds of stages and roles of holds are code; everything else belongs to the packs
  const kinds = new Set(['isolate-and-repeat', 'lock-up', 'let-by', 'leak-rate']);
  const theirs = new Set(ids.filter((id) => !kinds.has(id)));
  const named = files('src')
    .filter((f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f))
    .flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/(['"])([a-z0-9-]+)\1/g)].flatMap(([, , word]) =>
        theirs.has(word!) ? [`${file}: ${word}`] : [],
      ),
    );
  expect(named).toEqual([]);
  expect(theirs.size).toBeGreaterThan(50);
});
test('what kinds of stages and roles of holds there are is said in their rooms and registries alone', () => {
  const registries = ['run/events', 'run/folds', 'run/courses', 'run/script'].map((f) => `src/core/${f}.ts`);
  const own = (f: string) =>
    // the guide names words and formulas, some of which are called like a role
    /^src\/core\/(kinds|roles|testing|guide)\//.test(f) ||
    registries.includes(f) ||
    f === 'src/ui/bench/panels/index.ts';
  const names: readonly (readonly string[])[] = [KIND_NAMES, HOLD_ROLES];
  const most = (found: readonly string[]) =>
    Math.max(...names.map((n) => new Set(found.filter((x) => n.includes(x))).size));
  const lists = files('src')
    .filter((f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f) && !own(f))
    .flatMap((file) => {
      const text = readFileSync(file, 'utf8');
      const words = (s: string) => [...s.matchAll(/'([a-z-]+)'/g)].map((m) => m[1]!);
      const arrays = [...text.matchAll(/\[\s*(?:'[a-z-]+'[,\s]*)+\]/g)].filter(
        // words of other things may be among them; a list of kinds is mostly kinds
        (m) => most(words(m[0])) > 1 && most(words(m[0])) >= words(m[0]).length / 2,
      );
      const tables = [...text.matchAll(/\{[^{}]*\}/g)].filter(
        (m) => most([...m[0].matchAll(/[\s,{]'?([a-z-]+)'?:/g)].map((k) => k[1]!)) > 3,
      );
      return [...arrays, ...tables].map((m) => `${file}: ${m[0].slice(0, 80)}`);
    });
  expect(lists).toEqual([]);
});
test('lint refuses imports against the direction of the house, and circles but of types or by need', () => {
  const cases = [
    ['src/core/run/x.ts', "import { pool } from '@/database/client'; pool();"],
    ['src/core/run/x.ts', "import fs from 'node:fs'; fs.readFileSync('x');"],
    ['src/ui/bench/x.tsx', "import { sealRun } from '@/server/sealing/seal'; sealRun;"],
    ['src/device/x.ts', "import { x } from '@/ui/kit/words'; x;"],
    ['src/core/medium/x.ts', "import { reduce } from '@/core/run/reduce'; reduce;"],
    ['src/core/plan/x.ts', "import { faceOf } from '../record/face'; faceOf;"],
    ['src/core/run/x.ts', 'export const t = Date.now();'],
    ['src/ui/bench/x.tsx', "import { reduce } from '@/core/run/reduce'; export const r = reduce;"],
    // in a circle with the one after it, by the name of the house or beside it; the last two are in none that runs
    ['src/wire/x.ts', "import { b } from '@/wire/x9'; export const a = b;"],
    ['src/wire/x.ts', "import { a } from './x8'; export const b = () => a;"],
    ['src/wire/x.ts', "import type { D } from './x11'; export const c = (d: D) => d;"],
    ['src/wire/x.ts', "import { c } from './x10'; export type D = typeof c; export const g = c;"],
    ['src/wire/x.ts', "export const e = () => import('./x13');"],
    ['src/wire/x.ts', "import { e } from './x12'; export const f = e;"],
  ];
  // one start of the linter for all of them, in a house of their own
  const house = mkdtempSync(path.join(tmpdir(), 'house-'));
  const paths = cases.map(([file, code], i) => {
    const at = file!.replace(/x(?=\.tsx?$)/, `x${i}`);
    mkdirSync(path.join(house, path.dirname(at)), { recursive: true });
    writeFileSync(path.join(house, at), code!);
    return at;
  });
  for (const file of ['oxlint.config.mjs', 'tsconfig.json']) copyFileSync(file, path.join(house, file));
  const linter = path.resolve('node_modules/oxlint/bin/oxlint');
  const { stdout, stderr } = spawnSync(
    process.execPath,
    [linter, '-c', 'oxlint.config.mjs', '--format', 'json', '.'],
    { cwd: house, encoding: 'utf8' },
  );
  rmSync(house, { recursive: true });
  expect(stderr).toBe('');
  const { diagnostics } = JSON.parse(stdout) as { diagnostics: { code: string; filename: string }[] };
  const found = paths.map((at) => diagnostics.filter((d) => d.filename === at).map((d) => d.code));
  for (const rules of found.slice(0, 6)) expect(rules).toContain('eslint(no-restricted-imports)');
  expect(found[6]).toContain('eslint(no-restricted-properties)');
  for (const inCircle of found.slice(8, 10)) expect(inCircle).toContain('import(no-cycle)');
  expect([found[7], ...found.slice(10)]).toEqual([[], [], [], [], []]);
}, 60_000);
test('the core makes no date of its own', () => {
  const clocks = files('src/core').filter(
    (f) => /\.ts$/.test(f) && !/\.test\.ts$/.test(f) && /new Date\(\)/.test(readFileSync(f, 'utf8')),
  );
  expect(clocks).toEqual([]);
});
test('every sign the certificate can print stands in the shipped faces', () => {
  const require = createRequire(path.resolve('package.json'));
  const fontkit = require('fontkit') as {
    openSync: (f: string) => { hasGlyphForCodePoint: (c: number) => boolean };
  };
  const faces = ['latin', 'latin-ext'].map((s) =>
    fontkit.openSync(
      require.resolve(
        `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${s}-400-normal.woff`,
      ),
    ),
  );
  const texts = [
    JSON.stringify(pack),
    readFileSync('demo/millrace.json', 'utf8'),
    ...files('src/core')
      // the Desk stands on the screen only
      .filter((f) => !/\.test\.tsx?$/.test(f) && !f.startsWith('src/core/desk/'))
      .map((f) => readFileSync(f, 'utf8')),
    'Łukasz Żółć Őrség Çağlar Ñandú',
  ];
  const missing = new Set(
    [...printable(texts.join(''))].filter(
      (c) => c >= ' ' && !faces.some((f) => f.hasGlyphForCodePoint(c.codePointAt(0)!)),
    ),
  );
  expect([...missing]).toEqual([]);
});
test('the published JSON Schemas are those that check', () => {
  for (const [file, text] of Object.entries(schemas()))
    expect([file, readFileSync(file, 'utf8') === text]).toEqual([file, true]);
});
