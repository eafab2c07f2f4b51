/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import type { Asked, Told } from '@/wire/yard';
import { QuestionsView } from './questions';
import { ShownAll } from './shown';

const answers: Record<string, (body: Record<string, unknown>) => unknown> = {};
const sent: { url: string; body: Record<string, unknown> }[] = [];
jest.mock('@/device/office', () => ({
  office: (url: string, { body }: { body: Record<string, unknown> }) => {
    sent.push({ url, body });
    const value = answers[url]!(body);
    return value instanceof Error ? Promise.reject(value) : Promise.resolve(value);
  },
}));
const score = (asked: number, right: number) => ({ asked, right, beside: { right: 1, open: 1 } });
const asked: Asked = {
  about: 'verdict',
  n: 2,
  mark: 'm',
  score: score(2, 1),
  question: {
    about: 'verdict',
    trade: 'gas',
    title: 'Staged low-pressure test',
    ask: 'Which verdict follows, and from what?',
    facts: [{ name: 'permitted drop', value: '4 mbar', source: 'A table' }],
    lines: [{ title: 'Let-by', text: '10.00 mbar to 13.40 mbar' }],
    choices: [
      { key: 'tight', text: 'Tight' },
      { key: 'void', text: 'Void' },
    ],
    reasons: [
      { key: 'a', text: 'The valve passes.' },
      { key: 'b', text: 'Nothing moved.' },
    ],
  },
};
const told = (right: boolean): Told => ({
  right,
  parts: { choice: true, reason: right, figure: true },
  solution: { choice: ['void'], reason: ['a'], tells: ['It rose by 3.40 mbar.'], source: 'The rule' },
  score: score(3, right ? 2 : 1),
});
const begin = async () => {
  answers['/api/yard/questions'] = () => asked;
  render(<QuestionsView scores={{ verdict: score(2, 1) }} />);
  await act(async () => fireEvent.click(screen.getByRole('button', { name: /Which verdict/ })));
};

test('nothing is sent before both halves are answered; then both are, with what was asked', async () => {
  answers['/api/yard/questions/answer'] = () => told(true);
  await begin();
  const send = screen.getByRole('button', { name: 'That is my answer' });
  fireEvent.click(screen.getByLabelText('Void'));
  expect(send).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByLabelText('The valve passes.'));
  expect(send).toHaveProperty('disabled', false);
  await act(async () => fireEvent.click(send));
  expect(sent.at(-1)).toEqual({
    url: '/api/yard/questions/answer',
    body: { about: 'verdict', n: 2, mark: 'm', choice: 'void', reason: 'a' },
  });
  expect(screen.getByRole('heading', { name: 'Right' })).not.toBeNull();
  expect(screen.getByRole('button', { name: /Which verdict/ }).textContent).toContain('2 of 3 right');
});
test('half right is told as that, the right reason marked, one’s own answer too', async () => {
  answers['/api/yard/questions/answer'] = () => told(false);
  await begin();
  fireEvent.click(screen.getByLabelText('Void'));
  fireEvent.click(screen.getByLabelText('Nothing moved.'));
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'That is my answer' })));
  expect(screen.getByRole('heading', { name: 'The verdict is right, the reason is another' })).not.toBeNull();
  const because = screen.getByRole('group', { name: 'Because' });
  expect(within(because).getByText('(this is it)').closest('label')!.textContent).toContain(
    'The valve passes.',
  );
  expect(within(because).getByText('(your answer)').closest('label')!.textContent).toContain(
    'Nothing moved.',
  );
});
test('a figure that is none says what to type, and is not sent; a comma is a decimal sign', async () => {
  answers['/api/yard/questions/answer'] = () => ({
    ...told(true),
    solution: { figure: { value: 8.03, text: '8.03 inWC' }, tells: [], source: 'x' },
  });
  answers['/api/yard/questions'] = () => ({
    ...asked,
    about: 'figure',
    question: { about: 'figure', trade: 'gas', title: 'T', ask: 'How much?', facts: [], unit: 'inWC' },
  });
  render(<QuestionsView scores={{}} />);
  await act(async () => fireEvent.click(screen.getByRole('button', { name: /Figures and units/ })));
  const field = screen.getByLabelText(/How much/);
  fireEvent.change(field, { target: { value: 'eight' } });
  expect(screen.getByText(/Type digits/)).not.toBeNull();
  expect(screen.getByRole('button', { name: 'That is my answer' })).toHaveProperty('disabled', true);
  fireEvent.change(field, { target: { value: '8,03' } });
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'That is my answer' })));
  expect(sent.at(-1)!.body).toMatchObject({ figure: 8.03 });
});
test('what the office refuses is told, and the question stays', async () => {
  answers['/api/yard/questions/answer'] = () => new Error('This question has changed meanwhile.');
  await begin();
  fireEvent.click(screen.getByLabelText('Void'));
  fireEvent.click(screen.getByLabelText('The valve passes.'));
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'That is my answer' })));
  expect(screen.getByRole('alert').textContent).toMatch(/has changed/);
  expect(screen.getByLabelText('Void')).toHaveProperty('checked', true);
});
test('demonstrations say what they show, by what is slid', () => {
  render(<ShownAll />);
  const slide = (name: RegExp, value: number) =>
    fireEvent.change(screen.getByLabelText(name), { target: { value: String(value) } });
  slide(/through cracks/, 0);
  expect(screen.getByText('71 %')).not.toBeNull();
  expect(screen.getByText('0.50')).not.toBeNull();
  slide(/through cracks/, 100);
  expect(screen.getByText('1.00')).not.toBeNull();
  // a valve that does not pass hides nothing
  slide(/closed valve passes/, 0);
  slide(/leak lets out/, 2);
  expect(screen.getByText(/The fall shows/)).not.toBeNull();
  slide(/closed valve passes/, 8);
  slide(/leak lets out/, 0.4);
  expect(screen.getByText(/alone would have called this tight/)).not.toBeNull();
});
