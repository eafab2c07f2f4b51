/** Entries of a fan: which one and in which range, what the gauge shows with it off, and pressure and flow read together. */
import { entry, exactSchema, id, isTrue, line, maybeExact, one, word, yes } from '@/core/run/field';

export const fanEntries = {
  /** `kit`: of the cabinet, whose own sheet then counts; otherwise as its sheet says. */
  'fan-chosen': entry({
    kit: id().optional().default(undefined),
    name: word(60),
    range: word(40),
    least: exactSchema,
    greatest: exactSchema,
  }),
  /** What the gauge shows with the fan off and shut. */
  'fan-off': entry({ pressure: exactSchema }),
  /**
   * Pressure with the flow, or with what the gauge at the fan shows, or with neither: below the range. `figure` is the pressure of the
   * ducts as shown.
   */
  'fan-read': entry({
    figure: exactSchema,
    flow: maybeExact(),
    atFan: maybeExact(),
    below: yes(),
    steady: isTrue(),
    streamed: yes(),
  }),
  'fan-struck': entry({ reading: id(), reason: line().min(1).max(200).defined() }),
  /** What stands is judged. */
  'fan-judge': entry({}),
  /** Own kit: its dated test is taken. */
  'fan-kept': entry({}),
  /** No second pressure, or no reading at all, can be had. */
  'fan-cannot': entry({ what: one(['second', 'reading']), why: line().min(1).max(200).defined() }),
};
