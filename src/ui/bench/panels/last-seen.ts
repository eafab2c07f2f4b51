import { exact, type Exact } from '@/core/quantity/exact';
import type { PanelProps } from '../shared';

export interface Seen {
  readonly figure: Exact;
  readonly at: number;
  readonly live: boolean;
  readonly simulated: boolean;
}
/** What the gauge shows: its stream where there is one, otherwise the newest entry. */
export function lastSeen(
  { view, visit }: Pick<PanelProps, 'view' | 'visit'>,
  start: { figure: Exact; at: number },
): Seen {
  const { live, state } = view;
  if (live && live.gauge === state.gauge)
    return {
      figure: exact(live.digits, live.scale, start.figure.unit),
      at: live.at,
      live: true,
      simulated: live.simulated,
    };
  const newest = [
    start,
    ...visit.readings
      .filter((r) => !r.late && r.at >= start.at)
      .map((r) => ({ figure: (r.corrected ?? r).figure, at: r.readMoment })),
  ].pop()!;
  return { ...newest, live: false, simulated: false };
}
