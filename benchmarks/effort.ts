/** What each procedure costs whoever conducts it, by the demo's best run of it: a table, and a floor for each that it must not pass. */
import { readFileSync } from 'node:fs';
import { effortOf } from '@/core/testing/effort';
import { verdictOf } from '@/core/verdict/verdict';
import { reduce } from '@/core/run/reduce';
import { playDemo } from '../scripts/demo-play';
import type { Report } from './run';

export interface EffortRow {
  readonly procedure: string;
  readonly toFirstHold: number;
  readonly taps: number;
  readonly characters: number;
  readonly words: number;
  readonly seconds: number;
}
/** The run of each procedure with the fewest presses among those that ended well. */
export function effortRows(): EffortRow[] {
  const best = new Map<string, EffortRow>();
  for (const { plan, events } of playDemo()) {
    const word = verdictOf(plan, reduce(plan, events))?.word;
    if (word !== 'tight' && word !== 'within-allowance') continue;
    const whole = effortOf(plan, events);
    const first = effortOf(plan, events, (e) => e.kind === 'reading' || e.kind === 'hold-end');
    const row = { procedure: plan.procedure.id, toFirstHold: first.taps, ...whole };
    const before = best.get(row.procedure);
    if (!before || row.taps < before.taps) best.set(row.procedure, row);
  }
  return [...best.values()].sort((a, b) => a.procedure.localeCompare(b.procedure));
}
export function effort(report: Report): void {
  const floors = JSON.parse(readFileSync('benchmarks/effort.json', 'utf8')) as Record<string, number>;
  for (const r of effortRows()) {
    const line = `${r.toFirstHold} to the first hold, ${r.characters} characters, ${r.words} words, ${Math.round(r.seconds / 60)} min of hands`;
    report(`taps, ${r.procedure}`, r.taps, `taps; ${line}`, floors[r.procedure]);
  }
}
