import { type PaperKind, PAPERS } from '@/core/record/papers';
import type { Unit } from '@/core/quantity/unit';
import type { VerdictWord } from '@/core/verdict/words';
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

/** What the public page may know: the words of the certificate's face, never the log or the ids behind it. */
export interface PublicFace {
  readonly number: string;
  readonly title: string;
  readonly statusLine: string;
  readonly organisation: string;
  readonly sealed: string;
  readonly word: VerdictWord;
  readonly label: string;
  readonly sentence: string;
  readonly plain: string;
  /** What somebody asks first: where, what, when, by whom. */
  readonly first: readonly (readonly [string, string])[];
  /** What nobody may have to unfold. */
  readonly seen: readonly { readonly title: string; readonly lines: readonly string[] }[];
  readonly rows: readonly (readonly [string, string])[];
  readonly stages: readonly { readonly title: string; readonly word: string; readonly text: string }[];
  readonly hash: string;
  /** Units that its gauges judged in. */
  readonly judgedIn: readonly Unit[];
  /** What was said of it afterwards: superseded, void. */
  readonly marks: readonly string[];
}
