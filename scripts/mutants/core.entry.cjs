// The tests that judge, as one file: its modules are loaded once for a mutant, not once for every test file. Small, sharp
// files first: most mutants die there, before a whole run has to be played.
const { readdirSync, statSync } = require('node:fs');
const { join } = require('node:path');

const core = join(__dirname, '../../src/core');
const files = ['limit', 'pack', 'plan', 'record', 'run', 'verdict']
  .flatMap((room) => readdirSync(join(core, room)).map((name) => join(core, room, name)))
  .filter((name) => name.endsWith('.test.ts'))
  .sort((a, b) => statSync(a).size - statSync(b).size);
for (const file of [...files, join(__dirname, '../judged/judged.test.ts')]) require(file);
