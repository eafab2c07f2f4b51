import { gaugeOf, expectation } from './read';
import { packs, planOf } from '@/core/testing/quarter';
import { BEGAN, entryOf, uuid } from '@/core/testing/bakery';
import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { exact, parseWithUnit as q, type Exact } from '@/core/quantity/exact';
import type { Payload } from './events';
import { begin, step } from './reduce';
import type { RunState } from './state';
import { enter } from './transition';

/** A run that stands in this stage, with its gauge chosen. */
function standing(plan: Plan, key: string): RunState {
  const state = begin(plan);
  state.visits = [];
  enter(plan, state, key, BEGAN);
  state.gauge = plan.gauges[0]!.id;
  return state;
}
let made = 0;
function take(plan: Plan, state: RunState, payload: Payload, seconds = 60) {
  const event = entryOf(plan, payload, {
    id: uuid(++made, 8),
    deviceSeq: made,
    at: BEGAN + seconds * 1000,
    expects: expectation(state),
  });
  return step(plan, state, event)?.code ?? null;
}
/** A figure that the judging gauge can show. */
const shown = (plan: Plan, state: RunState, steps = 10): Exact => {
  const { digits, scale, unit } = gaugeOf(plan, state)!.resolution;
  return exact(digits * steps, scale, unit);
};
const ids = Object.values(packs)
  .flatMap((p) => p.procedures.filter((x) => !x.partOnly && x.id !== 'vehicle-water-air'))
  .map((p) => p.id);
const stages = ids
  .filter((id) => {
    try {
      planOf(id);
      return true;
    } catch {
      return false;
    }
  })
  .flatMap((id) => {
    const plan = planOf(id);
    return Object.entries(plan.procedure.stages).map(([key, stage]): [string, Plan, string, Stage] => [
      `${id}.${key}`,
      plan,
      key,
      stage,
    ]);
  });

/** In which kinds of stages an entry has a place; elsewhere it is set aside with this code and changes nothing. */
const PLACE: [(figure: Exact) => Payload, (s: Stage) => boolean, string][] = [
  [
    () => ({ kind: 'check', item: 'x', answer: 'done' }),
    (s) => s.kind === 'checks' || s.kind === 'isolate-and-repeat',
    'wrong-step',
  ],
  [
    () => ({ kind: 'proceed' }),
    (s) =>
      ['checks', 'joints', 'inventory', 'map', 'plugs', 'cure', 'listen'].includes(s.kind) ||
      (s.kind === 'dial' && s.role === 'input'),
    'wrong-step',
  ],
  [(figure) => ({ kind: 'zero', figure, openToAir: true }), (s) => s.kind === 'zero', 'wrong-step'],
  [
    (figure) => ({ kind: 'fill', confirmed: true, figure, readAt: BEGAN + 60_000 }),
    (s) => s.kind === 'fill' || s.kind === 'isolate-and-repeat',
    'wrong-step',
  ],
  [
    (figure) => ({ kind: 'hold-start', figure, readAt: BEGAN + 60_000 }),
    (s) => s.kind === 'hold' || s.kind === 'isolate-and-repeat',
    'wrong-step',
  ],
  [(figure) => ({ kind: 'hold-end', figure, readAt: BEGAN + 60_000 }), () => false, 'no-hold'],
  [
    (figure) => ({ kind: 'top-up', before: figure, after: figure }),
    (s) => s.kind === 'hold' || s.kind === 'isolate-and-repeat',
    'no-hold',
  ],
  [() => ({ kind: 'temperature', when: 'start', figure: q('18.0 C') }), () => false, 'no-hold'],
  [() => ({ kind: 'barometer', when: 'start', none: true }), () => false, 'no-hold'],
  [() => ({ kind: 'witness', when: 'start', seen: 'same', text: '' }), () => false, 'no-hold'],
  [
    (figure) => ({ kind: 'pump-step', figure, readAt: BEGAN + 60_000 }),
    (s) => s.kind === 'pump',
    'wrong-step',
  ],
  [
    (figure) => ({ kind: 'pump-look', figure, readAt: BEGAN + 60_000, joints: 'dry', where: '' }),
    () => false,
    'wrong-step',
  ],
  [() => ({ kind: 'pump-failed', text: 'x' }), (s) => s.kind === 'pump', 'wrong-step'],
  [
    (figure) => ({ kind: 'draw-down', figure, readAt: BEGAN + 60_000, volume: q('1 l') }),
    (s) => s.kind === 'draw-down',
    'wrong-step',
  ],
  [() => ({ kind: 'volume' }), (s) => s.kind === 'volume', 'wrong-step'],
  [() => ({ kind: 'dial-start', mark: 'm' }), (s) => s.kind === 'dial' && s.role === 'leak', 'wrong-step'],
  [() => ({ kind: 'dial-end', moved: false }), () => false, 'no-dial'],
  [
    () => ({ kind: 'dial-input', appliance: 'x', turns: q('1 1'), seconds: q('42 s') }),
    (s) => s.kind === 'dial' && s.role === 'input',
    'wrong-step',
  ],
  [
    () => ({ kind: 'plug-in', end: 'x', plug: 'short', open: false, size: '', proved: '' }),
    (s) => s.kind === 'plugs' && s.way === 'in',
    'wrong-step',
  ],
  [() => ({ kind: 'plug-cannot', end: 'x', why: 'x' }), (s) => s.kind === 'plugs', 'wrong-step'],
  [
    () => ({ kind: 'joints-made', cuts: 1, couplings: 2, means: 'x', minutes: 500, table: '' }),
    (s) => s.kind === 'cure',
    'wrong-step',
  ],
  [() => ({ kind: 'cure-later' }), (s) => s.kind === 'cure', 'wrong-step'],
  [() => ({ kind: 'bucket-set' }), (s) => s.kind === 'bucket', 'wrong-step'],
  [
    () => ({
      kind: 'bucket-read',
      pool: q('3 mm'),
      bucket: q('3 mm'),
      rain: true,
      filled: false,
      bathers: false,
    }),
    (s) => s.kind === 'bucket',
    'wrong-step',
  ],
  [
    () => ({ kind: 'listen-picture', photo: 'a'.repeat(64), from: [0, 0], to: [9, 9] }),
    (s) => s.kind === 'listen',
    'wrong-step',
  ],
  [
    () => ({ kind: 'listen-run', name: 'x', length: q('3 m'), compressor: 'x' }),
    (s) => s.kind === 'listen',
    'wrong-step',
  ],
  [
    () => ({ kind: 'listen', along: q('1 m'), loud: 3, clear: 'fair', near: '' }),
    (s) => s.kind === 'listen',
    'wrong-step',
  ],
  [
    () => ({ kind: 'listen-evidence', what: 'soil', says: 'agrees', text: '' }),
    (s) => s.kind === 'listen',
    'wrong-step',
  ],
  [() => ({ kind: 'observe', result: 'nothing-of-this' }), () => false, 'wrong-step'],
  [
    () => ({ kind: 'skip', reason: 'x', text: 'x' }),
    (s) => s.optional === true || (s.kind === 'hold' && !!s.skip),
    'no-skip',
  ],
];
test.each(stages)('%s: an entry that has no place here changes nothing', (_, plan, key, stage) => {
  const figure = shown(plan, standing(plan, key));
  for (const [payload, belongs, code] of PLACE) {
    if (belongs(stage)) continue;
    const state = standing(plan, key);
    const before = JSON.stringify({ ...state, withoutEffect: [], events: 0, lastAt: 0 });
    const said = take(plan, state, payload(figure));
    expect([payload(figure).kind, said]).toEqual([payload(figure).kind, code]);
    expect(JSON.stringify({ ...state, withoutEffect: [], events: 0, lastAt: 0 })).toBe(before);
  }
});

/** A run in the first stage of this kind that any procedure has. */
function inStage(which: (s: Stage) => boolean): [Plan, RunState, Stage] {
  const [, plan, key, stage] = stages.find(([, , , s]) => which(s))!;
  return [plan, standing(plan, key), stage];
}
describe('what is incomplete is asked for', () => {
  test('a dial that takes in gas: which appliance, how many turns, in what time', () => {
    const [plan, state] = inStage((s) => s.kind === 'dial' && s.role === 'input');
    const appliance = plan.system.appliances[0]!.id;
    const input = (turns: string, seconds: string, of = appliance): Payload => ({
      kind: 'dial-input',
      appliance: of,
      turns: q(turns),
      seconds: q(seconds),
    });
    expect(take(plan, state, { kind: 'proceed' })).toBe('unanswered');
    expect(take(plan, state, input('1 1', '42 s', 'nobody'))).toBe('unknown-appliance');
    expect(take(plan, state, input('0 1', '42 s'))).toBe('turns');
    expect(take(plan, state, input('1 l', '42 s'))).toBe('turns');
    expect(take(plan, state, input('1 1', '0 s'))).toBe('seconds');
    expect(take(plan, state, input('1 1', '1 min'))).toBe('seconds');
    expect(take(plan, state, input('1 1', '42 s'))).toBeNull();
    expect(state.visits[0]!.inputs).toHaveLength(1);
    expect(take(plan, state, { kind: 'proceed' })).toBeNull();
  });
  test('a dial that is watched: marked once, long enough, and by how much it moved', () => {
    const [plan, state] = inStage((s) => s.kind === 'dial' && s.role === 'leak');
    expect(take(plan, state, { kind: 'dial-start', mark: 'at 4' }, 0)).toBeNull();
    expect(take(plan, state, { kind: 'dial-start', mark: 'at 5' }, 1)).toBe('overtaken');
    const { rule } = state.visits[0]!.dial!;
    expect(take(plan, state, { kind: 'dial-end', moved: false }, rule * 60 - 1)).toBe('too-early');
    expect(take(plan, state, { kind: 'dial-end', moved: true }, 10)).toBe('turns');
    expect(take(plan, state, { kind: 'dial-end', moved: true, turns: q('0 1') }, 10)).toBe('turns');
    expect(take(plan, state, { kind: 'dial-end', moved: true, turns: q('0.1 1') }, 10)).toBeNull();
    expect(state.visits[0]!.outcome).toBe('moved');
  });
  test('a measured volume: all three figures, and a fall that says something', () => {
    const [plan, state] = inStage((s) => s.kind === 'volume');
    const of = (more: object): Payload => ({ kind: 'volume', ...more });
    const steps = (n: number) => shown(plan, state, n);
    expect(take(plan, state, of({ drawn: q('0.3 l') }))).toBe('incomplete');
    expect(take(plan, state, of({ drawn: q('0.3 l'), before: steps(40) }))).toBe('incomplete');
    const both = { before: steps(40), after: steps(20) };
    expect(take(plan, state, of({ drawn: q('0 l'), ...both }))).toBe('drawn');
    expect(take(plan, state, of({ drawn: q('0.3 l'), before: steps(29), after: steps(20) }))).toBe(
      'small-fall',
    );
    const ten = { before: steps(30), after: steps(20) };
    expect(take(plan, state, of({ drawn: q('0.3 l'), ...ten }))).toBeNull();
    expect(state.volume!.figure.value).toBeGreaterThan(0);
  });
  test('joints: known ones, how large bubbles grow, and no more than can be worked through', () => {
    const [plan, state] = inStage((s) => s.kind === 'joints');
    for (const j of state.joints) j.looks.push({ found: 'none', at: BEGAN, byName: 'I' });
    const joint = (n: number): Payload => ({ kind: 'joint', joint: `j${n}`, name: `J${n}`, place: '' });
    const look = (found: 'none' | 'growing', size?: 'pea', of = 'j1'): Payload => ({
      kind: 'joint-look',
      joint: of,
      found,
      ...(size ? { size } : {}),
    });
    expect(take(plan, state, look('none'))).toBe('unknown-joint');
    expect(take(plan, state, joint(1))).toBeNull();
    expect(take(plan, state, joint(1))).toBe('overtaken');
    expect(take(plan, state, { kind: 'proceed' })).toBe('joints');
    expect(take(plan, state, look('growing'))).toBe('size');
    for (let n = 2; state.joints.length < 200; n++) expect(take(plan, state, joint(n))).toBeNull();
    expect(take(plan, state, joint(999))).toBe('too-many');
    expect(take(plan, state, look('growing', 'pea'))).toBeNull();
    expect(state.visits[0]!.outcome).toBe('bubbles');
  });
  test('a thing that is written down has a name, and its newest entry counts', () => {
    const [plan, state] = inStage((s) => s.kind === 'inventory');
    const item = (name: string): Payload => ({
      kind: 'inventory',
      item: {
        id: 'm',
        kind: 'meter',
        name,
        place: '',
        make: '',
        model: '',
        serial: '',
        points: {},
        note: '',
      },
    });
    expect(take(plan, state, item('  '))).toBe('name');
    expect(take(plan, state, item('Meter'))).toBeNull();
    expect(take(plan, state, item('Meter, new'))).toBeNull();
    expect(state.inventory.map((i) => i.name)).toEqual(['Meter, new']);
  });
  test('pumping: the step is reached, then looked at; where it drips is said', () => {
    const [plan, state] = inStage((s) => s.kind === 'pump');
    const low = (at: number): Payload => ({
      kind: 'pump-step',
      figure: shown(plan, state, 1),
      readAt: BEGAN + at * 1000,
    });
    expect(take(plan, state, low(60))).toBe('under-band');
    expect(take(plan, state, { kind: 'pump-failed', text: 'gave out' })).toBeNull();
    expect(state.visits[0]!.outcome).toBe('not-reached');
  });
  test('no gauge, no figure; and a gauge that is not in the plan', () => {
    const [plan, state] = inStage((s) => s.kind === 'zero');
    const figure = shown(plan, state, 0);
    expect(take(plan, state, { kind: 'gauge', gauge: uuid(99, 9) })).toBe('unknown-gauge');
    state.gauge = null;
    expect(take(plan, state, { kind: 'zero', figure, openToAir: true })).toBe('no-gauge');
  });
  test('own kit that the plan does not know', () => {
    const [plan, state] = inStage((s) => s.kind === 'checks');
    expect(take(plan, state, { kind: 'kit', kit: [uuid(1, 7)] })).toBe('unknown-kit');
    expect(take(plan, state, { kind: 'kit', kit: [] })).toBeNull();
    expect(state.ownKit).toMatchObject({ kit: [], byName: 'I' });
  });
});
describe('after the stages', () => {
  const stopped = (): [Plan, RunState] => {
    const [plan, state] = inStage((s) => s.kind === 'checks');
    expect(take(plan, state, { kind: 'stop-reason', reason: 'smell', text: '' })).toBe('not-stopped');
    expect(take(plan, state, { kind: 'debt', debt: 'x', text: '' })).toBe('still-running');
    expect(take(plan, state, { kind: 'signature', role: 'tester', name: 'I', strokes: 'M 1 1' })).toBe(
      'still-running',
    );
    const unsafe = { danger: 'at-risk', action: 'labelled', text: 't', told: 't' } as const;
    expect(take(plan, state, { kind: 'unsafe', ...unsafe })).toBe('still-running');
    expect(take(plan, state, { kind: 'stop' })).toBeNull();
    expect(take(plan, state, { kind: 'stop' })).toBe('overtaken');
    return [plan, state];
  };
  test('nobody signs before what is owed is put back and the reason is said', () => {
    const [plan, state] = stopped();
    const sign = (more: object = {}): Payload => ({
      kind: 'signature',
      role: 'tester',
      name: 'I',
      strokes: 'M 1 1',
      ...more,
    });
    if (state.phase === 'put-back') expect(take(plan, state, sign())).toBe('debts');
    for (let guard = 0; state.debts.some((d) => !d.cleared) && guard < 50; guard++)
      for (const d of state.debts.filter((x) => !x.cleared))
        take(plan, state, {
          kind: 'debt',
          debt: d.key,
          text: 'done',
          ...(d.subject ? { subject: d.subject } : {}),
        });
    expect(state.phase).toBe('signing');
    expect(take(plan, state, sign())).toBe('stop-reason');
    expect(take(plan, state, { kind: 'stop-reason', reason: 'mistake', text: '' })).toBeNull();
    expect(take(plan, state, { kind: 'stop-reason', reason: 'mistake', text: '' })).toBe('overtaken');
    expect(take(plan, state, sign({ strokes: undefined }))).toBe('strokes');
    expect(take(plan, state, sign({ via: 'link' }))).toBe('strokes');
    expect(take(plan, state, sign({ role: 'customer', strokes: undefined }))).toBe('strokes');
    expect(take(plan, state, sign({ role: 'customer', strokes: undefined, refused: ' ' }))).toBe('strokes');
    expect(take(plan, state, sign({ role: 'witness' }))).toBe('witness');
    expect(take(plan, state, sign({ role: 'witness', as: 'inspector' }))).toBe('witness');
    expect(take(plan, state, sign({ role: 'witness', as: 'inspector', saw: 'end' }))).toBeNull();
    expect(take(plan, state, sign())).toBeNull();
    expect(take(plan, state, sign())).toBe('overtaken');
    expect(state.phase).toBe('signing');
    expect(take(plan, state, sign({ role: 'customer', strokes: undefined, refused: 'away' }))).toBeNull();
    expect(state.phase).toBe('signed');
  });
  test('a reading that is not there cannot be corrected, nor a stream taken from another gauge', () => {
    const [plan, state] = inStage((s) => s.kind === 'checks');
    const figure = shown(plan, state);
    expect(take(plan, state, { kind: 'correction', of: uuid(77), figure, reason: 'r' })).toBe(
      'unknown-reading',
    );
    const { scale, unit } = plan.gauges[1]!.resolution;
    const points: [number, number][] = [[BEGAN, 1]];
    expect(
      take(plan, state, { kind: 'stream', gauge: plan.gauges[1]!.id, simulated: false, scale, unit, points }),
    ).toBe('other-gauge');
  });
});
