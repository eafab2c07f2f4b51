/** The climbing loft: an air handler, six supply registers and two returns over a hall and its changing rooms, as tests take it. */
import ductJson from '@packs/duct.json';
import type { System } from '@/core/installation/section';
import type { OwnKit } from '@/core/instrument/kit';
import { makePlan, type Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import { SIMULATED_RINGS } from '@/core/simulation/duct';
import { firstSection } from '@/core/trades/first';
import { verdictOf } from '@/core/verdict/verdict';
import { asShipped } from './as-shipped';
import { gauge, scribe, uuid } from './bakery';

export const ductPack = asShipped(ductJson);
export const paGauge = gauge({
  id: uuid(81, 9),
  name: 'P-500',
  serial: 'S81',
  least: q('-500 Pa'),
  greatest: q('500 Pa'),
  resolution: q('0.1 Pa'),
});
const FAN: OwnKit = {
  id: uuid(82, 8),
  name: 'F-1',
  serial: 'K82',
  kind: 'fan',
  accuracy: q('3 %'),
  ranges: SIMULATED_RINGS.slice(0, 3),
};
/** The fan, with its own test of so many days ago: what it passes at 25 Pa; none where nothing is given. */
export const fanKit = (through?: {
  flow: string;
  days?: number;
  pressure?: string;
  below?: boolean;
}): OwnKit => ({
  ...FAN,
  ...(through
    ? {
        through: {
          on: '2026-05-20',
          days: through.days ?? 13,
          pressure: q(through.pressure ?? '25 Pa'),
          flow: q(through.flow),
          below: through.below ?? false,
        },
      }
    : {}),
});
export function loft(over: Partial<System> = {}): System {
  return {
    ...firstSection({
      id: uuid(80, 1),
      name: 'Loft air',
      medium: 'ducted air',
      workingPressure: q('0 mbar'),
      meter: { kind: 'none', name: 'none', volume: q('0 l') },
      pipe: {
        id: 'main',
        name: 'Trunk',
        material: 'sheet metal',
        size: q('250 mm'),
        bore: q('250 mm'),
        length: q('12 m'),
      },
      counted: [
        { word: 'supply register', count: 6, volume: q('0 l') },
        { word: 'return grille', count: 2, volume: q('0 l') },
        { word: 'damper', count: 2, volume: q('0 l') },
        { word: 'outdoor air intake', count: 1, volume: q('0 l') },
      ],
      asked: { floorServed: q('1200 ft2') },
    }),
    ...over,
  };
}
/** A plan on it. The limit by the usual edition is 48 CFM (4 per 100 ft² of 1200 ft²). */
export const ductPlan = (
  over: {
    readonly procedure?: string;
    readonly case?: string;
    readonly choices?: Readonly<Record<string, string>>;
    readonly kit?: readonly OwnKit[];
    readonly system?: Partial<System>;
  } = {},
): Plan =>
  makePlan({
    run: uuid(86, 3),
    practice: false,
    organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
    site: {
      id: uuid(3, 1),
      name: 'Climbing loft',
      address: 'Millrace Quarter',
      customer: 'Loft Climbers',
    },
    packHash: 'x',
    pack: ductPack,
    gauges: [paGauge],
    ownKit: over.kit ?? [fanKit({ flow: '6 CFM' })],
    made: { at: '2026-06-02T08:00:00.000Z', zone: 'UTC', by: 'Imre' },
    system: loft(over.system),
    procedureId: over.procedure ?? ductPack.procedures[0]!.id,
    case: over.case ?? 'rough-in-with',
    choices: over.choices ?? {},
  });
export function playDuct(plan: Plan, lines: readonly ScriptLine[]) {
  const events = playScript(plan, lines, scribe({ began: Date.parse(plan.made.at) }));
  const state = reduce(plan, events);
  return { events, state, verdict: verdictOf(plan, state) };
}
