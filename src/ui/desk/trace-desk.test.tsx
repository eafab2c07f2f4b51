/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import type { meaningOf } from '@/core/analysis/meaning';
import { type MeaningRequest } from '@/core/analysis/meaning';
import type { answerLog } from '@/worker/gauge-log';
import { type LogRequest } from '@/worker/gauge-log';
import { TraceDesk } from './trace-desk';

// what the workers answer, answered at once
jest.mock('@/ui/analysis/use-meaning', () => ({
  useMeaning: (request: MeaningRequest | null) =>
    request &&
    jest.requireActual<{ meaningOf: typeof meaningOf }>('@/core/analysis/meaning').meaningOf(request),
}));
jest.mock('@/ui/ledger/use-log', () => ({
  useLog: (request: LogRequest) => ({
    answer: jest.requireActual<{ answerLog: typeof answerLog }>('@/worker/gauge-log').answerLog(request),
    settled: true,
  }),
}));
const clock = (s: number) => `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
const table = (head: string, of: (i: number) => string) =>
  [head, ...Array.from({ length: 30 }, (_, i) => `${clock(i * 20)}\t${of(i)}`)].join('\n');
const paste = (text: string) =>
  fireEvent.change(screen.getByLabelText(/^Times and pressures/), { target: { value: text } });
const give = (label: string, value: string) => {
  const input = screen.getAllByLabelText(label).find((e) => e.tagName === 'INPUT')!;
  fireEvent.change(input, { target: { value } });
};

test('a pasted table of a leak: asked for its volume, then explained with its rate', () => {
  render(<TraceDesk />);
  paste(table('time\tmbar', (i) => (20.5 * Math.exp(-0.0016 * i * 20)).toFixed(2)));
  screen.getByText(/^30 readings in mbar/);
  screen.getByText('Enter the volume of the section.');
  give('Volume of the section', '20');
  expect(screen.getByRole('region', { name: 'What the trace means' }).textContent).toMatch(
    /Falls like a leak of [\d.]+ l\/h \([\d.]+ to [\d.]+\)/,
  );
  screen.getByText(/^Next: /);
});
test('rows that cannot be read are said, and the rest is explained', () => {
  render(<TraceDesk />);
  paste(`${table('time\tmbar', () => '20.50')}\n9:59\tfell off`);
  give('Volume of the section', '20');
  expect(screen.getByRole('status').textContent).toMatch(/30 readings in mbar; 1 rows could not be read/);
  screen.getByText(/^Stands still/);
});
test('a table of heights is a level: said, and answered once it is chosen', () => {
  render(<TraceDesk />);
  paste(table('time\tbar', (i) => (6 - i * 0.01).toFixed(2)));
  fireEvent.click(screen.getByRole('button', { name: 'Water, full' }));
  screen.getByText(/Enter the stiffness of the section/);
  give('Stiffness: water per pressure', '5');
  expect(screen.getByRole('region', { name: 'What the trace means' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Water level' }));
  screen.getByText(/Enter the free surface|read as a height/);
});
