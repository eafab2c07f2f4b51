/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { shippedScenarios } from '@/core/testing/yard';
import { parseScenario } from '@/core/yard/scenario';
import { ScenarioEditor } from './scenario-editor';

let answer: (url: string, text: string) => unknown = () => ({ tried: [] });
const sent: { url: string; text: string }[] = [];
jest.mock('@/device/office', () => ({
  office: (url: string, { body }: { body: { text: string } }) => {
    sent.push({ url, text: body.text });
    const value = answer(url, body.text);
    return value instanceof Error ? Promise.reject(value) : Promise.resolve(value);
  },
}));
jest.mock('@/ui/frame/zone', () => ({ Moment: () => null }));
const from = shippedScenarios().find((s) => s.id === 'gas-own-hose')!;
const open = () =>
  render(
    <ScenarioEditor
      from={from}
      shipped
      knows={{
        procedure: 'Staged',
        stages: [{ id: 'letby', title: 'Let-by' }],
        faults: { leak: 'A leak' },
        rubric: [{ id: 'put-back', title: 'Everything was put back' }],
        places: [{ id: 'oven', title: 'Oven' }],
      }}
    />,
  );
const press = (name: string) => act(async () => fireEvent.click(screen.getByRole('button', { name })));
const lastSent = () => parseScenario(JSON.parse(sent.at(-1)!.text));
beforeEach(() => localStorage.clear());

test('one that ships gets a name of its own; what is changed is what is tried, and what came of it is told', async () => {
  answer = () => ({
    tried: [
      { name: 'Soaps', good: true, end: 'mastered', result: 'tight', missed: [], trouble: null },
      {
        name: 'Accuses',
        end: 'wrong',
        result: null,
        missed: ['cause'],
        trouble: '“Accuses” should be caught by place and is not.',
      },
    ],
  });
  open();
  fireEvent.change(screen.getByLabelText('Title'), { target: { value: 'The van’s hose' } });
  await press('Try it');
  expect(sent.at(-1)!.url).toBe('/api/yard/scenarios/try');
  expect(lastSent()).toMatchObject({ id: 'own-gas-own-hose', title: 'The van’s hose', hidden: from.hidden });
  const told = screen.getByRole('list', { name: 'What came of it' });
  expect(within(told).getByText(/should be caught by place/)).not.toBeNull();
});
test('something comes in between with an answer that is dangerous: it is written as a scenario has it', async () => {
  answer = () => ({ tried: [] });
  open();
  await press('Something comes in between');
  const block = document.querySelector<HTMLElement>('[data-happening]')!;
  const put = (label: RegExp, value: string) =>
    fireEvent.change(within(block).getByLabelText(label), { target: { value } });
  put(/Says/, 'Shall I open it?');
  put(/Comes about/, 'letby');
  await act(async () => fireEvent.click(within(block).getByRole('button', { name: 'An answer to it' })));
  put(/^Answer 1/, 'Yes');
  put(/Dangerous/, 'It burns.');
  await press('Try it');
  expect(lastSent().happenings).toEqual([
    {
      id: 'comes-1',
      when: { stage: 'letby' },
      says: 'Shall I open it?',
      answers: [{ key: 'answer-1', text: 'Yes', danger: 'It burns.' }],
    },
  ]);
});
test('JSON that is none is named and nothing is sent; what the office refuses is told', async () => {
  open();
  const before = sent.length;
  fireEvent.change(screen.getByLabelText(/Sizes of your own/), { target: { value: '{' } });
  await press('Bring it in');
  expect(screen.getByRole('alert').textContent).toMatch(/What is hidden: this is not JSON/);
  expect(sent.length).toBe(before);
  fireEvent.change(screen.getByLabelText(/Sizes of your own/), { target: { value: '{}' } });
  answer = () => new Error('“Soaps” is called good and does not end mastered.');
  await press('Bring it in');
  expect(screen.getByRole('alert').textContent).toMatch(/does not end mastered/);
  expect(screen.getByLabelText('Title')).toHaveProperty('value', `${from.title}, ours`);
});
