import * as yup from 'yup';
import { TIME_FORMATS, type LogMapping, type TimeFormat } from '@/core/gauge-log/mapping';
import { UNITS, type Unit } from '@/core/quantity/unit';
import { shape, text } from './figure';

const column = () => yup.number().strict(true).integer().min(0).max(200);
/** How a kind of log is read, as the office remembers it. */
export const logMappingSchema = shape({
  shape: text(400),
  mapping: shape({
    delimiter: yup.string().strict(true).oneOf([',', ';', '\t', '|']).required(),
    decimal: yup
      .string()
      .strict(true)
      .oneOf(['.', ','] as const)
      .required(),
    headerRows: yup.number().strict(true).integer().min(0).max(1000).required(),
    time: shape({
      column: column().required(),
      clock: column().optional(),
      format: text(20).oneOf(Object.keys(TIME_FORMATS) as TimeFormat[]),
    }),
    pressure: shape({ column: column().required(), unit: text(10).oneOf(Object.keys(UNITS) as Unit[]) }),
    temperature: yup
      .object({
        column: column().required(),
        unit: yup
          .string()
          .strict(true)
          .oneOf(['C', 'F'] as const)
          .required(),
      })
      .noUnknown()
      .strict(true)
      .optional()
      .default(undefined),
    aheadSeconds: yup.number().strict(true).min(-864_000_000).max(864_000_000).required(),
  }),
});
export type KeptMapping = { readonly shape: string; readonly mapping: LogMapping };
