/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import type { Payload } from '@/core/run/events';
import { reduce, step } from '@/core/run/reduce';
import { stageOf, currentVisit, expectation } from '@/core/run/read';
import { BEGAN, entryOf, hold, plan, play, upTo, uuid } from '@/core/testing/bakery';
import type { SideProps } from './entry';
import { ExtendSide } from './extend';
import { BarometerSide, TemperatureSide } from './logged';

// jsdom has none
globalThis.TextDecoder ??= jest.requireActual<{ TextDecoder: typeof TextDecoder }>('util').TextDecoder;
const p = plan();
const made: Payload[] = [];
const standing = (live: object | null = null) => {
  const state = reduce(p, play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50').slice(0, -1)]));
  const visit = currentVisit(state)!;
  const done = jest.fn();
  const act1 = async (payload: Payload) => {
    const n = made.push(payload);
    const event = entryOf(p, payload, {
      id: uuid(n, 7),
      at: BEGAN + 300_000 + n,
      expects: expectation(state),
    });
    const refused = step(p, state, event);
    return refused ? { accepted: false, code: refused.code, text: refused.text } : { accepted: true };
  };
  const props = {
    view: { plan: p, state, live },
    visit,
    stage: stageOf(p, visit),
    act: act1,
    onDone: done,
    side: 'extend',
    at: BEGAN,
  } as unknown as SideProps;
  return { state, props, done };
};
const press = (name: string | RegExp) =>
  act(async () => void fireEvent.click(screen.getByRole('button', { name })));
beforeEach(() => {
  made.length = 0;
  localStorage.clear();
  jest.spyOn(Date, 'now').mockImplementation(() => BEGAN + 300_000);
});

test('longer by how much and why: both are needed, and the new end is said', async () => {
  const { state, props, done } = standing();
  render(<ExtendSide {...props} />);
  const go = screen.getByRole('button', { name: 'Hold it longer' });
  expect((go as HTMLButtonElement).disabled).toBe(true);
  await press('2 h');
  expect((go as HTMLButtonElement).disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Why, in a few words'), { target: { value: 'called away' } });
  screen.getByText(/A permitted drop belongs to the minutes that were planned/);
  await press('Hold it longer');
  expect(made).toEqual([{ kind: 'extend', minutes: 120, why: 'called away' }]);
  expect(state.visits.at(-1)!.holds[0]!.minutes).toBe(122);
  expect(done).toHaveBeenCalled();
});
test('until seven in the morning is counted from the planned end', async () => {
  const { props } = standing();
  render(<ExtendSide {...props} />);
  await press('until 7 in the morning');
  const typed = Number((screen.getByLabelText('Minutes more') as HTMLInputElement).value);
  const end = new Date(BEGAN + 270_000 + 120_000 + typed * 60_000);
  expect(end.getHours() * 60 + end.getMinutes()).toBeGreaterThanOrEqual(6 * 60 + 59);
  expect(typed).toBeGreaterThan(0);
  expect(typed).toBeLessThanOrEqual(1440);
});
test('a station’s file gives the barometer at the start and now; one of another day says what is missing', async () => {
  const { state, props } = standing();
  render(<BarometerSide {...props} />);
  const file = (text: string) => {
    const made1 = new File([text], 'station.csv', { type: 'text/csv' });
    // jsdom's files have no bytes to ask for
    made1.arrayBuffer = async () => new Uint8Array(Buffer.from(text)).buffer;
    return made1;
  };
  const choose = (text: string) =>
    act(async () => {
      fireEvent.change(screen.getByLabelText(/file of a weather station/), {
        target: { files: [file(text)] },
      });
    });
  const at = (ms: number) => String(Math.round((BEGAN + ms) / 1000));
  await choose(
    `time;hPa\n${at(-90_000_000)};1010.00\n${at(-86_400_000)};1011.00\n${at(-86_300_000)};1011.50`,
  );
  await screen.findByText(/says nothing of the time of this hold/);
  await choose(`time;hPa\n${at(-3_600_000)};1010.00\n${at(0)};1012.00\n${at(3_600_000)};1016.00`);
  await screen.findByText(/^at the start 1012\.30 mbar/);
  const { start, end } = state.visits.at(-1)!.holds[0]!.barometer;
  expect([start!.unit, start!.scale, start!.digits]).toEqual(['mbar', 2, 101_230]);
  expect(end!.digits).toBe(101_233);
  expect(made.every((m) => m.kind === 'barometer' && m.from === 'station.csv')).toBe(true);
});
test('temperatures at any place and time, in what the thermometer shows', async () => {
  const { state, props } = standing();
  render(<TemperatureSide {...props} />);
  fireEvent.change(screen.getByLabelText('Unit: Temperature'), { target: { value: 'F' } });
  fireEvent.change(screen.getByLabelText('pipe now'), { target: { value: '66,2' } });
  await press('At the start');
  expect(state.visits.at(-1)!.holds[0]!.places).toMatchObject([
    { place: 'pipe', when: 'start', figure: { digits: 662, scale: 1, unit: 'F' } },
  ]);
  expect(localStorage.getItem('vast-thermometer-unit')).toBe('F');
});
test('what a probe on the pipe sends is offered and counts once it is taken', async () => {
  const live = {
    gauge: 'g',
    simulated: true,
    at: BEGAN + 300_000,
    digits: 2050,
    scale: 2,
    unit: 'mbar',
    temperature: { unit: 'C', scale: 1, digits: 203 },
  };
  const { state, props } = standing(live);
  const shown = render(<TemperatureSide {...props} />);
  expect(made).toEqual([]);
  await press(/The probe of the gauge shows 20\.3 °C, simulated: take it/);
  await press('In between');
  expect(state.visits.at(-1)!.holds[0]!.places).toMatchObject([
    { place: 'pipe', when: 'between', figure: { digits: 203, scale: 1, unit: 'C' } },
  ]);
  shown.unmount();
  // an old display is no reading of now
  render(<TemperatureSide {...standing({ ...live, at: BEGAN }).props} />);
  expect(screen.queryByText(/The probe of the gauge/)).toBeNull();
});
