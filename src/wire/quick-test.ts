/** A test begun on what stands before a person: the installation by a few facts, the gauge by three, the rest may follow. */
import { zone } from '@/core/run/field';
import * as yup from 'yup';
import { gaugeFigure, shape, text, uuid } from './figure';
import { carriedClaimSchema } from './carried';
import { sectionField } from './attendance';
import { firstFactsSchema } from './first-facts-schema';

/** Name, range and step: what a gauge must say before it judges. */
export const quickGaugeSchema = shape({
  id: uuid(),
  name: text(40),
  greatest: gaugeFigure('above zero'),
  resolution: gaugeFigure('above zero'),
});
export const quickTestSchema = shape({
  run: uuid(),
  site: uuid(),
  system: uuid(),
  facts: firstFactsSchema,
  pack: text(60),
  procedure: text(60),
  case: text(40),
  section: sectionField(),
  /** A gauge of the cabinet; or a new one. */
  gauge: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an id')
    .optional(),
  newGauge: quickGaugeSchema.optional().default(undefined),
  zone: zone(),
  /** It was begun without a signal: the plan is made again here. */
  carried: carriedClaimSchema.optional().default(undefined),
});
export type QuickTest = yup.InferType<typeof quickTestSchema>;
/** A practice run on the ready installation. */
export const practiseSchema = shape({ run: uuid(), zone: zone() });
export type Practise = yup.InferType<typeof practiseSchema>;
