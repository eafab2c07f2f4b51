import { parseWithUnit as parse } from '@/core/quantity/exact';
import { networkOf } from '@/core/network/enter';
import { partOf, valveFor } from '@/core/network/network';
import { BEGAN, entryOf, hold, plan, play, upTo } from '@/core/testing/bakery';
import { eventSchema } from '@/core/run/events';
import { searchLines } from '@/core/run/isolations';
import { reduce, step } from '@/core/run/reduce';
import { begin } from '@/core/run/reduce';
import type { ScriptLine } from '@/core/run/script';
import { verdictOf } from '@/core/verdict/verdict';
import fc from 'fast-check';
import { searchOf } from './search';

const p = plan();
const network = networkOf(p.system);
const valveOf = (id: string) => valveFor(network, partOf(network, id)!)!.id;
const [oven, hob] = [valveOf('oven'), valveOf('hob')];
// 19.8 l lose 8.5 mbar in 2 min: about 5 l/h
const FAILED: ScriptLine[] = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '12.00')];
const run = (lines: ScriptLine[], allowRefused = false) =>
  reduce(p, play(p, [...FAILED, ...lines], {}, { allowRefused }));
/** One part held: closed, from 20.50, read after 3 min, opened again. */
const held = (at: number, end: string, ...closed: string[]): ScriptLine[] => [
  [at, 'isolate', '20.50', ...closed],
  [at + 180, 'isolated', end],
  [at + 190, 'reopened'],
];

describe('the search', () => {
  test('begins with the least minutes; what was worked on today is looked at first', () => {
    const plain = searchOf(p, run([]))!;
    expect(plain.found).toBeNull();
    expect(plain.whole).toBeGreaterThan(3);
    expect(plain.order.step.isolation).not.toBeNull();
    const worked = searchOf(p, run([[500, 'worked', 'hob']]))!;
    const of = (s: typeof plain) =>
      s.splitting.suspicion[s.splitting.sections.findIndex((x) => x.name.includes('Hob'))]!;
    expect(of(worked)).toBeGreaterThan(1.9 * of(plain));
  });
  test('a part that stands while the rest is shut clears it; the rate says where the leak is', () => {
    // hob shut: the fall is the same, so that it is not the hob
    const one = searchOf(p, run(held(500, '8.20', hob)))!;
    const probability = (s: typeof one, name: string) =>
      s.found!.probability[s.splitting.sections.findIndex((x) => x.name.includes(name))]!;
    expect(probability(one, 'Hob')).toBeLessThan(0.05);
    expect(one.results[0]!.moved).toBe(true);
    expect(one.found!.doubts).toEqual([]);
    // oven shut too: now it stands, so that it is the oven
    const two = searchOf(p, run([...held(500, '8.20', hob), ...held(800, '20.50', oven)]))!;
    expect(two.results[1]!.moved).toBe(false);
    expect(probability(two, 'Deck oven')).toBeGreaterThan(0.9);
    expect(two.splitting.sections[two.found!.part]!.name).toBe('Deck oven');
    expect(two.order.step.isolation).toBeNull();
  });
  test('says where the rates do not add up', () => {
    const half = searchOf(p, run(held(500, '16.50', hob)))!;
    expect(half.found!.doubts[0]).toMatch(/a part of the whole only\. The rest leaks too/);
  });
  test('a section that will not stand at all is searched by whether its parts move', () => {
    const lines: ScriptLine[] = [
      ...upTo(['9.10', '9.10']),
      [200, 'fill', '20.50'],
      [210, 'start', '20.50'],
      [230, 'unheld', 'falls', '3.00'],
    ];
    const search = searchOf(
      p,
      reduce(p, play(p, [...lines, ...held(500, '0.00', hob), ...held(800, '20.50', oven)])),
    )!;
    expect(search.whole).toBeNull();
    expect(search.splitting.sections[search.found!.part]!.name).toBe('Deck oven');
  });
  test('volumes that nobody entered leave whether a part moves, on the scale of the whole', () => {
    const bare = plan({
      system: {
        pipes: p.system.pipes.map((x) => ({ ...x, bore: parse('0 mm') })),
        meter: { kind: 'none', name: '', volume: parse('0 l') },
        appliances: p.system.appliances.map((x) => ({ ...x, volume: parse('0 l') })),
        measured: { volume: parse('20 l'), uncertainty: parse('5 %'), by: 'draw', said: '' } as never,
      },
    });
    const state = reduce(
      bare,
      play(bare, [...FAILED, ...held(500, '8.20', hob), ...held(800, '20.50', oven)]),
    );
    const search = searchOf(bare, state)!;
    expect(search.whole).toBeGreaterThan(3);
    expect(Object.values(search.splitting.share).every((x) => x === null)).toBe(true);
    expect(search.results.map((r) => r.rate)).toEqual([search.whole, 0]);
    expect(search.found!.doubts).toEqual([]);
    expect(search.splitting.sections[search.found!.part]!.name).toBe('Deck oven');
  });
  test('goes on after the verdict until somebody signs, and ends with a smell', () => {
    const ended: ScriptLine[] = [[600, 'observe', 'go-on']];
    expect(run(ended, true).phase).toBeDefined();
    expect(searchOf(p, run([[500, 'seen', 'smell', 'by the oven']]))).toBeNull();
    const smelt = run(
      [
        [500, 'seen', 'smell', 'by the oven'],
        [510, 'isolate', '20.50', hob],
      ],
      true,
    );
    expect(smelt.withoutEffect.at(-1)).toMatchObject({ code: 'smell' });
  });
});
describe('while something is closed for it', () => {
  test('nothing of the test itself is held, and it must be open again first', () => {
    const shut = run(
      [
        [500, 'isolate', '20.50', hob],
        [680, 'isolated', '20.50'],
        [690, 'observe', 'own-leak'],
        [700, 'fill', '20.50'],
      ],
      true,
    );
    expect(shut.withoutEffect.at(-1)).toMatchObject({ code: 'search-shut' });
    expect(shut.withoutEffect.at(-1)!.text).toMatch(/Open again/);
    const open = run([
      [500, 'isolate', '20.50', hob],
      [680, 'isolated', '20.50'],
      [685, 'reopened'],
      [690, 'observe', 'own-leak'],
      [700, 'fill', '20.50'],
    ]);
    expect(open.withoutEffect).toEqual([]);
  });
  test('it stays shut for good only when the test has ended; the record says which', () => {
    const during = run(
      [
        [500, 'isolate', '20.50', hob],
        [680, 'isolated', '20.50'],
        [685, 'reopened', 'left'],
      ],
      true,
    );
    expect(during.withoutEffect.at(-1)).toMatchObject({ code: 'scope' });
    const after = run([
      [490, 'stop'],
      [495, 'reason', 'abandoned', 'found it'],
      [500, 'isolate', '20.50', hob],
      [680, 'isolated', '20.50'],
      [685, 'reopened', 'left'],
    ]);
    expect(searchLines(p, after)).toEqual([
      expect.stringMatching(
        /closed: the rest from 20\.50 mbar to 20\.50 mbar \(.*\) in 3:00|closed: the rest from 20\.50 mbar to 20\.50 mbar/,
      ),
      expect.stringMatching(/^Left shut after the search: /),
    ]);
    expect(verdictOf(p, after)!.word).not.toBe('tight');
  });
  test('a hold of a part is dropped, and cannot be begun twice, nor under a running hold', () => {
    const twice = run(
      [
        [500, 'isolate', '20.50', hob],
        [510, 'isolate', '20.50', oven],
      ],
      true,
    );
    expect(twice.withoutEffect.at(-1)).toMatchObject({ code: 'search-shut' });
    const dropped = run([
      [500, 'isolate', '20.50', hob],
      [510, 'dropped'],
      [520, 'reopened'],
      [530, 'isolate', '20.50', oven],
    ]);
    expect(dropped.search.open!.closed).toEqual([oven]);
    expect(dropped.search.results).toEqual([]);
    const early = reduce(
      p,
      play(
        p,
        [...upTo(['9.10', '9.10']).slice(0, 5), [75, 'isolate', '9.10', hob]],
        {},
        { allowRefused: true },
      ),
    );
    expect(early.withoutEffect.at(-1)).toMatchObject({ code: 'hold-runs' });
  });
  test('nobody signs before it is said', () => {
    const lines: ScriptLine[] = [
      [490, 'stop'],
      [495, 'reason', 'abandoned', 'found it'],
      [500, 'isolate', '20.50', hob],
      [680, 'isolated', '20.50'],
      [700, 'putback'],
      [710, 'sign', 'Imre'],
    ];
    expect(run(lines, true).withoutEffect.at(-1)).toMatchObject({ code: 'search-shut' });
  });
});
test('any list of its entries reduces, whatever a client sends', () => {
  const ids = [hob, oven, 'nowhere'];
  const figure = (n: number) => ({ digits: n, scale: 2, unit: 'mbar' as const });
  const entry = fc.oneof(
    fc.record({ kind: fc.constant('worked-on' as const), parts: fc.subarray(ids) }),
    fc.record({
      kind: fc.constant('isolation-start' as const),
      closed: fc.subarray(ids, { minLength: 1 }),
      figure: fc.integer({ min: -9, max: 3000 }).map(figure),
      readAt: fc.constant(BEGAN),
    }),
    fc.record({
      kind: fc.constant('isolation-end' as const),
      figure: fc.integer({ min: -9, max: 3000 }).map(figure),
      readAt: fc.constant(BEGAN),
    }),
    fc.record({
      kind: fc.constant('isolation-flow' as const),
      closed: fc.subarray(ids, { minLength: 1 }),
      flow: fc.integer({ min: 0, max: 99 }).map((digits) => ({ digits, scale: 1, unit: 'l/s' as const })),
    }),
    fc.constant({ kind: 'isolation-dropped' as const }),
    fc.record({ kind: fc.constant('isolation-reopened' as const), left: fc.boolean() }),
  );
  fc.assert(
    fc.property(fc.array(entry, { maxLength: 12 }), (list) => {
      const state = reduce(p, play(p, FAILED));
      const fresh = begin(p);
      list.forEach((payload, i) => {
        const event = entryOf(p, payload, { at: BEGAN + 400_000 + i * 1000 });
        expect(eventSchema.isValidSync(event, { strict: true })).toBe(true);
        step(p, state, event);
        step(p, fresh, event);
      });
      expect(fresh.search.results).toEqual([]); // nothing was tested yet
      for (const r of state.search.results) expect(r.closed).not.toContain('nowhere');
      expect(state.search.open && state.search.shut.length).toBeFalsy();
      searchOf(p, state);
    }),
  );
});
