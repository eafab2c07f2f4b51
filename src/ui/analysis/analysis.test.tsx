/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { type Meaning, meaningOf, type MeaningRequest } from '@/core/analysis/meaning';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { reduce } from '@/core/run/reduce';
import type { ScriptLine } from '@/core/run/script';
import { gasFacts } from '@/core/testing/traces';
import { maskedIn } from '@/core/verdict/masked';
import type { BenchView } from '@/device/bench';
import { MeaningCard, MeaningLine } from './meaning-card';
import { ValveAndLeak } from './valve-and-leak';
import { WhatCouldItBe } from './what-could-it-be';

jest.mock('./use-meaning', () => {
  // what the worker answers, answered at once
  const { meaningOf: answer } = jest.requireActual<{ meaningOf: typeof meaningOf }>(
    '@/core/analysis/meaning',
  );
  return { useMeaning: (request: MeaningRequest | null) => request && answer(request) };
});
const p = plan();
const view = (lines: ScriptLine[]) =>
  ({ plan: p, state: reduce(p, play(p, [...upTo(['9.10', '9.10']), ...lines])) }) as unknown as BenchView;
const leak = (): Meaning =>
  meaningOf({
    samples: Array.from({ length: 40 }, (_, i) => ({
      t: i * 5000,
      p: Math.round(2050 * Math.exp(-i * 0.0075) + Math.sin(i * 7.3) * 0.4) / 100,
    })),
    facts: gasFacts,
    unit: 'mbar',
    decimals: 2,
    begin: 0,
    end: 300_000,
    limits: { low: 20.25, high: 20.75 },
  })!;

test('beside a running hold: the cause and the next move; the reasons on asking', async () => {
  render(<MeaningLine meaning={leak()} />);
  screen.getByText(/^Next: Soap your own kit first/);
  await act(async () => fireEvent.click(screen.getByRole('button', { name: /^Falls like a leak of .*why/ })));
  await screen.findByText('For it');
  screen.getByText(/Warmth alone would have needed/);
  screen.getByText(/The end reading judges/);
});
test('on a record the reasons stand open and there is no next move', () => {
  render(<MeaningCard meaning={leak()} />);
  const causes = within(screen.getByRole('list', { name: 'Causes, by how probable they are' }));
  expect(causes.getAllByRole('listitem')[0]!.textContent).toMatch(/\d+ %a leak/);
  expect(screen.queryByText(/^Next:/)).toBeNull();
  screen.getByText(/The rule alone judges/);
});
test('after a fall: own kit first, and where to part the section', () => {
  render(<WhatCouldItBe view={view(hold(200, '20.50', '12.00'))} />);
  screen.getByText(/Your own kit: hose, connection, adaptor, plug; then a joint/);
  expect(screen.getAllByText(/^Leak fluid on/)).toHaveLength(2);
  const split = screen.getByRole('region', { name: 'Parting the section' });
  expect(split.textContent).toMatch(/Close the valve of .* and hold\. ?So the leaking one of 3 parts/);
});
test('after a smell no way to part it is offered, and after a good hold nothing is in question', () => {
  const smelt = view(hold(200, '20.50', '12.00'));
  const state = { ...smelt.state, observations: [{ what: 'smell', text: '', at: 1, byName: 'I' }] } as never;
  const { unmount } = render(<WhatCouldItBe view={{ ...smelt, state }} />);
  expect(screen.queryByRole('region', { name: 'Parting the section' })).toBeNull();
  unmount();
  const { container } = render(<WhatCouldItBe view={view(hold(200, '20.50', '20.50'))} />);
  expect(container.innerHTML).toBe('');
});
test('valve and leak stand beside the leak that matters, with their intervals', () => {
  const { state } = view(hold(200, '20.50', '20.50'));
  render(<ValveAndLeak masked={maskedIn(p, state, null)!} />);
  const card = screen.getByRole('region', { name: 'Valve and leak apart' });
  expect(card.textContent).toMatch(
    /The leak[\d.]+ l\/h \([\d.]+ to [\d.]+\) beside 1(\.0+)? l\/h that matters/,
  );
  expect(card.textContent).toMatch(/Advice: only two let-by holds/);
});
