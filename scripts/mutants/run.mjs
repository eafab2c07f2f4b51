/**
 * Tries the tests of the core against mutants of the verdict, the limits, the run and the loader, and writes
 * docs/mutants.md. `npm run mutants` tries what changed since the last time; a path or a pattern limits it.
 * Ends with 1 where fewer than 80 % of the mutants tried are killed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const INCREMENTAL = '.check/mutants.incremental.json';
const [pattern] = process.argv.slice(2);
// all tests stand in one entry file, so that a changed one is not noticed: what survived is tried again, always
if (existsSync(INCREMENTAL)) {
  const known = JSON.parse(readFileSync(INCREMENTAL, 'utf8'));
  for (const file of Object.values(known.files))
    file.mutants = file.mutants.filter((m) => !['Survived', 'NoCoverage'].includes(m.status));
  writeFileSync(INCREMENTAL, JSON.stringify(known));
}
const ran = spawnSync(
  'npx',
  ['stryker', 'run', '--incremental', '--incrementalFile', INCREMENTAL, ...(pattern ? ['-m', pattern] : [])],
  // the laws over hostile logs are tried on few: a mutant they alone would find is found by chance
  { stdio: 'inherit', env: { ...process.env, TOTAL_RUNS: '1' } },
);
if (!existsSync(INCREMENTAL)) process.exit(ran.status ?? 1);

const { files } = JSON.parse(readFileSync(INCREMENTAL, 'utf8'));
const DEAD = ['Killed', 'Timeout', 'RuntimeError', 'CompileError'];
const COUNTED = [...DEAD, 'Survived', 'NoCoverage'];
const share = (dead, all) => (all ? `${((100 * dead) / all).toFixed(1)} %` : '–');
const rows = Object.entries(files)
  .map(([name, { mutants }]) => {
    const counted = mutants.filter((m) => COUNTED.includes(m.status));
    const alive = counted.filter((m) => !DEAD.includes(m.status));
    return { name, all: counted.length, dead: counted.length - alive.length, alive };
  })
  .filter((row) => row.all > 0)
  .sort((a, b) => a.name.localeCompare(b.name));
const sum = (key) => rows.reduce((total, row) => total + row[key], 0);
const lines = (alive) =>
  [...new Set(alive.map((m) => m.location.start.line))].sort((a, b) => a - b).join(', ');

writeFileSync(
  'docs/mutants.md',
  `# Mutants

What \`npm run mutants\` found last: every operator, condition, literal number and block of the verdict, the limits,
the run and the loader is changed, one at a time, and the tests of the core are run against it. A mutant that no test
notices has survived. Words are left out: a text may change without a verdict being wrong. At least 80 % must be
killed; \`stryker.config.json\` states the threshold.

| File | Mutants | Killed | Share | Survivors in lines |
| --- | ---: | ---: | ---: | --- |
${rows.map((r) => `| ${r.name} | ${r.all} | ${r.dead} | ${share(r.dead, r.all)} | ${lines(r.alive)} |`).join('\n')}
| **all** | ${sum('all')} | ${sum('dead')} | **${share(sum('dead'), sum('all'))}** | |
`,
);
console.log(`docs/mutants.md: ${sum('dead')} of ${sum('all')} killed, ${share(sum('dead'), sum('all'))}`);
process.exit(ran.status ?? 1);
