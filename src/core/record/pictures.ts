import { PHOTO_SUBJECTS } from '@/core/run/events';
import { besidePhoto } from '@/core/run/photos';
import type { RunState } from '@/core/run/state';

/** A photo of a record with what it shows and what was entered beside it. */
export interface Picture {
  readonly hash: string;
  readonly title: string;
  readonly caption: string;
  readonly beside: string;
  /** Where a part stands that was photographed; '' for a photo of the test itself. */
  readonly place: string;
  /** Stage, moment (ms UTC) and who took it; null for a photo of a part. */
  readonly taken: { readonly stage: string; readonly at: number; readonly by: string } | null;
}
/** Every photo of a record: those of the test in their order, then those of parts. Page and print share it. */
export const picturesOf = (state: RunState): Picture[] => [
  ...state.photos.map((p) => ({
    hash: p.hash,
    title: p.shows ? PHOTO_SUBJECTS[p.shows] : 'photo',
    caption: p.caption,
    beside: besidePhoto(state, p),
    place: '',
    taken: {
      stage: state.visits.find((v) => v.ordinal === p.visit)?.title ?? '',
      at: p.at,
      by: p.byName,
    },
  })),
  ...state.inventory.flatMap((i) =>
    (i.photos ?? []).map((hash) => ({
      hash,
      title: 'a part that was present',
      caption: i.name,
      beside: [i.make, i.model, i.serial && `serial ${i.serial}`].filter(Boolean).join(', '),
      place: i.place,
      taken: null,
    })),
  ),
];
