/** What a hold may say in a pack, whatever its role; which of it a role needs, the role checks. */
import { accept, limit, limits, minutes, optionalBand, permitted, type stageBase } from '@/core/grammar/rule';
import {
  figure,
  list,
  mark,
  maybe,
  maybeAmong,
  maybeNumber,
  maybeObject,
  number,
  object,
  text,
  yesNo,
  type Of,
} from '@/core/grammar/schema';

export const holdFields = {
  /** Where the hold may start. A lock-up starts wherever the regulator stands: it may have none. */
  band: optionalBand,
  /** How long warmth or stretch could explain a fall at most: after it a fall is a leak. Absent: a house figure by medium. */
  explained: maybeObject({ minutes: number().min(0).max(10080), source: text() }),
  /** Stretch: it must slow down too, the last third falling less than the first. Outcomes slowing, running-on, unread. */
  slowing: maybeObject({ source: text() }),
  /** Settling: `fixed` (absent) or until steady, no top-up in the last window. */
  until: maybeAmong(['steady']),
  /**
   * Lock-up and flow: where the pressure may stand. Outcomes too-low and too-high. Reaching `vent` is an outcome of its
   * own, `vents`; asked only where the system's vent setting is known.
   */
  accept: maybeObject({ low: accept, high: accept, vent: accept }),
  /** Remembers the end reading under this name. */
  keeps: maybe(),
  /** A reading is asked for every so many minutes. */
  rhythm: maybeNumber().min(0.5),
  /** Longer holds than this, min, need the barometer at start and end. */
  barometerOver: maybeNumber().min(0),
  minutes,
  minutesSource: text(),
  limit: limits,
  /** Choice key that flips the limit's comparator: options "at" and "above". */
  comparatorChoice: maybe(),
  allowance: mark(),
  /** How far past the minutes a permitted drop may be judged, s. */
  lateAfter: maybeNumber().min(0),
  /** Read against a level mark, as a height over the slab, instead of a gauge. */
  by: maybeAmong(['level']),
  /** A second place at which the level is seen, at start and end. */
  witness: maybe().max(120),
  /** Starts at the moment and with the figure of this kept reading: no pause lies between. */
  since: maybe(),
  /** Remembers the start reading under this name. */
  keepsStart: maybe(),
  /** Where a broken hold goes back to. Absent: the last fill of the part. */
  restart: maybe(),
  /** Stretch: the fall that the rule permits from the start reading. */
  fall: limit.optional().default(undefined),
  /** Tightness over hours: what is left without warmth and barometer judges, with how well it is known. Outcome unclear. */
  judge: maybeAmong(['corrected']),
  /** Standing vacuum: at or below `most` and level or flattening it holds; an even rise of `leakRise` or more is a leak. */
  vacuum: maybeObject({ most: figure(), leakRise: figure(), source: text() }),
  /** Make-up: the water that may be added over the hold. */
  permitted,
  /** Passes needed in a row after a failing hold. */
  confirmPasses: maybeNumber().integer().min(1),
  skip: maybeObject({
    /** `SEPARATED` as key: the section is cut or capped; any other sound reason speaks for itself. */
    reasons: list(object({ key: text(), text: text(), sound: yesNo() })),
    to: text(),
  }),
};
/** Why a let-by may be left out everywhere: nothing connects the section with the supply. */
export const SEPARATED = 'separated';

/** A hold as its role sees it. */
export type HoldFields = Of<ReturnType<typeof object<typeof stageBase & typeof holdFields>>>;
