// @further a kind of stage made up from nothing, and the whole house with it
import { spawnSync } from 'node:child_process';
import path from 'node:path';

interface Tried {
  readonly types: string[];
  readonly forgotten: string[];
  readonly played: Record<string, unknown> | null;
}
test('a kind of stage is its folder, its panel and its lines in the registries: types hold, a run plays through', () => {
  const { stdout, stderr, status } = spawnSync(process.execPath, [path.resolve('scripts/new-kind/try.mjs')], {
    encoding: 'utf8',
  });
  expect([stderr, status]).toEqual(['', 0]);
  const { types, forgotten, played } = JSON.parse(stdout) as Tried;
  expect(types).toEqual([]);
  // the types do not let go before each registry has it
  expect(forgotten.map((m) => m.split(':')[0]).sort()).toEqual([
    'src/core/run/courses.ts',
    'src/core/run/folds.ts',
    'src/ui/bench/panels/index.ts',
  ]);
  for (const m of forgotten) expect(m).toContain("Property 'knock' is missing");
  expect(played).toEqual({
    verdict: 'tight',
    first: ['rap', 'clear'],
    minutes: expect.objectContaining({ stage: 'rap', title: 'Rap the pipe', hands: 3, wait: 0 }),
    lines: [expect.objectContaining({ label: 'raps', value: '3', permits: 'greater' })],
    story: expect.objectContaining({ what: 'rapped, heard clear', who: 'Imre', note: '' }),
    panel: expect.stringContaining('Rap 3 times. What do you hear?'),
    noWay: 'Nothing follows "clear".',
    noEar: expect.stringContaining('heard must be one of'),
  });
}, 180_000);
