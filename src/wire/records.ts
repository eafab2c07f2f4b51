import { type PaperKind, PAPERS } from '@/core/record/papers';
import type * as yup from 'yup';
import { free, list, shape, text, uuid } from './figure';

/** Handing over, sharing and correcting of sealed records. */
export const sendPapersSchema = shape({
  id: uuid(),
  to: text(200),
  note: free(2000),
  papers: list(text(20).oneOf(Object.keys(PAPERS) as PaperKind[]), 12).min(1, 'choose at least one paper'),
});
export const linkActSchema = shape({ act: text(10).oneOf(['make', 'revoke'] as const) });
export const supersedeSchema = shape({
  id: uuid(),
  reason: text(500),
  site: shape({ name: text(120), address: text(300), customer: text(200) }),
  permit: free(60),
  present: free(200),
});
export type Supersede = yup.InferType<typeof supersedeSchema>;
