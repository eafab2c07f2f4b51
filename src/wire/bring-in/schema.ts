/** What is sent when tables are brought in: rows that were read, each with its number in the file. */
import * as yup from 'yup';
import { gaugeFormSchema } from '../cabinet';
import { figure, free, list, optionalFigure, shape, text } from '../figure';
import { firstFactsSchema } from '../first-facts-schema';
import { TABLE_KEYS, type TableMapping } from './tables';

const rowNumber = () => yup.number().strict(true).integer().min(1).max(1_000_000).required();
/** A place; and what is installed there, where the row says it. */
export const placeRowSchema = shape({
  row: rowNumber(),
  name: text(80),
  address: free(160),
  customer: free(120),
  facts: firstFactsSchema.optional().default(undefined),
});
export type PlaceRow = yup.InferType<typeof placeRowSchema>;
const maybeYes = () => yup.boolean().strict(true).nullable().defined();
export const applianceRowSchema = shape({
  row: rowNumber(),
  place: text(80),
  system: free(80),
  name: text(80),
  kind: free(60),
  where: free(80),
  valve: text(80),
  volume: figure('volume', 'zero'),
  hasPilot: maybeYes(),
  hasLid: maybeYes(),
  maxInlet: optionalFigure('pressure'),
  input: optionalFigure('power'),
  make: free(80),
  model: free(80),
  serial: free(80),
});
export type ApplianceRow = yup.InferType<typeof applianceRowSchema>;
export const gaugeRowSchema = shape({ row: rowNumber(), gauge: gaugeFormSchema });
export type GaugeRow = yup.InferType<typeof gaugeRowSchema>;

const number = (least: number, most: number) =>
  yup.number().strict(true).integer().min(least).max(most).required();
/** Keys of a table's columns, each with a value. */
const byColumn = <T>(value: yup.ISchema<T>) =>
  yup.lazy((given: unknown) =>
    yup
      .object(
        Object.fromEntries(
          Object.keys((given ?? {}) as object)
            .slice(0, 40)
            .map((k) => [k, value as yup.AnySchema]),
        ),
      )
      .noUnknown()
      .strict(true)
      .required(),
  );
export const tableMappingSchema = shape({
  table: text(20).oneOf(TABLE_KEYS),
  delimiter: yup.string().strict(true).oneOf([',', ';', '\t', '|']).required(),
  decimal: yup
    .string()
    .strict(true)
    .oneOf(['.', ','] as const)
    .required(),
  headerRows: number(0, 100),
  day: yup
    .string()
    .strict(true)
    .oneOf(['iso', 'dmy', 'mdy'] as const)
    .required(),
  at: byColumn(number(0, 200)),
  units: byColumn(text(12)),
});
/** So many rows go at once: a page that is left in the middle has brought in whole pieces. */
export const MOST_AT_ONCE = 50;
export const bringInSchema = shape({
  places: list(placeRowSchema, MOST_AT_ONCE),
  appliances: list(applianceRowSchema, MOST_AT_ONCE),
  gauges: list(gaugeRowSchema, MOST_AT_ONCE),
  /** How the file was read, to be remembered with its last piece. */
  remember: shape({ shape: text(400), mapping: tableMappingSchema })
    .optional()
    .default(undefined),
});
export type BringIn = Omit<yup.InferType<typeof bringInSchema>, 'remember'> & {
  readonly remember?: { readonly shape: string; readonly mapping: TableMapping };
};
/** What became of a row. */
export interface BroughtRow {
  readonly row: number;
  readonly became: 'entered' | 'already' | 'refused';
  /** Where it stands now, or why it does not. */
  readonly text: string;
}
