import installations from '@scenarios/installations.json';
import { occasion, shippedScenarios } from '@/core/testing/yard';
import { packWith } from '@/core/testing/quarter';
import { faultsFor, withFault } from './faults';
import type { Installations } from './session';
import { planOfScenario } from './session';
import { simulationOf } from './setup';

const planOf = (s: ReturnType<typeof shippedScenarios>[number]) =>
  planOfScenario(s, packWith(s.procedure), installations as unknown as Installations, occasion);
test.each(shippedScenarios().map((s) => [s.id, s] as const))(
  '%s: whatever is offered to be hidden there can be hidden, and says what is then true',
  (_, s) => {
    const plan = planOf(s);
    for (const [name, words] of Object.entries(faultsFor(plan))) {
      const other = withFault(s, name, words);
      expect(other.truth.cause.length * other.truth.result.length).toBeGreaterThan(0);
      expect(() => simulationOf(plan, { seed: 5, began: 0, fault: name })).not.toThrow();
    }
  },
);
test('what hides behind something shut is offered only where something inside can be', () => {
  const offered = (id: string) =>
    Object.keys(faultsFor(planOf(shippedScenarios().find((s) => s.id === id)!)));
  expect(offered('refrigerant-solenoid')).toContain('solenoid');
  expect(offered('refrigerant-vacuum-leak')).not.toContain('solenoid');
  expect(offered('duct-damper')).toContain('damper');
  expect(offered('drain-sound')).not.toContain('closed');
  expect(() => withFault(shippedScenarios()[0]!, 'constructor', '')).toThrow(/constructor/);
});
