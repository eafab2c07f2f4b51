'use client';
import { lazy, type ReactNode, Suspense, useState } from 'react';

/** A photo as it is shown in a list, and large. */
export interface ShownPhoto {
  readonly key: string;
  readonly small: string;
  readonly large: string;
  readonly words: string;
  /** When and by whom, in words. */
  readonly when: string;
  /** ms */
  readonly at: number;
  /** What it is of: two of the same can be laid side by side. */
  readonly thing: string;
  /** What was entered beside it, and its mark. */
  readonly note?: string;
  readonly mark?: string;
}
/** What is known of a photo, under it. */
export const Caption = ({ of: { words, note, when, mark } }: { of: Omit<ShownPhoto, 'small' | 'large'> }) => (
  <>
    <p className="mt-1 font-semibold">{words}</p>
    {note && <p className="text-sm">{note}</p>}
    <p className="text-sm text-quiet">
      {when} {mark && <span className="figure-narrow">{mark}</span>}
    </p>
  </>
);
const Large = lazy(() => import('./photo-large'));

/** Photos in small; one that is touched stands large over the page. */
export function Photos({
  photos,
  className,
  small,
  captions,
  under,
}: {
  photos: readonly ShownPhoto[];
  className: string;
  /** How a small one stands. */
  small: string;
  /** What is known of a photo stands under it. */
  captions?: true;
  /** Something of one's own under a photo. */
  under?: (photo: ShownPhoto, index: number) => ReactNode;
}) {
  const [at, setAt] = useState<number | null>(null);
  return (
    <>
      <ul className={className}>
        {photos.map((p, i) => (
          <li key={p.key}>
            <button
              type="button"
              className="block w-full cursor-zoom-in"
              aria-label={`${p.words}: large`}
              onClick={() => setAt(i)}
            >
              <img
                src={p.small}
                alt={[p.words, p.when].filter(Boolean).join(', ')}
                className={`border border-seam bg-block object-contain ${small}`}
                loading="lazy"
              />
            </button>
            {captions && <Caption of={p} />}
            {under?.(p, i)}
          </li>
        ))}
      </ul>
      {at !== null && (
        <Suspense fallback={null}>
          <Large photos={photos} at={at} onClose={() => setAt(null)} />
        </Suspense>
      )}
    </>
  );
}
