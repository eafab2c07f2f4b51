import * as yup from 'yup';
import { shape, text } from './figure';

/** A link to sign: as whom. */
export const signatureLinkSchema = shape({
  role: text(20).oneOf(['customer', 'witness'] as const),
  name: yup.string().strict(true).defined().max(120),
});
export type SignatureLinkRequest = yup.InferType<typeof signatureLinkSchema>;
/** What comes back by it: drawn, or refused with a reason. */
export const linkSignatureSchema = shape({
  name: text(120),
  strokes: yup
    .string()
    .strict(true)
    .max(60_000)
    .matches(/^[ML0-9 .-]*$/, 'is not a drawing')
    .optional(),
  refused: yup.string().strict(true).max(500).optional(),
  as: yup.string().strict(true).max(80).optional(),
  saw: yup
    .string()
    .strict(true)
    .oneOf(['whole', 'end'] as const)
    .optional(),
});
export type LinkSignature = yup.InferType<typeof linkSignatureSchema>;
