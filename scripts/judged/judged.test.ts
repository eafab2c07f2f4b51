/**
 * What the rules make of whole runs, word by word and figure by figure: every run of the demo, and tests conducted on sections
 * of known truth. The expected results lie beside this file and were read when they were written; whoever changes the
 * judgement sees here what else it changes. UPDATE_JUDGED=1 writes them anew, to be read again.
 */
import type { Plan } from '@/core/plan/plan';
import { showChange, showExact } from '@/core/quantity/exact';
import { type Figure, showFigure } from '@/core/quantity/figure';
import { begin, reduce, step } from '@/core/run/reduce';
import type { Hold, RunState } from '@/core/run/state';
import { conduct } from '@/core/conduct/conduct';
import { verdictOf } from '@/core/verdict/verdict';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readDemo } from '../demo-data';
import { playDemo } from '../demo-play';
import { drawLeak, honestyCases } from '../honesty/cases';
import { seeded } from '../honesty/worlds';

const FILE = path.join(process.cwd(), 'scripts/judged/expected.json');
const UPDATE = process.env.UPDATE_JUDGED === '1';
type Judged = Record<string, unknown>;
const expected: Record<string, Judged> =
  !UPDATE && existsSync(FILE) ? (JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, Judged>) : {};
const found: Record<string, Judged> = {};

const rounded = (x: number) => Number(x.toPrecision(6));
function holdWords(h: Hold): string {
  const j = h.judgement;
  if (h.broken) return `${h.role} broken: ${h.broken.reason}`;
  if (!j) return `${h.role} not ended`;
  return [
    `${h.role} ${h.minutes}/${h.rule} min: ${j.outcome}, ${showChange(j.change)}`,
    j.limit && `limit ${j.limit.broken} ${showExact(j.limit.value)}`,
    `counts ${j.perceptible.broken} ${showExact(j.perceptible.value)}`,
    j.corrected !== undefined && `corrected ${rounded(j.corrected)}`,
    j.uncorrected && 'uncorrected',
    j.barometer && `barometer ${showExact(j.barometer.share)} ${j.barometer.read ? 'read' : 'not read'}`,
    j.accept?.low && `from ${showExact(j.accept.low.value)}`,
    j.accept?.high && `to ${showExact(j.accept.high.value)}`,
    j.rate && `rate ${[j.rate.rate.value, j.rate.low, j.rate.high].map(rounded).join(' ')} ${j.rate.title}`,
    j.makeUp &&
      `added ${showExact(j.makeUp.added)} of ${j.makeUp.limit ? showExact(j.makeUp.limit.value) : 'no limit'}, lowest ${showExact(j.makeUp.lowest)}`,
  ]
    .filter(Boolean)
    .join('; ');
}
const inputs = (f: Figure) =>
  [f.formula, ...f.inputs.map((i) => `${i.name} ${i.value}`), f.source, f.note].filter(Boolean).join('; ');
function judged(plan: Plan, state: RunState): Judged {
  const v = verdictOf(plan, state);
  return {
    word: v?.word ?? state.phase,
    use: v?.use,
    sentence: v?.sentence,
    plain: v?.plain,
    reasons: v?.reasons.map((r) => `${r.code}: ${r.text}`),
    stages: v?.stages.map((s) => `${s.title}: ${s.word}, ${s.text}`),
    seen: v?.adequacy && inputs(v.adequacy.figure),
    measured: v?.leakRate && inputs(v.leakRate),
    adequacy: v?.adequacy && `${v.adequacy.enough}: ${v.adequacy.text} [${showFigure(v.adequacy.figure)}]`,
    leakRate: v?.leakRate && showFigure(v.leakRate),
    parts: v?.parts?.map((p) => `${p.key}: ${p.word}`),
    visits: state.visits.map((s) =>
      [
        s.stage,
        s.outcome ?? s.split ?? (s.skipped ? 'skipped' : 'open'),
        ...s.holds.map(holdWords),
        ...s.cycles.map((c) => `${c.name} ${c.outcome ?? 'open'}${c.hold ? ` ${holdWords(c.hold)}` : ''}`),
        s.unheld && `${s.unheld.way} ${s.unheld.minutes.toFixed(1)} of ${s.unheld.explained} min`,
        s.drawn && `${showExact(s.drawn.volume)}: ${showFigure(s.drawn.rate)}`,
      ]
        .filter(Boolean)
        .join(' | '),
    ),
    findings: state.findings,
    debts: state.debts.map((d) => `${d.key}${d.subject ? ` ${d.subject}` : ''}`),
    counts: `${state.repeats} repeats, ${state.fails} fails, ${state.passes} passes, ${state.rises} rises`,
    reports: state.reports.map((r) => `${r.to}: ${r.text}`),
    without: state.withoutEffect.map((w) => w.code),
  };
}
/** The verdict alone, without how it came about. */
function brief(plan: Plan, state: RunState): Judged {
  const {
    visits: _v,
    stages: _s,
    seen: _a,
    measured: _m,
    plain: _p,
    without: _w,
    ...rest
  } = judged(plan, state);
  return rest;
}
const check = (name: string, plan: Plan, state: RunState, of = judged) => {
  const now = JSON.parse(JSON.stringify(of(plan, state))) as Judged;
  found[name] = now;
  if (!UPDATE) expect(now).toEqual(expected[name]);
};

const plays = new Map<number, ReturnType<typeof playDemo>[number]>();
const played = (i: number) => plays.get(i) ?? plays.set(i, playDemo([i])[0]!).get(i)!;
describe('runs of the demo', () => {
  const runs = readDemo().runs.map((d, i) => [`demo ${i}: ${d.procedure} ${d.case}`, i] as const);
  test.each(runs)('%s', (name, i) => {
    const { plan, events } = played(i);
    check(name, plan, reduce(plan, events));
  });
});
/** Stopped on the way, for each reason in turn: what was found before stands, what was not is no result. */
describe('runs of the demo, stopped', () => {
  const REASONS = ['smell', 'voltage', 'movement', 'abandoned', 'mistake'] as const;
  const cuts = readDemo().runs.flatMap((d, i) =>
    [0.45, 0.65, 0.85].map(
      (part, k) => [`demo ${i} stopped at ${part}`, i, part, REASONS[(i + k) % 5]!] as const,
    ),
  );
  test.each(cuts)('%s', (name, i, part, reason) => {
    const { plan, events } = played(i);
    const state = begin(plan);
    for (const e of events.slice(0, Math.round(events.length * part))) step(plan, state, e);
    const own = { ...events[0]!, deviceSeq: 9999, expects: '', at: state.lastAt + 1000 };
    step(plan, state, { ...own, kind: 'stop', id: 'stop' });
    step(plan, state, {
      ...own,
      kind: 'stop-reason',
      id: 'why',
      reason,
      text: i % 2 ? 'said so' : '',
    });
    check(name, plan, state, brief);
  });
});
describe('runs of the demo, as the first format judged', () => {
  const runs = readDemo().runs.map((d, i) => [`demo ${i} by the first format`, i] as const);
  test.each(runs)('%s', (name, i) => {
    const { plan, events } = played(i);
    const first = { ...plan, format: 1 as const };
    check(name, first, reduce(first, events), brief);
  });
});
describe('conducted on a section of known truth', () => {
  const cases = honestyCases().flatMap((c) =>
    ['sound', 'leaking', 'leaking more', 'leaking otherwise', 'leaking least', 'sound again'].map(
      (how, i) => [`${c.name}, ${how}`, c, i] as const,
    ),
  );
  test.each(cases)('%s', (name, c, i) => {
    const r = seeded(77 + i);
    const leak = i % 5 ? Math.max(drawLeak(r, c.leaks), c.leaks[0]) * (i === 4 ? 1 : i ** 2) : 0;
    const { section } = c.draw(r, leak);
    check(name, c.plan, conduct(c.plan, section, { ...c.manner, random: r }).state);
  });
});
afterAll(() => {
  if (UPDATE) writeFileSync(FILE, `${JSON.stringify(found, null, 1)}\n`);
});
test('nothing expected is left untried', () => {
  expect(UPDATE || Object.keys(expected).sort()).toEqual(UPDATE || Object.keys(found).sort());
});
