/** What each procedure costs whoever conducts it, by the demo's best run of it: a table, and a floor for each that it must not pass. */
import { readdirSync, readFileSync } from 'node:fs';
import { loadPack } from '@/core/pack/load';
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
  /** How it ended: where none ended well, the shortest of the others stands. */
  readonly word: string;
}
const WELL = new Set(['tight', 'within-allowance']);
/** The run of each procedure with the fewest presses among those that ended well, else among all that ended. */
export function effortRows(): EffortRow[] {
  const best = new Map<string, EffortRow>();
  for (const { plan, events } of playDemo()) {
    const word = verdictOf(plan, reduce(plan, events))?.word;
    if (!word || plan.practice) continue;
    const whole = effortOf(plan, events);
    const first = effortOf(plan, events, (e) => e.kind === 'reading' || e.kind === 'hold-end');
    const row = { procedure: plan.procedure.id, toFirstHold: first.taps, ...whole, word };
    const before = best.get(row.procedure);
    const [well, was] = [WELL.has(word), WELL.has(before?.word ?? '')];
    if (!before || (well === was ? row.taps < before.taps : well)) best.set(row.procedure, row);
  }
  return [...best.values()].sort((a, b) => a.procedure.localeCompare(b.procedure));
}
/** Procedures and sequences that can be begun by themselves, of every pack. */
const startable = (): string[] =>
  readdirSync('packs').flatMap((file) => {
    const pack = loadPack(JSON.parse(readFileSync(`packs/${file}`, 'utf8')));
    return [
      ...pack.procedures.filter((p) => !p.partOnly).map((p) => p.id),
      ...(pack.sequences ?? []).map((s) => s.id),
    ];
  });
export function effort(report: Report): void {
  const floors = JSON.parse(readFileSync('benchmarks/effort.json', 'utf8')) as Record<string, number>;
  const rows = effortRows();
  for (const r of rows) {
    const line = `${r.toFirstHold} to the first hold, ${r.characters} characters, ${r.words} words, ${Math.round(r.seconds / 60)} min of hands${WELL.has(r.word) ? '' : `; ended ${r.word}`}`;
    report(`taps, ${r.procedure}`, r.taps, `taps; ${line}`, floors[r.procedure]);
  }
  const played = new Set(rows.map((r) => r.procedure));
  const others = startable().filter((id) => !played.has(id));
  if (others.length) console.log(`      no run in the demo: ${others.join(', ')}`);
}
