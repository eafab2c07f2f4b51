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

/** A visit as it stands on a day's sheet. */
export interface SheetVisit {
  readonly id: string;
  readonly title: string;
  readonly start: string;
  readonly zone: string;
  /** ms of its start. */
  readonly begin: number;
  readonly people: readonly string[];
  readonly permit: string;
  readonly present: readonly string[];
  readonly promise: string;
  readonly places: readonly { readonly name: string; readonly address: string; readonly customer: string }[];
  readonly tests: readonly {
    readonly id: string;
    readonly title: string;
    readonly place: string;
    readonly gauge: string;
  }[];
  /** Laid in time; minutes from its start. Empty with why it could not be laid. */
  readonly tasks: readonly {
    readonly title: string;
    readonly start: number;
    readonly end: number;
    readonly waits: number;
  }[];
  readonly cannot: string;
  readonly kit: readonly { readonly group: string; readonly name: string; readonly why: string }[];
}
export interface Sheet {
  readonly visits: readonly SheetVisit[];
  readonly besides: readonly DayThing[];
}
