/** What every kind of entry says of itself: whether its figures fit, what it changes, and itself in words. */
import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import type { EventOf, RunEvent } from './events';
import type { RunState, Visit } from './state';
import type { Refusal } from './transition';

export interface On {
  readonly plan: Plan;
  readonly state: RunState;
  /** The moment of the entry on the server's time line, ms UTC. */
  readonly at: number;
}
export interface OnStage extends On {
  readonly visit: Visit;
  readonly stage: Stage;
}
export interface EntryRule<E extends RunEvent> {
  /** It changes the step and therefore must be meant for the present one. */
  readonly transition?: true;
  /** Why a figure of it does not fit the instrument or the quantity it belongs to. Asked before it takes effect. */
  readonly misfit?: (event: E, on: Omit<On, 'at'>) => Refusal | null;
  /** Taken whether or not a stage is open; undefined: not now, it is an entry of the stage. */
  readonly anytime?: (event: E, on: On) => Refusal | null | undefined;
  /** Taken in the stage that is open. */
  readonly apply?: (event: E, on: OnStage) => Refusal | null;
  /** It reports a danger or ends what is judged: it is taken back only with a reason. */
  readonly sign?: (event: E, before: RunState) => boolean;
  /** No step of the procedure, and yet a press that can be taken back. */
  readonly undo?: true;
  /** Itself in words, with everything that was typed in it: for the log of a record. */
  readonly words: (event: E, on: Omit<On, 'at'>) => string;
  /** What its figure was entered as, where that is not plain from itself. */
  readonly entered?: string;
  /** A person typed or measured it beside the readings: it stands on the certificate, not only in its log. */
  readonly said?: (event: E) => boolean;
}
export type Fold<K extends RunEvent['kind']> = { readonly [P in K]: EntryRule<EventOf<P>> };
