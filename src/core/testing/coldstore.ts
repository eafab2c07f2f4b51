/** The cold store: one condensing unit, two evaporators, its sides parted by expansion valves, as tests take it. */
import refrigerantJson from '@packs/refrigerant.json';
import { pipeFigures } from '@/core/installation/pipes';
import type { Condensing, System } from '@/core/installation/section';
import { withNetwork } from '@/core/network/enter';
import type { Fact } from '@/core/network/catalogue';
import type { OwnKit } from '@/core/instrument/kit';
import type { Procedure } from '@/core/pack/schema';
import { makePlan, type Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import { firstSection } from '@/core/trades/first';
import { withinSection } from '@/core/trades/sections';
import { verdictOf } from '@/core/verdict/verdict';
import { asShipped } from './as-shipped';
import { gauge, scribe, uuid } from './bakery';

export const circuitPack = asShipped(refrigerantJson);
const SUCTION = pipeFigures('copper-thin', '22 × 0.9');
export const nitrogenGauge = gauge({
  id: uuid(71, 9),
  name: 'N-60',
  serial: 'S71',
  least: q('0 bar'),
  greatest: q('60 bar'),
  resolution: q('0.01 bar'),
});
export const vacuumGauge = gauge({
  id: uuid(72, 9),
  name: 'V-1',
  serial: 'S72',
  least: q('0 Pa(abs)'),
  greatest: q('2500 Pa(abs)'),
  resolution: q('1 Pa(abs)'),
});
export const circuitKit: readonly OwnKit[] = [
  { id: uuid(73, 8), name: 'R-50', serial: 'K73', kind: 'regulator', rating: q('50 bar') },
  { id: uuid(74, 8), name: 'R-100', serial: 'K74', kind: 'regulator', rating: q('100 bar') },
  { id: uuid(75, 8), name: 'H-60', serial: 'K75', kind: 'hose', rating: q('60 bar'), volume: q('0.05 l') },
];
/** What stands on the plate, where somebody read it. */
export type Plate = Partial<Omit<Condensing, 'id' | 'name' | 'place'>>;
export const PLATE: Plate = {
  refrigerant: 'R448A',
  psHigh: q('28 bar'),
  psLow: q('17 bar'),
  charge: q('14 kg'),
  cooled: 'air',
  ambient: '32',
  certificate: 'maker’s test 4471',
};
export function coldStore(plate: Plate = PLATE, over: Partial<System> = {}): System {
  const made = firstSection({
    id: uuid(70, 1),
    name: 'Cold store circuit',
    medium: 'refrigerant',
    workingPressure: q('0 bar'),
    meter: { kind: 'none', name: 'none', volume: q('0 l') },
    pipe: {
      id: 'main',
      name: 'Suction line',
      material: 'copper',
      table: 'copper-thin',
      nominal: '22 × 0.9',
      size: SUCTION.nominal,
      bore: SUCTION.bore,
      length: q('18 m'),
    },
    counted: [
      { word: 'evaporator', count: 2, volume: q('0 l') },
      { word: 'solenoid valve', count: 2, volume: q('0 l') },
    ],
  });
  const network = {
    ...made.network!,
    parts: made.network!.parts.map((p) =>
      p.kind === 'condensing'
        ? { ...p, facts: plate as Readonly<Record<string, Fact>> }
        : p.kind === 'evaporator'
          ? { ...p, facts: { volume: q('2.5 l') } }
          : p,
    ),
  };
  return { ...withNetwork(made, network), ...over };
}

/** The circuit as a procedure wants it: whole, or its low side. */
export const coldStoreFor = (procedure: Pick<Procedure, 'oneSection'>): System =>
  procedure.oneSection ? withinSection(coldStore(), 'low')! : coldStore();
export const EARLIER = {
  run: uuid(79, 3),
  number: 'HD-0001',
  word: 'tight',
  label: 'Withstood',
  procedure: 'the strength test before',
  sealedAt: '2026-06-01T08:00:00.000Z',
};

/** A plan of a procedure on a side of it, or on the whole. */
export function circuitPlan(
  procedureId: string,
  side: 'high' | 'low' | 'both' | null = null,
  more: {
    readonly choices?: Readonly<Record<string, string>>;
    readonly plate?: Plate;
    readonly over?: Partial<System>;
    readonly after?: Plan['after'];
  } = {},
): Plan {
  const whole = coldStore(more.plate, more.over);
  return makePlan({
    run: uuid(76, 3),
    practice: false,
    organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
    site: {
      id: uuid(2, 1),
      name: 'Cold store',
      address: 'Millrace Quarter',
      customer: 'Millrace Provisions',
    },
    packHash: 'x',
    pack: circuitPack,
    gauges: [nitrogenGauge, vacuumGauge],
    ownKit: circuitKit,
    made: { at: '2026-06-02T08:00:00.000Z', zone: 'UTC', by: 'Imre' },
    system: side ? withinSection(whole, side)! : whole,
    procedureId,
    case: 'new',
    choices: more.choices ?? {},
    after: more.after ?? EARLIER,
  });
}
/** A run of it by a script: its state and its verdict. */
export function playCircuit(plan: Plan, lines: readonly ScriptLine[]) {
  const events = playScript(plan, lines, scribe({ began: Date.parse(plan.made.at) }));
  const state = reduce(plan, events);
  return { events, state, verdict: verdictOf(plan, state) };
}
