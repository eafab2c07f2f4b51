'use client';
import { type Joined, partName, partOf } from '@/core/network/network';
import { localDate } from '@/core/quantity/local-date';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import type { PartPhoto } from '@/wire/part-photo';
import { Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';

export const photoPath = (system: string, hash: string) => `/api/systems/${system}/photos/${hash}`;
const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** Photos of an installation's parts as the office has them; null until they came, or without a signal. */
export function usePartPhotos(system: string) {
  const [photos, setPhotos] = useState<readonly PartPhoto[] | null>(null);
  useEffect(() => {
    let gone = false;
    office<PartPhoto[]>(`/api/systems/${system}/photos`).then(
      (list) => {
        if (!gone) setPhotos(list);
      },
      () => undefined, // the drawing says all that rules need
    );
    return () => {
      gone = true;
    };
  }, [system]);
  return { photos, setPhotos };
}
export type KeptPhotos = ReturnType<typeof usePartPhotos>;

/** Photos to look at, each under the name of its part; touched they open whole. */
export function PhotoRow({
  system,
  photos,
  nameOf,
  remove,
}: {
  system: string;
  photos: readonly PartPhoto[];
  nameOf: (part: string) => string;
  remove?: (photo: PartPhoto) => void;
}) {
  return (
    <ul className="flex flex-wrap gap-3">
      {photos.map((p) => (
        <li key={p.hash} className="max-w-40 text-sm">
          <a href={photoPath(system, p.hash)} target="_blank" rel="noreferrer" className="block">
            <img
              src={`${photoPath(system, p.hash)}?small=1`}
              alt={`${nameOf(p.part)}, ${localDate(p.at, ZONE)}`}
              className="h-28 border border-seam bg-block object-contain"
            />
            {nameOf(p.part)}
          </a>
          <span className="block text-quiet">
            {localDate(p.at, ZONE)}, {p.by}
          </span>
          {remove && (
            <Button aria-label={`Take this photo of ${nameOf(p.part)} away`} onClick={() => remove(p)}>
              <Trash2 size={18} aria-hidden />
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Every photo that hangs on a part of the drawing; nothing where there is none. */
export function PhotosOnParts({
  system,
  network,
  photos,
}: {
  system: string;
  network: Pick<Joined, 'parts'>;
  photos: readonly PartPhoto[];
}) {
  const shown = photos.filter((p) => partOf(network, p.part));
  if (!shown.length) return null;
  return (
    <section>
      <h2 className="text-lg font-semibold">Photos of its parts</h2>
      <PhotoRow system={system} photos={shown} nameOf={(id) => partName(partOf(network, id)!)} />
    </section>
  );
}
/** The same, as they come. */
export const PlacePhotos = ({
  kept,
  ...of
}: {
  system: string;
  network: Pick<Joined, 'parts'>;
  kept: KeptPhotos;
}) => <PhotosOnParts {...of} photos={kept.photos ?? []} />;
