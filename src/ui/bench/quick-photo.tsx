'use client';
import { useState } from 'react';
import { PhotoInput } from './photo-input';
import type { PanelProps } from './shared';
import { Thumbnail } from './thumbnail';

/** A photo the step itself asks for: one tap, its words ready; what was taken stands beside it. */
export function QuickPhoto({
  view,
  engine,
  act,
  visit,
  asks,
  onTaken,
}: Pick<PanelProps, 'view' | 'engine' | 'act' | 'visit'> & {
  /** What it shows: "dye at the open plug". */
  asks: string;
  onTaken?: (hash: string) => void;
}) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const caption = `${visit.title}: ${asks}`;
  const own = view.state.photos.filter((p) => p.visit === visit.ordinal && p.caption === caption);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setTrouble('');
    try {
      const hash = await engine.keepPhoto(file);
      const answer = await act({ kind: 'photo', hash, caption, shows: 'other' });
      if (answer.accepted) onTaken?.(hash);
      else setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <PhotoInput className="min-w-0 flex-1 basis-64" busy={busy} onFile={(file) => void send(file)}>
        Photo: {asks}
      </PhotoInput>
      {own.map((p) => (
        <Thumbnail key={p.hash} engine={engine} hash={p.hash} words={p.caption} />
      ))}
      <p role="alert" className="w-full text-rust empty:hidden">
        {trouble}
      </p>
    </div>
  );
}
