/**
 * What the rules make of whole runs, word by word and figure by figure: every run of the demo, and tests conducted on sections
 * of known truth. The expected results lie beside this file and were read when they were written; whoever changes the
 * judgement sees here what else it changes. UPDATE_JUDGED=1 writes them anew, to be read again.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Plan } from '@/core/plan/plan';
import { showChange, showExact } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import type { Hold, RunState } from '@/core/run/state';
import { conduct } from '@/core/testing/tester';
import { verdictOf } from '@/core/verdict/verdict';
import { readDemo } from '../demo-data';
import { playDemo } from '../demo-play';
import { drawLeak, honestyCases } from '../honesty/cases';
import { seeded } from '../honesty/worlds';
import { reduce } from '@/core/run/reduce';

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
function judged(plan: Plan, state: RunState): Judged {
  const v = verdictOf(plan, state);
  return {
    word: v?.word ?? state.phase,
    use: v?.use,
    sentence: v?.sentence,
    reasons: v?.reasons.map((r) => `${r.code}: ${r.text}`),
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
const check = (name: string, plan: Plan, state: RunState) => {
  const now = JSON.parse(JSON.stringify(judged(plan, state))) as Judged;
  found[name] = now;
  if (!UPDATE) expect(now).toEqual(expected[name]);
};

describe('runs of the demo', () => {
  const runs = readDemo().runs.map((d, i) => [`demo ${i}: ${d.procedure} ${d.case}`, i] as const);
  test.each(runs)('%s', (name, i) => {
    const { plan, events } = playDemo([i])[0]!;
    check(name, plan, reduce(plan, events));
  });
});
describe('conducted on a section of known truth', () => {
  const cases = honestyCases().flatMap((c) =>
    ['sound', 'leaking', 'leaking more'].map((how, i) => [`${c.name}, ${how}`, c, i] as const),
  );
  test.each(cases)('%s', (name, c, i) => {
    const r = seeded(77 + i);
    const leak = i ? Math.max(drawLeak(r, c.leaks), c.leaks[0]) * i ** 2 : 0;
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
