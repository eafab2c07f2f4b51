/** @jest-environment jsdom */
import { act as settle, cleanup, render, screen } from '@testing-library/react';
import { type PlacedEvent, momentOf } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { place } from '@/core/run/script';
import { BEGAN, hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import type { BenchView } from '@/device/bench';
import type { Role } from '@/wire/role';
import { Closing } from './closing';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const made = (p = plan()) =>
  play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48'), [450, 'zero', '0.00'], ...SIGNED(500)]);
/** The bench after the signatures, as the office has the entries. */
async function signed(
  events: readonly PlacedEvent[],
  {
    role = 'tester',
    at = BEGAN + 600_000,
    practice = false,
  }: { role?: Role; at?: number; practice?: boolean } = {},
) {
  const p = plan({ practice });
  jest.spyOn(Date, 'now').mockReturnValue(at);
  const view = { plan: p, state: reduce(p, events), events, sealed: null } as unknown as BenchView;
  const who = { org: uuid(9), person: uuid(1, 2), name: 'Imre', role, organisation: 'H' };
  await settle(
    async () => void render(<Closing view={view} engine={{} as never} who={who} act={jest.fn()} />),
  );
  return document.body.textContent ?? '';
}

test('before sealing the bench says on whose licence it depends, and nothing of clocks that agree', async () => {
  const text = await signed(place(made()));
  expect(text).toMatch(/depends on the licence of who signed as tester/);
  expect(text).not.toMatch(/It will not be a certificate/);
  expect(screen.getAllByRole('button', { name: /Seal the record/ })).toHaveLength(1);
});
test('times that cannot be true are told before the seal, with why and what to do; it can be sealed all the same', async () => {
  const ahead = place(made(), (e) => momentOf(e) - 3_600_000);
  const text = await signed(ahead);
  expect(text).toMatch(/It will not be a certificate: its times cannot all be true/);
  expect(text).toMatch(/but the office had it already/);
  expect(text).toMatch(/Set the clock of this device, and hold the test again/);
  expect(text).not.toMatch(/depends on the licence/);
  expect((screen.getByRole('button', { name: /Seal the record/ }) as HTMLButtonElement).disabled).toBe(false);
});
test('what was sent only afterwards is no trouble', async () => {
  const text = await signed(
    place(made(), () => BEGAN + 590_000),
    { at: BEGAN + 700_000 },
  );
  expect(text).not.toMatch(/It will not be a certificate/);
});
test('practice says that it is practice, whatever the clocks say; who does not seal is told who does', async () => {
  const text = await signed(
    place(made(plan({ practice: true })), (e) => momentOf(e) - 3_600_000),
    { practice: true },
  );
  expect(text).toMatch(/Practice record on a simulated installation/);
  expect(text).not.toMatch(/It will not be a certificate/);
  cleanup();
  await signed(place(made()), { role: 'apprentice' });
  expect(screen.queryByRole('button', { name: /Seal the record/ })).toBeNull();
  expect(document.body.textContent).toMatch(/A tester or the owner seals this run/);
});
