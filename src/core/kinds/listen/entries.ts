import { CLARITY, type Clarity } from '@/core/trades/pool/listen';
import { entry, exactSchema, integer, one, text, word } from '@/core/run/field';

/** What else speaks of the place. */
export const EVIDENCE = {
  soil: 'soft or wet ground',
  level: 'the level at which the pool stops losing',
  dye: 'the dye',
  map: 'the map of the lines',
  other: 'another means',
} as const;
export type Evidence = keyof typeof EVIDENCE;
export const EVIDENCE_KEYS = Object.keys(EVIDENCE) as Evidence[];
const says = ['agrees', 'against', 'unknown'] as const;
export const listenEntries = {
  /** The run that is walked, its length, and where the compressor stands. */
  'listen-run': entry({ name: word(120), length: exactSchema, compressor: word(200) }),
  listen: entry({
    along: exactSchema,
    loud: integer().min(0).max(10),
    clear: one(Object.keys(CLARITY) as Clarity[]),
    near: text(120),
  }),
  'listen-evidence': entry({ what: one(EVIDENCE_KEYS), says: one(says), text: text(300) }),
};
