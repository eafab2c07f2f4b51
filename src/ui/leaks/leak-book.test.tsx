/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { networkOf } from '@/core/network/enter';
import { plan } from '@/core/testing/bakery';
import { enterLeak } from '@/device/enter';
import { office } from '@/device/office';
import type { LeakBook as Book } from '@/wire/leaks';
import { LeakBook } from './leak-book';

jest.mock('@/device/enter', () => ({ enterLeak: jest.fn() }));
jest.mock('@/device/office', () => ({ ...jest.requireActual('@/device/office'), office: jest.fn() }));
const entered = enterLeak as jest.Mock;
const asked = office as unknown as jest.Mock;
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const network = networkOf(plan().system);
const one: Book['entries'][number] = {
  id: id(1),
  leak: id(1),
  at: 1000,
  byName: 'Imre',
  body: {
    kind: 'found',
    joint: 'Union at the hob',
    how: 'fluid',
    size: 'larger',
    part: 'hob',
    text: '',
  } as never,
};
const show = (book: Partial<Book> = {}) =>
  render(
    <LeakBook
      system={id(9)}
      network={network}
      book={{ entries: [one], tests: [], now: 5000, ...book }}
      photos={[]}
      zone="UTC"
      who="Piet"
    />,
  );
const click = (name: string | RegExp) =>
  act(async () => void fireEvent.click(screen.getByRole('button', { name })));
const fill = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
beforeEach(() => {
  entered.mockReset().mockResolvedValue('kept');
  asked.mockReset();
});

test('a leak stands on the drawing by its number, the larger its bubbles the larger its mark', () => {
  const { container } = show();
  screen.getByRole('img', { name: /Leaks on the drawing: 1 Union at the hob, not mended/ });
  expect(container.querySelector('circle')!.getAttribute('r')).toBe('16');
  screen.getByText(/1 leak found, 1 still open/);
});
test('made safe, then mended: what is typed is what goes into the book', async () => {
  show();
  await click('Mended');
  await click('Into the book');
  screen.getByText('Say what was mended.');
  fill('What was mended', 'union remade');
  fill(/^Cost/, 'twelve');
  await click('Into the book');
  screen.getByText('Type the cost with its currency, like 35.50 EUR.');
  fill(/^Cost/, '12,5 EUR');
  fill(/^Time it took/, '1.5');
  await click('Into the book');
  screen.getByText('Type the minutes as a whole number, like 45.');
  fill(/^Time it took/, '25');
  fill(/^Cures for/, '24');
  await click('Into the book');
  expect(entered).toHaveBeenCalledWith(
    id(9),
    expect.objectContaining({
      leak: id(1),
      body: {
        kind: 'repaired',
        what: 'union remade',
        by: 'Piet',
        parts: '',
        cured: 5000 + 24 * 3_600_000,
        minutes: 25,
        cost: { amount: 1250, currency: 'EUR' },
      },
    }),
    'repaired',
  );
  // without a signal it stands here at once, and says that it waits
  screen.getByText(/it waits on this device/);
  screen.getByText(/mended, curing/);
  screen.getByText(/^No pressure before/);
});
test('a new one: named by its joint or its part; what the office refuses stays typed', async () => {
  show({ entries: [] });
  await click('Write down a leak');
  await click('Into the book');
  screen.getByText(/Name the joint, or touch the part/);
  await act(async () => void fireEvent.click(screen.getByRole('button', { name: /^appliance Hob/ })));
  await click('pea');
  entered.mockRejectedValueOnce(new Error('That part is not in the drawing any more. Choose another.'));
  await click('Into the book');
  screen.getByText(/Choose another/);
  await click('Into the book');
  expect(entered.mock.calls[1]![1].body).toEqual({
    kind: 'found',
    joint: 'Hob',
    how: 'fluid',
    size: 'pea',
    part: 'hob',
    text: '',
  });
});
test('a later test shows that it holds, and says whom it was shown to', () => {
  show({
    entries: [
      one,
      {
        id: id(2),
        leak: id(1),
        at: 2000,
        byName: 'Piet',
        body: { kind: 'repaired', what: 'x', by: 'Piet', parts: '' } as never,
      },
    ],
    tests: [
      {
        run: id(5),
        number: 'HT-9',
        at: 3000,
        word: 'tight',
        label: 'Tight',
        procedure: 'Staged',
        minutes: 31,
        shown: true,
        retestOf: null,
      },
    ],
  });
  screen.getByText(/mended and shown by a test/);
  const row = screen.getByText('HT-9').closest('li')!;
  within(row).getByText('Tight');
  expect(row.textContent).toMatch(/shown to somebody 31 min/);
  expect(screen.queryByRole('button', { name: 'Made safe' })).toBeNull();
});
