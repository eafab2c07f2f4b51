import type { Hold, RunState, Visit } from '@/core/run/state';

/** Every hold of a run in order, those of its cycles among them, each with its name and the visit it belongs to. */
export const holdsOf = (
  state: RunState,
): { readonly hold: Hold; readonly title: string; readonly visit: Visit }[] =>
  state.visits.flatMap((visit) => [
    ...visit.holds.map((hold) => ({ hold, title: visit.title, visit })),
    ...visit.cycles.flatMap((c) => [
      ...(c.settle ? [{ hold: c.settle, title: `${c.name}, settle`, visit }] : []),
      ...(c.hold ? [{ hold: c.hold, title: c.name, visit }] : []),
    ]),
  ]);
