/**
 * Tries the tests of the core against mutants of verdict, limits, run, kinds, roles and loader, and writes
 * docs/mutants.md. `npm run mutants` tries all of them (hours); a path or pattern limits it; `again` tries only those
 * that survived or were never done the last time, `again src/core/run,src/core/pack` those under some paths. Ends with 1 where fewer than 80 % of what the report counts are killed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';

/** What was found so far, file by file: a file's results are replaced when it is tried again. */
const STORE = '.mutants/found.json';
const REPORT = '.mutants/run.json';
const DEAD = ['Killed', 'Timeout'];
const ALIVE = ['Survived', 'NoCoverage'];
const LEAST = 80;

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')).files : {});
const store = read(STORE);
const place = (m) =>
  `${m.location.start.line}:${m.location.start.column}-${m.location.end.line}:${m.location.end.column}`;
const same = (m) => `${place(m)} ${m.mutatorName} ${m.replacement}`;

const [asked, only = ''] = process.argv.slice(2);
const again = asked === 'again';
/** A file that changed since is tried whole: its lines mean something else now. */
for (const name of Object.keys(store)) if (!existsSync(name)) delete store[name];
const ranges = Object.entries(store)
  .filter(([name]) => only.split(',').some((path) => name.startsWith(path)))
  .flatMap(([name, { source, mutants }]) =>
    readFileSync(name, 'utf8') === source
      ? mutants.filter((m) => [...ALIVE, 'Timeout'].includes(m.status)).map((m) => `${name}:${place(m)}`)
      : [name],
  );
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
    before.mutants = before.mutants.map((m) => now.get(same(m)) ?? m);
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
tries such a file whole.

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
