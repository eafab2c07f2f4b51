/** @jest-environment jsdom */
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { circuitPlan, circuitKit, PLATE, vacuumGauge } from '@/core/testing/coldstore';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { alerts, press, read, stand, title, type Standing } from '@/ui/testing/bench';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const last = (s: Standing) => s.made[s.made.length - 1]!;
const tick = (name: RegExp) => fireEvent.click(screen.getByRole('checkbox', { name }));
const strength = circuitPlan('refrigerant-strength', 'high');

describe('the cylinder', () => {
  test('a wrong gas is said to be wrong at once and cannot be opened; what fits of the cabinet stands in it', async () => {
    const s = await stand(strength, 'cylinder');
    expect(screen.getByRole('button', { name: 'Read the label first' })).toHaveProperty('disabled', true);
    await press('Oxygen');
    expect(alerts()).toMatch(/OXYGEN AND OIL EXPLODE/);
    expect(screen.getByRole('button', { name: 'Not with this gas' })).toHaveProperty('disabled', true);
    await press(/^Nitrogen, oxygen-free/);
    expect(alerts()).not.toMatch(/EXPLODE/);
    expect(screen.getByRole('button', { name: 'Wound out and tied first' })).toHaveProperty('disabled', true);
    tick(/wound right out/);
    tick(/tied/);
    await press('Open it slowly: go on');
    expect([last(s).refused, title()]).toEqual([null, 'First bar']);
    expect(s.state.rooms.cylinders[0]).toMatchObject({ regulatorMost: q('50 bar'), hoseMost: q('60 bar') });
  });
  test('a regulator that gives too much is refused with the figure; nothing at hand has a way of its own', async () => {
    const s = await stand(strength, 'cylinder');
    await press(/^Nitrogen, oxygen-free/);
    tick(/wound right out/);
    tick(/tied/);
    fireEvent.change(screen.getByLabelText('Regulator, gives at most'), {
      target: { value: circuitKit[1]!.id },
    });
    await press('Open it slowly: go on');
    expect(last(s).refused).toBe('regulator');
    await press('Nothing that fits is at hand');
    expect(title()).toBe('Put back');
  });
  test('what is not entered of the plate is asked for, where it is needed', async () => {
    const { psHigh: _, ...plate } = PLATE;
    await stand(
      circuitPlan('refrigerant-strength', 'high', { plate: { ...plate, refrigerant: 'R744' } }),
      'cylinder',
    );
    expect(alerts()).toMatch(/no bubble point at 55 °C/);
  });
});

test('a hold that is judged without warmth logs every place, and says what is still to come', async () => {
  const s = await stand(circuitPlan('refrigerant-tightness', 'low'), 'hold');
  await read('16.80', /^Start the/);
  expect(screen.getByText(/log pipe and room NOW/)).toBeTruthy();
  await press('Temperatures');
  fireEvent.change(screen.getByLabelText('pipe now'), { target: { value: '18.2' } });
  await press('At the start');
  expect(screen.getByText(/A second place now, or it can never be Tight/)).toBeTruthy();
  await press('Temperatures');
  await press('room');
  fireEvent.change(screen.getByLabelText('room now'), { target: { value: '18.9' } });
  await press('At the start');
  expect(screen.getByText(/Logged at the start: pipe, room/)).toBeTruthy();
  const hold = s.state.visits.flatMap((v) => v.holds).at(-1)!;
  expect(hold.places?.map((p) => [p.place, p.when, p.figure])).toEqual([
    ['pipe', 'start', q('18.2 C')],
    ['room', 'start', q('18.9 C')],
  ]);
  expect(screen.getByText(/without what warmth does, a fall of/)).toBeTruthy();
});

test('a vacuum gauge is taken by what it shows in air; what will not come down has its own way', async () => {
  const s = await stand(circuitPlan('refrigerant-vacuum'), 'air', vacuumGauge.id);
  await press('It shows over range');
  expect([last(s).payload, title()]).toEqual([
    expect.objectContaining({ kind: 'at-air', over: true }),
    'Pump down',
  ]);
  await press('It will not come down');
  await read('300', 'It stays above: pump and hoses alone');
  expect(title()).toBe('Pump and hoses alone');
});
