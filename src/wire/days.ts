import { zone } from '@/core/run/field';
import type * as yup from 'yup';
import { isoDay, shape } from './figure';

/** A due test that is put on a day: a visit is made of it. */
export const putOnDaySchema = shape({ day: isoDay(), zone: zone() });
export type PutOnDay = yup.InferType<typeof putOnDaySchema>;
export interface PutOn {
  readonly visit: string;
  /** Why the visit stands without the test; null where it is on it. */
  readonly without: string | null;
}
export type DayKind = 'visit' | 'hold' | 'test' | 'other';
/** Something that stands on a day. */
export interface DayThing {
  readonly id: string;
  readonly day: string;
  readonly kind: DayKind;
  /** Clock time, where it has one. */
  readonly at: string;
  readonly title: string;
  readonly about: string;
  readonly href: string | null;
}
/** Weeks that are shown at once. */
export const WEEKS = 5;
