import fc from 'fast-check';
import { coarse, gauge, hold, plan, play, scribe, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { makeBody } from '@/core/record/record';
import { type Sealer } from '@/core/record/status';
import { parseEvent } from './events';
import type { PlacedEvent, RunEvent } from './events';
import { currentVisit, expectation, runningHold } from './read';
import { begin, reduce, tryEvent } from './reduce';
import { place, type ScriptLine } from './script';

const p = plan();
const lines: ScriptLine[] = [
  ...upTo(['9.10', '9.12']),
  [200, 'fill', '20.50'],
  [205, 'start', '20.50'],
  [220, 'topup', '20.30', '20.50'],
  [266, 'end', '20.48'],
  [270, 'start', '20.48'],
  [300, 'read', '20.47'],
  [391, 'end', '20.47'],
  [450, 'zero', '0.00'],
  ...SIGNED(500),
];
const clean = place(play(p, lines));
const sealer: Sealer = {
  id: uuid(1, 2),
  name: 'Imre',
  role: 'tester',
  licence: { number: 'GT', until: '2030-01-01' },
};
const hashOf = (events: readonly PlacedEvent[]) =>
  makeBody(p, events, { sealer, signer: sealer }, '2026-11-20T10:00:00.000Z').body;

describe('a run is its log', () => {
  test('law: order of arrival and repeats change neither the state nor the sealed body', () => {
    const state = reduce(p, clean);
    const body = hashOf(clean);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(clean, { minLength: clean.length }),
        fc.array(fc.nat(clean.length - 1), { maxLength: 20 }),
        (shuffled, again) => {
          const log = [...shuffled, ...again.map((i) => clean[i]!)];
          expect(reduce(p, log)).toEqual(state);
          expect(hashOf(log)).toBe(body);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('law: replay of any part gives the same state; the log is never written to', () => {
    const frozen = JSON.stringify(clean);
    fc.assert(
      fc.property(fc.nat(clean.length), (n) =>
        expect(reduce(p, clean.slice(0, n))).toEqual(reduce(p, clean.slice(0, n))),
      ),
    );
    expect(JSON.stringify(clean)).toBe(frozen);
  });
  test('law: adding a reading never removes one', () => {
    const count = (events: readonly PlacedEvent[]) =>
      reduce(p, events).visits.reduce((n, v) => n + v.readings.length, 0);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: clean.length }),
        fc.integer({ min: 700, max: 2200 }),
        fc.boolean(),
        (n, digits, late) => {
          const before = clean.slice(0, n);
          const last = before[n - 1]!;
          const extra = {
            ...last,
            id: uuid(999),
            kind: 'reading',
            figure: { digits, scale: 2, unit: 'mbar' },
            readAt: last.at - (late ? 90_000 : 0),
            late,
            expects: expectation(reduce(p, before)),
            position: n + 1,
          } as PlacedEvent;
          expect(count([...before, extra])).toBeGreaterThanOrEqual(count(before));
        },
      ),
    );
  });
  test('an unsent entry stands last until the office has placed it', () => {
    const [first, ...rest] = clean;
    const { position: _p, ...unsent } = first!;
    expect(reduce(p, [unsent as PlacedEvent, ...rest]).withoutEffect.length).toBeGreaterThan(0);
    expect(reduce(p, clean).withoutEffect).toEqual([]);
  });
});

describe('transitions', () => {
  const started = play(p, [...upTo(['9.10', '9.10']), [200, 'fill', '20.50'], [205, 'start', '20.50']]);
  const next = (over: Partial<RunEvent> & { kind: string }): RunEvent =>
    ({
      ...started[started.length - 1]!,
      id: uuid(900),
      deviceSeq: 900,
      expects: expectation(reduce(p, started)),
      // the page's own count goes along with the clock
      mono: (over.at ?? 0) - scribe().began,
      ...over,
    }) as RunEvent;
  const began = scribe().began;

  test('of two who end a stage the first counts, the second stays in the log as overtaken', () => {
    const end = next({
      kind: 'hold-end',
      at: began + 266_000,
      readAt: began + 266_000,
      figure: q('20.48 mbar'),
    } as never);
    const log = [
      ...place(started),
      { ...end, position: 500 },
      { ...end, id: uuid(901), device: uuid(2, 6), position: 501 },
    ];
    const state = reduce(p, log);
    expect(state.withoutEffect).toMatchObject([{ id: uuid(901), code: 'overtaken' }]);
    expect(currentVisit(state)!.title).toBe('Tightness');
  });
  test('a hold ends at its minutes, not a millisecond before; an old reading neither starts nor ends one', () => {
    const at = (ms: number, readAt = ms) =>
      tryEvent(
        p,
        reduce(p, started),
        next({ kind: 'hold-end', at: began + ms, readAt: began + readAt, figure: q('20.48 mbar') } as never),
      )?.code ?? null;
    expect(at(264_999)).toBe('too-early');
    expect(at(265_000)).toBeNull();
    expect(at(330_000, 269_999)).toBe('late-end');
    expect(
      tryEvent(p, reduce(p, play(p, [...upTo(['9.10', '9.10']), [200, 'fill', '20.50']])), {
        ...next({
          kind: 'hold-start',
          at: began + 400_000,
          readAt: began + 300_000,
          figure: q('20.50 mbar'),
        } as never),
        expects: expectation(reduce(p, play(p, [...upTo(['9.10', '9.10']), [200, 'fill', '20.50']]))),
      })!.code,
    ).toBe('late-start');
  });
  test('a hold starts only inside the band: both ends count as inside', () => {
    const before = play(p, upTo(['9.10', '9.10']));
    const fill = (f: string) =>
      tryEvent(p, reduce(p, before), {
        ...next({
          kind: 'fill',
          confirmed: true,
          at: began + 200_000,
          readAt: began + 200_000,
          figure: q(f),
        } as never),
        expects: expectation(reduce(p, before)),
      })?.code ?? null;
    expect(['19.99 mbar', '20.00 mbar', '21.00 mbar', '21.01 mbar'].map(fill)).toEqual([
      'under-band',
      null,
      null,
      'over-band',
    ]);
  });
  test('the device clock may be an hour wrong: elapsed comes from corrected times, and it is marked', () => {
    const off = reduce(p, play(p, lines, { offset: 3_600_000 }));
    const right = reduce(p, clean);
    expect(off.visits.map((v) => v.holds.map((h) => h.judgement?.elapsedMs))).toEqual(
      right.visits.map((v) => v.holds.map((h) => h.judgement?.elapsedMs)),
    );
    expect(off.clockMarks.join()).toContain('60 min behind the server');
  });
  test('the two clocks of a device disagreeing over a hold is printed', () => {
    const events = play(p, [
      ...upTo(['9.10', '9.10']),
      [200, 'fill', '20.50'],
      [205, 'start', '20.50'],
      [266, 'end', '20.50'],
    ]).map((e) => (e.kind === 'hold-end' && e.figure.digits === 2050 ? { ...e, mono: e.mono + 2001 } : e));
    expect(reduce(p, events).clockMarks.join()).toContain('disagreed by 2.0 s');
  });
  test('a disturbance or top-up breaks a judged hold: it is kept as void and raised again; in stabilisation it is only logged', () => {
    const judged: ScriptLine[] = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50').slice(0, 4)];
    const state = reduce(p, play(p, [...judged, [300, 'disturb', 'An appliance was used']]));
    expect(currentVisit(state)!.kind).toBe('fill');
    expect(
      state.visits
        .flatMap((v) => v.holds)
        .map((h) => h.broken?.reason)
        .filter(Boolean),
    ).toEqual(['An appliance was used']);
    const settle = reduce(
      p,
      play(p, [...judged.slice(0, -2), [220, 'topup', '20.20', '20.60'], [230, 'disturb', 'door opened']]),
    );
    expect(runningHold(settle)!.topUps).toHaveLength(1);
  });
  test('another gauge is another test', () => {
    const state = reduce(p, play(p, [...upTo(['9.10', '9.10']), [200, 'gauge', 'G-01']]));
    expect([currentVisit(state)!.kind, state.fails]).toEqual(['zero', 0]);
    expect(() =>
      play(plan({ gauges: [gauge({ calibrationDue: '2026-11-19' }), coarse] }), [
        [10, 'checks'],
        [20, 'gauge', 'G-02'],
      ]),
    ).toThrow(/ran out on 2026-11-19/);
    expect(() =>
      play(plan({ gauges: [gauge({ calibrationDue: '2026-11-20' })] }), [
        [10, 'checks'],
        [20, 'gauge', 'G-02'],
      ]),
    ).not.toThrow();
  });
  test('nothing is signed while a prop leans on the wall, nothing after the signatures but notes', () => {
    expect(() => play(p, [...lines.slice(0, -3), [480, 'sign', 'Imre']])).toThrow(/put-back list/);
    expect(() => play(p, [...lines, [900, 'putback'], [901, 'disturb', 'x']])).toThrow(/already been ended/);
    expect(() =>
      makeBody(p, clean.slice(0, -1), { sealer, signer: sealer }, '2026-11-20T10:00:00.000Z'),
    ).toThrow(/signatures are missing/);
    expect(() =>
      makeBody(
        p,
        clean,
        { sealer: { ...sealer, role: 'apprentice' }, signer: { ...sealer, role: 'apprentice' } },
        '2026-11-20T10:00:00.000Z',
      ),
    ).toThrow(/apprentice/i);
  });
  test('checks: the detector is proved, used, proved, in that order; a judged reading is not corrected', () => {
    const item = (key: string) =>
      tryEvent(p, begin(p), {
        ...started[0]!,
        id: uuid(902),
        kind: 'check',
        item: key,
        answer: 'done',
        expects: expectation(reduce(p, [])),
      })?.code ?? null;
    expect([item('prove-1'), item('prove-2'), item('no-such-line'), item('smell-now')]).toEqual([
      null,
      'order',
      'unknown-line',
      'answer',
    ]);
    const start = started[started.length - 1]!;
    expect(
      tryEvent(
        p,
        reduce(p, started),
        next({ kind: 'correction', of: start.id, figure: q('20.40 mbar'), reason: 'typo' } as never),
      )!.code,
    ).toBe('judged');
  });
});

describe('events at the edge', () => {
  const good = clean.find((e) => e.kind === 'reading')!;
  const sent = ({ position: _p, received: _r, ...event }: PlacedEvent) => event;
  const event = sent(good);
  test('a well-formed event passes unchanged, also through JSON', () => {
    for (const e of clean.map(sent)) expect(parseEvent(JSON.parse(JSON.stringify(e)))).toEqual(e);
  });
  test.each([
    ['an unknown kind', { ...event, kind: 'delete' }, /one of: check/],
    ['a key too many', { ...event, verdict: 'tight' }, /verdict/],
    ['a float for digits', { ...event, figure: { digits: 20.35, scale: 0, unit: 'mbar' } }, /integer/],
    ['text for a number', { ...event, at: '1' }, /at/],
    ['a unit nobody knows', { ...event, figure: { digits: 1, scale: 0, unit: 'cubit' } }, /unit/],
    [
      'script in a signature',
      { ...event, kind: 'signature', role: 'tester', name: 'x', strokes: '<svg>' },
      /strokes|figure/,
    ],
    ['nothing', null, /required/],
  ])('%s is refused', (_name, value, said) => expect(() => parseEvent(value)).toThrow(said));
});
