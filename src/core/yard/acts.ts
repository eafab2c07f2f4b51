/** What happens in practice beside the bench's own log: hands at the installation, what comes in between, what is concluded. */
import { oneOf } from '@/core/grammar/one-of';
import { maybe, number, object, type Of, text } from '@/core/grammar/schema';
import type { Doing } from '@/core/simulation/hands';
import * as yup from 'yup';

const moment = number().min(0);
const work = object({ act: text(20), value: maybe(), id: maybe() });
const acts = {
  /** Done at the installation by the one who practises. */
  hand: object({ at: moment, work, action: yup.mixed<Doing>().required() }),
  /** Something of the scenario came about. */
  happened: object({ at: moment, happening: text(60) }),
  answered: object({ at: moment, happening: text(60), answer: text(60) }),
  /** What it was, where, and why one thinks so. */
  concluded: object({
    at: moment,
    cause: text(60),
    place: yup.string().strict(true).max(60).defined(),
    because: yup.string().strict(true).max(1000).defined(),
  }),
  /** Time that nothing was asked in was passed at once, ms; below nothing: so long the clock of it stood, and is behind by so much. */
  passed: object({ at: moment, ms: number().integer() }),
  /** The one who trains changed what is hidden, said something, or stopped the clock of it. */
  hidden: object({ at: moment, by: text(120), change: yup.mixed<object>().required() }),
  note: object({ at: moment, by: text(120), text: text(1000) }),
  paused: object({ at: moment, paused: yup.boolean().strict(true).required() }),
  /** The one who trains signs what came of an exam. */
  signed: object({ at: moment, by: text(120), text: yup.string().strict(true).max(1000).defined() }),
  /** It was ended by what would have been dangerous, or given up. */
  halted: object({ at: moment, why: text(1000), danger: yup.boolean().strict(true).required() }),
};
export const actSchema = oneOf('kind', acts);
export type YardAct = {
  [K in keyof typeof acts]: Of<(typeof acts)[K]> & { readonly kind: K };
}[keyof typeof acts];
