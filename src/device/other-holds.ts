import { holdEnds, runningHold } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { eventsOfRun, openRuns, type Store } from './store';

/** A hold of another run on this device. */
export interface OtherHold {
  readonly run: string;
  readonly place: string;
  readonly stage: string;
  /** ms on the server's line */ readonly ends: number;
}
/** Holds that run on this device beside the one on the screen, the next to end first. */
export async function otherHolds(store: Store, except: string): Promise<OtherHold[]> {
  const runs = (await openRuns(store)).filter((r) => r.run !== except);
  const found = await Promise.all(
    runs.map(async (r): Promise<OtherHold[]> => {
      const state = reduce(r.plan, await eventsOfRun(store, r.run));
      const hold = runningHold(state);
      const visit = state.visits[state.visits.length - 1];
      return hold && visit
        ? [{ run: r.run, place: r.plan.site.name, stage: visit.title, ends: holdEnds(hold) }]
        : [];
    }),
  );
  return found.flat().sort((a, b) => a.ends - b.ends);
}
