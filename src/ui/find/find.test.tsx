/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { office } from '@/device/office';
import type { Identity } from '@/wire/role';
import { Find, FindField } from './find';

jest.mock('@/device/office', () => ({ office: jest.fn() }));
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));
HTMLDialogElement.prototype.showModal = function () {
  this.open = true;
};
HTMLDialogElement.prototype.close = function () {
  this.open = false;
  this.dispatchEvent(new Event('close'));
};
Element.prototype.scrollIntoView = () => undefined;
const who = { person: 'p', org: 'o', role: 'tester', name: 'Imre' } as unknown as Identity;
const field = () => screen.getByRole<HTMLInputElement>('combobox');
const key = (name: string, more = {}) => fireEvent.keyDown(document.body, { key: name, ...more });
const asked = () => (office as jest.Mock).mock.calls.map(([path]) => decodeURIComponent(String(path)));
const there = () => act(async () => void (await import('./palette')));

beforeEach(() => {
  jest.useFakeTimers();
  (office as jest.Mock).mockReset().mockResolvedValue({
    found: [{ kind: 'place', href: '/places/k', title: 'Pottery kiln', about: 'Kiln annexe' }],
  });
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

test('what is typed right after the keys stands in its field, however long it takes to come', async () => {
  render(<Find who={who} />);
  key('k', { ctrlKey: true });
  expect(screen.queryByRole('dialog')).toBeNull();
  for (const letter of 'kiln') key(letter);
  await there();
  expect(field().value).toBe('kiln');
  // from then on the field takes what is typed by itself
  key('s');
  expect(field().value).toBe('kiln');
  await act(() => jest.advanceTimersByTimeAsync(200));
  expect(asked()).toEqual(['/api/find?words=kiln']);
  expect(screen.getByText('Pottery kiln')).toBeTruthy();
});
test('closed by the same keys, and empty when it opens again', async () => {
  render(
    <>
      <FindField />
      <Find who={who} />
    </>,
  );
  fireEvent.click(screen.getByRole('button', { name: /Find anything/ }));
  await there();
  fireEvent.change(field(), { target: { value: 'boiler' } });
  expect(field().value).toBe('boiler');
  fireEvent.click(screen.getByRole('button', { name: 'Close the search' }));
  expect(screen.queryByRole('combobox')).toBeNull();
  key('x');
  key('k', { metaKey: true });
  await there();
  expect(field().value).toBe('');
  key('k', { metaKey: true });
  expect(screen.queryByRole('combobox')).toBeNull();
});
