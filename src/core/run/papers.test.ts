import { makeBody } from '@/core/record/record';
import { restoreBody } from '@/core/record/restore';
import { BEGAN, entryOf, gauge, hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import type { Payload } from './events';
import { papersMissing, withPapers } from './papers';
import { reduce, step } from './reduce';
import { place } from './script';

const bare = gauge({ calibrated: '', calibrationDue: '' });
/** A place of which nobody said where it is and for whom, a gauge of three facts. */
const unknown = () => {
  const p = plan({ gauges: [bare] });
  return { ...p, site: { ...p.site, address: '', customer: '' } };
};
const lines = [
  ...upTo(['9.10', '9.10']),
  ...hold(200, '20.50', '20.48'),
  [450, 'zero', '0'] as [number, string, string],
];
const papers = (payload: Omit<Extract<Payload, { kind: 'papers' }>, 'kind'>, n = 1) =>
  entryOf(unknown(), { kind: 'papers', ...payload }, { id: uuid(n, 14), at: BEGAN + 480_000, mono: 480_000 });
const site = { name: 'Cellar', address: '2 Fulling Yard', customer: 'A. Baker' };
const calibration = { gauge: bare.id, on: '2026-02-01', due: '2026-11-20' };
const signer = {
  id: uuid(1, 2),
  name: 'Imre',
  role: 'tester',
  licence: { number: 'L1', until: '2030-01-01' },
};

test('what is missing is said, entered, and is then in the sealed record', () => {
  const p = unknown();
  const events = play(p, lines);
  const state = reduce(p, events);
  expect(papersMissing(p, state)).toEqual([
    'The customer is not entered.',
    'The address of the place is not entered.',
    'The calibration of G-02 is not entered.',
  ]);
  const said = [papers({ site }, 1), papers({ calibration }, 2)];
  for (const e of said) expect(step(p, state, e)).toBeNull();
  expect(papersMissing(p, state)).toEqual([]);
  expect(withPapers(p, state).site).toMatchObject(site);

  const log = place(play(p, [...lines, ...SIGNED(500)]));
  const at = log.findIndex((e) => e.kind === 'debt');
  const whole = [...log.slice(0, at), ...said, ...log.slice(at)].map((e, i) => ({
    ...e,
    position: i + 1,
    received: e.at,
  }));
  const seal = (entries: typeof whole) =>
    makeBody(p, entries, { sealer: signer, signer }, new Date(BEGAN + 700_000).toISOString());
  const { body, status } = seal(whole);
  expect(status).toBe('certificate');
  expect(restoreBody(body).plan).toMatchObject({ site, gauges: [{ calibrationDue: '2026-11-20' }] });
  // without them the same test is kept, and is none
  const without = seal(log.map((e, i) => ({ ...e, position: i + 1, received: e.at })) as typeof whole);
  expect(without.status).toBe('not-a-certificate');
  expect(restoreBody(without.body).statusReason).toMatch(
    /customer is not entered.*calibration of G-02 is not entered/,
  );
});
test('a calibration that had run out on the day does not make one; on the day itself it does', () => {
  const p = unknown();
  const state = reduce(p, play(p, lines));
  step(p, state, papers({ site, calibration: { ...calibration, due: '2026-11-19' } }));
  expect(papersMissing(p, state)).toEqual([
    'The calibration of G-02 had run out on 2026-11-19, before this test.',
  ]);
  step(p, state, papers({ calibration }, 2));
  expect(papersMissing(p, state)).toEqual([]);
});
test('nothing is entered once it is signed, nor for a gauge that is not in the plan', () => {
  const p = unknown();
  const state = reduce(p, play(p, [...lines, ...SIGNED(500)]));
  expect(step(p, state, papers({ site }))?.code).toBe('signed');
  const fresh = reduce(p, play(p, lines));
  expect(step(p, fresh, papers({ calibration: { ...calibration, gauge: uuid(77) } }))?.code).toBe(
    'unknown-gauge',
  );
  expect(withPapers(p, fresh)).toBe(p);
});
