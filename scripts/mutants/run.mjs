/**
 * Tries the tests of the core against mutants of verdict, limits, run, kinds, roles, fillings and loader, and writes
 * docs/mutants.md. `npm run mutants` tries all of them (hours); a path or pattern limits it; `again` tries only those
 * that survived, ran out of time or stand in new lines since the last time, `again src/core/run,src/core/pack` those under some paths. Ends with 1 where fewer than 85 % of what the report counts are killed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';

/** What was found so far, file by file: a file's results are replaced when it is tried again. */
const STORE = '.mutants/found.json';
const REPORT = '.mutants/run.json';
const DEAD = ['Killed', 'Timeout'];
const ALIVE = ['Survived', 'NoCoverage'];
const LEAST = 85;

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')).files : {});
const store = read(STORE);
const place = (m) =>
  `${m.location.start.line}:${m.location.start.column}-${m.location.end.line}:${m.location.end.column}`;
/** The same as a range to try: there columns count from 0, in the report from 1. */
const range = ({ location: { start, end } }) =>
  `${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`;
const same = (m) => `${place(m)} ${m.mutatorName} ${m.replacement}`;

const [asked, only = ''] = process.argv.slice(2);
const again = asked === 'again';
/** For each old line the line it is now, where its text still stands in the same order; the rest is undefined. */
function linesNow(before, now) {
  const rows = Array.from({ length: before.length + 1 }, () => new Uint16Array(now.length + 1));
  for (let i = before.length - 1; i >= 0; i--)
    for (let j = now.length - 1; j >= 0; j--)
      rows[i][j] = before[i] === now[j] ? rows[i + 1][j + 1] + 1 : Math.max(rows[i + 1][j], rows[i][j + 1]);
  const at = [];
  for (let i = 0, j = 0; i < before.length && j < now.length;)
    if (before[i] === now[j]) at[i++] = j++;
    else if (rows[i + 1][j] >= rows[i][j + 1]) i++;
    else j++;
  return at;
}
/** What was found in a file that changed since, where it stands now; the lines that are new are to be tried. */
function moved({ source, mutants, ...file }, text) {
  const at = linesNow(source.split('\n'), text.split('\n'));
  const still = mutants.flatMap((m) => {
    const { start, end } = m.location;
    const by = at[start.line - 1] - (start.line - 1);
    for (let line = start.line; line <= end.line; line++) if (at[line - 1] !== line - 1 + by) return [];
    const move = (p) => ({ ...p, line: p.line + by });
    return [{ ...m, location: { start: move(start), end: move(end) } }];
  });
  const old = new Set(at);
  const fresh = text.split('\n').flatMap((line, n) => (line.trim() && !old.has(n) ? [n + 1] : []));
  return { file: { ...file, source: text, mutants: still }, fresh };
}
const ranges = [];
for (const name of Object.keys(store)) {
  if (!existsSync(name)) {
    delete store[name];
    continue;
  }
  const text = readFileSync(name, 'utf8');
  const { file, fresh } =
    store[name].source === text ? { file: store[name], fresh: [] } : moved(store[name], text);
  if (!again || !only.split(',').some((path) => name.startsWith(path))) continue;
  store[name] = file;
  for (const m of file.mutants)
    if ([...ALIVE, 'Timeout'].includes(m.status)) ranges.push(`${name}:${range(m)}`);
  ranges.push(...fresh.map((line) => `${name}:${line}-${line}`));
}
if (again && !ranges.length) {
  console.log('Nothing survived the last time.');
  process.exit(0);
}
const pattern = again ? [...new Set(ranges)].join(',') : asked;
mkdirSync('.mutants', { recursive: true });
const sample = Number(process.env.SAMPLE ?? 1);
const plugins = '@stryker-mutator/*,./scripts/mutants/sample.mjs';
const sampled = sample > 1 ? ['--checkers', 'sample', '--plugins', plugins] : [];
const ran = spawnSync('npx', ['stryker', 'run', ...(pattern ? ['-m', pattern] : []), ...sampled], {
  stdio: 'inherit',
  // the laws over hostile logs are tried on few: a mutant they alone would find is found by chance
  env: { ...process.env, TOTAL_RUNS: '1' },
});
for (const [name, file] of Object.entries(read(REPORT))) {
  const before = store[name];
  if (again && before?.source === file.source) {
    const now = new Map(file.mutants.map((m) => [same(m), m]));
    const known = new Set(before.mutants.map(same));
    before.mutants = [
      ...before.mutants.map((m) => now.get(same(m)) ?? m),
      ...file.mutants.filter((m) => !known.has(same(m))),
    ];
  } else store[name] = file;
}
writeFileSync(STORE, JSON.stringify({ files: store }));

const share = (dead, all) => (all ? `${((100 * dead) / all).toFixed(1)} %` : '–');
const rows = Object.entries(store)
  .map(([name, { mutants }]) => {
    const alive = mutants.filter((m) => ALIVE.includes(m.status));
    const dead = mutants.filter((m) => DEAD.includes(m.status)).length;
    const left = mutants.filter((m) => m.statusReason === 'not in the sample').length;
    return { name, all: dead + alive.length, dead, alive, left };
  })
  .filter((row) => row.all > 0)
  .sort((a, b) => a.name.localeCompare(b.name));
const sum = (key) => rows.reduce((total, row) => total + row[key], 0);
const lines = (alive) =>
  [...new Set(alive.map((m) => m.location.start.line))].sort((a, b) => a - b).join(', ');

writeFileSync(
  'docs/mutants.md',
  `# Mutants

What \`npm run mutants\` found last in the files named: every operator, condition, literal number and block is changed,
one at a time, and the tests of the core are run against it. A mutant that no test notices has survived. Words are left
out: a text may change without a verdict being wrong. At least ${LEAST} % are to be killed. A file may have changed since; \`again\`
tries its new lines.

Of files with many mutants a sample is tried, chosen by place and kind, the same each time (\`SAMPLE=4 npm run mutants FILE\`
tries one in four): the column says how many of them were left out.

| File | Tried | Left out | Killed | Share | Survivors in lines |
| --- | ---: | ---: | ---: | ---: | --- |
${rows.map((r) => `| ${r.name} | ${r.all} | ${r.left || ''} | ${r.dead} | ${share(r.dead, r.all)} | ${lines(r.alive)} |`).join('\n')}
| **all** | ${sum('all')} | ${sum('left')} | ${sum('dead')} | **${share(sum('dead'), sum('all'))}** | |
`,
);
console.log(`docs/mutants.md: ${sum('dead')} of ${sum('all')} killed, ${share(sum('dead'), sum('all'))}`);
process.exit(ran.error ? 1 : (100 * sum('dead')) / sum('all') >= LEAST ? 0 : 1);
