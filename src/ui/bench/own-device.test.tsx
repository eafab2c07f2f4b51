/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { office, OfficeError } from '@/device/office';
import { OwnDevice } from './own-device';

jest.mock('@/device/office', () => ({
  ...jest.requireActual<object>('@/device/office'),
  office: jest.fn(),
}));
const asked = office as jest.MockedFunction<typeof office>;
afterEach(cleanup);

const shown = (sync: () => Promise<void>) =>
  render(<OwnDevice run="r" engine={{ sync }} signs="customer" name="A. Baker" />);
const press = () =>
  fireEvent.click(screen.getByRole('button', { name: /Customer signs on their own phone/ }));

test('a link is asked for once the tester’s signature is with the office, however often it is pressed', async () => {
  let sent = (): void => undefined;
  asked.mockReset().mockResolvedValue({ link: 'http://127.0.0.1/sign/abc' });
  shown(() => new Promise((done) => (sent = done)));
  press();
  press();
  await act(async () => undefined);
  expect(asked).not.toHaveBeenCalled();
  await act(async () => sent());
  expect(await screen.findByText(/Let the customer scan this/)).toBeTruthy();
  expect(asked.mock.calls).toEqual([
    ['/api/runs/r/signature-links', { body: { role: 'customer', name: 'A. Baker' } }],
  ]);
});
test('what the office says against it stands there, and it can be asked again', async () => {
  asked.mockReset().mockRejectedValue(new OfficeError(0, 'no-signal', 'The office cannot be reached.'));
  shown(() => Promise.resolve());
  press();
  expect((await screen.findByText('The office cannot be reached.')).getAttribute('role')).toBe('alert');
  asked.mockResolvedValue({ link: 'http://127.0.0.1/sign/abc' });
  press();
  expect(await screen.findByText(/Let the customer scan this/)).toBeTruthy();
});
