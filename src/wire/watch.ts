import { type Exact, FigureError, parseWithUnit } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import * as yup from 'yup';
import { shape, text, uuid } from './figure';

/** A figure with its unit as text, "3.9 bar", of the dimension wanted. */
const figure = (dimension: string) =>
  yup
    .string()
    .strict(true)
    .max(30)
    .test('figure', 'must be a figure with its unit, like 3.9 bar', (v) => {
      if (v === undefined) return true;
      try {
        return UNITS[parseWithUnit(v).unit].dimension === dimension;
      } catch (error) {
        if (error instanceof FigureError || error instanceof RangeError) return false;
        return false;
      }
    });

/** What may be entered at a watch, by anyone with the link or by a member: the same schema on both sides. */
export const watchEntrySchema = shape({
  id: uuid(),
  kind: text(12).oneOf(['reading', 'on-site', 'correction', 'end']),
  who: text(80),
  trade: yup.string().strict(true).max(60).defined(),
  figure: figure('pressure').optional(),
  temperature: figure('temperature').optional(),
  /** The entry that is corrected. */
  of: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an entry')
    .optional(),
  text: yup.string().strict(true).max(500).defined(),
});
export type WatchEntryRequest = yup.InferType<typeof watchEntrySchema>;
export const watchLinkSchema = shape({ act: text(10).oneOf(['make', 'revoke']) });
export const figureOf = (said: string | undefined): Exact | undefined =>
  said ? parseWithUnit(said) : undefined;
