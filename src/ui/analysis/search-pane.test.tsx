/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import type { Payload } from '@/core/run/events';
import { reduce, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { BEGAN, entryOf, hold, plan, play, upTo, uuid } from '@/core/testing/bakery';
import type { BenchView } from '@/device/bench';
import { SearchPane } from './search-pane';

jest.mock('@/device/enter', () => ({ enterLeak: jest.fn().mockResolvedValue('sent') }));
const p = plan();
let at = 600;
let state: RunState;
let redraw = (): void => undefined;
/** Entries as the bench makes them, by the real core. */
const act1 = async (payload: Payload) => {
  const event = entryOf(p, payload, {
    id: uuid(at, 7),
    at: BEGAN + at * 1000,
    mono: at * 1000,
    ...('readAt' in payload ? { readAt: BEGAN + at * 1000 } : {}),
  });
  const refused = step(p, state, event);
  redraw();
  return refused ? { accepted: false, code: refused.code, text: refused.text } : { accepted: true };
};
const done = jest.fn();
function Bench() {
  const [, turn] = useState(0);
  redraw = () => turn((n) => n + 1);
  return (
    <SearchPane
      view={{ plan: p, state: { ...state }, live: null } as unknown as BenchView}
      act={act1 as never}
      onDone={done}
    />
  );
}
beforeEach(() => {
  at = 600;
  state = reduce(p, play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '12.00')]));
  jest.spyOn(Date, 'now').mockImplementation(() => BEGAN + at * 1000);
});
const press = (name: string | RegExp) =>
  act(async () => void fireEvent.click(screen.getByRole('button', { name })));
const key = async (figure: string, save: RegExp) => {
  const form = screen.getByRole('form', { name: 'Entry' });
  fireEvent.change(within(form).getByRole('textbox'), { target: { value: figure } });
  await press(save);
};

test('worked on, closed, timed, read, opened again: one part after the other until it is found', async () => {
  render(<Bench />);
  await press('Hob');
  await press('That is all');
  expect(state.search.workedOn).toEqual(['hob']);
  // what was worked on comes first: the hob shut, the rest held
  expect(screen.getByRole('combobox').textContent).toContain('the valve of Hob');
  fireEvent.change(screen.getByRole('combobox'), { target: { value: 'valve-hob' } });
  await key('20.50', /^Closed, settled: begin/);
  screen.getByRole('timer');
  // nothing leads away while a valve is shut for it
  expect(screen.queryByRole('button', { name: 'Back to the test' })).toBeNull();
  at += 150;
  await key('20.50', /^That part read/);
  screen.getByText(/^Still closed for the search/);
  expect(screen.queryByText('It stays shut: the leak is behind it')).toBeNull();
  await press('It is open again');
  expect(state.search.shut).toEqual([]);
  screen.getByText(/^Look for it there|Look for it there/);
  expect(screen.getByRole('img', { name: /Where the leak can be: .*Hob (> )?9\d %/ })).toBeTruthy();
  screen.getByText('It stood.');
  await press('Back to the test');
  expect(done).toHaveBeenCalled();
});
test('a wrong valve is dropped, and what it was is asked to be opened', async () => {
  render(<Bench />);
  await press('Nothing, or nobody knows');
  await key('20.50', /^Closed, settled: begin/);
  at += 5;
  await press(/^Drop this hold/);
  expect(state.search.results).toEqual([]);
  await press('It is open again');
  await key('500.00', /^Closed, settled: begin/);
  expect(state.search.open).toBeNull();
  screen.getByText(/500(\.00)? mbar|range|greatest|200/);
});
