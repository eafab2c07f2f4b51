/** Conducts whole tests of a case and counts what came of them against the truth. */
import type { VerdictWord } from '@/core/verdict/verdict';
import { verdictOf } from '@/core/verdict/verdict';
import { conduct } from '@/core/conduct/conduct';
import { drawLeak, type HonestyCase } from './cases';
import { seeded } from './worlds';

export interface Tally {
  readonly name: string;
  readonly runs: number;
  readonly sound: Record<string, number>;
  readonly leaks: Record<string, number>;
  /** Tight although the leak lay above the run's own printed figure. */
  readonly falseTight: number;
  /** Tight verdicts that printed what the hold could show, over leaks. */
  readonly tightOverLeak: number;
  /** Printed 95 % intervals of a rate, and how many held the truth. */
  readonly intervals: number;
  readonly covered: number;
  /** Runs with a leak exactly as large as the figure that a sound run prints, and how many were not called good. */
  readonly atFigure: number;
  readonly seen: number;
  /** Runs that stood still although the bench was followed, with where. */
  readonly stuck: Record<string, number>;
}
const count = (t: Record<string, number>, key: string) => (t[key] = (t[key] ?? 0) + 1);

/** A fixed seed gives the same counts on every machine. */
export function tallyCase(c: HonestyCase, runs: number, seed: number): Tally {
  const sound: Record<string, number> = {};
  const leaks: Record<string, number> = {};
  const stuck: Record<string, number> = {};
  let falseTight = 0;
  let tightOverLeak = 0;
  let intervals = 0;
  let covered = 0;
  for (let i = 0; i < runs; i++) {
    const r = seeded(seed * 1_000_003 + i);
    const leak = drawLeak(r, c.leaks);
    const { section } = c.draw(r, leak);
    const ended = conduct(c.plan, section, { ...c.manner, random: r });
    const table = leak > 0 ? leaks : sound;
    if (ended.stuck) {
      count(stuck, ended.stuck.slice(0, 90));
      count(table, 'stuck');
      continue;
    }
    const verdict = verdictOf(c.plan, ended.state)!;
    count(table, verdict.word);
    const good: readonly VerdictWord[] = ['tight', 'within-allowance'];
    // classes of a rate and limits of a make-up permit a loss that is named; elsewhere what is good must not hide one
    const named = ended.state.visits.some((v) =>
      v.holds.some((h) => h.judgement?.rate ?? h.judgement?.makeUp),
    );
    if (leak > 0 && good.includes(verdict.word) && !named) {
      tightOverLeak += 1;
      if (verdict.adequacy && leak > verdict.adequacy.figure.value) falseTight += 1;
    }
    const rate = ended.state.visits
      .flatMap((v) => v.holds)
      .map((h) => h.judgement?.rate)
      .filter((x) => x !== undefined)
      .pop();
    if (rate && leak > 0) {
      intervals += 1;
      if (rate.low <= leak && leak <= rate.high) covered += 1;
    }
  }
  const { atFigure, seen } = atPrintedFigure(c, Math.round(runs / 2), seed);
  return {
    atFigure,
    seen,
    name: c.name,
    runs,
    sound,
    leaks,
    falseTight,
    tightOverLeak,
    intervals,
    covered,
    stuck,
  };
}

/** A leak as large as what the record says it could show: how often it is shown. */
function atPrintedFigure(c: HonestyCase, runs: number, seed: number): { atFigure: number; seen: number } {
  let figure = 0;
  for (let i = 0; i < 20 && !figure; i++) {
    const r = seeded(seed * 7_000_003 + i);
    const ended = conduct(c.plan, c.draw(r, 0).section, { ...c.manner, random: r });
    const verdict = ended.stuck ? null : verdictOf(c.plan, ended.state);
    const named = ended.state.visits.some((v) =>
      v.holds.some((h) => h.judgement?.rate ?? h.judgement?.makeUp),
    );
    if (verdict && ['tight', 'within-allowance'].includes(verdict.word) && !named)
      figure = verdict.adequacy?.figure.value ?? 0;
  }
  let seen = 0;
  if (!figure) return { atFigure: 0, seen };
  for (let i = 0; i < runs; i++) {
    const r = seeded(seed * 11_000_003 + i);
    const ended = conduct(c.plan, c.draw(r, figure).section, { ...c.manner, random: r });
    const word = ended.stuck ? 'stuck' : verdictOf(c.plan, ended.state)!.word;
    if (word !== 'tight' && word !== 'within-allowance') seen += 1;
  }
  return { atFigure: runs, seen };
}

const WORDS: readonly string[] = [
  'tight',
  'within-allowance',
  'not-tight',
  'void',
  'inconclusive',
  'refer',
  'stuck',
];
const SHORT = ['Tight', 'allow.', 'NotT', 'Void', 'Inconcl', 'Refer', 'stuck'];
/** The tallies as a table. */
export function tallyTable(tallies: readonly Tally[]): string {
  const row = (cells: readonly (string | number)[]) =>
    cells.map((x, i) => String(x).padEnd(i === 0 ? 28 : 8)).join('');
  const block = (title: string, pick: (t: Tally) => Record<string, number>) => [
    row([title, ...SHORT]),
    ...tallies.map((t) => row([t.name, ...WORDS.map((w) => pick(t)[w] ?? 0)])),
  ];
  return [
    ...block('sound', (t) => t.sound),
    '',
    ...block('leaking', (t) => t.leaks),
    '',
    row(['good over a leak', 'above', 'of', '95 %', 'of', 'seen', 'of']),
    ...tallies.map((t) =>
      row([
        t.name,
        t.falseTight,
        t.tightOverLeak,
        t.intervals ? t.covered : '-',
        t.intervals || '-',
        t.atFigure ? t.seen : '-',
        t.atFigure || '-',
      ]),
    ),
    ...tallies.flatMap((t) =>
      Object.entries(t.stuck).map(([where, n]) => `stuck: ${t.name}: ${n} x ${where}`),
    ),
  ].join('\n');
}
