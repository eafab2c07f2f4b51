/** What a state says, each answer on both sides of its edge. */
import { LEVEL_MARK } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import { allowanceOf } from '@/core/plan/limits';
import type { Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { coarse, gauge as gaugeG, hold, plan as bakeryPlan, play, upTo } from '@/core/testing/bakery';
import { planOf } from '@/core/testing/quarter';
import {
  checkLines,
  currentVisit,
  debtBefore,
  drips,
  escapes,
  gaugeOf,
  gaugesUsed,
  holdEnds,
  inDebtOrder,
  leakingBounds,
  leakingJoints,
  letByLimit,
  openJoints,
  openLines,
  owedWords,
  partNow,
  permittedDrop,
  runningHold,
  temperatureNeeded,
  unsafeOpen,
} from './read';
import { reduce } from './reduce';
import type { Hold, RunState, Visit } from './state';

const plan = bakeryPlan();
const done = reduce(plan, play(plan, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '19.00')]));
const judged = done.visits.flatMap((v) => v.holds).find((h) => h.role === 'tightness')!;
const state = (over: Partial<RunState>, from = done): RunState => ({ ...from, ...over });
const held = (over: Partial<Hold>): Hold => ({ ...judged, ...over });
const joint = (found: string, more = {}) =>
  ({ id: 'j', name: 'J', place: '', looks: [{ found, ...more }] }) as unknown as RunState['joints'][number];
const stages = (of: Plan, kind: string) =>
  Object.entries(of.procedure.stages).filter(([, s]) => s.kind === kind);

test('the gauge of a stage is the one chosen, or the level mark where the stage reads a level', () => {
  const drain = planOf('drain-fill-hold');
  const at = (key: string) =>
    gaugeOf(
      { ...drain, gauges: [gaugeG()] },
      state({ phase: 'running', gauge: gaugeG().id, visits: [{ stage: key } as Visit] }),
    )?.id;
  const byLevel = Object.entries(drain.procedure.stages).filter(([, s]) => 'by' in s && s.by === 'level');
  const [other] = Object.entries(drain.procedure.stages).find(([, s]) => !('by' in s && s.by === 'level'))!;
  expect(byLevel.length).toBeGreaterThan(0);
  for (const [key] of byLevel) expect(at(key)).toBe(LEVEL_MARK.id);
  expect(at(other)).toBe(gaugeG().id);
  expect(gaugeOf(plan, state({ phase: 'running', gauge: null, visits: done.visits }))).toBeNull();
});
test('the part is that of the newest stage that has one; a stage that is not there has none', () => {
  const parted = planOf('gas-air-rough-and-final');
  const keyed = Object.entries(parted.procedure.stages);
  const of = (part: string | undefined) => keyed.find(([, s]) => s.part === part)![0];
  const [first, second] = parted.procedure.parts!.map((p) => p.key) as [string, string];
  const visits = (...keys: string[]) => state({ visits: keys.map((stage) => ({ stage }) as Visit) });
  expect(partNow(parted, visits(of(first), of(second)))).toBe(second);
  expect(partNow(parted, visits(of(first), 'gone'))).toBe(first);
  expect(partNow(parted, visits('gone'))).toBeNull();
});
test('a hold runs until it ends or breaks, in a cycle its settling first; its end is its start and its minutes', () => {
  const { end: _e, judgement: _j, ...bare } = judged;
  const running = bare as Hold;
  const visit = (over: Partial<Visit>) =>
    runningHold(
      state({
        phase: 'running',
        visits: [{ kind: 'hold', stage: 'x', holds: [], cycles: [], ...over } as Visit],
      }),
    );
  expect(visit({ holds: [running] })).toBe(running);
  expect(visit({ holds: [judged] })).toBeNull();
  expect(visit({ holds: [{ ...running, broken: { reason: 'moved' } } as Hold] })).toBeNull();
  const repeat = (cycle: object) =>
    visit({ kind: 'isolate-and-repeat', cycles: [cycle] as unknown as Visit['cycles'] });
  expect(repeat({})).toBeNull();
  expect(repeat({ settle: running })).toBe(running);
  expect(repeat({ settle: judged, hold: running })).toBe(running);
  expect(visit({ kind: 'isolate-and-repeat', cycles: [] })).toBeNull();
  expect(holdEnds(held({ startedAt: 1000, minutes: 2 }))).toBe(121_000);
});
test('temperatures are asked for after a rise or a small fall, of a hold that a gauge judges and that lacks them', () => {
  const asks = (over: Partial<Hold>, of: Partial<RunState> = { rises: 1 }, p = plan) =>
    temperatureNeeded(p, state({ rises: 0, smallFalls: 0, ...of }), held({ temperature: {}, ...over }));
  const at = { figure: q('20.0 C') } as unknown as Hold['temperature']['start'];
  expect(asks({}, {})).toBe(false);
  expect([asks({}), asks({}, { smallFalls: 1 })]).toEqual([true, true]);
  expect(asks({ gauge: LEVEL_MARK.id })).toBe(false);
  expect(asks({ temperature: { start: at! } })).toBe(true);
  expect(asks({ temperature: { start: at!, end: at! } })).toBe(false);
  expect(asks({ role: 'let-by' })).toBe(false);
  expect(asks({ role: 'leak-rate' })).toBe(true);
  expect(asks({ role: 'leak-rate', since: true })).toBe(false);
  expect(asks({ role: 'leak-rate' }, { rises: 1 }, { ...plan, format: 1 } as Plan)).toBe(false);
});
test('lines: unknown valves are asked by name, loops one by one, appliances only where the case has them', () => {
  const bare = bakeryPlan({ system: { noValves: [] } });
  const asked = stages(bare, 'checks').flatMap(([, s]) => checkLines(bare, s as never));
  const names = asked.map((l) => l.subject?.name).filter((n) => n?.startsWith('Every '));
  expect(names.length).toBeGreaterThan(0);
  for (const n of names) expect(n).toMatch(/^Every [^,]+(?:(?:, [^,]+)* or [^,]+)? there is$/);
  // three of a kind: commas, and one "or" before the last
  expect(names.some((n) => / or /.test(n!))).toBe(true);
  for (const [, s] of stages(bare, 'checks'))
    expect(
      checkLines({ ...bare, format: 1 } as Plan, s as never).some((l) => l.id.endsWith('not-entered')),
    ).toBe(false);
  const noLoops = planOf('floor-loops');
  const loop = { id: 'l1', name: 'Loop 1', valve: 'v', flowMeter: 'f' };
  const loops = { ...noLoops, system: { ...noLoops.system, loops: [loop, { ...loop, id: 'l2' }] } };
  const perLoop = (p: Plan) =>
    stages(p, 'checks').flatMap(([, s]) => checkLines(p, s as never).filter((l) => l.item.each === 'loop'));
  expect(perLoop(loops).map((l) => l.subject!.id)).toEqual(expect.arrayContaining(['l1', 'l2']));
  expect(perLoop(noLoops)).toEqual([]);
  const [key, stage] = stages(plan, 'checks')[0]!;
  const ids = checkLines(plan, stage as never).map((l) => l.id);
  const open = (answers: object) =>
    openLines(plan, { stage: key, answers } as unknown as Visit).map((l) => l.id);
  expect(open({})).toEqual(ids);
  expect(open({ [ids[0]!]: { answer: 'done' } })).toEqual(ids.slice(1));
  expect(open({ [ids[0]!]: { answer: 'undone' } })).toEqual(ids);
});
test('how equality counts in a let-by is the plan’s answer, otherwise the pack’s', () => {
  const [, stage] = stages(plan, 'hold').find(([, s]) => (s as HoldStage).role === 'let-by')!;
  const of = (answer: string | undefined) =>
    letByLimit(
      { ...plan, choices: answer ? { [(stage as HoldStage).comparatorChoice!]: answer } : {} },
      stage as HoldStage,
      gaugeG(),
    );
  expect([of('at').broken, of('above').broken]).toEqual(['at', 'above']);
  expect(of('whatever')).toEqual(of(undefined));
  // a gauge coarser than the figure still has it, not nothing
  const { digits } = letByLimit(plan, stage as HoldStage, coarse).value;
  expect(digits).toBeGreaterThan(0);
});
test('an extension: no worse than before, where it fell before, and never more than the table', () => {
  const p = planOf('gas-lowpressure-extension', { gauges: [gaugeG()] });
  const bound = p.procedure.parts!.find((x) => x.noWorseThan)!;
  const [before] = Object.entries(p.procedure.stages).find(
    ([, s]) => s.part === bound.noWorseThan && s.kind === 'hold' && s.role === 'tightness',
  )!;
  const table = allowanceOf(p, bound.key).limit!;
  const drop = (change: string, over: Partial<Hold> = {}, stage = before) =>
    permittedDrop(
      p,
      state({
        gauge: p.gauges[0]!.id,
        phase: 'ended' as RunState['phase'],
        denied: [],
        visits: [
          {
            stage,
            holds: [
              held({
                judgement: { ...judged.judgement!, change: q(change), direction: 'fall' },
                ...over,
              }),
            ],
          } as unknown as Visit,
        ],
      }),
      bound.key,
    );
  expect(table).toBeTruthy();
  expect(drop('-0.10 mbar')!.value).toEqual(q('0.10 mbar'));
  expect(drop('-0.10 mbar')!.source).toMatch(/No worse than before/);
  expect(drop('-90.00 mbar')!.source).toBe(table.source);
  expect(drop('-0.10 mbar', { role: 'let-by' })).toBeNull();
  expect(drop('-0.10 mbar', { judgement: { ...judged.judgement!, direction: 'none' } })).toBeNull();
  expect(drop('-0.10 mbar', { judgement: undefined } as never)).toBeNull();
  expect(drop('-0.10 mbar', {}, 'gone')).toBeNull();
  expect(permittedDrop(p, state({ denied: ['x'] }), bound.key)).toBeNull();
});

describe('what calls for a class of danger, and what is an escape', () => {
  const calm = state({ claims: {}, observations: [], joints: [], debts: [], inventory: [], visits: [] });
  const smelt = { observations: [{ what: 'smell', text: '' }] } as unknown as Partial<RunState>;
  const seen = { observations: [{ what: 'damp', text: '' }] } as unknown as Partial<RunState>;
  const claim = (over: object) =>
    ({ claims: { '': { finding: 'tight', visit: 1, ...over } } }) as unknown as Partial<RunState>;
  const { ending: _e, unsafe: _u, ...open } = calm;
  const with_ = (over: Partial<RunState>) => ({ ...open, ...over }) as RunState;
  const ended = (reason: string) => ({ ending: { reason, at: 0 } }) as never;
  const falls = { visits: [{ stage: 'x', unheld: { way: 'falls' } }] } as unknown as Partial<RunState>;
  test('escapes', () => {
    expect(escapes(with_({}))).toBe(false);
    expect(escapes(with_(seen))).toBe(false);
    expect(escapes(with_(smelt))).toBe(true);
    expect([escapes(with_(ended('smell'))), escapes(with_(ended('voltage')))]).toEqual([true, false]);
    const out = (...outcomes: (string | undefined)[]) =>
      escapes(with_({ visits: outcomes.map((outcome) => ({ outcome, stage: 'x' }) as Visit) }));
    expect([out('smell', 'done'), out('done')]).toEqual([true, false]);
    expect(escapes(with_({ joints: [joint('growing', { size: 'larger' })] }))).toBe(true);
    expect(escapes(with_({ joints: [joint('growing', { size: 'pinhead' })] }))).toBe(false);
    expect(escapes(with_({ ...claim({ finding: 'not-tight' }), ...falls }))).toBe(true);
    expect(escapes(with_({ ...claim({ finding: 'not-tight', visit: 9 }), ...falls }))).toBe(false);
    expect(escapes(with_({ ...claim({ finding: 'inconclusive' }), ...falls }))).toBe(false);
  });
  test('danger', () => {
    const asks = (over: Partial<RunState>, p = plan) => unsafeOpen(p, with_(over));
    expect(plan.procedure.unsafe).toBe(true);
    expect([
      asks({}),
      asks(seen),
      asks(claim({})),
      asks(claim({ finding: 'not-tight', use: 'limited' })),
    ]).toEqual([false, false, false, false]);
    const calls: Partial<RunState>[] = [
      smelt,
      claim({ danger: 'x' }),
      claim({ use: 'shut-off' }),
      claim({ finding: 'not-tight' }),
      ended('smell'),
      ended('voltage'),
      { joints: [joint('growing')] },
      { debts: [{ key: 'x', cleared: { poor: true } }] } as never,
      { inventory: [{ points: { a: 'good', b: 'fault' } }] } as never,
    ];
    for (const over of calls)
      expect([JSON.stringify(over), asks(over)]).toEqual([JSON.stringify(over), true]);
    expect(asks({ ...smelt, unsafe: { danger: 'x' } as never })).toBe(false);
    expect(asks(smelt, { ...plan, procedure: { ...plan.procedure, unsafe: false } } as never)).toBe(false);
  });
});
test('joints: the last look counts; own kit and boundaries are told apart from the installation', () => {
  const two = joint('growing');
  const cleared = { ...two, looks: [{ found: 'growing' }, { found: 'none' }] } as typeof two;
  const own = { ...two, whose: 'kit' } as unknown as typeof two;
  const s = state({ joints: [two, cleared, own] });
  expect([leakingJoints(s), leakingBounds(s), openJoints(s)]).toEqual([[two], [own], [two, own]]);
});
test('a drip stands until something was raised since', () => {
  const raised = (joints: string, where: string) =>
    ({ stage: 'x', pumped: [{}, { look: { joints, where } }] }) as unknown as Visit;
  const none = { stage: 'y', pumped: [] } as unknown as Visit;
  expect(drips(state({ visits: [raised('drips', 'elbow'), none] }))).toBe('elbow');
  expect(drips(state({ visits: [raised('drips', 'elbow'), raised('dry', '')] }))).toBe('');
  expect(drips(state({ visits: [raised('dry', ''), raised('drips', 'tee')] }))).toBe('tee');
  expect(drips(state({ visits: [none] }))).toBe('');
});
test('what is owed is put in the order in which it can be cleared, and says where it is left shut off', () => {
  const debts = plan.procedure.debts;
  const [key, rule] = Object.entries(debts).find(([, d]) => d.after?.length)!;
  const debt = (k: string, more = {}) => ({ key: k, ...more }) as unknown as RunState['debts'][number];
  const first = debt(rule.after![0]!);
  const both = state({ debts: [debt(key), first, debt('gone')] });
  const order = inDebtOrder(plan, both).map((d) => d.key);
  expect(order.indexOf(first.key)).toBeLessThan(order.indexOf(key));
  expect([...order].sort()).toEqual([key, first.key, 'gone'].sort());
  expect(debtBefore(plan, both, key)).toBe(first);
  expect(debtBefore(plan, both, 'gone')).toBeNull();
  expect(debtBefore(plan, state({ debts: [debt(key), { ...first, cleared: {} } as never] }), key)).toBeNull();
  const [left, said] = Object.entries(debts).find(([, d]) => d.unsafe)!;
  expect(owedWords(plan, { key: left }, 'shut-off')).toBe(said.unsafe);
  expect(owedWords(plan, { key: left })).toBe(said.text);
  expect(owedWords(plan, { key: 'gone' }, 'shut-off')).toBe('gone');
});
test('gauges in the order of their use, each once', () => {
  expect(currentVisit(done)).not.toBeNull();
  const used = (zeros: string[], holds: string[]) =>
    ({
      stage: 'x',
      zeros: zeros.map((gauge) => ({ gauge })),
      holds: holds.map((gauge) => ({ gauge })),
    }) as never;
  expect(gaugesUsed(state({ visits: [used(['a'], ['b', 'a']), used(['c'], [])] }))).toEqual(['a', 'b', 'c']);
  expect(gaugesUsed(state({ visits: [] }))).toEqual([]);
});
