/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { FullLines } from './full-lines';

const line = (value: string, maxLength?: number) => {
  render(
    <>
      <FullLines />
      <input aria-label="Line" defaultValue={value} maxLength={maxLength} />
    </>,
  );
  return screen.getByLabelText<HTMLInputElement>('Line');
};
const paste = (to: HTMLElement, text: string) =>
  fireEvent.paste(to, { clipboardData: { getData: () => text } });
const said = () => document.querySelector('[data-full]')!.textContent;

test('what is pasted beyond the end of a line is said with how much it takes; what fits is not', () => {
  const at = line('abc', 10);
  at.setSelectionRange(3, 3);
  paste(at, '1234567');
  expect(said()).toBe('');
  paste(at, '12345678');
  expect(said()).toMatch(/8 characters long and is cut: this line takes 10/);
});
test('what replaces a selection counts without it', () => {
  const at = line('abcdefghij', 10);
  at.setSelectionRange(0, 10);
  paste(at, '0123456789');
  expect(said()).toBe('');
});
test('a letter too many is said, and the words go after a while', () => {
  jest.useFakeTimers();
  const at = line('abcdefghij', 10);
  at.setSelectionRange(10, 10);
  fireEvent(at, new InputEvent('beforeinput', { bubbles: true, inputType: 'insertText', data: 'k' }));
  expect(said()).toMatch(/This line is full: it takes 10 characters/);
  act(() => jest.advanceTimersByTime(8_000));
  expect(said()).toBe('');
  jest.useRealTimers();
});
test('a line without an end says nothing', () => {
  paste(line(''), 'x'.repeat(5000));
  expect(said()).toBe('');
});
