/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { METRIC, US_CUSTOMARY, usageOf } from '@/core/quantity/usage';
import { Lens } from './lens-dom';

const settled = () => act(async () => new Promise((done) => setTimeout(done)));
let lens: Lens;
afterEach(() => lens.tell(null));
const us = { usage: usageOf(US_CUSTOMARY, {}) };
const tell = (telling: Parameters<Lens['tell']>[0]) => {
  lens = new Lens(document.body);
  lens.tell(telling);
};

test('a page that React goes on changing is told as its reader is used to, and as it was written afterwards', async () => {
  let set: (v: string) => void = () => undefined;
  function Page() {
    const [value, change] = useState('20.35');
    set = change;
    return (
      <main>
        <p data-testid="gauge">
          {value} {'mbar'}
        </p>
        <p data-testid="more">{value === '20.35' ? 'falls' : <b>at 2 bar</b>}</p>
      </main>
    );
  }
  render(<Page />);
  tell(us);
  const gauge = screen.getByTestId('gauge');
  expect(gauge.textContent).toBe('8.17 inWC');
  act(() => set('20.36'));
  await settled();
  expect(gauge.textContent).toBe('8.17 inWC'); // 8.174
  act(() => set('30.00'));
  await settled();
  expect(gauge.textContent).toBe('12.04 inWC');
  expect(screen.getByTestId('more').textContent).toBe('at 29 psi');
  lens.tell(null);
  expect(gauge.textContent).toBe('30.00 mbar');
  act(() => set('20.35'));
  await settled();
  expect(gauge.textContent).toBe('20.35 mbar');
});
test('what a gauge judged in stays, what is typed into and what says so is left, and what comes later is told too', async () => {
  document.body.innerHTML = `
    <div id="bench" data-judged-in="mbar"><p>20.35 mbar, 3 l</p></div>
    <ul data-judged-in="*"><li>0 to 160 mbar</li></ul>
    <textarea>2 bar</textarea><svg><text>5 mbar</text></svg><p translate="no">7 bar</p><div id="late"></div>`;
  tell(us);
  const text = (s: string) => document.querySelector(s)!.textContent;
  expect(text('#bench')).toBe('20.35 mbar, 0.11 ft³');
  expect(['li', 'textarea', 'svg', '[translate]'].map(text)).toEqual([
    '0 to 160 mbar',
    '2 bar',
    '5 mbar',
    '7 bar',
  ]);
  document.querySelector('#late')!.innerHTML = '<p>due 24 Mar 2026, <b>16:05</b></p>';
  document.querySelector<HTMLElement>('#bench')!.dataset.judgedIn = 'inWC';
  await settled();
  expect(text('#late')).toBe('due Mar 24, 2026, 4:05 pm');
  expect(text('#bench')).toBe('8.17 inWC, 0.11 ft³');
  lens.tell({ usage: METRIC, both: true });
  expect(text('li')).toBe('0 to 160 mbar (0 to 64 inWC)');
  expect(text('#late')).toBe('due 24 Mar 2026, 16:05');
});
