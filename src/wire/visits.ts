import { zone } from '@/core/run/field';
import * as yup from 'yup';
import { attendanceFields, choicesField, sectionField } from '@/wire/attendance';
import { free, isoDay, list, shape, text, uuid } from './figure';

const minutes = () =>
  yup
    .number()
    .strict(true)
    .min(0)
    .max(14 * 24 * 60)
    .required();
const task = shape({
  id: text(80),
  title: text(160),
  kind: text(20).oneOf(['test', 'filler', 'meeting', 'other']),
  hands: minutes(),
  wait: minutes(),
  close: minutes(),
  after: list(text(80), 40),
  during: yup.string().strict(true).max(80).optional(),
  takes: list(text(80), 12),
  frees: list(text(80), 12),
  notBefore: yup.number().strict(true).min(0).max(20_000).optional(),
  finishBy: yup.number().strict(true).min(0).max(20_000).optional(),
  test: yup.string().strict(true).max(60).optional(),
  stages: list(text(60), 60).optional().default(undefined),
  waits: yup.string().strict(true).max(120).optional(),
});
const clock = () => text(5).matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'is not a clock time, like 08:30');
/** A new visit. */
export const newVisitSchema = shape({
  id: uuid(),
  title: text(100),
  day: isoDay(),
  start: clock(),
  zone: zone(),
});
export type NewVisit = yup.InferType<typeof newVisitSchema>;
/** A test put on a visit; the server makes its tasks from the plan. */
export const visitTestSchema = shape({
  version: yup.number().strict(true).integer().min(1).required(),
  test: shape({
    id: text(60),
    system: uuid(),
    pack: text(60),
    procedure: text(60),
    case: text(40),
    gauge: yup.string().strict(true).max(36).nullable().defined(),
    choices: choicesField(),
    ...attendanceFields(),
    section: sectionField(),
  }),
});
/** What a person changes on a visit. */
export const visitChangeSchema = shape({
  version: yup.number().strict(true).integer().min(1).required(),
  title: text(100),
  day: isoDay(),
  start: clock(),
  crew: yup.number().strict(true).integer().min(1).max(4).required(),
  people: list(uuid(), 4).optional().default(undefined),
  present: list(text(80), 12),
  permit: free(60),
  promise: free(5).matches(/^(([01]\d|2[0-3]):[0-5]\d)?$/, 'is not a clock time, like 16:00'),
  removed: list(text(60), 40),
  tasks: list(task, 60),
  wishes: yup
    .mixed<Record<string, number>>()
    .test(
      'wishes',
      'must be minutes',
      (v) =>
        v !== undefined &&
        typeof v === 'object' &&
        Object.values(v).every((x) => typeof x === 'number' && Number.isFinite(x) && x >= 0),
    )
    .required(),
  pinned: list(text(80), 60),
  done: yup
    .mixed<Record<string, { start: number; end: number }>>()
    .test(
      'done',
      'must be minutes',
      (v) =>
        v !== undefined &&
        typeof v === 'object' &&
        Object.values(v).every(
          (x) => typeof x?.start === 'number' && typeof x?.end === 'number' && x.end >= x.start,
        ),
    )
    .required(),
});
export type VisitChange = yup.InferType<typeof visitChangeSchema>;

export type PlannedTest = yup.InferType<typeof visitTestSchema>['test'];
/** A message for the outbox stand-in. */
export const messageSchema = shape({
  id: uuid(),
  to: text(200).matches(/^[^\s@]+@[^\s@]+$/, 'is not an e-mail address'),
  subject: text(160),
  body: text(8000),
});
