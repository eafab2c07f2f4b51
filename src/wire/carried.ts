/** What a device carries, so that its house opens and a run begins without a signal; and what it says of it afterwards. */
import * as yup from 'yup';
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { DatedEntry, KitFacts } from '@/core/instrument/kit';
import type { Pack } from '@/core/pack/schema';
import type { LastTest } from '@/core/plan/again';
import type { EarlierRecord, Plan } from '@/core/plan/plan';
import type { VisitFacts } from '@/core/visit/facts';
import { list, shape, text, uuid } from './figure';

/** A value of the office with the office's own proof that it gave it, and when (ms). */
export interface Given<T> {
  readonly value: T;
  readonly at: number;
  readonly proof: string;
}
/** An installation on its place, and the earlier records its procedures may need: by procedure and section. */
export interface GivenSystem {
  readonly site: Plan['site'];
  readonly system: System;
  readonly after: Readonly<Record<string, EarlierRecord>>;
}
export const afterKey = (procedure: string, section: string | undefined): string =>
  `${procedure} ${section ?? ''}`;
/** Hoses, plugs and pumps of the cabinet with their logs, and the gauges, those used last by this person first. */
export interface GivenCabinet {
  readonly gauges: readonly Gauge[];
  readonly things: readonly { readonly item: KitFacts; readonly log: readonly DatedEntry[] }[];
}
export interface CarriedSystem {
  readonly id: string;
  readonly given: Given<GivenSystem>;
  readonly last: LastTest | null;
  /** The newest record of each section that was not good. */
  readonly failures: Readonly<Record<string, EarlierRecord>>;
}
export interface CarriedPack {
  readonly id: string;
  readonly hash: string;
  /** Fingerprint of the pack as this house cites it. */
  readonly mark: string;
  /** Absent where the device has it by its mark. */
  readonly pack?: Pack;
}
export interface CarriedHouse {
  readonly at: number;
  readonly clock?: 'test';
  readonly organisation: Plan['organisation'];
  readonly aside: readonly string[];
  readonly meters: readonly { readonly kind: string; readonly label: string }[];
  readonly packs: readonly CarriedPack[];
  readonly cabinet: Given<GivenCabinet>;
  /** Logs of the gauges, for the cabinet's page. */
  readonly logs: Readonly<Record<string, readonly DatedEntry[]>>;
  readonly visits: readonly VisitFacts[];
}
export interface CarriedAnswer {
  /** Null where only installations were asked for. */
  readonly house: CarriedHouse | null;
  readonly systems: readonly CarriedSystem[];
}
/** What a device asks for: installations it has seen, packs it has. */
export const carriedRequestSchema = shape({
  /** The whole house with what lies ahead; or these installations alone. */
  house: yup.boolean().strict(true).required(),
  systems: list(uuid(), 60),
  marks: list(text(64), 200),
});
export type CarriedRequest = yup.InferType<typeof carriedRequestSchema>;

const given = () =>
  yup
    .object({
      // its form is the office's own: the proof says that it came from there
      value: yup
        .mixed<object>()
        .test('object', 'must be what the office gave', (v) => typeof v === 'object' && v !== null)
        .required(),
      at: yup.number().strict(true).integer().min(0).required(),
      proof: text(100),
    })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined);
/** What a device says of a run that it began without a signal. */
export const carriedClaimSchema = yup
  .object({
    /** When it was begun, ms by the device's clock and its offset. */
    at: yup.number().strict(true).integer().min(0).required(),
    /** Fingerprint of the plan it has. */
    digest: text(64).matches(/^[0-9a-f]{64}$/, 'is not a fingerprint'),
    /** The pack by its hash. */
    pack: text(64),
    system: given(),
    cabinet: given(),
    /** Gauges and the place, where they were entered or changed on the device: by id. */
    entered: list(uuid(), 40),
  })
  .noUnknown()
  .strict(true);
export type CarriedClaim = yup.InferType<typeof carriedClaimSchema>;
