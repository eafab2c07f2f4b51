import { isDay } from '@/core/quantity/local-date';
import * as yup from 'yup';
import { isoDay, shape, text, uuid } from './figure';
import { chosenFilters } from './ledger';

/** Filters of the ledger; each that is left out does not narrow. The same names stand in the address of the page. */
export const ledgerQuerySchema = yup
  .object({
    find: yup.string().strict(true).max(200).optional(),
    word: yup.string().strict(true).max(40).optional(),
    status: yup.string().strict(true).oneOf(['certificate', 'not-a-certificate', 'practice']).optional(),
    source: yup.string().strict(true).oneOf(['own', 'outside']).optional(),
    standing: yup.string().strict(true).oneOf(['stands', 'superseded', 'void']).optional(),
    procedure: yup.string().strict(true).max(60).optional(),
    system: yup
      .string()
      .strict(true)
      .matches(/^[0-9a-f-]{36}$/, 'is not an id')
      .optional(),
    tester: yup.string().strict(true).max(120).optional(),
    gauge: yup.string().strict(true).max(60).optional(),
    from: yup
      .string()
      .strict(true)
      .test('day', 'is not a day, like 2026-11-24', (v) => v === undefined || isDay(v))
      .optional(),
    to: yup
      .string()
      .strict(true)
      .test('day', 'is not a day, like 2026-11-24', (v) => v === undefined || isDay(v))
      .optional(),
  })
  .noUnknown()
  .strict(true)
  .required();
export type LedgerQuery = yup.InferType<typeof ledgerQuerySchema>;
/** The filters in the address of a page or file. @throws ValidationError */
export const queryFrom = (params: URLSearchParams): LedgerQuery =>
  ledgerQuerySchema.validateSync(chosenFilters(params), { strict: true });

export const ledgerViewSchema = shape({
  id: uuid(),
  name: text(80),
  query: yup.string().strict(true).defined().max(1000),
  shared: yup.boolean().strict(true).required(),
});
/** Voiding: the number stays, the reason is said. */
export const voidSchema = shape({ reason: text(500) });
export const followUpSchema = shape({
  owner: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an id')
    .nullable()
    .defined(),
  due: isoDay(),
});
export const closeSchema = shape({ text: yup.string().strict(true).defined().max(500) });
