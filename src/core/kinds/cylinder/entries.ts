/** Entries of a cylinder before it is opened: what its label says, what regulator and hose are made for. */
import { entry, exactSchema, id, isTrue, one, yes } from '@/core/run/field';

export const LABELS = {
  nitrogen: 'nitrogen, oxygen-free and dry',
  air: 'compressed air',
  oxygen: 'oxygen',
  acetylene: 'acetylene or another fuel gas',
  refrigerant: 'a refrigerant',
  other: 'another gas, or it cannot be read',
} as const;
export type Label = keyof typeof LABELS;
export const cylinderEntries = {
  /** `regulator` and `hose`: of the cabinet, whose own figures then count; otherwise as they are stamped. */
  cylinder: entry({
    label: one(Object.keys(LABELS) as Label[]),
    regulator: id().optional().default(undefined),
    regulatorMost: exactSchema,
    hose: id().optional().default(undefined),
    hoseMost: exactSchema,
    woundOut: isTrue(),
    tied: yes(),
  }),
  /** Nothing that fits is at hand. */
  'no-cylinder': entry({}),
};
