/** Every scenario by its good conduct and its typical mistakes. */
import installations from '@scenarios/installations.json';
import rubricJson from '@scenarios/rubric.json';
import { packWith } from '@/core/testing/quarter';
import { occasion, shippedScenarios } from '@/core/testing/yard';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { grade } from './grade';
import { play } from './play';
import type { Criterion, Scenario } from './scenario';

const SCENARIOS = shippedScenarios();
const rubric = rubricJson as unknown as Criterion[];
const ONLY = process.env.ONLY;
const played = (s: Scenario, n: number) => {
  const session = play(s, s.conducts[n]!, packWith(s.procedure), installations as never, occasion);
  const until = Math.max(...session.acts.map((a) => a.at), ...session.events.map((e) => e.at)) + 1;
  return { session, graded: grade(session, rubric, until) };
};
describe.each(SCENARIOS.filter((s) => !ONLY || s.id.startsWith(ONLY)).map((s) => [s.id, s] as const))(
  '%s',
  (_id, s) => {
    test('has a good conduct and a typical mistake', () => {
      expect(s.conducts.filter((c) => c.good).length).toBeGreaterThan(0);
      expect(s.conducts.filter((c) => !c.good && c.caught?.length).length).toBeGreaterThan(0);
    });
    test.each(s.conducts.map((c, n) => [c.name, n] as const))('%s', (_name, n) => {
      const { session, graded } = played(s, n);
      const missed = graded.lines.filter((l) => !l.met).map((l) => l.id);
      if (process.env.SHOW)
        console.log(
          s.id,
          s.conducts[n]!.name,
          '\n',
          graded.end,
          graded.result,
          missed,
          session.stuck,
          graded.minutes.toFixed(1),
          verdictOf(session.plan, reduce(session.plan, session.events))?.sentence,
          '\n',
          session.events
            .map(
              (e) =>
                `${((e.at - Date.parse(occasion.made.at)) / 60000).toFixed(1)} ${e.kind} ${JSON.stringify(e, (k, v) => (['id', 'run', 'device', 'deviceSeq', 'at', 'zone', 'offset', 'mono', 'pageLoad', 'by', 'byName', 'kind', 'readAt', 'strokes'].includes(k) ? undefined : v))}`,
            )
            .slice(process.env.FROM ? Number(process.env.FROM) : -60)
            .join('\n'),
          '\n',
          session.acts
            .map(
              (a) =>
                `${((a.at - Date.parse(occasion.made.at)) / 60000).toFixed(1)} ${JSON.stringify(a).slice(0, 160)}`,
            )
            .slice(-70)
            .join('\n'),
        );
      if (s.conducts[n]!.good) expect([graded.end, missed, session.stuck]).toEqual(['mastered', [], null]);
      else {
        expect(graded.end).not.toBe('mastered');
        for (const id of s.conducts[n]!.caught ?? []) expect(missed).toContain(id);
      }
    });
  },
);
