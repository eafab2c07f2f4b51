/**
 * The entries beside those that were made. At every step of every run of the demo each entry is tried a little otherwise:
 * a display step up or down, exactly at and just past each limit, a second early, a day late, another answer, another unit,
 * the opposite, nothing; at every third, what may come at any moment is tried too: STOP, a smell, another gauge, a photo, a
 * correction, what will not stand, a log read in. What is refused and why, and the whole state that follows, must stay as it was when it was read.
 * Beside it stands what the bench would say and ask in each state. UPDATE_JUDGED=1 writes both anew.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createHash } from 'node:crypto';
import { UNITS } from '@/core/quantity/unit';
import { parseWithUnit as q, type Exact } from '@/core/quantity/exact';
import type { Plan } from '@/core/plan/plan';
import { barometerNeeded } from '@/core/run/barometer';
import { eventSchema, type RunEvent } from '@/core/run/events';
import { foldOf } from '@/core/run/folds';
import { stageBand } from '@/core/run/hold-spec';
import { holdLimits } from '@/core/run/hold-limits';
import { faultsFound, missingInventory } from '@/core/run/inventory';
import { ownKitShares } from '@/core/run/own-kit';
import { besidePhoto, lastReadingId, readingsOf } from '@/core/run/photos';
import {
  checkLines,
  currentVisit,
  debtBefore,
  debtWords,
  drips,
  escapes,
  expectation,
  gaugeOf,
  inDebtOrder,
  leakingBounds,
  leakingJoints,
  openJoints,
  openLines,
  runningHold,
  stageOf,
  temperatureNeeded,
  unsafeOpen,
} from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import { stepTimes } from '@/core/run/step-times';
import type { RunState } from '@/core/run/state';
import { unheldWays } from '@/core/run/unheld';
import { COURSES } from '@/core/run/courses';
import { readDemo } from '../demo-data';
import { playDemo } from '../demo-play';

const FILE = path.join(process.cwd(), 'scripts/judged/neighbours.json');
const UPDATE = process.env.UPDATE_JUDGED === '1';
interface Seen {
  /** Entries tried, refused, by code. */
  readonly refused: Record<string, number>;
  readonly taken: number;
  /** Over every refusal's words and every state that followed. */
  readonly states: string;
  readonly asked: string;
}
const expected = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Record<string, Seen>;
const found: Record<string, Seen> = {};

const isFigure = (v: unknown): v is Exact =>
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
function limitsHere(plan: Plan, state: RunState): Exact[] {
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
function* neighbours(event: RunEvent, limits: readonly Exact[]): Generator<RunEvent> {
  const at = (ms: number) =>
    ({
      ...event,
      at: event.at + ms,
      mono: event.mono + ms,
      ...('readAt' in event ? { readAt: Number(event.readAt) + ms } : {}),
    }) as RunEvent;
  for (const ms of [-1000, 1000, -60_000, 600_000, 86_400_000]) yield at(ms);
  if ('readAt' in event) yield { ...event, at: event.at + 45_000 } as RunEvent;
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

/** Entries that nobody made here, and that may come at any moment. */
function* strangers(plan: Plan, state: RunState, event: RunEvent): Generator<RunEvent> {
  const base = Object.fromEntries(
    Object.entries(event).filter(([k]) =>
      ['run', 'device', 'deviceSeq', 'zone', 'offset', 'pageLoad', 'by', 'byName'].includes(k),
    ),
  );
  const own = (payload: object, ms = 1000) =>
    ({
      ...base,
      id: '0000000f-0000-4000-8000-00000000000f',
      at: event.at + ms,
      mono: event.mono + ms,
      expects: expectation(state),
      ...payload,
    }) as RunEvent;
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

/** What the bench says and asks where the run stands now. */
function asks(plan: Plan, state: RunState): unknown[] {
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  const hold = runningHold(state);
  return [
    expectation(state),
    stage && [
      unheldWays(state, stage),
      stage.kind === 'checks' ? checkLines(plan, stage).map((l) => l.id) : [],
    ],
    visit && [
      stage?.kind === 'checks' ? openLines(plan, visit).map((l) => l.id) : [],
      COURSES[visit.kind](visit, plan),
    ],
    hold && stage && [temperatureNeeded(plan, state, hold), barometerNeeded(plan, state, stage, hold)],
    hold &&
      gaugeOf(plan, state) &&
      ownKitShares(plan, state, gaugeOf(plan, state)!, {
        part: stage?.part,
        role: hold.role,
        minutes: hold.minutes,
        start: hold.start.figure,
      }),
    [openJoints(state), leakingJoints(state), leakingBounds(state)].map((list) => list.map((j) => j.id)),
    [escapes(state), drips(state), unsafeOpen(plan, state)],
    inDebtOrder(plan, state).map((d) => [debtWords(plan, d), debtBefore(plan, state, d.key)]),
    [missingInventory(plan, state), faultsFound(plan, state), lastReadingId(state)],
    state.photos.map((p) => besidePhoto(state, p)),
    stepTimes(state),
  ];
}

const runs = readDemo().runs.map((d, i) => [`demo ${i}: ${d.procedure} ${d.case}`, i] as const);
test.each(runs)('%s', (name, i) => {
  const { plan, events } = playDemo([i])[0]!;
  const state = begin(plan);
  const [states, asked] = [createHash('sha256'), createHash('sha256')];
  const refused: Record<string, number> = {};
  let taken = 0;
  for (const { position: _p, received: _r, ...placed } of events) {
    const event = placed as RunEvent;
    const limits = limitsHere(plan, state);
    const now = JSON.stringify(state);
    // lines of one list are much alike: one in four is enough
    const alike = event.kind === 'check' && event.deviceSeq % 4 !== 0;
    /** Tries an entry on the run as it stands, and keeps what came of it. */
    const attempt = (other: RunEvent, said: (no: ReturnType<typeof step>, copy: RunState) => unknown) => {
      if (!eventSchema.isValidSync(other, { strict: true })) return;
      const copy = JSON.parse(now) as RunState;
      const no = step(plan, copy, other);
      if (no) refused[no.code] = (refused[no.code] ?? 0) + 1;
      else taken += 1;
      states.update(JSON.stringify(said(no, copy)));
    };
    for (const other of alike ? [] : neighbours(event, limits))
      attempt(other, (no, copy) => [
        no,
        no ? '' : foldOf(other).words(other, { plan, state: copy } as never),
        copy,
      ]);
    if (event.deviceSeq % 3 === 0)
      for (const other of strangers(plan, state, event))
        attempt(other, (no, copy) => [no, copy, no ? [] : asks(plan, copy)]);
    step(plan, state, event);
    asked.update(JSON.stringify(asks(plan, state)));
  }
  found[name] = {
    refused: Object.fromEntries(Object.entries(refused).sort()),
    taken,
    states: states.digest('hex').slice(0, 24),
    asked: asked.digest('hex').slice(0, 24),
  };
  if (!UPDATE) expect(found[name]).toEqual(expected[name]);
});
afterAll(() => {
  if (UPDATE) writeFileSync(FILE, `${JSON.stringify(found, null, 1)}\n`);
});
