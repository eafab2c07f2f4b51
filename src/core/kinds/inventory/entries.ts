import { entry, hash, one, storable, text, word } from '@/core/run/field';

import * as yup from 'yup';
import type { Of } from '@/core/grammar/schema';
import { THING_KINDS } from '@/core/installation/parts';

/** Inspection points: good, a fault, or not seen. */
const looks = ['good', 'fault', 'not-seen'] as const;
/** One thing of the inventory: the same for the entry, the place and a file. */
const inventoryItemSchema = yup
  .object({
    id: word(),
    kind: one(THING_KINDS),
    name: word(120),
    place: text(120),
    make: text(120),
    model: text(120),
    serial: text(120),
    points: yup
      .mixed<Record<string, (typeof looks)[number]>>()
      .required()
      .test('points', 'each inspection point is good, fault or not-seen', (v) =>
        v === undefined
          ? true
          : typeof v === 'object' &&
            Object.entries(v).length <= 40 &&
            Object.keys(v).every((k) => k.length <= 80 && storable(k)) &&
            Object.values(v).every((x) => looks.includes(x)),
      ),
    note: text(1000),
    /** Hashes of its photos, which the office keeps beside the run. */
    photos: yup.array().of(hash()).strict(true).max(12).optional(),
  })
  .noUnknown()
  .strict(true)
  .required();
/** One thing that was present on the day, looked at and written down. */
export type InventoryItem = Of<typeof inventoryItemSchema>;
export const inventoryEntries = { inventory: entry({ item: inventoryItemSchema }) };
