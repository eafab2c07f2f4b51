import { LIDO_LINES, lido, LIDO_LOOKS, playPool, poolPlan } from '@/core/testing/lido';
import type { ScriptLine } from '@/core/run/script';
import { mapNow } from '@/core/kinds/map/fold';
import { plugCount, plugsNeeded } from '@/core/kinds/plugs/fold';
import { pressurePlan } from '@/core/plan/weakest';
import { showExact } from '@/core/quantity/exact';
import { debtWords } from '@/core/run/read';
import { poolEnds } from './ends';
import type { Look } from './joins';
import { sectionsOf, withinSection } from '@/core/trades/sections';

const CLOSED = (from: string, on: string, off: string, s = 10) =>
  [s, 'saw', 'closed', from, on, off] as const;

describe('the map', () => {
  const map = () => poolPlan('pool-map', undefined, { looks: [] });
  const begin = [[5, 'checks']] as const;
  test('three looks make every line known; the map says nothing of tightness', () => {
    const { state, verdict } = playPool(map(), [
      ...begin,
      CLOSED('at-pump', 'skimmer-1,drain-1', 'return-1,return-2,jet-upper-1,jet-upper-2,jet-lower-1'),
      CLOSED('at-heater', 'return-1,return-2,jet-lower-1', 'skimmer-1,drain-1,jet-upper-1,jet-upper-2', 20),
      CLOSED('at-blower', 'jet-upper-1,jet-upper-2', 'skimmer-1,drain-1,return-1,return-2,jet-lower-1', 30),
      [40, 'proceed'],
      [50, 'checks'],
    ]);
    expect(state.visits.map((v) => v.outcome)).toEqual(['done', 'mapped', 'done']);
    expect([verdict?.word, state.followUps.length]).toEqual(['refer', 1]);
  });
  test('two looks that clash end it unclear; taking the wrong one back heals it', () => {
    const clash = [
      ...begin,
      CLOSED('at-pump', 'skimmer-1', 'return-1'),
      [20, 'saw', 'air', 'at-heater', 'return-1', 'skimmer-1'],
    ] as const;
    const open = playPool(map(), clash);
    expect(mapNow(map(), open.state).joins.clashes).toEqual([]);
    const worse = [...clash, [30, 'saw', 'air', 'at-pump', 'return-1']] as const;
    const run = playPool(map(), worse);
    expect(mapNow(map(), run.state).joins.clashes[0]!.looks).toHaveLength(2);
    expect(playPool(map(), [...worse, [40, 'proceed'], [50, 'checks']]).verdict?.word).toBe('inconclusive');
    const healed = playPool(map(), [
      ...worse,
      [35, 'lookback', '3', 'the wrong valve was shut'],
      [40, 'proceed'],
    ]);
    expect(healed.state.visits[1]!.outcome).toBe('partly');
    expect(healed.state.rooms.map.back[0]!.why).toBe('the wrong valve was shut');
  });
  test.each([
    ['an end nobody listed', ['saw', 'closed', 'at-pump', 'tub-9', ''], /not in the list/],
    ['one end on both lists', ['saw', 'closed', 'at-pump', 'return-1', 'return-1'], /twice/],
    ['a valve closed in the pool', ['saw', 'closed', 'return-1', 'return-2', ''], /closed at the equipment/],
    ['nothing seen', ['saw', 'closed', 'at-pump', '', ''], /what went quiet/],
    ['no bubbles and nothing watched', ['saw', 'air', 'at-pump', '', ''], /what bubbled/],
    ['one pipe of one end', ['saw', 'pipe', '', 'return-1', ''], /two ends or more/],
    ['from nowhere', ['saw', 'air', '', 'return-1', ''], /from which end/],
    ['none of several', ['saw', 'among', 'at-pump', '', ''], /could have come from/],
  ] as const)('%s is refused with what to do', (_, line, text) => {
    expect(() => playPool(map(), [...begin, [10, ...line]])).toThrow(text);
  });
  test('an outlet nobody listed is added, takes part, and is offered to the plans that follow', () => {
    const { state } = playPool(map(), [
      ...begin,
      [10, 'endfound', 'found-1', 'Foot well drain', 'drain', 'tub'],
      [20, 'saw', 'air', 'at-pump', 'found-1', 'skimmer-1', '', 'elsewhere', 'bubbles in the corner'],
    ]);
    expect(mapNow(map(), state).joins.bond('at-pump', 'found-1')).toBe('joined');
    expect(mapNow(map(), state).joins.bond('at-pump', 'skimmer-1')).toBe('open');
    expect(mapNow(map(), state).ends.at(-1)).toMatchObject({
      name: 'Foot well drain',
      dry: false,
      size: null,
    });
  });
  test('an outlet that leads nowhere is said so; what is usual stays apart from what is known', () => {
    const all = 'skimmer-1,drain-1,return-1,return-2,jet-upper-1,jet-upper-2,jet-lower-1';
    const lost = playPool(map(), [
      ...begin,
      CLOSED('at-pump', '', all),
      CLOSED('at-heater', '', all, 20),
      CLOSED('at-blower', '', all, 30),
    ]);
    expect(mapNow(map(), lost.state).lost).toHaveLength(7);
    const { custom } = mapNow(map(), playPool(map(), begin).state);
    expect(custom).toContainEqual({
      a: 'at-blower',
      b: 'jet-upper-1',
      why: expect.stringMatching(/usually/),
    });
    expect(mapNow(poolPlan('pool-map'), playPool(poolPlan('pool-map'), begin).state).custom).toEqual([]);
  });
});

describe('one line of several', () => {
  test('sections are the lines that are known; each has its own ends, pipes and what it leaves out', () => {
    const whole = lido({ looks: LIDO_LOOKS });
    expect(sectionsOf(whole).map((s) => s.title)).toEqual([
      'Pump inlet, Skimmer and Main drain',
      'After the heater, Return 1, Return 2 and Spa jet, lower',
      'Air blower, Spa jet, upper 1 and Spa jet, upper 2',
    ]);
    const line = withinSection(whole, [...LIDO_LINES.returns].sort().join('+'))!;
    expect(line.pipes.map((p) => p.name)).toEqual(['Return run']);
    expect(line.outlets!.map((o) => o.id)).toEqual(['return-1', 'return-2', 'jet-lower-1']);
    expect(line.notCovered).toContain('line of Pump inlet, Skimmer and Main drain');
    expect(withinSection(whole, 'nothing+here')).toBeNull();
    // nothing known: no line can be pressed but one that is known to stand alone
    expect(sectionsOf(lido())).toEqual([]);
  });
  test('an end that was found is plugged on its own line and asked for on no other', () => {
    const found = { id: 'found-1', name: 'Foot well drain', type: 'drain', place: 'tub' } as const;
    const looks: Look[] = LIDO_LOOKS.map((l) =>
      l.kind !== 'closed'
        ? l
        : l.at === 'at-pump'
          ? { ...l, quiet: [...l.quiet, 'found-1'] }
          : { ...l, flowing: [...l.flowing, 'found-1'] },
    );
    const whole = lido({ looks, foundEnds: [found] });
    const ends = (line: readonly string[]) =>
      poolEnds(withinSection(whole, [...line].sort().join('+'))!)
        .map((e) => e.id)
        .sort();
    expect(ends(LIDO_LINES.returns)).toEqual([...LIDO_LINES.returns].sort());
    const own = [...LIDO_LINES.suction, 'found-1'];
    expect(ends(own)).toEqual(own.sort());
  });
  test('while one line is tested a bubble at another’s end is taken, and clashes with what kept them apart', () => {
    const plan = poolPlan('pool-line-pressure', 'returns');
    const run = playPool(plan, [
      [10, 'checks'],
      [20, 'saw', 'air', 'at-heater', 'skimmer-1', ''],
    ]);
    const { joins, ends } = mapNow(plan, run.state);
    expect(ends).toHaveLength(10);
    expect(joins.clashes[0]!.looks).toContain(run.events.at(-1)!.id);
    // plugs go into the ends of this line alone
    expect(plugsNeeded(plan, run.state)).toEqual({ closed: 3, open: 1 });
    expect(() =>
      playPool(plan, [
        [10, 'checks'],
        [20, 'saw', 'air', 'at-heater', 'tub-9', ''],
      ]),
    ).toThrow(/not in the list/);
  });
  test('a procedure for one line does not start on the whole; pipe that is not drawn is asked for', () => {
    expect(() => poolPlan('pool-line-pressure')).toThrow(/one line at a time/);
    expect(() => poolPlan('pool-line-pressure', 'air')).toThrow(/No pipe is entered/);
    expect(poolPlan('pool-dye', 'air').system.section?.title).toBe(
      'Air blower, Spa jet, upper 1 and Spa jet, upper 2',
    );
  });
});

const PRESSED = [
  [10, 'checks'],
  [60, 'plugs', 'in', 'at-heater'],
  [70, 'gauge', 'P-30'],
  [80, 'zero', '0.00'],
  [100, 'checks'],
  [130, 'pump', '5.00'],
  [145, 'look', '5.00', 'dry'],
] as const;
describe('pressure of a line', () => {
  const plan = poolPlan('pool-line-pressure', 'returns');
  test('before the plugs are in their rating is not known: 15 psi; with 30 psi plugs the school’s band', () => {
    expect(pressurePlan(plan).working?.text).toMatch(/not known: 15 psi to 2 in/);
    expect(showExact(pressurePlan(plan).pressure!)).toBe('13.5 psi');
    const { state } = playPool(plan, PRESSED.slice(0, 2));
    expect(showExact(state.kept['least-plug']!)).toBe('30 psi');
    expect(plugsNeeded(plan, state)).toEqual({ closed: 3, open: 1 });
    expect(plugCount(state)).toEqual([
      { what: 'short plug, 2 in, open', in: 1, out: 0 },
      { what: 'short plug, 2 in, closed', in: 3, out: 0 },
    ]);
  });
  test('a plug that bursts stops everything; every plug is still counted out', () => {
    const { state, verdict } = playPool(plan, [
      ...PRESSED.slice(0, 5),
      [140, 'plugfails', 'return-1', 'burst'],
    ]);
    expect([state.phase, state.ending?.reason, state.ending?.text]).toEqual([
      'put-back',
      'movement',
      'The plug at Return 1 burst.',
    ]);
    expect(verdict?.word).toBe('void');
    const owed = state.debts.filter((d) => d.key === 'plug' && !d.cleared);
    expect(owed.map((d) => debtWords(plan, d))).toContain('Return 1: plug out and counted');
    expect(owed).toHaveLength(4);
  });
  test.each([
    [
      'one missing',
      [[60, 'plug', 'at-heater', 'short', 'open', '2 in', '30']],
      /Still without a plug: Return 1/,
    ],
    [
      'a second open one',
      [
        [60, 'plug', 'at-heater', 'short', 'open'],
        [61, 'plug', 'return-1', 'short', 'open'],
      ],
      /open to the pressure already/,
    ],
    ['a valve as the open one', [[60, 'plug', 'at-heater', 'valve', 'open']], /cannot be the open plug/],
    [
      'an inflatable one without its pressure',
      [[60, 'plug', 'return-1', 'inflatable', 'closed', '3 in', '20']],
      /holds by its own pressure/,
    ],
    ['an end of another line', [[60, 'plug', 'skimmer-1', 'short', 'closed']], /no part of the line/],
  ] as const)('%s is refused', (_, lines, text) => {
    expect(() => playPool(plan, [[10, 'checks'], ...lines, [70, 'proceed']])).toThrow(text);
  });
  test('an end that cannot be closed ends it Inconclusive, and what is in is counted out', () => {
    const { state, verdict } = playPool(plan, [
      [10, 'checks'],
      [60, 'plug', 'at-heater', 'short', 'open', '2 in', '30'],
      [70, 'plugcannot', 'return-2', 'glued shut behind the ladder'],
      [75, 'observe', 'later'],
      [80, 'plugs', 'out'],
    ]);
    expect([state.phase, state.debts.filter((d) => d.key === 'plug' && !d.cleared)]).toEqual([
      'put-back',
      [],
    ]);
    expect(verdict?.word).toBe('inconclusive');
  });
});

describe('worst cases of a line', () => {
  const water = poolPlan('pool-line-pressure', 'returns');
  const upTo = (...more: readonly (readonly [number, ...string[]])[]) =>
    playPool(water, [...PRESSED, ...more] as never);
  test('a pressure that does not come asks the map first: bubbles elsewhere are Void, nothing seen is a leak', () => {
    const where = (seen: string) =>
      playPool(water, [
        ...PRESSED.slice(0, 5),
        [130, 'nopump', 'the hose gives all it has'],
        [140, 'observe', seen],
        [150, 'checks'],
        [160, 'plugs', 'out'],
        [170, 'zero', '0.00'],
      ]).verdict!.word;
    expect([where('map'), where('nothing')]).toEqual(['void', 'not-tight']);
  });
  test('a line that is really two: an end that stays dry makes it Void, whatever would have held', () => {
    const { state, verdict } = playPool(water, [
      ...PRESSED.slice(0, 4),
      [100, 'checks', 'dry-end=yes'],
      [150, 'checks'],
      [160, 'plugs', 'out'],
      [170, 'zero', '0.00'],
    ]);
    expect([verdict!.word, state.followUps[0]!.text]).toEqual([
      'void',
      expect.stringMatching(/Map the lines again/),
    ]);
    expect(state.visits.map((v) => v.outcome)).toContain('two');
  });
  test('an end that has to be cut: cut, cured, plugged, and the run goes on', () => {
    const { state } = playPool(water, [
      [10, 'checks'],
      [60, 'plugcannot', 'return-2', 'glued shut behind the ladder'],
      [70, 'observe', 'cut'],
      [80, 'coupled', '1', '2', '120', 'primer and cement'],
      [7280, 'proceed'],
      [7300, 'plugs', 'in', 'at-heater'],
    ]);
    expect(state.visits.map((v) => v.stage)).toEqual([
      'prepare',
      'plugs',
      'cut-now',
      'cure',
      'plugs',
      'zero',
    ]);
  });
  test('a plug under pressure stays in; one that leaks makes the hold void and the run goes back', () => {
    const held = [
      [150, 'pump', '10.00'],
      [165, 'look', '10.00', 'dry'],
      [175, 'pump', '16.00'],
      [190, 'look', '16.00', 'dry'],
      [200, 'checks'],
      [210, 'start', '16.00'],
    ] as const;
    expect(() => upTo(...held, [240, 'plugout', 'return-1'])).toThrow(/never take a plug out of it/);
    const { state } = upTo(...held, [240, 'plugfails', 'return-1', 'leaks']);
    expect(state.visits.at(-2)!.holds.at(-1)!.broken?.reason).toBe('The plug at Return 1 leaks');
    expect(state.visits.at(-1)!.stage).toBe('raise');
    expect(state.phase).toBe('running');
  });
  test('a plug that bursts after a good hold leaves nothing Tight', () => {
    const { verdict, state } = upTo(
      [150, 'pump', '10.00'],
      [165, 'look', '10.00', 'dry'],
      [175, 'pump', '16.00'],
      [190, 'look', '16.00', 'dry'],
      [200, 'checks'],
      [210, 'start', '16.00'],
      [340, 'end', '16.00'],
      [350, 'start', '16.00'],
      [960, 'end', '16.00'],
      [970, 'plugfails', 'return-2', 'slipped'],
    );
    expect([state.visits.at(-1)!.stage, verdict?.word]).toEqual(['release', 'void']);
  });
  test('with air: steps, a hold and its own band; a fall goes through own kit', () => {
    const air = poolPlan('pool-line-air', 'returns');
    const run = (end: string, ...more: readonly (readonly [number, ...string[]])[]) =>
      playPool(air, [
        [10, 'checks'],
        [60, 'plugs', 'in', 'at-heater'],
        [70, 'gauge', 'P-30'],
        [80, 'zero', '0.00'],
        [90, 'checks'],
        [100, 'fill', '5.00'],
        [130, 'fill', '12.00'],
        [140, 'checks'],
        [150, 'start', '12.00'],
        [300, 'read', '12.00'],
        [460, 'end', '12.00'],
        [470, 'start', '12.00'],
        [4800, 'end', end],
        ...more,
      ] as never);
    expect(showExact(pressurePlan(air).pressure!)).toBe('10.0 psi');
    const good = run('12.00', [4900, 'checks'], [4950, 'plugs', 'out'], [5000, 'zero', '0.00']);
    expect(good.verdict?.word).toBe('tight');
    expect(run('9.00').state.visits.at(-1)!.stage).toBe('own-kit');
  });
});

describe('bucket', () => {
  const whole = poolPlan('pool-whole');
  const DAY = 86_400;
  const compare = (on: string[], off: string[]) =>
    playPool(whole, [
      [10, 'checks'],
      [20, 'marks'],
      [20 + DAY, 'bucket', ...on],
      [30 + DAY, 'marks'],
      [30 + 2 * DAY, 'bucket', ...off],
      [40 + 2 * DAY, 'checks'],
      [50 + 2 * DAY, 'observe', 'nothing'],
    ]);
  test('2 mm beyond the bucket is a loss, 1 mm is not; litres from the surface', () => {
    const loses = compare(['7', '5'], ['5', '5']);
    expect(loses.verdict?.word).toBe('not-tight');
    expect(loses.state.rooms.buckets[0]!.read!.rate! * 86_400_000).toBeCloseTo(192, 6);
    expect(compare(['6', '5'], ['5', '5']).verdict?.word).toBe('inconclusive');
    expect(compare(['6', '5'], ['7', '5']).verdict?.word).toBe('not-tight');
  });
  test('rain discards it at any time; without rain a part of a day is refused', () => {
    const rain = playPool(whole, [
      [10, 'checks'],
      [20, 'marks'],
      [3600, 'bucket', '1', '0', 'rain'],
    ]);
    expect([rain.state.visits[1]!.outcome, rain.state.visits[2]!.stage]).toEqual(['discarded', 'bucket-on']);
    expect(() =>
      playPool(whole, [
        [10, 'checks'],
        [20, 'marks'],
        [3600, 'bucket', '1', '0'],
      ]),
    ).toThrow(/24 h after the marks/);
    expect(() =>
      playPool(whole, [
        [10, 'checks'],
        [20, 'bucket', '1', '0'],
      ]),
    ).toThrow(/both marks first/);
  });
});

describe('dye and listening', () => {
  const dye = poolPlan('pool-dye', 'air');
  const steps = (result: string) =>
    playPool(dye, [
      [10, 'checks'],
      [60, 'plugs', 'in', 'at-blower'],
      [90, 'observe', result],
      [120, 'plugs', 'out'],
    ]).verdict!.word;
  test('drawn is a leak; not drawn never proves tight', () => {
    expect([steps('drawn'), steps('not-drawn')]).toEqual(['not-tight', 'inconclusive']);
  });
  const locate = poolPlan('pool-locate', 'returns');
  const walk = (
    evidence: readonly (readonly string[])[],
    heard = ['1', '5', '9', '5', '1'],
    photos: readonly ScriptLine[] = [],
  ) =>
    playPool(locate, [
      [10, 'checks'],
      [20, 'observe', 'wet'],
      [60, 'plugs', 'in', 'at-heater'],
      [90, 'checks'],
      [100, 'run', 'return run', '14', 'at the gate, 30 m off'],
      ...photos,
      ...heard.map((l, i) => [110 + i, 'heard', String(3 + i), l] as const),
      ...evidence.map((e, i) => [150 + i, 'evidence', ...e] as const),
      [160, 'proceed'],
    ]);
  test('a narrow place that nothing speaks against is located; what speaks against it forbids breaking ground', () => {
    const good = walk([['all', 'agrees']]);
    expect(good.state.visits.at(-2)!.outcome).toBe('located');
    expect(
      walk([
        ['all', 'unknown'],
        ['soil', 'against', 'dry there'],
      ]).state.visits.at(-2)!.outcome,
    ).toBe('against');
    expect(walk([], ['0', '0', '0', '0', '0']).state.visits.at(-2)!.outcome).toBe('silent');
    expect(walk([['all', 'agrees']], ['3', '4', '3', '4', '3']).state.visits.at(-2)!.outcome).toBe('wide');
    const photo = 'a'.repeat(64);
    const drawn = (...ends: readonly string[]) =>
      walk([['all', 'agrees']], undefined, [
        [101, 'photo', photo, 'the run'],
        [102, 'onphoto', photo, ...ends],
      ]).state.rooms.listen.picture;
    expect(drawn('100', '900', '880', '310')).toEqual({ photo, from: [100, 900], to: [880, 310] });
    expect(() => drawn('100', '900', '100', '900')).toThrow(/one point/);
    expect(() => walk([], undefined, [[101, 'onphoto', photo, '1', '1', '9', '9']])).toThrow(
      /not with the run/,
    );
    expect(() => walk([['soil', 'agrees']])).toThrow(/Before anything is broken open: the level/);
    expect(() => walk([['all', 'agrees']], ['1', '2'])).toThrow(/Three spots/);
  });
});
