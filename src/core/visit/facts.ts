import type { VisitTest } from './build';
import type { VisitTask } from './types';

/** A visit as it is kept: its tests, its tasks, and what was chosen by hand. */
export interface VisitFacts {
  readonly id: string;
  readonly title: string;
  /** Day (ISO) and clock time at which it begins, in its zone. */
  readonly day: string;
  readonly start: string;
  readonly zone: string;
  readonly crew: number;
  /** Who goes, by id; absent or empty: nobody was named. */
  readonly people?: readonly string[];
  /** Who must be present, by role or name, and who is invited. */
  readonly present: readonly string[];
  readonly permit: string;
  /** Clock time by which the place must have its gas or water again; '' for none. */
  readonly promise: string;
  readonly tests: readonly VisitTest[];
  readonly tasks: readonly VisitTask[];
  /** Chosen by hand: when each task is wished to begin, and which may begin no earlier. Empty: the planner decides. */
  readonly wishes: Readonly<Record<string, number>>;
  readonly pinned: readonly string[];
  /** Tasks said to be done, with their minutes from the start. */
  readonly done: Readonly<Record<string, { readonly start: number; readonly end: number }>>;
}

/** Permit and presence with which a test of a visit begins: its own as planned, else the visit's; people of both, each once. */
export function attendanceOn(
  visit: Pick<VisitFacts, 'permit' | 'present'>,
  test: Pick<VisitTest, 'permit' | 'doneBy' | 'present' | 'section'>,
): Pick<VisitTest, 'permit' | 'doneBy' | 'present' | 'section'> {
  const permit = test.permit ?? visit.permit;
  const own = (test.present ?? '').split(',').map((x) => x.trim());
  const present = [...new Set([...own, ...visit.present])].filter(Boolean).join(', ').slice(0, 200);
  return {
    ...(permit ? { permit } : {}),
    ...(test.section ? { section: test.section } : {}),
    ...(test.doneBy ? { doneBy: test.doneBy } : {}),
    ...(present ? { present } : {}),
  };
}
