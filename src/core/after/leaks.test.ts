import fc from 'fast-check';
import {
  countLeaks,
  countWords,
  type LeakBody,
  leakBodySchema,
  type LeakEntry,
  leakEntryWords,
  leaksInRun,
  leaksOf,
  type LeakTest,
} from './leaks';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const HOUR = 3_600_000;
const RUN = id(900);
const found = (n = 1, at = 0, over: object = {}): LeakEntry => ({
  id: id(n),
  leak: id(n),
  at,
  byName: 'Imre',
  body: {
    kind: 'found',
    joint: 'Union behind the hob',
    how: 'fluid',
    size: 'pea',
    part: 'hob',
    run: RUN,
    text: '',
    ...over,
  } as LeakBody,
});
const then = (n: number, at: number, body: LeakBody, leak = 1): LeakEntry => ({
  id: id(n),
  leak: id(leak),
  at,
  byName: 'Piet',
  body,
});
const mended = (over: object = {}): LeakBody =>
  ({ kind: 'repaired', what: 'union remade', by: 'Piet', parts: '', ...over }) as LeakBody;
const test1 = (n: number, at: number, over: Partial<LeakTest> = {}): LeakTest => ({
  run: id(800 + n),
  number: `R-${n}`,
  at,
  word: 'tight',
  label: 'Tight',
  procedure: 'Staged',
  minutes: 30,
  shown: false,
  retestOf: null,
  ...over,
});
const only = (entries: LeakEntry[], tests: LeakTest[] = [], now = 0) => leaksOf(entries, tests, now)[0]!;

describe('how a leak stands', () => {
  test('open, made safe, curing, mended, shown by a test', () => {
    const safe = then(2, 10, { kind: 'safe', how: 'vented, capped' });
    const glued = then(3, 20, mended({ cured: 20 + HOUR }));
    expect(only([found()]).state).toBe('open');
    expect(only([found(), safe]).state).toBe('safe');
    expect(only([found(), safe, glued], [], 20 + HOUR - 1).state).toBe('curing');
    expect(only([found(), safe, glued], [], 20 + HOUR).state).toBe('repaired');
    expect(only([found(), glued], [test1(1, 30)], HOUR).state).toBe('holds');
  });
  test('a test before the repair proves nothing; one that fails after it leaves it open', () => {
    expect(only([found(), then(2, 20, mended())], [test1(1, 10)]).state).toBe('repaired');
    const failed = test1(1, 30, { word: 'not-tight', label: 'Not tight' });
    expect(only([found(), then(2, 20, mended())], [failed]).state).toBe('open');
    // mended once more, it waits for its test again
    expect(only([found(), then(2, 20, mended()), then(3, 40, mended())], [failed]).state).toBe('repaired');
    expect(only([found(), then(2, 20, mended()), then(3, 40, mended())], [failed, test1(2, 50)]).state).toBe(
      'holds',
    );
  });
  test('a repeat of the test in which it was found belongs to it, that test itself does not', () => {
    expect(only([found()], [test1(1, 30, { run: RUN })]).retests).toEqual([]);
    const again = only([found()], [test1(1, 30, { retestOf: RUN })]);
    expect(again.retests).toHaveLength(1);
    expect(again.state).toBe('holds');
  });
  test('closed stays closed', () => {
    expect(
      only(
        [found(), then(2, 5, { kind: 'closed', why: 'the pipe is gone' })],
        [test1(1, 9, { word: 'not-tight' })],
      ).state,
    ).toBe('closed');
  });
});
test('counts, minutes and cost: own passes apart from what was shown to somebody', () => {
  const leaks = leaksOf(
    [
      found(1),
      found(2, 1),
      then(3, 10, mended({ minutes: 40, cost: { amount: 3550, currency: 'EUR' } })),
      then(4, 12, mended({ minutes: 5, cost: { amount: 450, currency: 'EUR' } }), 2),
    ],
    [test1(1, 20), test1(2, 25, { shown: true, minutes: 20 })],
    50,
  );
  const count = countLeaks(leaks);
  // one test after two repairs is one test
  expect(count).toEqual({
    found: 2,
    open: 0,
    repairs: 2,
    retests: { own: 1, shown: 1 },
    minutes: { repairs: 45, retests: 50 },
    cost: { EUR: 4000 },
  });
  expect(countWords(count)).toBe(
    '2 leaks found, 0 still open; 2 repairs; 2 tests after them, 1 of them shown to somebody; 95 min in all; 40.00 EUR',
  );
});
test('entries of a book in words', () => {
  expect(leakEntryWords(found().body)).toBe('found by leak fluid, bubbles like a pea');
  expect(
    leakEntryWords(mended({ parts: 'washer', minutes: 12, cost: { amount: 250, currency: 'EUR' } })),
  ).toBe('mended by Piet: union remade; parts: washer; 12 min; 2.50 EUR');
});
test('any order and any repeats of the entries give the same book', () => {
  const entries = [
    found(1),
    found(2, 3),
    then(3, 10, mended()),
    then(4, 20, { kind: 'note', text: 'x' }, 2),
    then(5, 20, { kind: 'safe', how: 'y' }, 7),
  ];
  const as = (list: LeakEntry[]) => leaksOf(list, [test1(1, 15)], 99);
  fc.assert(
    fc.property(fc.shuffledSubarray([...entries, ...entries], { minLength: 10, maxLength: 10 }), (list) => {
      expect(as(list)).toEqual(as(entries));
    }),
  );
});
test('what is no entry is refused', () => {
  const valid = (body: unknown) => leakBodySchema.isValidSync(body, { strict: true });
  expect(valid(found().body)).toBe(true);
  expect(valid({ ...found().body, spot: { x: 0.2, y: 1 } })).toBe(true);
  for (const wrong of [
    {},
    { kind: 'gone' },
    { ...found().body, joint: '' },
    { ...found().body, spot: { x: 1.2, y: 0 } },
    { ...found().body, size: 'huge' },
    { ...found().body, more: 1 },
    { ...mended(), minutes: -1 },
    { ...mended(), cost: { amount: 1.5, currency: 'EUR' } },
    { kind: 'note', text: 'a\u0000b' },
  ])
    expect(valid(wrong)).toBe(false);
});
test('a run’s growing bubbles stand in the book; own kit, boundaries and plain foam do not', () => {
  const joint = (jid: string, looks: string[], whose?: 'own') => ({
    id: jid,
    name: jid,
    place: 'cellar',
    ...(whose ? { whose } : {}),
    looks: looks.map((l, at) => ({
      found: l as 'foam',
      ...(l === 'growing' ? { size: 'pea' as const } : {}),
      at,
      byName: 'I',
    })),
  });
  const seen = leaksInRun(RUN, {
    joints: [
      joint('a', ['growing', 'none']),
      joint('b', ['foam']),
      joint('c', ['growing'], 'own'),
      joint('d', []),
    ],
  });
  // mended in the test it was found all the same
  expect(seen.map((s) => s.joint)).toEqual(['a']);
  expect(seen[0]!.body).toMatchObject({ kind: 'found', joint: 'a', size: 'pea', run: RUN, text: 'cellar' });
});
