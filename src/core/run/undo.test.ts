import fc from 'fast-check';
import { saidSections } from '@/core/record/story';
import { BEGAN, entryOf, hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { verdictOf } from '@/core/verdict/verdict';
import type { Payload, RunEvent } from './events';
import { expectation } from './read';
import { foldOn, reduce, step as fold } from './reduce';
import type { ScriptLine } from './script';
import type { RunState } from './state';
import { UNDO_MS, undoable } from './undo';

const p = plan();
/** As the bench does: what stood before is kept. */
const step = (plan: typeof p, state: RunState, event: RunEvent) => fold(plan, state, event, true);
const stateOf = (events: readonly RunEvent[]): RunState => foldOn(p, null, events).state;
let n = 0;
/** One more entry, seconds after the run began. */
const next = (state: RunState, seconds: number, payload: Payload): RunEvent =>
  entryOf(p, payload, {
    id: uuid(++n, 12),
    at: BEGAN + seconds * 1000,
    mono: seconds * 1000,
    expects: expectation(state),
  });
const after = (lines: ScriptLine[]) => {
  const events = play(p, lines);
  return { events, state: stateOf(events) };
};
const undo = (state: RunState, of: string, seconds: number, reason?: string) =>
  step(p, state, next(state, seconds, { kind: 'undo', of, ...(reason ? { reason } : {}) }))?.code ?? null;
/** What a run is, without what it keeps of its own log. */
const run = ({ withoutEffect: _w, undone: _u, back: _b, events: _e, lastAt: _l, ...rest }: RunState) =>
  JSON.parse(JSON.stringify(rest)) as object;

test('a step taken back leaves the run as it stood before, and both in the log', () => {
  const before = after(upTo(['9.10', '9.10']).slice(0, 3));
  const { events, state } = after(upTo(['9.10', '9.10']).slice(0, 4));
  const fill = events[events.length - 1]!;
  expect(run(state)).not.toEqual(run(before.state));
  expect(undo(state, fill.id, 65)).toBeNull();
  expect(run(state)).toEqual(run(before.state));
  expect(state.events).toBe(events.length + 1);
  expect(state.withoutEffect).toContainEqual({
    id: fill.id,
    code: 'undone',
    text: 'taken back by I after 5 s',
  });
  expect(state.undone).toEqual([expect.objectContaining({ words: 'raised to 9.10 mbar, closed' })]);
});
test.each([
  [UNDO_MS / 1000 + 5, null],
  [UNDO_MS / 1000 + 5.001, 'late'],
])('a fill %s s ago: %s', (seconds, code) => {
  const { events, state } = after(upTo(['9.10', '9.10']).slice(0, 4));
  expect(undo(state, events[events.length - 1]!.id, 60 + seconds)).toBe(code);
});
test('offered for ten seconds, exactly', () => {
  const { events, state } = after(upTo(['9.10', '9.10']).slice(0, 4));
  const { id, at } = events[events.length - 1]!;
  expect(undoable(state, id, at + UNDO_MS)).toEqual({ sign: false, until: at + UNDO_MS });
  expect(undoable(state, id, at + UNDO_MS + 1)).toBeNull();
});
test('what was done after a step goes with it; what was only entered stays', () => {
  const { events, state } = after(upTo(['9.10', '9.10']).slice(0, 4));
  const fill = events[events.length - 1]!;
  step(p, state, next(state, 62, { kind: 'note', text: 'door open' }));
  step(
    p,
    state,
    next(state, 63, {
      kind: 'hold-start',
      figure: { digits: 910, scale: 2, unit: 'mbar' },
      readAt: BEGAN + 63_000,
      same: false,
      streamed: false,
      late: false,
    } as Payload),
  );
  step(p, state, next(state, 64, { kind: 'note', text: 'door shut' }));
  expect(undo(state, fill.id, 65)).toBeNull();
  expect(state.visits[state.visits.length - 1]).toMatchObject({ kind: 'fill', holds: [], fills: [] });
  expect(state.notes.map((x) => x.text)).toEqual(['door open', 'door shut']);
  expect(state.undone).toHaveLength(2);
});

describe('a sign is taken back only with a reason, which prints', () => {
  const signs: [string, ScriptLine[], Payload | null][] = [
    ['smell now', [[10, 'checks', 'smell-now=yes']], null],
    ['smell reported', [], { kind: 'check', item: 'smell-reported', answer: 'yes' }],
    ['voltage', [[10, 'checks', 'voltage=yes']], null],
    ['STOP', [[10, 'stop']], null],
    ['the end of what is judged', upTo(['9.10', '9.10']), null],
    ['it will not stand', [...upTo(['9.10', '9.10']).slice(0, 3), [60, 'unheld', 'falls', '3.00']], null],
  ];
  test.each(signs)('%s', (_, lines, payload) => {
    const { events, state } = after(lines);
    if (payload) {
      const event = next(state, 10, payload);
      events.push(event);
      expect(step(p, state, event)).toBeNull();
    }
    const last = events[events.length - 1]!;
    const at = (last.at - BEGAN) / 1000;
    expect(undoable(state, last.id, last.at)?.sign).toBe(true);
    expect(undo(state, last.id, at + 5)).toBe('reason');
    expect(undo(state, last.id, at + 5, '   ')).toBe('reason');
    // a minute to write it down
    expect(undo(state, last.id, at + 70.001, 'wrong line pressed')).toBe('late');
    expect(undo(state, last.id, at + 70, 'wrong line pressed')).toBeNull();
    expect(state.ending).toBeNull();
  });
  test('an answer without alarm needs none', () => {
    const { state } = after([]);
    const event = next(state, 10, { kind: 'check', item: 'smell-now', answer: 'no' });
    step(p, state, event);
    expect(undo(state, event.id, 12)).toBeNull();
  });
  test('on the record: what was taken back, and why', () => {
    const lines: ScriptLine[] = [
      [5, 'stop'],
      [8, 'undo', 'caught the button with a sleeve'],
      ...upTo(['9.10', '9.10']),
      ...hold(200, '20.50', '20.48'),
      [450, 'zero', '0'],
      ...SIGNED(500),
    ];
    const { events, state } = after(lines);
    expect(verdictOf(p, state)!.word).toBe('tight');
    const said = saidSections(p, state, events)[0]!.lines;
    expect(said.join()).toMatch(/taken back \(STOP\): caught the button with a sleeve/);
  });
});

test('nothing is taken back once it is signed, nor another entry than a step', () => {
  const { events, state } = after([
    ...upTo(['9.10', '9.10']),
    ...hold(200, '20.50', '20.48'),
    [450, 'zero', '0'],
    ...SIGNED(452),
  ]);
  const put = events.filter((e) => e.kind === 'debt').pop()!;
  expect(undo(state, put.id, 465)).toBe('signed');
  const note = next(state, 466, { kind: 'note', text: 'x' });
  step(p, state, note);
  expect(undo(state, note.id, 467)).toBe('late');
  expect(undo(state, uuid(999, 99), 467)).toBe('late');
});
test('any step of a whole test, taken back at once, leaves what stood before; and the test goes on from there', () => {
  const whole: ScriptLine[] = [
    ...upTo(['9.10', '9.10']),
    ...hold(200, '20.50', '20.48'),
    [450, 'zero', '0'],
    [500, 'putback'],
  ];
  const events = play(p, whole);
  fc.assert(
    fc.property(fc.nat(events.length - 1), (cut) => {
      const state = stateOf(events.slice(0, cut));
      const before = run(state);
      const event = events[cut]!;
      step(p, state, event);
      const seconds = (event.at - BEGAN) / 1000;
      if (state.back[state.back.length - 1]?.id !== event.id) return;
      expect(undo(state, event.id, seconds + 1, 'to see')).toBeNull();
      expect(run(state)).toEqual(before);
      for (const e of events.slice(cut)) step(p, state, { ...e, id: uuid(++n, 13) });
      expect(verdictOf(p, state)!.word).toBe('tight');
    }),
    { numRuns: 60 },
  );
});

test('a log with a step taken back reduces as the bench folded it, entry by entry', () => {
  const lines: ScriptLine[] = [[5, 'stop'], [8, 'undo', 'a sleeve'], ...upTo(['9.10', '9.10'])];
  const events = play(p, lines);
  const state = reduce(p, events);
  expect(state.undone).toHaveLength(1);
  let folded = foldOn(p, null, []);
  for (let n = 1; n <= events.length; n += 1) folded = foldOn(p, folded, events.slice(0, n));
  expect(run(folded.state)).toEqual(run(state));
  expect(folded.state.withoutEffect).toEqual(state.withoutEffect);
  // where nobody took anything back nothing is kept for it
  expect(reduce(p, play(p, upTo(['9.10', '9.10']))).back).toEqual([]);
});
