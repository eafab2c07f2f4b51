import { leakBodySchema, type LeakEntry, type LeakTest } from '@/core/after/leaks';
import type * as yup from 'yup';
import { shape, uuid } from './figure';

/** One entry of a leak book as it is sent: its id, the leak it belongs to (itself where it finds one), and what it says. */
export const leakRequestSchema = shape({ id: uuid(), leak: uuid(), body: leakBodySchema });
export type LeakRequest = yup.InferType<typeof leakRequestSchema>;
/** The book of an installation, as the office has it. */
export interface LeakBook {
  readonly entries: readonly LeakEntry[];
  readonly tests: readonly LeakTest[];
  /** The office's clock, ms UTC. */
  readonly now: number;
}
