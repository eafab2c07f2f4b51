'use client';
import { deviceZone } from '@/device/clock';
import { type Joined, partName, partOf } from '@/core/network/network';
import { localDate } from '@/core/quantity/local-date';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Photos } from '@/ui/kit/photos';
import type { PartPhoto } from '@/wire/part-photo';
import { Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';

export const photoPath = (system: string, hash: string) => `/api/systems/${system}/photos/${hash}`;
const ZONE = deviceZone();

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
    <Photos
      className="flex flex-wrap gap-3"
      small="h-28"
      photos={photos.map((p) => ({
        key: p.hash,
        small: `${photoPath(system, p.hash)}?small=1`,
        large: photoPath(system, p.hash),
        words: nameOf(p.part),
        when: `${localDate(p.at, ZONE)}, ${p.by}`,
        at: p.at,
        thing: p.part,
      }))}
      under={(shown, i) => (
        <div className="max-w-40 text-sm">
          {shown.words}
          <span className="block text-quiet">{shown.when}</span>
          {remove && (
            <Button aria-label={`Take this photo of ${shown.words} away`} onClick={() => remove(photos[i]!)}>
              <Trash2 size={18} aria-hidden />
            </Button>
          )}
        </div>
      )}
    />
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
