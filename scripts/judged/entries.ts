/** Entries beside those that were made, and entries that nobody made: what hostile and clumsy hands can put into a log. */
import type { Plan } from '@/core/plan/plan';
import { type Exact, parseWithUnit as q } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { RunEvent } from '@/core/run/events';
import { holdLimits } from '@/core/run/hold-limits';
import { stageBand } from '@/core/run/hold-spec';
import { readingsOf } from '@/core/run/photos';
import { currentVisit, expectation, gaugeOf, runningHold, stageOf } from '@/core/run/read';
import type { RunState } from '@/core/run/state';

export const isFigure = (v: unknown): v is Exact =>
  typeof v === 'object' && v !== null && 'digits' in v && 'scale' in v;
const WORDS: Readonly<Record<string, readonly string[]>> = {
  answer: ['done', 'undone', 'yes', 'no'],
  joints: ['dry', 'drips'],
  seen: ['same', 'fell', 'rose'],
  when: ['start', 'end'],
  way: ['falls', 'rises', 'low'],
  found: ['none', 'foam', 'growing'],
  what: ['smell', 'dial', 'flame'],
  danger: ['immediate-danger', 'at-risk'],
  role: ['tester', 'customer', 'witness'],
  reason: ['smell', 'mistake', 'abandoned'],
  whose: ['own', 'system', 'boundary'],
};
/** The same figure, a little otherwise. */
const figures = (f: Exact, limits: readonly Exact[]): Exact[] => [
  { ...f, digits: f.digits + 1 },
  { ...f, digits: f.digits - 1 },
  { ...f, digits: -f.digits },
  { ...f, digits: 0 },
  { ...f, digits: f.digits * 100 },
  { ...f, unit: UNITS[f.unit].dimension === 'pressure' ? 'psi' : 'l' },
  { digits: f.digits * 10 + 1, scale: f.scale + 1, unit: f.unit },
  ...limits.filter((l) => l.unit === f.unit && l.scale === f.scale),
];
/** Figures at which something changes here, each with its neighbours. */
export function limitsHere(plan: Plan, state: RunState): Exact[] {
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  if (!stage) return [];
  const gauge = gaugeOf(plan, state);
  const band = 'band' in stage ? stageBand(plan, state, stage) : null;
  const ends = band && 'value' in band && band.value ? [band.value.low, band.value.high] : [];
  const hold = runningHold(state);
  const limits = hold && gauge ? holdLimits(plan, state, stage, gauge, hold) : null;
  const moved = limits
    ? [-limits.fall.value.digits, limits.rise.value.digits].map((d) => ({
        ...hold!.start.figure,
        digits: hold!.start.figure.digits + d,
      }))
    : [];
  return [...ends, ...moved].flatMap((f) => [-1, 0, 1].map((d) => ({ ...f, digits: f.digits + d })));
}
export function* neighbours(event: RunEvent, limits: readonly Exact[]): Generator<RunEvent> {
  const at = (ms: number) =>
    ({
      ...event,
      at: event.at + ms,
      mono: event.mono + ms,
      ...('readAt' in event ? { readAt: Number(event.readAt) + ms } : {}),
    }) as RunEvent;
  for (const ms of [-1000, 1000, -60_000, 600_000, 86_400_000]) yield at(ms);
  if ('readAt' in event) yield { ...event, at: event.at + 45_000 };
  yield { ...event, expects: 'elsewhere' };
  yield { ...event, pageLoad: 'another', mono: event.mono + 5000 };
  yield { ...event, offset: event.offset + 5000 };
  for (const [key, value] of Object.entries(event)) {
    const other = (v: unknown) => ({ ...event, [key]: v }) as RunEvent;
    if (
      [
        'id',
        'run',
        'device',
        'deviceSeq',
        'at',
        'zone',
        'offset',
        'mono',
        'pageLoad',
        'by',
        'byName',
        'expects',
        'kind',
        'position',
        'readAt',
      ].includes(key)
    )
      continue;
    if (isFigure(value)) for (const f of figures(value, limits)) yield other(f);
    else if (typeof value === 'boolean') yield other(!value);
    else if (typeof value === 'string') {
      for (const word of WORDS[key] ?? []) if (word !== value) yield other(word);
      yield other('');
      yield other('nobody');
    } else if (typeof value === 'number') {
      yield other(value + 1);
      yield other(0);
    } else if (Array.isArray(value)) yield other([]);
    const { [key as keyof RunEvent]: _gone, ...rest } = event;
    yield rest as RunEvent;
  }
}

/** An entry of one's own, made on the same device a while after another, for the step the run stands at. */
export function entryAfter(state: RunState, event: RunEvent, payload: object, ms = 1000): RunEvent {
  const same = Object.fromEntries(
    Object.entries(event).filter(([k]) =>
      ['run', 'device', 'deviceSeq', 'zone', 'offset', 'pageLoad', 'by', 'byName'].includes(k),
    ),
  );
  return {
    ...same,
    id: '0000000f-0000-4000-8000-00000000000f',
    at: event.at + ms,
    mono: event.mono + ms,
    expects: expectation(state),
    ...payload,
  } as RunEvent;
}

/** Entries that nobody made here, and that may come at any moment. */
export function* strangers(plan: Plan, state: RunState, event: RunEvent): Generator<RunEvent> {
  const own = (payload: object, ms = 1000) => entryAfter(state, event, payload, ms);
  const readings = readingsOf(state);
  const [first, last] = [readings[0], readings[readings.length - 1]];
  const hash = 'a'.repeat(64);
  const shown = last?.reading.figure ?? gaugeOf(plan, state)?.resolution ?? q('1 mbar');
  const at = (d: number) => ({ ...shown, digits: shown.digits + d });
  yield own({ kind: 'stop' });
  yield own({ kind: 'stop-reason', reason: 'smell', text: 'x' });
  yield own({ kind: 'observation', what: 'smell', text: '' });
  yield own({ kind: 'proceed' });
  yield own({ kind: 'skip', reason: 'nobody', text: 'x' });
  for (const beside of [first, last])
    yield own({
      kind: 'photo',
      hash,
      caption: 'x',
      shows: 'gauge',
      ...(beside ? { beside: beside.reading.id } : {}),
    });
  for (const r of readings.slice(-3))
    yield own({ kind: 'correction', of: r.reading.id, figure: at(1), reason: 'misread' });
  for (const g of plan.gauges.slice(0, 3)) yield own({ kind: 'gauge', gauge: g.id });
  yield own({ kind: 'kit', kit: plan.ownKit?.slice(0, 1).map((k) => k.id) ?? [] });
  for (const [way, d, ms] of [
    ['falls', -5, 60_000],
    ['falls', -900, 60_000],
    ['falls', -900, 1_200_000],
    ['falls', -5, 8_000_000],
    ['rises', 5, 1_200_000],
    ['rises', 900, 60_000],
    ['low', -900, 60_000],
  ] as const)
    yield own({ kind: 'unheld', way, figure: at(d), readAt: event.at + ms }, ms);
  const gauge = gaugeOf(plan, state);
  if (gauge) {
    const { scale, unit } = gauge.resolution;
    const entered = currentVisit(state)?.entered ?? state.lastAt;
    const points = [0, 500, 90_000].map((ms) => [entered + ms, shown.digits]);
    const stream = { kind: 'stream', gauge: gauge.id, simulated: false, scale, unit, points };
    const file = { file: 'log.csv', hash };
    yield own(stream);
    yield own({ ...stream, imported: file });
    yield own({ ...stream, unit: unit === 'psi' ? 'bar' : 'psi', imported: file });
    yield own({ ...stream, scale: scale + 1, imported: file });
    yield own({ ...stream, points: [[1, 1]], imported: file });
  }
  for (const d of state.debts.slice(0, 4)) {
    const subject = d.subject ? { subject: d.subject } : {};
    yield own({ kind: 'debt', debt: d.key, text: '', ...subject });
    for (const a of plan.procedure.debts[d.key]?.answers ?? [])
      yield own({ kind: 'debt', debt: d.key, text: 'x', answer: a.key, ...subject });
  }
  yield own({ kind: 'unsafe', danger: 'at-risk', action: 'labelled', text: 'x', told: 'x' });
  yield own({ kind: 'joint', joint: 'j', name: 'union', place: '', whose: 'own' });
  for (const j of state.joints.slice(0, 2))
    yield own({ kind: 'joint-look', joint: j.id, found: 'growing', size: 'larger' });
  yield own({ kind: 'signature', role: 'witness', name: 'W', strokes: 'M0 0', as: 'inspector', saw: 'end' });
  yield own({ kind: 'signature', role: 'customer', name: 'C', refused: 'away' });
}
