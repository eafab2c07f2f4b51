/** Every procedure there is can be practised: conducted on a sound simulated installation it comes to an end, and to a good one. */
import { dyeHouse, packs, planOf } from '@/core/testing/quarter';
import type { Installations } from './session';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { play } from './play';
import { verdictOf } from '@/core/verdict/verdict';
import { reduce } from '@/core/run/reduce';
import type { Scenario } from './scenario';
import { occasion } from '@/core/testing/yard';

const all = Object.values(packs).flatMap((pack) =>
  pack.procedures.filter((p) => !p.partOnly).map((p) => [p.id, pack] as const),
);
const scenarioFor = (id: string): Scenario => {
  const vehicle = id.startsWith('vehicle')
    ? { system: dyeHouse({ duty: 'vehicle', setPressure: q('2.8 bar') }) }
    : {};
  const { system, case: kase } = planOf(id, { practice: true, ...vehicle });
  return {
    format: 1,
    id,
    title: id,
    trade: 'gas',
    level: 1,
    minutes: 10,
    traps: ['sound'],
    briefing: '',
    installation: 'it',
    pack: '',
    procedure: id,
    case: kase,
    hidden: {},
    truth: { result: ['tight'], cause: ['sound'], tells: '' },
    criteria: [],
    proof: [],
    conducts: [],
    seed: 3,
    ...{ system },
  } as unknown as Scenario;
};
/** What no sound installation makes tight: looks that never prove, a check that is not final, a gauge too coarse for its pack. */
const NO_TIGHT = new Set([
  'water-joint-check',
  'pool-whole',
  'pool-map',
  'pool-dye',
  'pool-line-air',
  'pool-locate',
]);
test.each(all)('%s', (id, pack) => {
  const s = scenarioFor(id);
  const { system } = s as unknown as { system: object };
  const known: Installations = { it: system as Record<string, unknown> };
  const session = play(s, { name: 'good', good: true } as never, pack, known, occasion);
  const state = reduce(session.plan, session.events);
  const word = verdictOf(session.plan, state)?.word;
  expect(session.stuck).toBeNull();
  if (NO_TIGHT.has(id)) expect(word).toBe('inconclusive');
  else expect(word).toMatch(/^(tight|within-allowance)$/);
});
