/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { office } from '@/device/office';
import type { PlaceRow } from '@/wire/bring-in/schema';
import { answerTable } from '@/worker/table';
import { ReadTable } from './read-table';

jest.mock('@/device/office', () => ({ office: jest.fn() }));
afterEach(cleanup);

const TEXT = `Site;Street;Type\n${Array.from({ length: 120 }, (_, i) => `Row ${i + 1};${i + 1} Carder Lane;gas`).join('\n')}\n`;
const guessed = answerTable({ text: TEXT, mapping: null, meters: [] }).mapping;
/** The same as it comes back from a store that sorts its keys. */
const remembered = Object.fromEntries(Object.entries(guessed).reverse());
type Answer = (value: unknown) => void;
/** What the office is asked, each answered when the test says so. */
function asked(): { path: string; body: { places: PlaceRow[] }; answer: Answer; refuse: Answer }[] {
  const all: ReturnType<typeof asked> = [];
  (office as jest.Mock).mockReset().mockImplementation((path: string, { body } = {} as never) => {
    return new Promise((answer, refuse) => all.push({ path, body, answer, refuse }));
  });
  return all;
}
const settle = (what: () => unknown = () => undefined) => act(async () => void (await what()));
const enter = () => screen.getByRole<HTMLButtonElement>('button', { name: /^(Enter|Go on with) \d+ places/ });
const became = (rows: readonly PlaceRow[]) => ({
  rows: rows.map(({ row }) => ({ row, became: 'entered', text: '' })),
});

test('nothing is entered by a guess while the office is asked how it was read before; what is under way goes to its end', async () => {
  const calls = asked();
  await settle(() => render(<ReadTable name="rows.csv" text={TEXT} meters={[]} mayCalibrate />));
  expect(enter().disabled).toBe(true);
  await settle(() => calls[0]!.answer({ mapping: remembered }));
  expect(screen.getByText(/read here the last time/)).toBeTruthy();
  expect(enter().disabled).toBe(false);

  await settle(() => fireEvent.click(enter()));
  // as it was read, until it is in
  expect(screen.getByLabelText('It holds').closest('fieldset')!.disabled).toBe(true);
  let sent = 0;
  for (let piece = calls.at(-1)!; sent < 120; piece = calls.at(-1)!) {
    const { places } = piece.body;
    expect(places[0]!.row).toBe(sent + 2);
    sent += places.length;
    await settle(() => piece.answer(became(places)));
  }
  expect(screen.getByText(/^120 places entered, 0 here already/)).toBeTruthy();
  expect(screen.getByLabelText('It holds').closest('fieldset')!.disabled).toBe(false);
});
test('read otherwise: until it is read so, nothing is entered as it was read before', async () => {
  const calls = asked();
  await settle(() => render(<ReadTable name="rows.csv" text={TEXT} meters={[]} mayCalibrate />));
  await settle(() => calls[0]!.answer({ mapping: null }));
  expect(enter().disabled).toBe(false);
  fireEvent.change(screen.getByLabelText('Rows of headings'), { target: { value: '3' } });
  // the worker has not answered yet
  expect(enter().disabled).toBe(true);
  await settle();
  expect(enter().textContent).toBe('Enter 118 places');
});
test('said by hand while the office is asked: its answer takes nothing back', async () => {
  const calls = asked();
  await settle(() => render(<ReadTable name="rows.csv" text={TEXT} meters={[]} mayCalibrate />));
  fireEvent.change(screen.getByLabelText('Rows of headings'), { target: { value: '3' } });
  await settle(() => calls[0]!.answer({ mapping: remembered }));
  expect(screen.queryByText(/read here the last time/)).toBeNull();
  expect(screen.getByLabelText<HTMLInputElement>('Rows of headings').value).toBe('3');
  expect([enter().textContent, enter().disabled]).toEqual(['Enter 118 places', false]);
});
test('without an answer the guess may be entered; cut off half way, the rest goes on from there', async () => {
  const calls = asked();
  await settle(() => render(<ReadTable name="rows.csv" text={TEXT} meters={[]} mayCalibrate />));
  await settle(() => calls[0]!.refuse(new Error('no signal')));
  await settle(() => fireEvent.click(enter()));
  const first = calls.at(-1)!.body.places;
  await settle(() => calls.at(-1)!.answer(became(first)));
  await settle(() => calls.at(-1)!.refuse(new Error('The signal is gone.')));
  expect(screen.getByText('The signal is gone.')).toBeTruthy();
  expect(enter().textContent).toBe(`Go on with ${120 - first.length} places`);
  await settle(() => fireEvent.click(enter()));
  expect(calls.at(-1)!.body.places[0]!.row).toBe(first.at(-1)!.row + 1);
});
