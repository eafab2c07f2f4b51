/** Whole tests of each procedure on sections whose truth is drawn: what is tested, by which gauge, and how badly it leaks. */
import { pipeFigures } from '@/core/installation/pipes';
import { freeSurface, type System, systemStiffness } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { planVolume } from '@/core/plan/plan';
import { parseWithUnit as q, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { bakery } from '@/core/testing/bakery';
import {
  dyeHouse,
  gateDrain,
  gatehouse,
  gauges,
  kiln,
  planOf,
  riverLane,
  trailer,
} from '@/core/testing/quarter';
import type { Manner, Section } from '@/core/conduct/conduct';
import {
  between,
  GasSection,
  type GasTruth,
  LevelSection,
  normal,
  type Random,
  spread,
  WaterSection,
  type WaterTruth,
} from './worlds';

export interface Drawn {
  readonly section: Section;
  /** l/h at the pressure the product prints its figures for; 0: sound. */
  readonly leak: number;
  /** The leak lies in the pipework; otherwise in appliances alone. */
  readonly pipework: boolean;
}
export interface HonestyCase {
  readonly name: string;
  readonly plan: Plan;
  readonly manner: Omit<Manner, 'random'>;
  /** Leaks drawn, l/h. */
  readonly leaks: readonly [number, number];
  readonly draw: (r: Random, leak: number) => Drawn;
}

const pascal = (text: string) => {
  const e = q(text);
  return convert(toNumber(e), e.unit, 'Pa');
};
const GUESS = 0.1;
/** The tester's volume is good to about ten percent: the truth lies around it. */
const volume = (plan: Plan, r: Random) => planVolume(plan).value * (1 + (GUESS / 2) * normal(r));

const gas =
  (plan: Plan, over: Partial<GasTruth>, at: number) =>
  (r: Random, leak: number): Drawn => {
    const truth: GasTruth = {
      volume: volume(plan, r),
      leak,
      at,
      exponent: between(r, 0.5, 1),
      appliances: 0,
      letBy: 0,
      supply: at,
      source: 20_000,
      warm: 0.3,
      perMinute: 0.01,
      ...over,
    };
    return { section: new GasSection(truth, r), leak, pipework: true };
  };

const water =
  (plan: Plan, at: number, over: Partial<WaterTruth> & { readonly creeps?: number }) =>
  (r: Random, leak: number): Drawn => {
    const full = systemStiffness(plan.system, at)!;
    const litres = planVolume(plan).value;
    const { creeps = 0, ...rest } = over;
    const truth: WaterTruth = {
      volume: litres,
      stiffness: full.c * (1 + 0.05 * normal(r)),
      alpha: creeps ? 180e-6 : 17e-6,
      creep: creeps
        ? [
            [creeps * between(r, 0.3, 0.6), between(r, 300, 900)],
            [creeps * between(r, 0.3, 0.6), between(r, 3000, 9000)],
          ]
        : [],
      air: litres * between(r, 0, 0.01),
      leak,
      at,
      exponent: between(r, 0.5, 1),
      letBy: 0,
      supply: 0,
      source: 600,
      perMinute: 0.002,
      ...rest,
    };
    return { section: new WaterSection(truth, r), leak, pipework: true };
  };

const pex = (size: string, length: string): System['pipes'][number] => ({
  id: 'pex',
  name: 'Loops',
  material: 'pex',
  ...(({ nominal, bore }) => ({ size: nominal, bore }))(pipeFigures('pex', size)),
  length: q(length),
  table: 'pex',
  nominal: size,
});

/** All cases; made anew for each call, so that none shares what another has worn. */
export const honestyCases = (): HonestyCase[] => [...gasCases(), ...waterCases(), ...buriedCases()];

function gasCases(): HonestyCase[] {
  const staged = planOf('gas-lowpressure-staged', {
    system: bakery({ workingPressure: q('20.5 mbar'), supplyPressure: q('20.9 mbar') }),
    gauges: [gauges.mbar],
  });
  const fresh = planOf('gas-lowpressure-staged', {
    system: staged.system,
    gauges: [gauges.mbar],
    case: 'new',
  });
  const service = planOf('gas-serviceability', { gauges: [gauges.mbar] });
  const air = planOf('gas-air-pipework', { system: kiln(), gauges: [gauges.psiDial] });
  const line = planOf('gas-new-line', { gauges: [gauges.bar, gauges.mbar] });
  const coach = planOf('lpg-vehicle', { system: trailer(), gauges: [gauges.inwc] });
  return [
    {
      name: 'staged, existing',
      plan: staged,
      manner: { gauges: ['M-1'] },
      leaks: [0.3, 300],
      draw: gas(staged, { supply: pascal('20.9 mbar') }, pascal('20.5 mbar')),
    },
    {
      name: 'staged, new work',
      plan: fresh,
      manner: { gauges: ['M-1'] },
      leaks: [0.3, 300],
      draw: gas(fresh, { supply: pascal('20.9 mbar') }, pascal('20.5 mbar')),
    },
    {
      name: 'serviceability',
      plan: service,
      manner: { gauges: ['M-1'] },
      leaks: [0.2, 300],
      draw: gas(service, { supply: pascal('21 mbar') }, pascal('21 mbar')),
    },
    {
      name: 'air test, psi dial',
      plan: air,
      manner: { gauges: ['D-15'], noise: 0.1 },
      leaks: [0.05, 300],
      draw: gas(air, { source: 4000, warm: 2, perMinute: 0.01 }, pascal('3 psi')),
    },
    {
      name: 'new line, load and 150 mbar',
      plan: line,
      manner: { gauges: ['B-2', 'M-1'] },
      leaks: [0.05, 300],
      draw: gas(line, { source: 4000, warm: 2, perMinute: 0.01 }, pascal('150 mbar')),
    },
    {
      name: 'propane coach',
      plan: coach,
      manner: { gauges: ['I-1'] },
      leaks: [0.05, 100],
      draw: gas(coach, { supply: pascal('12.5 inWC'), perMinute: 0.01 }, pascal('11 inWC')),
    },
  ];
}

function waterCases(): HonestyCase[] {
  const house = planOf('water-supply-static', {
    system: gatehouse(),
    gauges: [gauges.psiHigh],
  });
  const choices = { witness: 'none', leave: 'release' };
  const rigid = planOf('water-hydraulic', { gauges: [gauges.wide], case: 'rigid', choices });
  const soft = dyeHouse({ pipes: [pex('20 × 2.0', '40 m')] });
  const plasticA = planOf('water-hydraulic', {
    system: soft,
    gauges: [gauges.wide],
    case: 'plastic',
    choices,
  });
  const plasticB = planOf('water-hydraulic', {
    system: soft,
    gauges: [gauges.wide],
    case: 'plastic',
    choices: { ...choices, 'plastic-school': 'falls' },
  });
  const loops = planOf('floor-loops', {
    system: dyeHouse({
      duty: 'loops',
      workingPressure: q('2 bar'),
      pipes: [pex('16 × 2.0', '240 m')],
      loops: [{ id: 'l1', name: 'Loop 1', valve: 'v', flowMeter: 'f' }],
    }),
    gauges: [gauges.wide],
    case: 'stretching',
    choices: { leave: 'release' },
  });
  const barAt = pascal('6.2 bar');
  return [
    {
      name: 'house supply',
      plan: house,
      manner: { gauges: ['P-300'] },
      leaks: [0.05, 100],
      draw: water(house, pascal('60 psi'), { supply: pascal('60 psi') }),
    },
    {
      name: 'rigid water',
      plan: rigid,
      manner: { gauges: ['W-16'] },
      leaks: [0.005, 100],
      draw: water(rigid, barAt, {}),
    },
    {
      name: 'plastic, school A',
      plan: plasticA,
      manner: { gauges: ['W-16'] },
      leaks: [0.02, 100],
      draw: water(plasticA, barAt, { creeps: 0.1 }),
    },
    {
      name: 'plastic, school B',
      plan: plasticB,
      manner: { gauges: ['W-16'] },
      leaks: [0.02, 100],
      draw: water(plasticB, barAt, { creeps: 0.1 }),
    },
    {
      name: 'PE-X loops',
      plan: loops,
      manner: { gauges: ['W-16'] },
      leaks: [0.02, 100],
      draw: water(loops, pascal('5 bar'), { creeps: 0.1 }),
    },
  ];
}

function buriedCases(): HonestyCase[] {
  const drain = planOf('drain-fill-hold', { system: gateDrain() });
  const main = planOf('main-hydrostatic', {
    system: riverLane({
      pipes: [{ ...riverLane().pipes[0]!, ...mainPipe() }],
    }),
    gauges: [gauges.psiHigh],
    choices: { decay: 'make-up' },
  });
  return [
    {
      name: 'drain by level',
      plan: drain,
      manner: { gauges: [] },
      leaks: [0.02, 200],
      draw: (r, leak) => ({
        section: new LevelSection(
          {
            surface: freeSurface(drain.system) * (1 + 0.03 * normal(r)),
            leak,
            head: between(r, 0.3, 1.5),
            bounce: between(r, 0, 0.01),
          },
          r,
        ),
        leak,
        pipework: true,
      }),
    },
    {
      name: 'buried main',
      plan: main,
      manner: { gauges: ['P-300'] },
      leaks: [0.05, 1500],
      draw: (r, leak) =>
        water(main, pascal('152 psi'), {
          alpha: 11e-6,
          source: 6000,
          perMinute: 0.0005,
          air: planVolume(main).value * between(r, 0, 0.0004),
        })(r, leak),
    },
  ];
}
function mainPipe() {
  const { nominal, bore } = pipeFigures('iron-c151', '6 in');
  return { size: nominal, bore, table: 'iron-c151', nominal: '6 in' };
}
/** A draw of sound and leaking sections: four in ten sound. */
export const drawLeak = (r: Random, [least, most]: readonly [number, number]): number =>
  r() < 0.4 ? 0 : spread(r, least, most);
