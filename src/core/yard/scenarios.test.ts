// @further every scenario conducted well, and with each of its mistakes
/** Every scenario by its good conduct and its typical mistakes. */
import installations from '@scenarios/installations.json';
import rubricJson from '@scenarios/rubric.json';
import { packWith } from '@/core/testing/quarter';
import { occasion, shippedScenarios } from '@/core/testing/yard';
import { grade } from './grade';
import { play } from './play';
import type { Criterion, Scenario } from './scenario';

const SCENARIOS = shippedScenarios();
const rubric = rubricJson as unknown as Criterion[];
const played = (s: Scenario, n: number) => {
  const session = play(s, s.conducts[n]!, packWith(s.procedure), installations as never, occasion);
  const until = Math.max(...session.acts.map((a) => a.at), ...session.events.map((e) => e.at)) + 1;
  return { session, graded: grade(session, rubric, until) };
};
describe.each(SCENARIOS.map((s) => [s.id, s] as const))('%s', (_id, s) => {
  test('has a good conduct and a typical mistake', () => {
    expect(s.conducts.filter((c) => c.good).length).toBeGreaterThan(0);
    expect(s.conducts.filter((c) => !c.good && c.caught?.length).length).toBeGreaterThan(0);
  });
  test.each(s.conducts.map((c, n) => [c.name, n] as const))('%s', (_name, n) => {
    const { session, graded } = played(s, n);
    const missed = graded.lines.filter((l) => !l.met).map((l) => l.id);
    if (s.conducts[n]!.good) expect([graded.end, missed, session.stuck]).toEqual(['mastered', [], null]);
    else {
      expect(graded.end).not.toBe('mastered');
      for (const id of s.conducts[n]!.caught ?? []) expect(missed).toContain(id);
    }
  });
});
