/** What entries of a run are written in: text that can be kept, moments, figures, and what every entry carries. */
import * as yup from 'yup';
import { UNITS, type Unit } from '@/core/quantity/unit';

/** NUL and half of a surrogate pair can neither be stored nor sealed: they are refused where they come in. */
export const storable = (value: string | undefined): boolean =>
  value === undefined || !/[\0\p{Cs}]/u.test(value);
const UNSTORABLE = '${path} holds a character that cannot be kept. Type it again.';
export const line = () => yup.string().strict(true).test('storable', UNSTORABLE, storable);
export const text = (most: number) => line().max(most).defined();
export const word = (most = 80) => line().required().max(most);
export const one = <const T extends string>(known: readonly T[]) => word().oneOf([...known]);
export const maybeOne = <const T extends string>(known: readonly T[]) =>
  yup
    .string()
    .strict(true)
    .oneOf([...known])
    .optional();
export const integer = () => yup.number().strict(true).required().integer();
export const yes = () => yup.boolean().strict(true).optional();
export const bool = () => yup.boolean().strict(true).required();
export const isTrue = () => bool().oneOf([true]) as yup.BooleanSchema<true>;
export const reason = () => line().min(1).max(500).optional();
/** Moments an entry may carry, ms UTC: up to the year 2100. Beyond it nothing can print it. */
export const LATEST = Date.UTC(2100, 0, 1);
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
export const id = () =>
  yup
    .string()
    .strict(true)
    .required()
    .matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/);
/** SHA-256 in hex. */
export const hash = () =>
  yup
    .string()
    .strict(true)
    .required()
    .matches(/^[0-9a-f]{64}$/);
/** The most digits a figure of the trade has. */
export const DIGITS = 999_999_999_999;
const units = Object.keys(UNITS) as Unit[];
export const unit = () => yup.string().strict(true).required().oneOf(units);
/** Wire schema of an exact decimal. */
export const exactSchema = yup
  .object({
    digits: integer().min(-DIGITS).max(DIGITS),
    scale: integer().min(0).max(6),
    unit: unit(),
  })
  .noUnknown()
  .strict(true)
  .required();
export const maybeExact = () => exactSchema.optional().default(undefined);

/** A day of the calendar, YYYY-MM-DD. */
export const day = () =>
  word(10).test('day', '${path} is a day, like 2026-11-29', (v) => {
    const at = /^\d{4}-\d{2}-\d{2}$/.test(v) ? Date.parse(v) : NaN;
    return Number.isFinite(at) && new Date(at).toISOString().startsWith(v);
  });
/** A time zone that times can be written in. */
export const zone = () =>
  word(60).test('zone', '${path} is not a time zone. Set the zone of the device.', isZone);

/** The highest number that a device may give: some count by the clock. What is taken in must be readable again. */
export const MOST_SEQUENCE = Number.MAX_SAFE_INTEGER;
/** What every entry carries. Times: `at` is the device's clock, ms UTC; `offset` is server minus device as last measured. */
const base = {
  id: id(),
  run: id(),
  device: id(),
  deviceSeq: integer().min(1).max(MOST_SEQUENCE),
  at: moment(),
  zone: zone(),
  offset: integer().min(-MOST_OFFSET).max(MOST_OFFSET),
  /** Monotonic ms since this page was loaded, and which page load: a cross-check of the clock. */
  mono: integer().min(0).max(LATEST),
  pageLoad: id(),
  by: id(),
  byName: word(120),
  /** The step this was meant for; a transition meant for an earlier step stays in the log as overtaken. */
  expects: text(120),
};
/** A reading: the figure, and the device's moment at which the gauge was read (first key pressed). */
export const timed = { figure: exactSchema, readAt: moment(), same: yes(), streamed: yes() };
export const entry = <const S extends yup.ObjectShape>(shape: S) => yup.object({ ...base, ...shape });
export type EventBase = Readonly<yup.InferType<ReturnType<typeof entry<Record<never, never>>>>>;
