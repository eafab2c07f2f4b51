/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { HOLD_MS, HoldButton } from './button';

beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});
function shown() {
  const onHeld = jest.fn();
  render(<HoldButton onHeld={onHeld}>Done</HoldButton>);
  return { onHeld, button: screen.getByRole('button') };
}
// this test environment has no pointers of its own
const pointerDown = (b: Element) => fireEvent(b, new MouseEvent('pointerdown', { bubbles: true, button: 0 }));
const wait = (ms: number) =>
  act(() => {
    jest.advanceTimersByTime(ms);
  });

test.each(['pointer', 'key'] as const)('held by %s to its end it is done, once', (means) => {
  const { onHeld, button } = shown();
  const [down, up] =
    means === 'key'
      ? [() => fireEvent.keyDown(button, { key: 'Enter' }), () => fireEvent.keyUp(button, { key: 'Enter' })]
      : [() => pointerDown(button), () => fireEvent.pointerUp(button)];
  down();
  wait(HOLD_MS - 1);
  expect(onHeld).not.toHaveBeenCalled();
  wait(1);
  up();
  wait(HOLD_MS);
  expect(onHeld).toHaveBeenCalledTimes(1);
  expect(button.textContent).toContain('Press and hold');
});
test.each([
  ['a pointer that lets go', (b: Element) => fireEvent.pointerUp(b)],
  ['a pointer that leaves', (b: Element) => fireEvent.pointerLeave(b)],
])('%s too early ends it, and how it is done is said', (_, end) => {
  const { onHeld, button } = shown();
  pointerDown(button);
  wait(HOLD_MS - 1);
  end(button);
  wait(HOLD_MS);
  expect(onHeld).not.toHaveBeenCalled();
  expect(button.textContent).toContain('Hold it down until the edge is full');
});
test('a pointer that rests on it and is left behind by the page does not end what a key holds', () => {
  const { onHeld, button } = shown();
  fireEvent.keyDown(button, { key: ' ' });
  fireEvent.pointerLeave(button);
  wait(HOLD_MS);
  expect(onHeld).toHaveBeenCalledTimes(1);
});
