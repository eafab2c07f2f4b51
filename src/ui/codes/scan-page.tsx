'use client';
import { type LabelKind, LABELS, pageOfLabel } from '@/wire/codes';
import { Scan } from './scan';

const LETTER = Object.fromEntries(Object.entries(LABELS).map(([k, v]) => [v, k])) as Record<
  string,
  LabelKind
>;

/** A code leads on: a label to its thing, a page of ours to itself, what stands on a plate to where it was written down. */
export const ScanPage = () => (
  <Scan
    open
    onCode={(code) => {
      if (code.kind === 'elsewhere')
        return `That leads to ${code.host}, which is not this installation: it is not opened.`;
      location.assign(
        code.kind === 'label'
          ? pageOfLabel(LETTER[code.of]!, code.id)
          : code.kind === 'page'
            ? code.path
            : `/places?find=${encodeURIComponent(code.text)}`,
      );
      return '';
    }}
  />
);
