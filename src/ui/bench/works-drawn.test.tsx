/** @jest-environment jsdom */
import { act, cleanup, render, screen, within } from '@testing-library/react';
import { plan as staged } from '@/core/testing/bakery';
import { circuitPlan } from '@/core/testing/coldstore';
import { ductPlan } from '@/core/testing/loft';
import { dyeHouse, gauges, planOf } from '@/core/testing/quarter';
import type { GasView } from '@/core/simulation/gas';
import type { LiquidView } from '@/core/simulation/liquid';
import type { SimulatedView } from '@/core/simulation/simulation';
import { press } from '@/ui/testing/bench';
import { SimulatedWorks } from './simulated';

const done: object[] = [];
let view: SimulatedView;
jest.mock('@/device/office', () => ({
  office: async (_path: string, said?: { body: object }) => {
    if (said) done.push(said.body);
    return view;
  },
}));
beforeEach(() => {
  done.length = 0;
});
afterEach(cleanup);
const gas: GasView = {
  kind: 'gas',
  supply: 'shut',
  bleeding: false,
  connected: true,
  closed: ['hob'],
  metered: 0,
  pump: false,
  said: [],
};
const show = (plan = staged()) => act(async () => void render(<SimulatedWorks plan={plan} />));
const touch = (name: RegExp) =>
  press(name, screen.getByRole('group', { name: 'The simulated installation' }));

test('the installation is worked on its drawing: valves turn, the gauge is taken off, leak fluid goes on', async () => {
  view = gas;
  await show();
  for (const name of [
    /^valve Supply valve/,
    /^valve lever, closed/,
    /^valve lever, open/,
    /^test point/,
    /^appliance Deck/,
  ])
    await touch(name);
  expect(done).toEqual([
    { act: 'supply', value: 'crack' },
    { act: 'valve', id: 'hob', value: 'open' },
    { act: 'valve', id: 'oven', value: 'shut' },
    { act: 'gauge', value: 'open' },
  ]);
  // with something else in the hand a touch is that
  await press('Leak fluid');
  await touch(/^appliance Deck/);
  await press('A spanner');
  await press('on my own kit');
  expect(done.slice(-2)).toEqual([
    { act: 'fluid', value: 'oven' },
    { act: 'mend', value: 'kit' },
  ]);
});
test.each([
  ['shut', 'crack', /closed, boundary/],
  ['crack', 'open', /open, inside/],
  ['open', 'shut', /open, inside/],
] as const)(
  'a supply valve that is %s is turned to %s, and the drawing shows how it stands',
  async (stands, next, words) => {
    view = { ...gas, supply: stands };
    await show();
    const [valve] = within(screen.getByRole('group', { name: 'The simulated installation' })).getAllByRole(
      'button',
      {
        name: /^valve Supply/,
      },
    );
    expect(valve!.getAttribute('aria-label')).toMatch(words);
    await touch(/^valve Supply/);
    expect(done).toEqual([{ act: 'supply', value: next }]);
  },
);
const water: LiquidView = {
  kind: 'liquid',
  supply: 'shut',
  bleeding: false,
  tap: false,
  connected: false,
  strokes: 3,
  level: 0,
  drain: false,
  stroke: 45,
  closed: [],
  pool: false,
  said: [],
};
test('what cannot be worked there does nothing; water that is pumped has its pump, not its supply', async () => {
  view = water;
  await show(planOf('water-hydraulic', { gauges: [gauges.wide], system: dyeHouse() }));
  await touch(/^valve main stop valve/);
  await touch(/^source/);
  expect(done).toEqual([]);
  for (const name of [
    /^test point/,
    /^test pump 3 strokes/,
    /^valve release, closed/,
    /^tap draw-off, shut/,
    /^high point/,
  ])
    await touch(name);
  await press('5 strokes');
  expect(done).toEqual([
    { act: 'gauge', value: 'connected' },
    { act: 'pump', value: '5' },
    { act: 'bleed', value: 'open' },
    { act: 'tap', value: 'open' },
    { act: 'air-out' },
    { act: 'pump', value: '5' },
  ]);
});
test('what runs is shut by the same touch', async () => {
  view = { ...water, bleeding: true, tap: true };
  await show(planOf('water-hydraulic', { gauges: [gauges.wide], system: dyeHouse() }));
  await touch(/^valve release, open/);
  await touch(/^tap draw-off, running/);
  expect(done).toEqual([
    { act: 'bleed', value: 'shut' },
    { act: 'tap', value: 'shut' },
  ]);
});
test('a damper is turned on the drawing and a register looked at; a solenoid valve gets its magnet', async () => {
  view = {
    kind: 'duct',
    registers: [{ id: 'supply-1', name: 'Supply register 1' }],
    rings: ['ring 2'],
    speed: 0,
    set: 'ring 2',
    looped: false,
    closed: ['damper-2'],
    connected: false,
    said: [],
  };
  await show(ductPlan());
  for (const name of [/^valve Damper 1, open/, /^valve Damper 2, closed/, /^register Supply register 1/])
    await touch(name);
  cleanup();
  view = {
    kind: 'circuit',
    vacuum: false,
    places: ['Evaporator 1'],
    cylinder: false,
    venting: false,
    pumping: false,
    connected: false,
    open: ['solenoid-2'],
    closed: [],
    said: [],
  };
  await show(circuitPlan('refrigerant-tightness', 'high'));
  for (const name of [/^valve solenoid valve 1, closed/, /^valve solenoid valve 2, open/]) await touch(name);
  expect(done).toEqual([
    { act: 'valve', id: 'damper-1', value: 'shut' },
    { act: 'valve', id: 'damper-2', value: 'open' },
    { act: 'look-at', id: 'supply-1' },
    { act: 'solenoid', id: 'solenoid-1' },
    { act: 'solenoid', id: 'solenoid-2' },
  ]);
});
