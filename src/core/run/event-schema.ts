import * as yup from 'yup';
import { oneOf } from '@/core/grammar/one-of';
import { THING_KINDS } from '@/core/installation/parts';
import { UNITS } from '@/core/quantity/unit';
import { PHOTO_SUBJECTS, type RunEvent } from './events';

/** NUL and half of a surrogate pair can neither be stored nor sealed: they are refused where they come in. */
const storable = (value: string | undefined): boolean => value === undefined || !/[\0\p{Cs}]/u.test(value);
const UNSTORABLE = '${path} holds a character that cannot be kept. Type it again.';
const line = () => yup.string().strict(true).test('storable', UNSTORABLE, storable);
const text = (most: number) => line().max(most).defined();
const word = (most = 80) => line().required().max(most);
/** Moments an entry may carry, ms UTC: up to the year 2100. Beyond it nothing can print it. */
const LATEST = Date.UTC(2100, 0, 1);
/** A device's clock may be wrong by years; more is no clock. ms */
const MOST_OFFSET = 20 * 366 * 86_400_000;
const moment = () => integer().min(0).max(LATEST);
const known = new Map<string, boolean>();
/** Whether a time zone is one that times can be written in. */
const isZone = (value: string | undefined): boolean => {
  if (value === undefined) return true;
  let found = known.get(value);
  if (found === undefined) {
    try {
      new Intl.DateTimeFormat('en-GB', { timeZone: value });
      found = true;
    } catch {
      found = false;
    }
    if (known.size < 1000) known.set(value, found);
  }
  return found;
};
const id = () =>
  yup
    .string()
    .strict(true)
    .required()
    .matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/);
/** SHA-256 in hex. */
const hash = () =>
  yup
    .string()
    .strict(true)
    .required()
    .matches(/^[0-9a-f]{64}$/);
const integer = () => yup.number().strict(true).required().integer();
const yes = () => yup.boolean().strict(true).optional();
/** The most digits a figure of the trade has. */
const DIGITS = 999_999_999_999;
/** Wire schema of an exact decimal. */
export const exactSchema = yup
  .object({
    digits: integer().min(-DIGITS).max(DIGITS),
    scale: integer().min(0).max(6),
    unit: yup.string().strict(true).required().oneOf(Object.keys(UNITS)),
  })
  .noUnknown()
  .strict(true)
  .required();
const isTrue = () => yup.boolean().strict(true).required().oneOf([true]);
const base = {
  id: id(),
  run: id(),
  device: id(),
  deviceSeq: integer().min(1).max(1_000_000_000),
  at: moment(),
  zone: word(60).test('zone', '${path} is not a time zone. Set the zone of the device.', isZone),
  offset: integer().min(-MOST_OFFSET).max(MOST_OFFSET),
  mono: integer().min(0).max(LATEST),
  pageLoad: id(),
  by: id(),
  byName: word(120),
  expects: text(120),
};
const timed = { figure: exactSchema, readAt: moment(), same: yes(), streamed: yes() };
const of = (shape: yup.ObjectShape) => yup.object({ ...base, ...shape });
const strokes = yup
  .string()
  .strict(true)
  .matches(/^[MLQC0-9 .,-]*$/)
  .max(60000)
  .optional();

const reason = () => line().min(1).max(500).optional();
/** One thing of the inventory: the same for the event, the place and a file. */
const inventoryItemSchema = yup
  .object({
    id: word(),
    kind: word().oneOf([...THING_KINDS]),
    name: word(120),
    place: text(120),
    make: text(120),
    model: text(120),
    serial: text(120),
    points: yup
      .mixed<Record<string, string>>()
      .required()
      .test('points', 'each inspection point is good, fault or not-seen', (v) =>
        v === undefined
          ? true
          : typeof v === 'object' &&
            Object.entries(v).length <= 40 &&
            Object.keys(v).every((k) => k.length <= 80 && storable(k)) &&
            Object.values(v).every((x) => ['good', 'fault', 'not-seen'].includes(x)),
      ),
    note: text(1000),
    photos: yup.array().of(hash()).strict(true).max(12).optional(),
  })
  .noUnknown()
  .strict(true)
  .required();

/** The schema of one event: the same on the device, in the route handler, and for files. */
export const eventSchema = oneOf('kind', {
  check: of({
    item: word(),
    subject: line().max(80).optional(),
    answer: word().oneOf(['done', 'yes', 'no', 'undone']),
  }),
  proceed: of({}),
  gauge: of({ gauge: id() }),
  kit: of({ kit: yup.array().of(id()).strict(true).max(8).required() }),
  zero: of({ figure: exactSchema, openToAir: isTrue() }),
  fill: of({ ...timed, confirmed: isTrue() }),
  'hold-start': of(timed),
  unheld: of({ ...timed, way: word().oneOf(['falls', 'rises', 'low']) }),
  'hold-end': of({ ...timed, short: reason() }),
  reading: of({ ...timed, late: yes() }),
  stream: of({
    gauge: id(),
    simulated: yup.boolean().strict(true).required(),
    scale: integer().min(0).max(6),
    unit: word().oneOf(Object.keys(UNITS)),
    points: yup
      .array()
      .of(yup.array().of(integer().min(-DIGITS).max(LATEST)).length(2).required())
      .min(1)
      .max(600)
      .required()
      .strict(true),
    imported: yup
      .object({ file: word(200), hash: hash() })
      .noUnknown()
      .strict(true)
      .optional()
      .default(undefined),
  }),
  'top-up': of({
    before: exactSchema,
    after: exactSchema,
    added: exactSchema.optional().default(undefined),
  }),
  'pump-step': of({
    ...timed,
    added: exactSchema.optional().default(undefined),
    strokes: yup.number().strict(true).integer().min(0).max(100_000).optional(),
  }),
  'pump-look': of({ ...timed, joints: word().oneOf(['dry', 'drips']), where: text(200) }),
  'pump-failed': of({ text: word(500) }),
  'draw-down': of({ ...timed, volume: exactSchema }),
  witness: of({
    when: word().oneOf(['start', 'end']),
    seen: word().oneOf(['same', 'fell', 'rose']),
    text: text(300),
  }),
  photo: of({
    hash: hash(),
    caption: text(300),
    shows: yup.string().strict(true).oneOf(Object.keys(PHOTO_SUBJECTS)).optional(),
    beside: yup
      .string()
      .strict(true)
      .matches(/^[0-9a-f-]{36}$/)
      .optional(),
  }),
  disturbance: of({ what: word(), text: text(500) }),
  temperature: of({ when: word().oneOf(['start', 'end']), figure: exactSchema }),
  barometer: of({
    when: word().oneOf(['start', 'end']),
    figure: exactSchema.optional().default(undefined),
    none: yup.boolean().strict(true).oneOf([true]).optional(),
  }),
  joint: of({
    joint: word(),
    name: word(120),
    place: text(120),
    whose: yup.string().strict(true).oneOf(['own', 'boundary']).optional(),
  }),
  'joint-look': of({
    joint: word(),
    found: word().oneOf(['none', 'foam', 'growing']),
    size: yup.string().strict(true).oneOf(['pinhead', 'pea', 'larger']).optional(),
  }),
  observation: of({
    what: word().oneOf(['smell', 'dial', 'flame', 'indicator', 'sound']),
    text: text(500),
  }),
  inventory: of({ item: inventoryItemSchema }),
  volume: of({
    drawn: exactSchema.optional().default(undefined),
    before: exactSchema.optional().default(undefined),
    after: exactSchema.optional().default(undefined),
  }),
  'dial-start': of({ mark: word(120) }),
  'dial-end': of({
    moved: yup.boolean().strict(true).required(),
    turns: exactSchema.optional().default(undefined),
    direction: yup.string().strict(true).oneOf(['forward', 'backward']).optional(),
    short: reason(),
  }),
  'dial-input': of({ appliance: word(), turns: exactSchema, seconds: exactSchema }),
  unsafe: of({
    danger: word().oneOf(['immediate-danger', 'at-risk']),
    action: word().oneOf(['disconnected', 'labelled', 'refused']),
    text: word(1000),
    told: word(200),
  }),
  correction: of({ of: id(), figure: exactSchema, reason: word(500) }),
  observe: of({ result: word(), text: reason() }),
  skip: of({ reason: word(), text: text(500) }),
  note: of({ text: word(2000) }),
  stop: of({}),
  'stop-reason': of({
    reason: word().oneOf(['smell', 'voltage', 'movement', 'abandoned', 'mistake']),
    text: text(500),
  }),
  debt: of({
    debt: word(),
    text: text(500),
    subject: line().max(80).optional(),
    answer: line().max(80).optional(),
  }),
  signature: of({
    role: word().oneOf(['tester', 'customer', 'witness']),
    name: word(120),
    strokes,
    refused: line().max(500).optional(),
    as: line().max(80).optional(),
    saw: yup.string().strict(true).oneOf(['whole', 'end']).optional(),
    via: yup.string().strict(true).oneOf(['link']).optional(),
  }),
});

/** Checks an unknown value as an event. @throws yup.ValidationError with the path of what is wrong. */
export const parseEvent = (value: unknown): RunEvent =>
  eventSchema.validateSync(value, { strict: true }) as unknown as RunEvent;
