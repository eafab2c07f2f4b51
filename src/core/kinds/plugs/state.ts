import type { Exact } from '@/core/quantity/exact';
import type { PlugFailure, PlugKind } from './entries';

export interface Plug {
  readonly end: string;
  readonly plug: PlugKind;
  readonly open: boolean;
  readonly item?: string;
  readonly size: string;
  readonly rating?: Exact;
  readonly inflation?: Exact;
  readonly light?: true;
  readonly proved: string;
  readonly at: number;
  readonly byName: string;
  out?: { readonly at: number; readonly byName: string };
  failed?: { readonly how: PlugFailure; readonly at: number };
}
/** Every plug that went in, in order, and ends that could not be closed. */
export interface PlugState {
  readonly plugs: Plug[];
  readonly cannot: { readonly end: string; readonly why: string }[];
}
export const newPlugs = (): PlugState => ({ plugs: [], cannot: [] });
