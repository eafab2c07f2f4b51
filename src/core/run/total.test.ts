import fc from 'fast-check';
import { packs, planOf } from '@/core/testing/quarter';
import { bakery, gauge } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { UNITS, type Unit } from '@/core/quantity/unit';
import type { Plan } from '@/core/plan/plan';
import { faceWords } from '@/core/record/face-words';
import { verdictOf } from '@/core/verdict/verdict';
import { parseEvent } from './events';
import type { RunEvent } from './events';
import { checkLines, currentVisit, expectation, gaugeOf, stageOf } from './read';
import { begin, foldOn, reduce, step } from './reduce';
import { stageBand } from './hold-spec';
import type { RunState } from './state';

const uuid = (n: number, group = 1) =>
  `00000000-0000-4000-8000-${String(group).padStart(4, '0')}${n.toString(16).padStart(8, '0')}`;
const ids = [...Object.values(packs).flatMap((p) => [...p.procedures, ...(p.sequences ?? [])])]
  .filter((p) => !('partOnly' in p && p.partOnly))
  .map((p) => p.id);
const after = {
  run: 'r',
  number: 'VS-1',
  word: 'tight',
  procedure: 'p',
  sealedAt: '2026-11-01T00:00:00.000Z',
};
const plans: Plan[] = ids.map((id) =>
  planOf(id, {
    after,
    ...(id === 'vehicle-water-air' || id === 'vehicle-water-hydraulic'
      ? {
          system: bakery({
            medium: 'water',
            workingPressure: q('2 bar'),
            setPressure: q('2.5 bar'),
            appliances: [],
          }),
        }
      : {}),
  }),
);
const units = Object.keys(UNITS) as Unit[];
const figure = fc.record({
  digits: fc.oneof(
    fc.integer({ min: -50_000, max: 50_000 }),
    fc.integer({ min: -999_999_999_999, max: 999_999_999_999 }),
  ),
  scale: fc.integer({ min: 0, max: 6 }),
  unit: fc.oneof(
    { weight: 3, arbitrary: fc.constantFrom<Unit>('mbar', 'bar', 'psi', 'inWC', 'mm') },
    { weight: 1, arbitrary: fc.constantFrom(...units) },
  ),
});
const text = fc.string({ maxLength: 12 }).filter((s) => s.length > 0);
const moment = fc.oneof(
  fc.integer({ min: -90, max: 90_000 }).map((s) => ({ near: s * 1000 })),
  fc.nat(4_102_444_800_000).map((at) => ({ at })),
);
/** A payload of any kind; numbers from a state are filled in when it is played. */
const payload = fc.oneof(
  fc.record({
    kind: fc.constant('check'),
    item: text,
    answer: fc.constantFrom('done', 'yes', 'no', 'undone'),
  }),
  fc.record({ kind: fc.constantFrom('proceed', 'stop') }),
  fc.record({ kind: fc.constant('zero'), figure, openToAir: fc.constant(true) }),
  fc.record({ kind: fc.constant('fill'), figure, confirmed: fc.constant(true) }),
  fc.record({ kind: fc.constantFrom('hold-start', 'hold-end', 'reading'), figure }),
  fc.record({ kind: fc.constant('unheld'), figure, way: fc.constantFrom('falls', 'rises', 'low') }),
  fc.record({
    kind: fc.constant('top-up'),
    before: figure,
    after: figure,
    added: fc.option(figure, { nil: undefined }),
  }),
  fc.record({ kind: fc.constant('pump-step'), figure, added: fc.option(figure, { nil: undefined }) }),
  fc.record({
    kind: fc.constant('pump-look'),
    figure,
    joints: fc.constantFrom('dry', 'drips'),
    where: fc.constant('x'),
  }),
  fc.record({ kind: fc.constant('pump-failed'), text }),
  fc.record({ kind: fc.constant('draw-down'), figure, volume: figure }),
  fc.record({
    kind: fc.constant('witness'),
    when: fc.constantFrom('start', 'end'),
    seen: fc.constantFrom('same', 'fell', 'rose'),
    text: fc.constant(''),
  }),
  fc.record({ kind: fc.constant('disturbance'), what: text, text: fc.constant('') }),
  fc.record({ kind: fc.constant('temperature'), when: fc.constantFrom('start', 'end'), figure }),
  fc.record({
    kind: fc.constant('barometer'),
    when: fc.constantFrom('start', 'end'),
    figure: fc.option(figure, { nil: undefined }),
  }),
  fc.record({
    kind: fc.constant('joint'),
    joint: fc.constantFrom('a', '__proto__'),
    name: text,
    place: fc.constant(''),
  }),
  fc.record({
    kind: fc.constant('joint-look'),
    joint: fc.constantFrom('a', '__proto__', 'constructor'),
    found: fc.constantFrom('none', 'foam', 'growing'),
    size: fc.constant('pea'),
  }),
  fc.record({
    kind: fc.constant('observation'),
    what: fc.constantFrom('smell', 'dial'),
    text: fc.constant(''),
  }),
  fc.record({
    kind: fc.constant('volume'),
    drawn: fc.option(figure, { nil: undefined }),
    before: fc.option(figure, { nil: undefined }),
    after: fc.option(figure, { nil: undefined }),
  }),
  fc.record({ kind: fc.constant('dial-start'), mark: text }),
  fc.record({
    kind: fc.constant('dial-end'),
    moved: fc.boolean(),
    turns: fc.option(figure, { nil: undefined }),
  }),
  fc.record({
    kind: fc.constant('dial-input'),
    appliance: fc.constantFrom('kiln', 'oven'),
    turns: figure,
    seconds: figure,
  }),
  fc.record({
    kind: fc.constant('unsafe'),
    danger: fc.constantFrom('immediate-danger', 'at-risk'),
    action: fc.constant('labelled'),
    text,
    told: text,
  }),
  fc.record({ kind: fc.constant('correction'), of: fc.nat(40).map((n) => uuid(n, 8)), figure, reason: text }),
  fc.record({ kind: fc.constant('observe'), result: text }),
  fc.record({ kind: fc.constant('skip'), reason: text, text: fc.constantFrom('', 'x') }),
  fc.record({ kind: fc.constant('note'), text }),
  fc.record({
    kind: fc.constant('undo'),
    of: fc.nat(40).map((n) => uuid(n, 8)),
    reason: fc.option(text, { nil: undefined }),
  }),
  fc.record({
    kind: fc.constant('stop-reason'),
    reason: fc.constantFrom('smell', 'voltage', 'movement', 'abandoned', 'mistake'),
    text: fc.constant(''),
  }),
  fc.record({
    kind: fc.constant('debt'),
    debt: fc.constantFrom('supply', 'port', '__proto__'),
    text: fc.constant('x'),
  }),
  fc.record({
    kind: fc.constant('signature'),
    role: fc.constantFrom('tester', 'customer', 'witness'),
    name: text,
    strokes: fc.constant('M 1 1'),
  }),
  fc.record({
    kind: fc.constant('stream'),
    gauge: fc.constant('first'),
    simulated: fc.boolean(),
    scale: fc.integer({ min: 0, max: 6 }),
    unit: fc.constantFrom(...units),
    points: fc.array(fc.tuple(fc.nat(4_102_444_800_000), fc.integer({ min: -50_000, max: 50_000 })), {
      minLength: 1,
      maxLength: 4,
    }),
  }),
);
interface Hostile {
  readonly payload: { kind: string } & Record<string, unknown>;
  readonly drive: number;
  readonly pass: number;
  readonly readAt: { near?: number; at?: number };
  readonly stale: boolean;
}
const hostile: fc.Arbitrary<Hostile> = fc.record({
  payload: payload,
  drive: fc.integer({ min: 0, max: 9 }),
  pass: fc.integer({ min: 0, max: 8000 }),
  readAt: moment,
  stale: fc.boolean(),
});

/** What somebody sensible would enter here: so that hostile entries meet every state, not only the first. */
function sensible(plan: Plan, state: RunState): Record<string, unknown>[] {
  const visit = currentVisit(state);
  if (!visit) return [{ kind: 'stop-reason', reason: 'abandoned', text: '' }];
  const stage = stageOf(plan, visit);
  const judging = gaugeOf(plan, state);
  const found = 'band' in stage ? stageBand(plan, state, stage as never) : null;
  const band = found && 'value' in found ? (found.value as { low: unknown } | null) : null;
  const low =
    band?.low ??
    (judging ? { digits: 0, scale: judging.resolution.scale, unit: judging.resolution.unit } : q('1 mbar'));
  switch (stage.kind) {
    case 'checks':
      return [
        ...checkLines(plan, stage).map((l) => ({
          kind: 'check',
          item: l.item.key,
          ...(l.subject ? { subject: l.subject.id } : {}),
          answer: l.item.ask ? (l.item.must?.answer ?? 'no') : 'done',
        })),
        { kind: 'proceed' },
      ];
    case 'zero':
      return [
        ...plan.gauges.map((g) => ({ kind: 'gauge', gauge: g.id })),
        ...plan.gauges.map((g) => ({
          kind: 'zero',
          openToAir: true,
          figure: { digits: 0, scale: g.resolution.scale, unit: g.resolution.unit },
        })),
      ];
    case 'observe':
      return stage.results.map((r) => ({ kind: 'observe', result: r.key, text: 'x' }));
    case 'fill':
      return [
        { kind: 'fill', confirmed: true, figure: low },
        { kind: 'unheld', way: 'falls', figure: low },
      ];
    case 'pump':
      return [
        { kind: 'pump-step', figure: low },
        { kind: 'pump-look', figure: low, joints: 'dry', where: '' },
      ];
    case 'volume':
      return [{ kind: 'volume' }];
    case 'dial':
      return [
        { kind: 'dial-start', mark: 'm' },
        { kind: 'dial-end', moved: false },
      ];
    case 'draw-down':
      return [{ kind: 'draw-down', figure: low, volume: q('1 l') }];
    default:
      return [{ kind: 'hold-start', figure: low }, { kind: 'hold-end', figure: low }, { kind: 'proceed' }];
  }
}

function log(plan: Plan, entries: readonly Hostile[]): RunEvent[] {
  const state = begin(plan);
  const events: RunEvent[] = [];
  let at = Date.parse(plan.made.at);
  for (const e of entries) {
    at += e.pass * 1000;
    const choices = e.drive > 2 ? sensible(plan, state) : [];
    const many = choices.length ? choices : [e.payload];
    for (const p of many) {
      const n = events.length + 1;
      const event = {
        ...p,
        ...(p.kind === 'stream' ? { gauge: plan.gauges[0]!.id } : {}),
        ...('figure' in p &&
        p.figure &&
        p.kind !== 'zero' &&
        p.kind !== 'temperature' &&
        p.kind !== 'barometer' &&
        p.kind !== 'correction'
          ? { readAt: choices.length ? at : Math.max(0, e.readAt.at ?? at + (e.readAt.near ?? 0)) }
          : {}),
        id: uuid(n, 8),
        run: plan.run,
        device: uuid(1, 6),
        deviceSeq: n,
        at,
        zone: 'Europe/London',
        offset: e.stale ? 120_000 : 0,
        mono: Math.max(0, at - Date.parse(plan.made.at)),
        pageLoad: uuid(e.stale ? 2 : 1, 7),
        by: uuid(1, 2),
        byName: 'I',
        expects: e.stale && !choices.length ? 'elsewhere' : expectation(state),
      } as unknown as RunEvent;
      // what the schema refuses never comes in
      try {
        parseEvent(JSON.parse(JSON.stringify(event)));
      } catch {
        continue;
      }
      events.push(event);
      step(plan, state, event);
    }
  }
  return events;
}

describe('the fold is total', () => {
  test.each(plans.map((p) => [p.procedure.id, p] as const))(
    'law: any entries reduce, and the verdict stands: %s',
    (_id, plan) => {
      fc.assert(
        fc.property(
          fc.array(hostile, { maxLength: 40 }),
          fc.infiniteStream(fc.nat(1_000_000)),
          (entries, order) => {
            const events = log(plan, entries);
            const state = reduce(plan, events);
            expect(state.events).toBe(events.length);
            if (state.ending) expect(verdictOf(plan, state)!.word).toBeTruthy();
            faceWords(plan, state);
            // in any other order too, meant for whatever step they were
            const shuffled = events
              .map((e) => ({ e, key: order.next().value as number }))
              .sort((a, b) => a.key - b.key)
              .map(({ e }, i) => ({ ...e, position: i + 1 }));
            verdictOf(plan, reduce(plan, shuffled));
            // piece by piece it is the same, whether the rest comes after, before or between; what was folded stays as it was
            const cut = (order.next().value as number) % (events.length + 1);
            const parts = [events.slice(0, cut), events.slice(cut), shuffled.slice(0, cut)];
            const first = foldOn(plan, null, parts[(order.next().value as number) % 3]!);
            const words = JSON.stringify(first.state);
            // only what could still be taken back is kept by the one that goes on
            expect({ ...foldOn(plan, first, events).state, back: [] }).toEqual({ ...state, back: [] });
            expect(JSON.stringify(first.state)).toBe(words);
          },
        ),
        { numRuns: Number(process.env.TOTAL_RUNS ?? 40) },
      );
    },
    60_000,
  );
});

describe('one gate for figures', () => {
  const plan = planOf('gas-lowpressure-staged', { gauges: [gauge()] });
  const at = (kind: string, more: object) => {
    const events = log(plan, []);
    const state = begin(plan);
    const own = {
      kind,
      ...more,
      id: uuid(1, 8),
      run: plan.run,
      device: uuid(1, 6),
      deviceSeq: 1,
      at: Date.parse(plan.made.at),
      zone: 'Europe/London',
      offset: 0,
      mono: 0,
      pageLoad: uuid(1, 7),
      by: uuid(1, 2),
      byName: 'I',
      expects: expectation(state),
    } as unknown as RunEvent;
    return reduce(plan, [...events, own]).withoutEffect[0]?.code ?? null;
  };
  test('a stream in another unit or step than the gauge is set aside', () => {
    const stream = { gauge: gauge().id, simulated: false, points: [[0, 1]] };
    expect(at('stream', { ...stream, scale: 1, unit: 'mbar' })).toBe('unit');
    expect(at('stream', { ...stream, scale: 2, unit: 'psi' })).toBe('unit');
  });
});
