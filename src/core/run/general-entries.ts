import * as yup from 'yup';
import {
  bool,
  day,
  DIGITS,
  entry,
  exactSchema,
  hash,
  id,
  integer,
  LATEST,
  line,
  maybeOne,
  one,
  text,
  timed,
  unit,
  word,
} from './field';

/** How a pressure will not stand. */
const ways = ['falls', 'rises', 'low'] as const;
export type UnheldWay = (typeof ways)[number];
/** Seen, smelt or heard: an observation, never a reading. */
const observations = ['smell', 'dial', 'flame', 'indicator', 'sound'] as const;
export type ObservationKind = (typeof observations)[number];
/** Who signs: the tester, the customer, and whoever else stood there and saw it. */
const signers = ['tester', 'customer', 'witness'] as const;
export type SignatureRole = (typeof signers)[number];
/** What a photo is evidence of. */
export const PHOTO_SUBJECTS = {
  gauge: 'the gauge',
  level: 'the level',
  boundary: 'the boundary',
  joint: 'a joint',
  label: 'the label hung',
  plate: 'a rating plate',
  before: 'the place before',
  after: 'the place after',
  paper: 'a maker’s certificate',
  other: 'something else',
} as const;
export type PhotoSubject = keyof typeof PHOTO_SUBJECTS;

const strokes = yup
  .string()
  .strict(true)
  .matches(/^[MLQC0-9 .,-]*$/)
  .max(60000)
  .optional();
/** Moments and figures of a streaming gauge, in its own unit and steps. */
const points = yup
  .array()
  .of(yup.array().of(integer().min(-DIGITS).max(LATEST)).length(2).required())
  .min(1)
  .max(600)
  .required()
  .strict(true) as unknown as yup.ArraySchema<[number, number][], yup.AnyObject, undefined>;

export const generalEntries = {
  proceed: entry({}),
  gauge: entry({ gauge: id() }),
  /** Which hoses, plugs and pumps of the cabinet are on the section from now on; none of them where the list is empty. */
  kit: entry({ kit: yup.array().of(id()).strict(true).max(8).required() }),
  /**
   * The pressure will not stand: it keeps falling with the source closed, keeps rising, or stays low with the source open.
   * Ends a fill, a settling period or a hold with a finding instead of waiting for what will not come.
   */
  unheld: entry({ ...timed, way: one(ways) }),
  stream: entry({
    gauge: id(),
    simulated: bool(),
    scale: integer().min(0).max(6),
    unit: unit(),
    points,
    /** A gauge that shows a flow beside: its digits at each point; null: below its range. */
    flows: yup
      .object({
        unit: unit(),
        scale: integer().min(0).max(6),
        digits: yup
          .array()
          .of(integer().min(0).max(DIGITS).nullable().defined())
          .min(1)
          .max(600)
          .required()
          .strict(true),
      })
      .noUnknown()
      .strict(true)
      .optional()
      .default(undefined),
    /** Read from the gauge's own log afterwards: the file's name and the SHA-256 of its bytes. */
    imported: yup
      .object({ file: word(200), hash: hash() })
      .noUnknown()
      .strict(true)
      .optional()
      .default(undefined),
  }),
  /** A photo the office keeps beside the run, by its hash: what it shows, and the entry it is evidence of. */
  photo: entry({
    hash: hash(),
    caption: text(300),
    shows: maybeOne(Object.keys(PHOTO_SUBJECTS) as PhotoSubject[]),
    beside: yup
      .string()
      .strict(true)
      .matches(/^[0-9a-f-]{36}$/)
      .optional(),
  }),
  observation: entry({ what: one(observations), text: text(500) }),
  unsafe: entry({
    danger: one(['immediate-danger', 'at-risk']),
    action: one(['disconnected', 'labelled', 'refused']),
    text: word(1000),
    told: word(200),
  }),
  correction: entry({ of: id(), figure: exactSchema, reason: word(500) }),
  skip: entry({ reason: word(), text: text(500) }),
  note: entry({ text: word(2000) }),
  /** Takes a step back that was made a moment ago, with the steps after it. */
  undo: entry({ of: id(), reason: line().max(500).optional() }),
  /** What belongs on the paper and was not known when the test was begun. */
  papers: entry({
    site: yup
      .object({ name: word(80), address: word(160), customer: word(120) })
      .noUnknown()
      .strict(true)
      .optional()
      .default(undefined),
    calibration: yup
      .object({ gauge: id(), on: day(), due: day() })
      .noUnknown()
      .strict(true)
      .test('days', 'The next calibration must lie after the last.', (c) => !c || c.due > c.on)
      .optional()
      .default(undefined),
  }),
  stop: entry({}),
  'stop-reason': entry({
    reason: one(['smell', 'voltage', 'movement', 'abandoned', 'mistake']),
    text: text(500),
  }),
  debt: entry({
    debt: word(),
    text: text(500),
    subject: line().max(80).optional(),
    answer: line().max(80).optional(),
  }),
  signature: entry({
    role: one(signers),
    name: word(120),
    strokes,
    refused: line().max(500).optional(),
    /** In what office a witness stood there: inspector, site manager. */
    as: line().max(80).optional(),
    /** What a witness saw: the whole test, or only its readings at the end. */
    saw: maybeOne(['whole', 'end']),
    /** Signed on a device of their own by a link. */
    via: maybeOne(['link']),
  }),
};
