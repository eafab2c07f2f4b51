/** Counts a tenth of what the benchmark does, for the tests: a process of its own, since there arithmetic runs at its full speed. */
import { figuresOf, measured, SEED } from '../analysis';
import { kept } from './kept';
import { ownTraces } from './own';
import { judge, separable } from './referee';
import { draw } from './worlds';
import { seeded } from '../../scripts/honesty/worlds';

const TRACES = 500;
const answers = kept(SEED, TRACES);
const own = [...ownTraces(4)].map(([name, r]) => ({ name, wrong: r.of - r.right - r.untold }));
const figures = figuresOf(measured(TRACES, 150, SEED, answers.told));
answers.close();
// some of the kept answers are asked for again
const again = [3, 131, 257, 389].map((i) => {
  const r = seeded(SEED + i);
  const trace = draw(r);
  const fresh = separable(judge(r, trace), trace.world.cause);
  return fresh === answers.told(SEED + i, () => fresh);
});
process.stdout.write(JSON.stringify({ figures, own, fits: answers.fits, again }));
