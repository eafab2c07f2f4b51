/** Every reading of a record as a row: what the table in print and the CSV show. */
import type { Plan } from '@/core/plan/plan';
import { exact, type Exact } from '@/core/quantity/exact';
import type { PlacedEvent } from '@/core/run/events';
import { readingsOf } from '@/core/run/photos';
import { gaugeOf } from '@/core/run/read';
import { wasShown } from '@/core/run/readings';
import type { RunState } from '@/core/run/state';

export type ReadingSource = 'typed' | 'same' | 'display' | 'streamed' | 'log';
export const SOURCE_WORDS: Record<ReadingSource, string> = {
  typed: 'typed',
  same: 'same as before',
  display: 'taken from the display',
  streamed: 'streamed',
  log: 'from the gauge’s log',
};
export interface ReadingRow {
  readonly stage: string;
  readonly what: string;
  readonly figure: Exact;
  /** When it was read: ms UTC on the server's line; when it was entered on the device's own clock; when it came here. */
  readonly read: number;
  readonly device: number | null;
  readonly received: number | null;
  readonly by: string;
  readonly source: ReadingSource;
  readonly late: boolean;
  readonly corrected: Exact | null;
  readonly reason: string;
}

/**
 * Readings in the order they were taken.
 * @param withTrace also every display value that was streamed or read in from a log
 */
export function readingRows(
  plan: Plan,
  state: RunState,
  events: readonly PlacedEvent[],
  withTrace = false,
): ReadingRow[] {
  const byId = new Map(events.map((e) => [e.id, e]));
  const seen = new Set<string>();
  const rows = readingsOf(state).flatMap(({ reading, what }): ReadingRow[] => {
    // one entry may end one thing and begin the next: it is one reading
    if (seen.has(reading.id)) return [];
    seen.add(reading.id);
    const event = byId.get(reading.id);
    const cut = what.lastIndexOf(', ');
    return [
      {
        stage: what.slice(0, cut),
        what: what.slice(cut + 2),
        figure: reading.figure,
        read: reading.readMoment,
        device: event?.at ?? null,
        received: event?.received ?? null,
        by: reading.byName,
        source: wasShown(state, reading) ? 'display' : reading.same ? 'same' : 'typed',
        late: reading.late,
        corrected: reading.corrected?.figure ?? null,
        reason: reading.corrected?.reason ?? '',
      },
    ];
  });
  const step = gaugeOf(plan, state)?.resolution;
  const trace =
    withTrace && step
      ? state.visits.flatMap((v) => {
          const imported = new Set(
            events.flatMap((e) =>
              e.kind === 'stream' && e.imported ? e.points.map(([t, d]) => `${t} ${d}`) : [],
            ),
          );
          return v.trace.map(([t, digits]): ReadingRow => ({
            stage: v.title,
            what: 'display value',
            figure: exact(digits, step.scale, step.unit),
            read: t,
            device: null,
            received: null,
            by: '',
            source: imported.has(`${t} ${digits}`) ? 'log' : 'streamed',
            late: false,
            corrected: null,
            reason: '',
          }));
        })
      : [];
  return [...rows, ...trace].sort((a, b) => a.read - b.read);
}
