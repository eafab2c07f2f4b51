/** What is taken whether or not a stage is open: photos, the gauge's own log read in, what is put back, the stop. */
import type { Payload } from './events';
import { BEGAN, entryOf, gauge, hold, plan as bakeryPlan, play, upTo, uuid } from '@/core/testing/bakery';
import { inDebtOrder } from './read';
import { reduce, step } from './reduce';
import type { RunState } from './state';

const plan = bakeryPlan();
const script = play(plan, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50'), [450, 'zero', '0.00']]);
const done = () => reduce(plan, script);
const running = () => reduce(plan, script.slice(0, script.findIndex((e) => e.kind === 'hold-start') + 1));
let n = 0;
const take = (state: RunState, payload: Payload, over: object = {}) => {
  n += 1;
  const event = entryOf(plan, payload, { id: uuid(n, 7), deviceSeq: 1000 + n, at: BEGAN + 500_000, ...over });
  return step(plan, state, event)?.code ?? null;
};
const hash = (c: string) => c.repeat(64);
const photo = (c: string, caption: string, more = {}): Payload => ({
  kind: 'photo',
  hash: hash(c),
  caption,
  ...more,
});

test('a photo stands once under one caption, again under another, with what it shows and stands beside', () => {
  const s = running();
  for (const p of [photo('a', 'plate'), photo('a', 'plate'), photo('a', 'dial'), photo('b', 'plate')])
    expect(take(s, p)).toBeNull();
  expect(s.photos.map((p) => [p.hash[0], p.caption])).toEqual([
    ['a', 'plate'],
    ['a', 'dial'],
    ['b', 'plate'],
  ]);
  take(s, photo('c', 'level', { shows: 'level', beside: uuid(1) }));
  expect(s.photos[3]).toMatchObject({ shows: 'level', beside: uuid(1), visit: s.visits.length, byName: 'I' });
  expect(Object.keys(s.photos[0]!)).not.toContain('shows');
});

describe('the gauge’s own log, read in afterwards', () => {
  const at = (s: RunState, visit: number) => s.visits[visit]!.entered;
  const log = (points: [number, number][], over: object = {}): Payload => ({
    kind: 'stream',
    gauge: gauge().id,
    simulated: false,
    unit: 'mbar',
    scale: 2,
    points,
    imported: { file: 'log.csv', hash: hash('f') },
    ...over,
  });
  test('each reading goes to the stage it was taken in, in order; what lies outside is left out', () => {
    const s = done();
    const [a, b] = [s.visits.length - 2, s.visits.length - 1];
    const before = s.visits.map((v) => v.trace.length);
    const points: [number, number][] = [
      [at(s, b), 2051],
      [at(s, b) - 1, 2052],
      [at(s, 0) - 1, 9],
    ];
    expect(take(s, log(points), { offset: 250 })).toBeNull();
    expect(s.visits[b]!.trace).toContainEqual([at(s, b), 2051]);
    expect(s.visits[a]!.trace).toContainEqual([at(s, b) - 1, 2052]);
    expect(s.visits.map((v, i) => v.trace.length - before[i]!).reduce((x, y) => x + y)).toBe(2);
    for (const v of s.visits)
      expect(v.trace.map(([t]) => t)).toEqual([...v.trace.map(([t]) => t)].sort((x, y) => x - y));
    expect(s.imports).toEqual([{ file: 'log.csv', hash: hash('f'), points: 2, at: BEGAN + 500_000 + 250 }]);
    // the same readings again are refused; other readings of the same file go on
    expect(take(s, log(points))).toBe('twice');
    expect(take(s, log([[at(s, b), 2060]]))).toBeNull();
    expect(take(s, log([[at(s, b) - 1, 2052]], { imported: { file: 'x', hash: hash('e') } }))).toBeNull();
    expect(s.imports.map((i) => i.points)).toEqual([3, 1]);
  });
  test('another gauge, another unit, other steps, another day, a signed record: refused, and nothing is kept', () => {
    const s = done();
    const point: [number, number][] = [[at(s, 1), 2050]];
    expect(take(s, log(point, { gauge: uuid(2, 9), scale: 1 }))).toBe('other-gauge');
    expect(take(s, log(point, { unit: 'kPa' }))).toBe('unit');
    expect(take(s, log(point, { scale: 1 }))).toBe('unit');
    expect(take(s, log([[5, 1]]))).toBe('outside');
    expect(take({ ...s, signatures: [{} as never] }, log(point))).toBe('signed');
    expect(s.imports).toEqual([]);
    expect(take(s, log(point))).toBeNull();
  });
  test('a live stream belongs to the stage that is open, on the server’s clock', () => {
    const s = running();
    const { imported: _i, ...live } = log([[BEGAN + 100_000, 900]]) as Extract<Payload, { kind: 'stream' }>;
    const trace = s.visits[s.visits.length - 1]!.trace;
    const had = trace.length;
    expect(take(s, live, { offset: 40 })).toBeNull();
    expect(trace.slice(had)).toEqual([[BEGAN + 100_040, 900]]);
    expect(take(done(), live)).toBe('overtaken');
  });
});

describe('put back', () => {
  const clear = (debt: string, more = {}): Payload => ({ kind: 'debt', debt, text: '', ...more }) as Payload;
  const of = (d: RunState['debts'][number], more = {}) =>
    clear(d.key, { ...(d.subject ? { subject: d.subject } : {}), ...more });
  test('after the end, in its order, each line once; the last one opens signing', () => {
    const s = done();
    expect(s.phase).toBe('put-back');
    expect(take(running(), of(s.debts[0]!))).toBe('still-running');
    expect(take(s, clear('gone'))).toBe('overtaken');
    const late = s.debts.find((d) =>
      plan.procedure.debts[d.key]?.after?.some((k) => s.debts.some((o) => o.key === k)),
    )!;
    expect(take(s, of(late))).toBe('order');
    expect(take(s, of(inDebtOrder(plan, s)[0]!, { answer: 'no such answer' }))).toBe('answer');
    for (let round = 0; round < 20 && s.phase === 'put-back'; round += 1)
      for (const d of s.debts.filter((x) => !x.cleared)) take(s, of(d));
    expect(s.phase).toBe('signing');
    const [first] = s.debts;
    expect(take(s, of(first!))).toBe('overtaken');
  });
});
test('the reason of a stop is given once, after a stop', () => {
  const why = { kind: 'stop-reason', reason: 'mistake', text: 'hose' } as const;
  expect(take(done(), why)).toBe('not-stopped');
  const s = running();
  expect([take(s, { kind: 'stop' }), take(s, why), take(s, why)]).toEqual([null, null, 'overtaken']);
  expect(s.ending).toMatchObject({ by: 'stop', reason: 'mistake', text: 'hose' });
});
