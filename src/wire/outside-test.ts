import { zone } from '@/core/run/field';
import * as yup from 'yup';
import { list, shape, text, uuid } from './figure';

const moment = () => yup.number().strict(true).integer().min(0).max(8_000_000_000_000).required();
const digits = () => yup.number().strict(true).integer().min(-1e9).max(1e9).required();
const point = () => shape({ at: moment(), digits: digits() });
/** What a system offers for a test that was held elsewhere: the plan as it would be, and what the log must show of it. */
export const outsidePlanSchema = shape({
  system: uuid(),
  pack: text(60),
  procedure: text(60),
  case: text(40),
  zone: zone(),
});
/** A finished test from a gauge's log. */
export const outsideTestSchema = shape({
  id: uuid(),
  system: uuid(),
  pack: text(60),
  procedure: text(60),
  case: text(40),
  zone: zone(),
  gauge: uuid(),
  /** Who held it, and that they answered for the lists. */
  by: text(120),
  answered: yup.boolean().strict(true).oneOf([true], 'must be said: ask whoever held the test').required(),
  file: text(120),
  hash: text(64).matches(/^[0-9a-f]{64}$/, 'is not a fingerprint'),
  holds: list(shape({ stage: text(60), start: point(), end: point() }), 20).min(1, 'mark at least one hold'),
  points: list(
    yup.array().of(yup.number().strict(true).integer().required()).length(2).strict(true).required(),
    20_000,
  ),
});
export type OutsideTestRequest = yup.InferType<typeof outsideTestSchema>;
export type OutsidePlanRequest = yup.InferType<typeof outsidePlanSchema>;
