// The tests that judge, as one file: its modules are loaded once for a mutant, not once for every test file. The whole runs
// of which every word and figure is expected come first, then the small files, last the other endings and neighbours:
// most mutants die early. What takes seconds
// and finds little that these do not (the laws over hostile logs) is left out: a mutant that only
// they would notice counts as alive.
const { readdirSync, statSync } = require('node:fs');
const { join } = require('node:path');

const SLOW = ['total.test.ts'];
const core = join(__dirname, '../../src/core');
const files = ['kinds', 'limit', 'pack', 'plan', 'record', 'run', 'verdict']
  .flatMap((room) => readdirSync(join(core, room)).map((name) => join(core, room, name)))
  .filter((name) => name.endsWith('.test.ts') && !SLOW.some((slow) => name.endsWith(slow)))
  .sort((a, b) => statSync(a).size - statSync(b).size);
const whole = (name) => join(__dirname, `../judged/${name}.test.ts`);
for (const file of [whole('judged'), ...files, whole('endings'), whole('neighbours')]) require(file);
