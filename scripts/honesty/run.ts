/** `npm run honesty -- [RUNS] [SEED] [NAME]`: whole tests on sections of known truth, and what came of them. */
import { honestyCases } from './cases';
import { tallyCase, tallyTable } from './tally';

const [runs = '200', seed = '1', name = ''] = process.argv.slice(2);
const tallies = honestyCases()
  .filter((c) => c.name.includes(name))
  .map((c) => {
    const began = Date.now();
    const tally = tallyCase(c, Number(runs), Number(seed));
    console.error(`${c.name}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
    return tally;
  });
console.log(tallyTable(tallies));
