/** @jest-environment jsdom */
import { act as settle, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { againOf } from '@/core/plan/again';
import { offersFor } from '@/core/plan/offer';
import { gauge, plan as staged } from '@/core/testing/bakery';
import { packs } from '@/core/testing/quarter';
import { office } from '@/device/office';
import { BeforeYouFigure, FIGURES } from './before-you-figure';
import { BEFORE_YOU } from '@/core/trades/before-you';
import { Again } from './again';
import { TestNow } from './test-now';

jest.mock('@/device/office', () => ({ office: jest.fn() }));

const p = staged();
const offers = Object.values(packs).flatMap((x) => offersFor(x, p.system));
const ready = (kind: string) =>
  againOf(
    {
      pack: p.pack.id,
      procedure: p.procedure.id,
      case: kind,
      choices: {},
      section: null,
      on: '2026-11-12',
      gauge: gauge().id,
    },
    offers,
    [gauge()],
    '2026-11-29',
    [],
  )!;
afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const refusing = (message: string, status = 422) => {
  const asked = office as jest.MockedFunction<typeof office>;
  asked.mockReset();
  return asked.mockRejectedValue(Object.assign(new Error(message), { status }));
};
const button = (name: RegExp) => screen.getByRole('button', { name }) as HTMLButtonElement;
const press = (name: RegExp) => settle(async () => void fireEvent.click(button(name)));

test('what permits more is said anew before it begins; the run is asked for as it was, with its gauge', async () => {
  const asked = refusing('The meter is not known.');
  render(<Again system="s" ready={ready('existing')} failure={null} />);
  expect(button(/^Again: staged low-pressure test, G-02/).disabled).toBe(true);
  await press(/^Today too: existing installation/);
  await press(/^Again/);
  expect(asked.mock.calls[0]![1]!.body).toMatchObject({
    system: 's',
    procedure: p.procedure.id,
    case: 'existing',
    practice: false,
    gauge: gauge().id,
  });
  // refused: why, and the page that cures it
  expect(screen.getByRole('alert').textContent).toMatch(/The meter is not known/);
  expect(screen.getByRole('link', { name: 'Enter it' }).getAttribute('href')).toBe('/places/s/edit');
});
test('a case without allowance asks nothing; after a failure it is a retest', async () => {
  const asked = refusing('x');
  const failure = { run: 'r', number: 'VS-00003', word: 'not-tight', procedure: '', sealedAt: '' };
  render(<Again system="s" ready={ready('new')} failure={failure} />);
  expect(screen.queryByRole('button', { name: /^Today too/ })).toBeNull();
  expect(document.body.textContent).toMatch(/Retest after VS-00003 \(not tight\)/);
  await press(/^Again/);
  expect(asked.mock.calls[0]![1]!.body).toMatchObject({ retestOf: 'r' });
});

describe('what stands before a person', () => {
  const found = Object.fromEntries(
    BEFORE_YOU.map((b) => [b.key, { offers: b.medium === 'natural gas' ? offers : [], sections: [] }]),
  );
  const draw = () =>
    render(<TestNow offers={found} gauges={[]} meters={[{ kind: 'none', label: 'no meter' }]} />);
  test('each has its picture', () => {
    expect([...FIGURES].sort()).toEqual(BEFORE_YOU.map((b) => b.key).sort());
    draw();
    expect(screen.getAllByRole('listitem')).toHaveLength(BEFORE_YOU.length);
    expect(
      render(<BeforeYouFigure of="drain" />)
        .container.querySelector('path')!
        .getAttribute('d'),
    ).not.toBe('');
  });
  test('what is missing is said by its field, nothing is sent, and nothing typed is lost', async () => {
    const asked = refusing('x');
    draw();
    await press(/Gas, small house meter/);
    await press(/One hob more/);
    const begin = /^Begin: existing installation/;
    await press(begin);
    expect(screen.getByRole('alert').textContent).toMatch(/Length of all pipe: /);
    fireEvent.change(screen.getByRole('textbox', { name: /Length of all pipe/ }), { target: { value: '8' } });
    await press(begin);
    expect(screen.getByRole('alert').textContent).toMatch(/gauge/i);
    expect(asked).not.toHaveBeenCalled();
    fireEvent.change(screen.getByRole('textbox', { name: /Its name/ }), { target: { value: 'Mine' } });
    fireEvent.change(screen.getByRole('textbox', { name: /It shows up to/ }), { target: { value: '200' } });
    fireEvent.change(screen.getByRole('textbox', { name: /In steps of/ }), { target: { value: '0.01' } });
    await press(begin);
    expect(asked.mock.calls[0]).toEqual([
      '/api/quick-tests',
      {
        method: 'POST',
        body: expect.objectContaining({
          case: 'existing',
          facts: expect.objectContaining({ length: '8 m', counted: [{ word: 'hob', count: 1 }] }),
          newGauge: expect.objectContaining({ name: 'Mine', greatest: '200 mbar', resolution: '0.01 mbar' }),
        }),
      },
    ]);
  });
  test('a thing no pack has a test for says who can bring one', async () => {
    draw();
    await press(/Buried water main/);
    expect(screen.getByRole('alert').textContent).toMatch(/No rule pack here has a test for this/);
    expect(screen.getByRole('link', { name: 'Rules' })).toBeTruthy();
  });
});
