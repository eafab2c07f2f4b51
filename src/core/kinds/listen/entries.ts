import * as yup from 'yup';
import { CLARITY, type Clarity } from '@/core/trades/pool/listen';
import { entry, exactSchema, hash, integer, one, text, word } from '@/core/run/field';

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
const place = () => yup.array().of(integer().min(0).max(1000)).strict(true).required().length(2);
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
  /** The photo the run is drawn on, and where it begins and ends there: thousandths of its width and height. */
  'listen-picture': entry({ photo: hash(), from: place(), to: place() }),
  'listen-evidence': entry({ what: one(EVIDENCE_KEYS), says: one(says), text: text(300) }),
};
