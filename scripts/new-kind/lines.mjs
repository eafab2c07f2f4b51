// What is written into the registries for a new kind: after which line, and what.
const line = (file, after, add) => ({ file, after, add });
export const LINES = [
  line(
    'src/core/kinds/index.ts',
    "import { zero } from './zero/rule';",
    "import { knock } from './knock/rule';",
  ),
  line('src/core/kinds/index.ts', '  volume,', '  knock,'),
  line(
    'src/core/run/events.ts',
    "import { zeroEntries } from '@/core/kinds/zero/entries';",
    "import { knockEntries } from '@/core/kinds/knock/entries';",
  ),
  line('src/core/run/events.ts', '  ...zeroEntries,', '  ...knockEntries,'),
  line(
    'src/core/run/folds.ts',
    "import { zeroFold } from '@/core/kinds/zero/fold';",
    "import { knockFold } from '@/core/kinds/knock/fold';",
  ),
  line('src/core/run/folds.ts', '  ...zeroFold,', '  ...knockFold,'),
  line(
    'src/core/run/courses.ts',
    "import { zeroCourse } from '@/core/kinds/zero/fold';",
    "import { knockCourse } from '@/core/kinds/knock/fold';",
  ),
  line('src/core/run/courses.ts', '  zero: zeroCourse,', '  knock: knockCourse,'),
  line(
    'src/core/run/script.ts',
    "import { zeroVerbs } from '@/core/kinds/zero/script';",
    "import { knockVerbs } from '@/core/kinds/knock/script';",
  ),
  line('src/core/run/script.ts', '  zeroVerbs,', '  knockVerbs,'),
  line(
    'src/ui/bench/panels/index.ts',
    "import { ZeroPanel } from './zero';",
    "import { KnockPanel } from './knock';",
  ),
  line(
    'src/ui/bench/panels/index.ts',
    '  checks: { panel: ChecksPanel },',
    '  knock: { panel: KnockPanel },',
  ),
  // the tester of the simulations does not rap
  line('src/core/conduct/turns.ts', '  joints,', "  knock: (hand) => hand.stuck('nothing is rapped here'),"),
];
/** Where its folder and its panel would stand. */
export const FILES = {
  'src/core/kinds/knock/rule.ts': 'knock/rule.ts',
  'src/core/kinds/knock/entries.ts': 'knock/entries.ts',
  'src/core/kinds/knock/fold.ts': 'knock/fold.ts',
  'src/core/kinds/knock/script.ts': 'knock/script.ts',
  'src/ui/bench/panels/knock.tsx': 'panel.tsx',
};
