/** What comes in from outside: what the schema refuses, and what the one gate for figures sets aside. */
import { parseWithUnit as q } from '@/core/quantity/exact';
import { BEGAN, gauge, play, plan, upTo } from '@/core/testing/bakery';
import { parseEvent } from './events';
import type { RunEvent } from './events';
import { notBarometer, notOfGauge, notTemperature, notVolume } from './gate';
import { misfit, reduce } from './reduce';

const p = plan();
const [end, ...before] = upTo(['9.10', '9.10']).reverse();
const log = play(p, [...before.reverse(), [100, 'read', '9.10'], end!]);
const note = (over: object = {}): unknown => ({
  ...log[0],
  id: log[0]!.id,
  kind: 'note',
  text: 'x',
  item: undefined,
  answer: undefined,
  subject: undefined,
  ...over,
});
const bare = (over: object = {}) => JSON.parse(JSON.stringify(note(over))) as unknown;

describe('the schema', () => {
  test('a note passes, with every character of a language in it', () => {
    expect(parseEvent(bare({ text: 'dichtheid 测试 😀 ë' }))).toMatchObject({ kind: 'note' });
  });
  test.each([
    ['a NUL', { text: 'a\u0000b' }],
    ['half a surrogate pair', { text: 'a\ud800b' }],
    ['the other half', { text: '\udc00' }],
    ['a time beyond every calendar', { at: 9e15 }],
    ['a time with a fraction', { at: BEGAN + 0.5 }],
    ['a zone that is none', { zone: 'Mars/Olympus' }],
    ['an offset of decades', { offset: 9e14 }],
    ['a negative monotonic clock', { mono: -1 }],
    ['an unknown kind', { kind: 'cheer' }],
    ['a field of another event', { figure: q('1 mbar') }],
    ['a note longer than a page', { text: 'x'.repeat(20_000) }],
  ])('%s is refused', (_what, over) => {
    expect(() => parseEvent(bare(over))).toThrow();
  });
  test.each([
    ['not a whole number', { digits: 0.5 }],
    ['more digits than a figure has', { digits: 1e15 }],
    ['a unit that is none', { unit: 'bananas' }],
    ['a unit that every object has', { unit: 'constructor' }],
    ['a scale without end', { scale: 40 }],
  ])('a figure: %s', (_what, over) => {
    const zero = JSON.parse(JSON.stringify(log.find((e) => e.kind === 'zero'))) as Record<string, object>;
    expect(() => parseEvent({ ...zero, figure: { ...zero.figure, ...over } })).toThrow();
    expect(parseEvent(zero)).toMatchObject({ kind: 'zero' });
  });
});

describe('the gate', () => {
  const code = (refusal: { code: string } | null) => refusal?.code ?? 'fits';
  test.each([
    ['9.10 mbar', 'fits'],
    ['9.1 psi', 'unit'],
    ['20.0 C', 'unit'],
    ['9.105 mbar', 'step'],
    ['900.00 mbar', 'range'],
  ])('on the gauge: %s %s', (text, wanted) => {
    const found = code(notOfGauge(q(text), gauge()));
    expect(wanted === 'range' ? !['fits', 'unit', 'step'].includes(found) : found === wanted).toBe(true);
  });
  test.each([
    ['-60 C', 'fits'],
    ['-60.1 C', 'range'],
    ['150 C', 'fits'],
    ['150.1 C', 'range'],
    ['59 F', 'fits'],
    ['10 K', 'unit'],
    ['20 mbar', 'unit'],
  ])('a temperature: %s %s', (text, wanted) => expect(code(notTemperature(q(text)))).toBe(wanted));
  test.each([
    ['500 hPa', 'fits'],
    ['499.9 hPa', 'range'],
    ['1100 hPa', 'fits'],
    ['1100.1 hPa', 'range'],
    ['14.7 psi', 'fits'],
    ['20 mbar', 'range'],
    ['15 C', 'unit'],
  ])('a barometer: %s %s', (text, wanted) => expect(code(notBarometer(q(text)))).toBe(wanted));
  test.each([
    ['0 l', 'fits'],
    ['-0.1 l', 'volume'],
    ['1000 m3', 'fits'],
    ['1000.1 m3', 'range'],
    ['1 mbar', 'volume'],
  ])('a volume: %s %s', (text, wanted) => expect(code(notVolume(q(text)))).toBe(wanted));

  const state = reduce(p, log);
  const reading = (over: object) =>
    misfit(p, state, {
      ...log[log.length - 1]!,
      kind: 'reading',
      figure: q('9.10 mbar'),
      ...over,
    } as RunEvent);
  test('a reading that claims to be later than its own entry is set aside; two seconds are a clock’s jitter', () => {
    const { at } = log[log.length - 1]!;
    expect(reading({ readAt: at + 2000 })).toBeNull();
    expect(code(reading({ readAt: at + 2001 }))).toBe('ahead');
  });
  test('every figure of an entry is looked at, not only the first', () => {
    const top = (over: object) =>
      misfit(p, state, {
        ...log[0]!,
        kind: 'top-up',
        before: q('9.10 mbar'),
        after: q('9.20 mbar'),
        ...over,
      });
    expect(top({})).toBeNull();
    expect(code(top({ after: q('1 psi') }))).toBe('unit');
    expect(code(top({ before: q('1 psi') }))).toBe('unit');
    expect(code(top({ added: q('1 mbar') }))).toBe('volume');
  });
  test('a correction stays in the unit and the steps of its reading; a stream in those of its gauge', () => {
    const read = state.visits.flatMap((v) => v.readings)[0]!;
    const correct = (text: string) =>
      code(
        misfit(p, state, {
          ...log[0]!,
          kind: 'correction',
          of: read.id,
          figure: q(text),
          reason: 'x',
        }),
      );
    expect(correct('9.05 mbar')).toBe('fits');
    expect(correct('9.0 mbar')).toBe('unit');
    expect(correct('9.05 psi')).toBe('unit');
    const stream = (over: object) =>
      code(
        misfit(p, state, {
          ...log[0]!,
          kind: 'stream',
          gauge: gauge().id,
          simulated: false,
          scale: 2,
          unit: 'mbar',
          points: [],
          ...over,
        }),
      );
    expect([stream({}), stream({ unit: 'psi' }), stream({ scale: 1 })]).toEqual(['fits', 'unit', 'unit']);
  });
  test('what does not fit takes no effect and no other entry with it', () => {
    const bad = {
      ...log.find((e) => e.kind === 'fill')!,
      id: '00000000-0000-4000-8000-0000000000ff',
      figure: q('9 psi'),
    };
    const with_ = reduce(p, [...log.slice(0, -3), bad, ...log.slice(-3)]);
    expect(with_.withoutEffect.map((w) => w.id)).toContain(bad.id);
    expect(with_.visits.map((v) => v.stage)).toEqual(state.visits.map((v) => v.stage));
  });
});
