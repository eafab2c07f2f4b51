/** A test that was conducted on a simulated installation, to be asked about: by a scenario, something hidden in it, and a seed. */
import type { Pack } from '@/core/pack/schema';
import { faultsFor, withFault } from '../faults';
import { play, type Played } from '../play';
import type { Scenario } from '../scenario';
import { type Installations, type Occasion, planOfScenario } from '../session';
import type { Pick } from './pick';

export interface Shelf {
  readonly scenarios: readonly Scenario[];
  readonly packOf: (scenario: Scenario) => Pack | undefined;
  readonly installations: Installations;
  readonly on: Occasion;
}
export interface Conducted {
  readonly scenario: Scenario;
  /** What is hidden by name; null: what the scenario hides. */ readonly fault: string | null;
  readonly session: Played;
}
/** Whoever follows the bench. */
const BY_THE_BENCH = { name: 'by the bench', good: true };
/**
 * One conduct, another for each seed. @param own also the conducts that scenarios tell of, good and mistaken
 * @returns null where it came to no end: draw another
 */
export function conducted(shelf: Shelf, pick: Pick, own: boolean): Conducted | null {
  const scenario = pick.one(shelf.scenarios);
  const pack = shelf.packOf(scenario);
  if (!pack) return null;
  const told = own && pick.next() < 0.5 ? pick.one(scenario.conducts) : null;
  const seed = pick.whole(1e9);
  if (told) {
    const session = play({ ...scenario, seed }, told, pack, shelf.installations, shelf.on);
    return session.stuck === null ? { scenario, fault: null, session } : null;
  }
  const faults = faultsFor(planOfScenario(scenario, pack, shelf.installations, shelf.on));
  const fault = pick.one(Object.keys(faults));
  if (!fault) return null;
  const hidden = { ...withFault(scenario, fault, faults[fault]!), seed, happenings: [] };
  const session = play(hidden, BY_THE_BENCH as never, pack, shelf.installations, shelf.on);
  return session.stuck === null ? { scenario, fault, session } : null;
}
