/** Entries of a search with smoke: the machine warming up, what was found where, what was sealed by whom, and how it ends. */
import { entry, id, line, maybeExact, maybeOne, one, word } from '@/core/run/field';

export const PLACES = {
  boot: 'boot at a register',
  plenum: 'plenum',
  seam: 'seam or joint',
  cabinet: 'cabinet of the air handler',
  takeoff: 'take-off or collar',
  pan: 'panned joist or stud bay',
  other: 'another place',
} as const;
export const SIZES = { wisp: 'a wisp', stream: 'a stream', jet: 'a jet' } as const;
export const PRESENT = {
  present: 'the installer was there',
  asked: 'the installer was asked and did not come',
  none: 'the installer was not asked',
} as const;
export type Place = keyof typeof PLACES;
export type Size = keyof typeof SIZES;
export type Present = keyof typeof PRESENT;

export const smokeEntries = {
  /** Switched on: it can be used once it is warm. */
  'smoke-on': entry({}),
  /** No machine: by hand, ear or a smoke pencil. */
  'smoke-without': entry({ means: line().min(1).max(120).defined() }),
  'smoke-found': entry({
    finding: id(),
    spot: one(Object.keys(PLACES) as Place[]),
    where: word(120),
    size: maybeOne(Object.keys(SIZES) as Size[]),
  }),
  /** Sealed, by whom and with what; what the fan showed then at the reference pressure, where it was read. */
  'smoke-sealed': entry({ finding: id(), sealedBy: word(80), means: word(80), flow: maybeExact() }),
  'smoke-over': entry({
    next: one(['again', 'later']),
    installer: one(Object.keys(PRESENT) as Present[]),
    /** A figure as it was agreed; nothing is charged here. */
    fee: line().max(40).defined(),
  }),
};
