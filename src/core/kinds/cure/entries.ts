import { entry, integer, line } from '@/core/run/field';

export const cureEntries = {
  /** Pipe cut and coupled, the last joint made now: counted, and how long it is left alone before pressure. */
  'joints-made': entry({
    cuts: integer().min(0).max(200),
    couplings: integer().min(0).max(200),
    /** Primer and cement, or what else holds the joint. */
    means: line().min(1).max(200).defined(),
    minutes: integer().min(1).max(20160),
    /** Whose table says so, where it is less than the rule leaves; may stay empty otherwise. */
    table: line().max(200).defined(),
  }),
  /** It is left alone until another day. */
  'cure-later': entry({}),
};
