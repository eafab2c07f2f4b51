import { OUTLET_TYPES } from '@/core/installation/parts';
import { bool, entry, id, line, one, text, word, yes } from '@/core/run/field';
import * as yup from 'yup';

const ends = () => yup.array().of(word()).strict(true).max(80).required();
/** What a look can be; what its two lists mean follows from it. */
const looks = ['closed', 'air', 'among', 'pipe'] as const;
export const mapEntries = {
  /**
   * Something seen that says which ends are joined. `on`: went quiet, bubbled, one of these, one pipe; `off`: kept flowing, watched and
   * still. `from` is '' where a pipe was seen.
   */
  look: entry({
    what: one(looks),
    from: line().max(80).defined(),
    on: ends(),
    off: ends(),
    plugged: ends(),
    /** Air: nothing bubbled and the pressure stood. */
    stood: yes(),
    /** Pipe: one for all of them, or one each. */
    joined: yes(),
    /** Bubbles where no end is listed. */
    elsewhere: line().max(200).optional(),
  }),
  /** A look was wrong: it stays in the log and counts no more. */
  'look-back': entry({ look: id(), why: word(300) }),
  /** An end that stood in no list. */
  'end-found': entry({ end: word(60), name: word(80), type: one(OUTLET_TYPES), near: text(120) }),
  /** A plug's seat is not round: an inflatable plug is needed there. */
  'end-seat': entry({ end: word(), round: bool() }),
};
