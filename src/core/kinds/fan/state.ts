import type { FanRange } from '@/core/instrument/kit';
import type { Exact } from '@/core/quantity/exact';
import type { AtReference, Point } from './judge';

export interface ChosenFan {
  /** Of the cabinet; absent: as its sheet says. */
  readonly kit?: string;
  readonly name: string;
  readonly range: FanRange;
  /** percent of the flow, 95 %; null: the sheet does not say it */
  readonly accuracy: number | null;
}
/** Pressure and flow read together. */
export interface FanReading extends Point {
  readonly id: string;
  readonly at: number;
  readonly byName: string;
  /** As the gauge showed it. */
  readonly shown: Exact;
  /** As read or by the sheet's k and m; null: below the range. */
  readonly figure: Exact | null;
  readonly atFan?: Exact;
  readonly fan: ChosenFan;
  readonly off: Exact | null;
  readonly streamed: boolean;
  struck?: { readonly reason: string; readonly byName: string; readonly at: number };
}
/** What a fan stage came to. */
export interface FanResult {
  readonly outcome: string;
  readonly at: AtReference | null;
  /** m3/s */ readonly limit: number | null;
  /** m3/s at the reference pressure */ readonly blank: number | null;
  /** Pa */ readonly reference: number;
  readonly judgedAt: number;
}
/** One passage through a fan stage. */
export interface FanVisit {
  readonly visit: number;
  readonly of: 'system' | 'hose';
  readonly title: string;
  off?: { readonly pressure: Exact; readonly at: number };
  readonly readings: FanReading[];
  noSecond?: string;
  cannot?: string;
  result?: FanResult;
}
/** A pair that the gauge itself sent: pressure in its own steps, and the flow; null: dashes. */
export interface ShownPair {
  readonly at: number;
  readonly digits: number;
  readonly flow: number | null;
  readonly scale: number;
}
export interface FanState {
  readonly shown: ShownPair[];
  chosen: ChosenFan | null;
  readonly visits: FanVisit[];
  /** Own kit as it counts here: tested in this run, or taken from its dated test. */
  blank: {
    readonly kit: string;
    readonly flow: Exact;
    readonly pressure: Exact;
    readonly below: boolean;
    readonly from: 'here' | 'dated';
    readonly on: string;
  } | null;
}
export const newFan = (): FanState => ({ shown: [], chosen: null, visits: [], blank: null });
