import {
  entry,
  exactSchema,
  integer,
  isTrue,
  line,
  maybeExact,
  one,
  reason,
  text,
  timed,
  word,
  yes,
} from '@/core/run/field';

const when = () => one(['start', 'end']);
export const holdEntries = {
  'hold-start': entry(timed),
  /** `short`: why a hold was ended after the rule's minutes but before those planned. */
  'hold-end': entry({ ...timed, short: reason() }),
  /** The running hold goes on for so many minutes more than planned: overnight, or for a longer look. */
  extend: entry({ minutes: integer().min(1).max(4320), why: word(300) }),
  reading: entry({ ...timed, late: yes() }),
  /** `added`: water pumped in, where it was measured. */
  'top-up': entry({ before: exactSchema, after: exactSchema, added: maybeExact() }),
  /** `place`: where it was read, where several are; between start and end it is only kept. */
  temperature: entry({
    when: one(['start', 'between', 'end']),
    figure: maybeExact(),
    /** No thermometer at hand, said once; the record prints it. */
    none: isTrue().optional(),
    place: line().min(1).max(80).optional(),
  }),
  /** `none`: no barometer at hand, said once; the record prints it. */
  barometer: entry({
    when: when(),
    figure: maybeExact(),
    none: isTrue().optional(),
    /** Where it was not read by eye: the file of a weather station. */
    from: line().min(1).max(120).optional(),
  }),
  /** The level seen at a second place. */
  witness: entry({ when: when(), seen: one(['same', 'fell', 'rose']), text: text(300) }),
  disturbance: entry({ what: word(), text: text(500) }),
};
