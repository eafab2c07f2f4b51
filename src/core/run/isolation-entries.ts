import * as yup from 'yup';
import { bool, entry, exactSchema, timed, word } from './field';

/** Ids of parts of the drawing. */
const parts = () => yup.array().of(word(80)).strict(true).max(60).required();

/** The search after a hold that failed: parts of the section held by themselves, with what was closed for it. */
export const isolationEntries = {
  /** Parts that were worked on today; none where the list is empty. */
  'worked-on': entry({ parts: parts() }),
  'isolation-start': entry({ ...timed, closed: parts().min(1) }),
  'isolation-end': entry(timed),
  /** Where air is blown in: what this part loses at the reference pressure. */
  'isolation-flow': entry({ closed: parts().min(1), flow: exactSchema }),
  /** Nothing came of it: the wrong valve, or it could not be raised. */
  'isolation-dropped': entry({}),
  /** What was closed for the search is open again; or it stays shut for good. */
  'isolation-reopened': entry({ left: bool() }),
};
