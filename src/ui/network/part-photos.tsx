'use client';
import { type Part, partName } from '@/core/network/network';
import { useAttempt } from '@/ui/kit/use-attempt';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { SelectField } from '@/ui/kit/field';
import type { PartPhoto } from '@/wire/part-photo';
import { useState } from 'react';
import { type KeptPhotos, photoPath, PhotoRow } from './place-photos';

/** Photos of the part that is chosen, and a new one. What could not be sent stays here until it is. */
export function PartPhotos({
  system,
  part,
  name,
  saved,
  kept: { photos, setPhotos },
}: {
  system: string;
  part: string;
  name: string;
  /** The office knows the part; one that was only drawn has nothing to hang a photo on. */
  saved: boolean;
  kept: KeptPhotos;
}) {
  const [waiting, setWaiting] = useState<{ hash: string; bytes: ArrayBuffer } | null>(null);
  const { busy, trouble, attempt } = useAttempt();
  const send = async (photo: { hash: string; bytes: ArrayBuffer }) => {
    setWaiting(photo);
    await office(`${photoPath(system, photo.hash)}?part=${encodeURIComponent(part)}`, {
      method: 'PUT',
      file: new Blob([photo.bytes]),
    });
    setWaiting(null);
    setPhotos(await office<PartPhoto[]>(`/api/systems/${system}/photos`));
  };
  const take = (file: File) =>
    attempt(async () => {
      const { encodePhoto } = await import('@/device/photo');
      await send(await encodePhoto(file));
    });
  const remove = (photo: PartPhoto) =>
    attempt(async () => {
      await office(photoPath(system, photo.hash), { method: 'DELETE' });
      setPhotos((photos ?? []).filter((p) => p.hash !== photo.hash));
    });
  if (!saved)
    return <p className="text-sm text-quiet">Save the drawing first, then photos can hang on it.</p>;
  const own = (photos ?? []).filter((p) => p.part === part);
  return (
    <div className="grid gap-2">
      {own.length > 0 && (
        <PhotoRow system={system} photos={own} nameOf={() => name} remove={(p) => void remove(p)} />
      )}
      <label className="text-sm">
        Photo of it, by camera or from a file
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="mt-1 block min-h-12 w-full border border-edge bg-panel p-2"
          disabled={busy}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) void take(file);
          }}
        />
      </label>
      {waiting && !busy && (
        <Button onClick={() => void attempt(() => send(waiting))}>Send the photo again</Button>
      )}
      <p role="status" className="text-sm text-quiet">
        {busy ? 'Sending …' : ''}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}

/** Who does not change the drawing chooses the part here. */
export function PhotoOfAPart({
  system,
  kept,
  parts,
}: {
  system: string;
  kept: KeptPhotos;
  parts: readonly Part[];
}) {
  const [chosen, setChosen] = useState('');
  const part = parts.find((p) => p.id === chosen);
  return (
    <section className="no-print grid gap-3 border border-seam bg-panel p-3">
      <SelectField
        label="A photo of"
        none="choose the part"
        value={chosen}
        options={parts.map((p) => ({ id: p.id, title: partName(p) }))}
        onChange={setChosen}
      />
      {part && <PartPhotos key={chosen} {...{ system, kept }} part={chosen} name={partName(part)} saved />}
    </section>
  );
}
