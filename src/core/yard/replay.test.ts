/** Taken up again from where it went wrong: everything before it is as it was, and the miss has not happened yet. */
import installations from '@scenarios/installations.json';
import rubricJson from '@scenarios/rubric.json';
import { packWith } from '@/core/testing/quarter';
import { occasion, shippedScenarios } from '@/core/testing/yard';
import { reduce } from '@/core/run/reduce';
import { momentOf } from '@/core/run/events';
import { asked } from '@/core/simulation/simulation';
import { grade } from './grade';
import { play } from './play';
import { prefixOf, renamed } from './replay';
import type { Criterion } from './scenario';
import { actionsOf } from './session';

const rubric = rubricJson as unknown as Criterion[];
const mistakes = shippedScenarios()
  .filter((_, i) => i % 4 === 0)
  .flatMap((s) => s.conducts.filter((c) => !c.good).map((c) => [`${s.id}: ${c.name}`, s, c] as const));

test.each(mistakes)('%s', (_name, scenario, how) => {
  const s = play(scenario, how, packWith(scenario.procedure), installations as never, occasion);
  const until = Math.max(...s.acts.map((a) => a.at), ...s.events.map(momentOf)) + 1;
  const { wentWrong, lines } = grade(s, rubric, until);
  if (wentWrong === null) return; // nothing was missed at a moment: nothing to take up
  const { events, acts, at } = prefixOf(s, wentWrong);
  expect(events.every((e) => momentOf(e) < wentWrong) && acts.every((a) => a.at < wentWrong)).toBe(true);
  // a log that was cut anywhere is a log
  expect(() => reduce(s.plan, events)).not.toThrow();
  const cut = { ...s, events, acts };
  // the installation stands as it stood
  const view = (of: typeof s) => asked(s.world, actionsOf(of), [wentWrong - 1], (w) => w.truth().steps)[0];
  expect(view(cut)).toBe(view(s));
  // and what was missed first is open again
  const first = lines.filter((l) => !l.met && l.at === wentWrong).map((l) => l.id);
  const now = grade(cut, rubric, at).lines.filter((l) => !l.met && l.at !== null && l.at <= at);
  expect(now.filter((l) => first.includes(l.id) && l.at === wentWrong)).toEqual([]);
});
test('ids are changed wherever they stand, and nothing else', () => {
  const value = { id: 'a', of: ['b', { deep: 'a' }], text: 'a and b', n: 1 };
  expect(renamed(value, new Map([['a', 'x']]))).toEqual({
    id: 'x',
    of: ['b', { deep: 'x' }],
    text: 'a and b',
    n: 1,
  });
});
