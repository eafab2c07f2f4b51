import type { OwnKit } from '@/core/instrument/kit';
import { ownKitOf } from '@/core/instrument/kit';
import { planVolume, type Plan } from '@/core/plan/plan';
import { exact, parseWithUnit as q, showExact, toNumber } from '@/core/quantity/exact';
import { faceOf } from '@/core/record/face';
import { makeBody } from '@/core/record/record';
import { gauge, hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { place } from './script';
import { reduce } from './reduce';
import { MUCH, ownKitShares, poorWords, shareWords, type ShareOf } from './own-kit';

const H: OwnKit = {
  id: uuid(1, 11),
  name: 'H-1',
  serial: 'HT-1',
  blank: { on: '2026-11-12', days: 8, pressure: q('25 mbar'), loss: q('0.10 mbar'), minutes: 10 },
};
const withKit = (over: Partial<OwnKit> = {}): Plan => ({ ...plan(), ownKit: [{ ...H, ...over }] });
const chosen = (p: Plan) => ({ ...reduce(p, []), ownKit: { kit: [H.id], at: 0, byName: 'I' } });
const TEST: ShareOf = { part: null, role: 'let-by', minutes: 2, start: q('20.50 mbar') };
const share = (over: Partial<OwnKit> = {}, of: Partial<ShareOf> = {}) => {
  const p = withKit(over);
  return ownKitShares(p, chosen(p), gauge(), { ...TEST, ...of })[0]!;
};

describe('what own kit can have cost a hold', () => {
  test('of unknown volume: its loss a minute times the minutes, all of it', () => {
    const s = share({}, { limit: q('0.25 mbar') });
    expect([showExact(s.loss!), s.percent, s.poor]).toEqual(['0.020 mbar', 8, null]);
    expect(shareWords(s)).toBe(
      'H-1, HT-1: lost 0.10 mbar in 10 min at 25 mbar by itself, 2026-11-12; at most 0.020 mbar of a fall here, 8 % of the 0.25 mbar that count',
    );
  });
  test('of known volume: shared with the section, rounded up', () => {
    const section = planVolume(plan()).value;
    const s = share({ volume: q('90 ml') }, { minutes: 2000 });
    const right = (0.1 * 2000 * 90e-6) / 10 / (90e-6 + section);
    expect(toNumber(s.loss!)).toBeGreaterThanOrEqual(right);
    expect(toNumber(s.loss!)).toBeLessThan(right + 0.001);
  });
  test('exactly a quarter of what counts is not much; the smallest step more is', () => {
    const at = (loss: string) =>
      share({ blank: { ...H.blank!, loss: q(loss) } }, { minutes: 10, limit: q('4 mbar') });
    expect([at('1.000 mbar').percent, at('1.000 mbar').poor]).toEqual([MUCH, null]);
    expect(at('1.001 mbar').poor).toBe('much');
    expect(poorWords(at('1.001 mbar'))).toBe(
      'H-1: loses over 25 % of what counts here. Mend or change it first.',
    );
    expect(poorWords(at('1.000 mbar'))).toBe('');
  });
  test('a test by itself counts for 30 days, at no less than the pressure of the hold', () => {
    const poor = (over: Partial<OwnKit['blank'] & object>) => {
      const s = share({ blank: { ...H.blank!, ...over } });
      return [s.loss === null, s.poor];
    };
    expect(poor({ days: 30 })).toEqual([false, null]);
    expect(poor({ days: 31 })).toEqual([true, 'old']);
    expect(poor({ pressure: q('20.5 mbar') })).toEqual([false, null]);
    expect(poor({ pressure: q('20.4 mbar') })).toEqual([true, 'lower']);
    expect(share({ blank: undefined })).toMatchObject({ loss: null, poor: 'untested' });
  });
  test('the permitted drop counts where there is one, until it is denied; else what can be seen', () => {
    const p = withKit();
    const counts = (over: object, role: 'tightness' | 'let-by') =>
      showExact(ownKitShares(p, { ...chosen(p), ...over }, gauge(), { ...TEST, role })[0]!.counts);
    const seen = counts({}, 'let-by');
    expect(counts({}, 'tightness')).not.toBe(seen);
    expect(counts({ denied: ['smell'] }, 'tightness')).toBe(seen);
  });
  test('a height of water is nothing that a hose loses; what is not on the section has no share', () => {
    const p = withKit();
    const level = gauge({ resolution: exact(1, 0, 'mm') });
    expect(ownKitShares(p, chosen(p), level, TEST)).toEqual([]);
    expect(ownKitShares(p, reduce(p, []), gauge(), TEST)).toEqual([]);
  });
});

describe('own kit in a run', () => {
  const record = (lines: readonly (readonly [number, string, ...string[]])[], p = withKit()) => {
    const log = place(
      play(p, [
        ...upTo(['9.10', '9.10']),
        ...lines,
        ...hold(200, '20.50', '19.50'),
        [500, 'stop'],
        [505, 'reason', 'mistake', 'enough'],
        ...SIGNED(600),
      ]),
    );
    const sealer = { id: log[0]!.by, name: 'Imre', role: 'owner', licence: null } as const;
    const face = faceOf(makeBody(p, log, { sealer, signer: sealer }, '2026-11-20T12:00:00.000Z').body);
    return face.sections.find((s) => s.title === 'Own kit')?.lines.join('\n');
  };
  test('stands on the record with both figures, and nothing is taken off', () => {
    const said = record([[150, 'ownkit', 'H-1']])!;
    expect(said).toContain('lost 0.10 mbar in 10 min at 25 mbar by itself, 2026-11-12');
    expect(said).toMatch(/fell 1\.00 mbar as read; own kit alone at most 0\.021 mbar of it/);
    expect(said).toContain('the rule judges the whole fall');
  });
  test('said to be none, not said at all, and none in the cabinet are three different things', () => {
    expect(record([[150, 'ownkit']])).toBe('No hose or rig of the cabinet was on the section');
    expect(record([])).toBe('Which hose or rig was on the section was not said');
    expect(record([], plan())).toBeUndefined();
  });
  test('the last word counts; what is not in the plan is set aside', () => {
    const p = withKit();
    const log = play(
      p,
      [
        [10, 'ownkit', 'H-1', 'H-1'],
        [20, 'ownkit', uuid(9, 11)],
      ],
      {},
      { allowRefused: true },
    );
    const state = reduce(p, log);
    expect(state.ownKit?.kit).toEqual([H.id]);
    expect(state.withoutEffect.map((w) => w.code)).toEqual(['unknown-kit']);
  });
});

test('the plan takes along what can hang on a section and is not withdrawn, with its newest own test', () => {
  const item = (kind: 'hose' | 'thermometer', n: number, over = {}) => ({
    id: uuid(n, 11),
    kind,
    name: `K${n}`,
    serial: '',
    due: '',
    interval: null,
    note: '',
    ...over,
  });
  const blank = (at: string, loss: string) => ({
    id: at,
    at,
    by: 'I',
    entry: { what: 'blank' as const, pressure: q('25 mbar'), loss: q(loss), minutes: 10 },
  });
  const kit = ownKitOf(
    [
      {
        item: item('hose', 1),
        log: [blank('2026-11-01T08:00:00Z', '0.4 mbar'), blank('2026-11-10T23:30:00Z', '0.2 mbar')],
      },
      { item: item('hose', 2, { withdrawn: 'split' }), log: [] },
      {
        item: item('hose', 3),
        log: [{ id: 'r', at: '2026-11-01T08:00:00Z', by: 'I', entry: { what: 'rejected', text: 'split' } }],
      },
      { item: item('thermometer', 4), log: [] },
      { item: item('hose', 5), log: [] },
    ],
    Date.parse('2026-11-20T08:00:00Z'),
    'Europe/Berlin',
  );
  expect(kit.map((k) => k.name)).toEqual(['K1', 'K5']);
  expect(kit[0]!.blank).toMatchObject({ on: '2026-11-11', days: 9, loss: q('0.2 mbar') });
  expect(kit[1]!.blank).toBeUndefined();
});
