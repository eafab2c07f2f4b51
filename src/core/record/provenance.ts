/** How the readings of a record came: by hand, streamed, late, corrected, overtaken, and where nothing was read. */
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { clockInZone } from '@/core/quantity/in-zone';
import { readingsOf } from '@/core/run/photos';
import { wasShown } from '@/core/run/readings';
import type { RunState } from '@/core/run/state';
import { duration } from '@/core/quantity/duration';
import { holdsOf } from './holds';

/** A time in a hold without any reading, ms on the server's line. */
export interface Gap {
  readonly title: string;
  readonly from: number;
  readonly to: number;
}
export interface Provenance {
  readonly typed: number;
  readonly taken: number;
  readonly same: number;
  readonly late: number;
  readonly corrected: readonly string[];
  /** Display values that came over the air, and values of a gauge's own log. */
  readonly streamed: number;
  readonly imported: number;
  readonly overtaken: number;
  readonly refused: number;
  readonly gaps: readonly Gap[];
}
/** A gap is told from here on, ms. */
const GAP_MS = 60_000;

export function provenanceOf(state: RunState): Provenance {
  const all = readingsOf(state).map((r) => r.reading);
  const readings = [...new Map(all.map((r) => [r.id, r])).values()];
  const imported = state.imports.reduce((n, i) => n + i.points, 0);
  const points = state.visits.reduce((n, v) => n + v.trace.length, 0);
  return {
    typed: readings.filter((r) => !wasShown(state, r)).length,
    taken: readings.filter((r) => wasShown(state, r)).length,
    same: readings.filter((r) => r.same).length,
    late: readings.filter((r) => r.late).length,
    corrected: readings.flatMap((r) =>
      r.corrected
        ? [
            `${showExact(r.figure)} to ${showExact(r.corrected.figure)} by ${r.corrected.byName}: ${r.corrected.reason}`,
          ]
        : [],
    ),
    streamed: Math.max(0, points - imported),
    imported,
    overtaken: state.withoutEffect.filter((w) => w.code === 'overtaken').length,
    refused: state.withoutEffect.filter((w) => w.code !== 'overtaken').length,
    gaps: gapsOf(state),
  };
}

/** Times over a minute in which a hold was not read. */
export function gapsOf(state: RunState): Gap[] {
  return holdsOf(state).flatMap(({ hold, title, visit }) => {
    const from = hold.startedAt;
    const to = hold.end?.readMoment ?? hold.broken?.at;
    if (to === undefined) return [];
    const within = (t: number) => t > from && t < to;
    const moments = [
      from,
      ...visit.readings.map((r) => r.readMoment).filter(within),
      ...hold.topUps.map((t) => t.at).filter(within),
      ...visit.trace.map(([t]) => t).filter(within),
      to,
    ].sort((a, b) => a - b);
    return moments
      .slice(1)
      .flatMap((t, i) => (t - moments[i]! > GAP_MS ? [{ title, from: moments[i]!, to: t }] : []));
  });
}
const times = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;
const MOST_GAPS = 6;

/** The same in sentences, for page and print. */
export function provenanceLines(plan: Plan, state: RunState): string[] {
  const p = provenanceOf(state);
  const clock = (ms: number) => clockInZone(ms, plan.made.zone);
  const said = [
    `${times(p.typed, 'reading')} typed by hand${p.same ? `, ${p.same} of them as “same as before”` : ''}`,
    ...(p.taken ? [`${times(p.taken, 'reading')} taken over from the display`] : []),
    ...(p.streamed ? [`${times(p.streamed, 'display value')} streamed by the gauge`] : []),
    ...state.imports.map(
      (i) =>
        `${times(i.points, 'value')} read in afterwards from the gauge’s log ${i.file} (SHA-256 ${i.hash.slice(0, 16)}…)`,
    ),
    ...(p.late ? [`${times(p.late, 'reading')} entered late`] : []),
    ...p.corrected.map((c) => `corrected: ${c}`),
    ...(p.overtaken ? [`${times(p.overtaken, 'entry', 'entries')} overtaken by another device`] : []),
    ...(p.refused ? [`${times(p.refused, 'entry', 'entries')} without effect, kept in the log`] : []),
  ];
  const shown = [...p.gaps].sort((a, b) => b.to - b.from - (a.to - a.from)).slice(0, MOST_GAPS);
  const gaps = shown
    .sort((a, b) => a.from - b.from)
    .map((g) => `${g.title}: not read from ${clock(g.from)} to ${clock(g.to)} (${duration(g.to - g.from)})`);
  const rest = p.gaps.length - shown.length;
  return [...said, ...gaps, ...(rest > 0 ? [`and ${times(rest, 'shorter gap')} over a minute`] : [])];
}
