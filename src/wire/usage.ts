import type * as yup from 'yup';
import {
  CLOCK_WAYS,
  DAY_WAYS,
  type Measured,
  MEASURED,
  UNIT_CHOICES,
  type Usage,
  type Wishes,
} from '@/core/quantity/usage';
import { free, shape } from './figure';

const oneOf = (all: readonly string[]) => free(20).oneOf(['', ...all], 'is none of those that can be chosen');
/** What somebody is used to; '' as the organisation has it, and for the organisation as a metric house has it. */
export const usageSchema = shape({
  ...(Object.fromEntries(MEASURED.map((m) => [m, oneOf(UNIT_CHOICES[m].units)])) as Record<
    Measured,
    yup.StringSchema<string>
  >),
  days: oneOf(Object.keys(DAY_WAYS)),
  clock: oneOf(Object.keys(CLOCK_WAYS)),
});
export type UsageForm = yup.InferType<typeof usageSchema>;
export const USAGE_KEYS = [...MEASURED, 'days', 'clock'] as const satisfies readonly (keyof Usage)[];
/** Every line of the form from wishes, and back. */
export const formOfWishes = (wishes: Wishes): UsageForm =>
  Object.fromEntries(USAGE_KEYS.map((key) => [key, wishes[key] ?? ''])) as UsageForm;
export const wishesOf = (form: UsageForm): Wishes =>
  Object.fromEntries(Object.entries(form).filter(([, value]) => value !== '')) as Wishes;
