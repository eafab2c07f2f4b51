/** Counts a tenth of what the benchmark does, for the tests: a process of its own, since there arithmetic runs at its full speed. */
import { figuresOf, measured } from '../analysis';
import { ownTraces } from './own';

const own = [...ownTraces(4)].map(([name, r]) => ({ name, wrong: r.of - r.right - r.untold }));
process.stdout.write(JSON.stringify({ figures: figuresOf(measured(500, 150)), own }));
