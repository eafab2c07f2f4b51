/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { errandsOf, keepErrand } from '@/device/errands';
import { keepIdentity } from '@/device/identity';
import { office, OfficeError } from '@/device/office';
import { openStore } from '@/device/store';
import type { Identity } from '@/wire/role';
import { Waiting } from './waiting';

jest.mock('@/device/office', () => ({
  ...jest.requireActual<object>('@/device/office'),
  office: jest.fn(),
}));
// what this test environment lacks of a browser
globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never;

const asked = office as jest.MockedFunction<typeof office>;
let person = 0;
/** Somebody on whose device these wait. */
async function holding(...titles: string[]): Promise<Identity> {
  const who: Identity = { org: 'o', person: `p${person++}`, name: 'Imre', role: 'tester', organisation: 'x' };
  keepIdentity(who);
  const store = await openStore(who);
  for (const title of titles)
    await keepErrand(store, {
      path: `/api/${title}`,
      method: 'POST',
      body: { title },
      title,
      makes: [title],
    });
  return who;
}
const show = (who: Identity) => render(<Waiting who={who} />);
afterEach(cleanup);

test('nothing waits: nothing is shown', async () => {
  const { container } = show(await holding());
  await act(() => new Promise((r) => setTimeout(r, 100)));
  expect(container.textContent).toBe('');
});
test('without a signal it says what is kept here, each by its name', async () => {
  asked.mockRejectedValue(new OfficeError(0, 'no-signal', 'away'));
  show(await holding('Place: Kiln', 'Gauge: Pocket 7'));
  expect((await screen.findByRole('heading')).textContent).toBe('Kept here, not yet with the office');
  expect(screen.getAllByRole('listitem').map((l) => l.textContent)).toEqual([
    'Place: Kiln',
    'Gauge: Pocket 7',
  ]);
});
test('what the office refused stands with its reason; it goes again, or is taken off by two presses', async () => {
  asked.mockRejectedValue(new OfficeError(422, 'invalid', 'The meter is not known.'));
  const who = await holding('Place: Kiln', 'Visit: Mill');
  show(who);
  await screen.findAllByText(/The meter is not known/);
  expect(screen.getByText(/Place: Kiln/).closest('li')!.textContent).toMatch(/The meter is not known/);
  asked.mockResolvedValue({});
  fireEvent.click(screen.getAllByRole('button', { name: 'Send it again' })[0]!);
  await waitFor(() => expect(screen.queryByText(/Place: Kiln/)).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Take it off' }));
  expect(await errandsOf(await openStore(who))).toHaveLength(1);
  expect(screen.getByText(/What was typed is then gone/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Take it off for good' }));
  await waitFor(() => expect(screen.queryByRole('heading')).toBeNull());
  expect(await errandsOf(await openStore(who))).toEqual([]);
});
test('the page is told once the office has something of it: it shows what was before', async () => {
  const onSent = jest.fn();
  asked.mockRejectedValue(new OfficeError(0, 'no-signal', 'away'));
  render(<Waiting who={await holding('Place: Kiln')} onSent={onSent} />);
  await screen.findByText('Place: Kiln');
  expect(onSent).not.toHaveBeenCalled();
  asked.mockResolvedValue({});
  act(() => void dispatchEvent(new Event('online')));
  await waitFor(() => expect(screen.queryByText('Place: Kiln')).toBeNull());
  await waitFor(() => expect(onSent).toHaveBeenCalledTimes(1));
});
