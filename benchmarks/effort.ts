/**
 * What each procedure costs whoever conducts it: by the demo's best run of it, and where the demo has none, by a tester who
 * follows the bench on a sound section. A table, and a floor for each that it must not pass.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { loadPack } from '@/core/pack/load';
import type { Plan } from '@/core/plan/plan';
import type { RunEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { effortOf } from '@/core/testing/effort';
import { conduct } from '@/core/conduct/conduct';
import { verdictOf } from '@/core/verdict/verdict';
import { playDemo } from '../scripts/demo-play';
import { soundOf } from '../scripts/honesty/sound';
import { seeded } from '../scripts/honesty/worlds';
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
const rowOf = (plan: Plan, events: readonly RunEvent[], word: string): EffortRow => ({
  procedure: plan.procedure.id,
  toFirstHold: effortOf(plan, events, (e) => e.kind === 'reading' || e.kind === 'hold-end').taps,
  ...effortOf(plan, events),
  word,
});
const WELL = new Set(['tight', 'within-allowance']);
/** The run of each procedure with the fewest presses among those that ended well, else among all that ended. */
export function effortRows(): EffortRow[] {
  const best = new Map<string, EffortRow>();
  for (const { plan, events } of playDemo()) {
    const word = verdictOf(plan, reduce(plan, events))?.word;
    if (!word || plan.practice) continue;
    const row = rowOf(plan, events, word);
    const before = best.get(row.procedure);
    const [well, was] = [WELL.has(word), WELL.has(before?.word ?? '')];
    if (!before || (well === was ? row.taps < before.taps : well)) best.set(row.procedure, row);
  }
  for (const id of startable()) if (!best.has(id)) best.set(id, conducted(id));
  return [...best.values()].sort((a, b) => a.procedure.localeCompare(b.procedure));
}
/** A tester follows the bench through it, on a section that is sound. */
function conducted(id: string): EffortRow {
  const { plan, section } = soundOf(id);
  const r = seeded(5);
  const { log, state, stuck } = conduct(plan, section(r), {
    gauges: plan.gauges.map((g) => g.name),
    random: r,
    noise: 0.1,
  });
  if (stuck) throw new Error(`${id}: ${stuck}`);
  return rowOf(plan, log, verdictOf(plan, state)!.word);
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
}
