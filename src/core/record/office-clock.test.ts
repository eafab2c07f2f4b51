import { momentOf, type PlacedEvent, type RunEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { place } from '@/core/run/script';
import { BEGAN, hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { faceOf } from './face';
import { LIVE_MS, SLACK_MS } from './office-clock';
import { makeBody } from './record';
import type { Sealer } from './status';

const p = plan();
const lines = [
  ...upTo(['9.10', '9.10']),
  ...hold(200, '20.50', '20.48'),
  [450, 'zero', '0.00'],
  ...SIGNED(500),
] as Parameters<typeof play>[1];
const made = play(p, lines);
const licensed: Sealer = {
  id: uuid(1, 2),
  name: 'Imre',
  role: 'tester',
  licence: { number: 'GT-1', until: '2027-11-20' },
};
const sealed = (
  events: readonly PlacedEvent[],
  after = 600_000,
  who: { sealer?: Sealer; signer?: Sealer; plan?: typeof p } = {},
) => {
  const { sealer = licensed, signer = licensed } = who;
  const { body } = makeBody(who.plan ?? p, events, { sealer, signer }, new Date(BEGAN + after).toISOString());
  return { body: JSON.parse(body) as { status: string; statusReason: string }, face: faceOf(body) };
};
const held = (x: ReturnType<typeof sealed>) => x.face.holds.at(-1)!.times;
/** All sent together once the test was over. */
const later = (ms: number) => place(made, () => BEGAN + ms);

test('what came in as it was read is witnessed by the office’s clock; the line of the record says so', () => {
  const x = sealed(place(made, (e) => momentOf(e) + 400));
  expect(x.body.status).toBe('certificate');
  expect(held(x)).toBe('witnessed by the office’s clock: start came in 08:04:30 GMT, end 08:06:31 GMT');
  expect(x.face.clock).toBe(
    "Times from the device's clock, checked against the server's; zone Europe/London.",
  );
});
test('what was sent afterwards stands on the device’s clock, with when it came; it is a certificate all the same', () => {
  const x = sealed(later(560_000));
  expect(x.body.status).toBe('certificate');
  expect(held(x)).toBe(
    'by the device’s clock: start received 20 Nov 2026, 08:09:20 GMT, end 20 Nov 2026, 08:09:20 GMT',
  );
  expect(x.face.clock).toBe(
    "Times from the device's clock; zone Europe/London. The office's clock did not see: Let-by, Stabilisation, Tightness.",
  );
});
test('exactly as late as a slow signal is still witnessed, one millisecond later is not', () => {
  const late = (ms: number) => sealed(place(made, (e) => momentOf(e) + ms));
  expect(held(late(LIVE_MS))).toMatch(/^witnessed/);
  expect(held(late(LIVE_MS + 1))).toMatch(/^by the device/);
});
test('a test of twelve minutes that was posted in three seconds is no certificate', () => {
  const x = sealed(
    place(made, () => BEGAN + 3_000),
    3_500,
  );
  expect(x.body.status).toBe('not-a-certificate');
  expect(x.body.statusReason).toMatch(/but the office had it already/);
  expect(x.face.clock).toMatch(/The office's clock did not see/);
});
test('a page that counts more minutes than had passed is no certificate, though every clock agrees', () => {
  // the clocks say three seconds, the page's own count says the whole test
  const squeezed = made.map((e): RunEvent => {
    const at = BEGAN + Math.round((e.at - BEGAN) / 200);
    return { ...e, at, ...('readAt' in e ? { readAt: at } : {}) } as RunEvent;
  });
  const x = sealed(place(squeezed), 3_500);
  expect(x.body.status).toBe('not-a-certificate');
  expect(x.body.statusReason).toMatch(/Let-by counts 1 min 01 s, more than had passed/);
});
test('holds that each would fit but together would not are no certificate', () => {
  const short = made.map((e): RunEvent => {
    const at = BEGAN + Math.round((e.at - BEGAN) / 3);
    return { ...e, at, ...('readAt' in e ? { readAt: at } : {}) } as RunEvent;
  });
  const x = sealed(place(short), 190_000);
  expect(x.body.statusReason).toMatch(/count 4 min 0\d s together, but only 3 min 10 s passed/);
});
describe('an entry of before the test or of after its receipt', () => {
  const moved = (of: RunEvent['kind'], by: number) =>
    place(
      made.map((e) => (e.kind === of ? { ...e, offset: e.offset + by } : e)),
      () => BEGAN + 560_000,
    );
  test('two years ago', () => {
    const x = sealed(moved('note', 0));
    expect(x.body.status).toBe('certificate');
    const old = sealed(moved('signature', -2 * 366 * 86_400_000));
    expect(old.body.status).toBe('not-a-certificate');
    expect(old.body.statusReason).toMatch(
      /^An entry says it was made \d+ Nov 2024, .* before the test was begun/,
    );
  });
  test('exactly at the slack it still may be, a millisecond beyond it may not', () => {
    const zero = made.find((e) => e.kind === 'zero')!;
    const early = (ms: number) => sealed(moved('zero', BEGAN - zero.at - ms)).body.status;
    expect(early(SLACK_MS)).toBe('certificate');
    expect(early(SLACK_MS + 1)).toBe('not-a-certificate');
    const last = made.at(-1)!;
    const ahead = (ms: number) =>
      sealed([
        ...later(560_000).slice(0, -1),
        { ...last, position: made.length, received: momentOf(last) - ms },
      ]).body.status;
    expect(ahead(SLACK_MS)).toBe('certificate');
    expect(ahead(SLACK_MS + 1)).toBe('not-a-certificate');
  });
});
test('what had no effect does not count against the rest', () => {
  const note = {
    ...made[0]!,
    id: uuid(99, 99),
    kind: 'proceed',
    expects: 'elsewhere',
    at: BEGAN - 9e9,
  } as RunEvent;
  const log = place([...made.slice(0, 5), note, ...made.slice(5)], () => BEGAN + 560_000);
  expect(reduce(p, log).withoutEffect).toHaveLength(1);
  expect(sealed(log).body.status).toBe('certificate');
});
describe('whose licence makes a certificate', () => {
  const owner: Sealer = {
    id: uuid(7, 7),
    name: 'Olive',
    role: 'owner',
    licence: { number: 'GT-9', until: '2030-01-01' },
  };
  const log = place(made);
  test('that of who signed; who gives the number is named beside it', () => {
    const x = sealed(log, 600_000, { sealer: owner });
    expect(x.body).toMatchObject({
      status: 'certificate',
      statusReason:
        'Signed by a licensed tester, Imre: licence GT-1, valid to 2027-11-20; sealed by Olive, owner',
    });
  });
  test('an owner’s button makes no certificate of an expired or unlicensed tester’s work', () => {
    const expired = { ...licensed, licence: { number: 'GT-1', until: '2026-11-19' } };
    expect(sealed(log, 600_000, { sealer: owner, signer: expired }).body).toMatchObject({
      status: 'not-a-certificate',
      statusReason: 'The licence GT-1 of Imre, who signed as tester, ran out on 2026-11-19.',
    });
    expect(
      sealed(log, 600_000, { sealer: owner, signer: { ...licensed, licence: null } }).body.statusReason,
    ).toMatch(/Imre, who signed as tester, has no licence number/);
  });
  test('the day is that on which the office had the signature, not one the device says', () => {
    const lastDay = { ...licensed, licence: { number: 'GT-1', until: '2026-11-20' } };
    const day = 86_400_000;
    const at = (ms: number) => sealed(later(ms), ms + day, { sealer: owner, signer: lastDay }).body.status;
    expect(at(560_000)).toBe('certificate');
    expect(at(560_000 + day)).toBe('not-a-certificate');
  });
  test('somebody else’s licence cannot be put in the signer’s place', () => {
    expect(() => sealed(log, 600_000, { signer: owner })).toThrow(/Who signed as tester is not known/);
  });
});
