// The tests that judge, as one file: its modules are loaded once for a mutant, not once for every test file. The whole runs
// of which every word and figure is expected come first, then the small files: most mutants die early.
const { readdirSync, statSync } = require('node:fs');
const { join } = require('node:path');

const core = join(__dirname, '../../src/core');
const files = ['limit', 'pack', 'plan', 'run', 'verdict']
  .flatMap((room) => readdirSync(join(core, room)).map((name) => join(core, room, name)))
  .filter((name) => name.endsWith('.test.ts'))
  .sort((a, b) => statSync(a).size - statSync(b).size);
const first = ['../judged/judged.test.ts', '../../src/cli/golden.test.ts'].map((name) =>
  join(__dirname, name),
);
for (const file of [...first, ...files]) require(file);
