'use client';
import { useState } from 'react';
import { sendPhoto } from '@/device/photo';
import { Button } from '@/ui/kit/button';
import type { PanelProps } from './shared';

/** A photo of gauge, level, boundary or joint, kept beside the run with the moment it was taken. */
export function PhotoEntry({
  view,
  act,
  visit,
  onDone,
}: Pick<PanelProps, 'view' | 'act' | 'visit'> & { onDone: () => void }) {
  const [caption, setCaption] = useState(`${visit.title}: `);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const own = view.state.photos.filter((p) => p.visit === visit.ordinal);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    setBusy(true);
    try {
      const hash = await sendPhoto(view.plan.run, file);
      const answer = await act({ kind: 'photo', hash, caption: caption.trim() || visit.title });
      if (answer.accepted) onDone();
      else setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="grid gap-3">
      <label>
        What it shows
        <input
          className="mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg"
          value={caption}
          onChange={(e) => setCaption(e.target.value)}
          maxLength={300}
        />
      </label>
      <label className="text-lg">
        Photo, by camera or from a file
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="mt-1 block min-h-14 w-full border border-edge bg-panel p-3"
          disabled={busy}
          onChange={(e) => void send(e.target.files?.[0])}
        />
      </label>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <p aria-live="polite" className="text-quiet">
        {busy ? 'Sending the photo …' : own.length ? `${own.length} kept with this stage` : ''}
      </p>
      <Button className="min-h-14" onClick={onDone}>
        Back
      </Button>
    </div>
  );
}
