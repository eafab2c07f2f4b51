'use client';
import { showExact } from '@/core/quantity/exact';
import { PHOTO_SUBJECTS, type PhotoSubject } from '@/core/run/events';
import { besidePhoto, lastReadingId, readingsOf } from '@/core/run/photos';
import { Button } from '@/ui/kit/button';
import { clockTime } from '@/ui/kit/words';
import { useState } from 'react';
import { FIELD } from './line';
import { PhotoInput } from './photo-input';
import type { PanelProps } from './shared';
import { Thumbnail } from './thumbnail';

const SUBJECTS = Object.keys(PHOTO_SUBJECTS) as PhotoSubject[];
const NEWEST = 6;

/** A photo of gauge, level, boundary or joint, kept beside what was entered, with the moment it was taken. */
export function PhotoEntry({
  view,
  engine,
  act,
  visit,
  onDone,
}: Pick<PanelProps, 'view' | 'engine' | 'act' | 'visit'> & { onDone: () => void }) {
  const [shows, setShows] = useState<PhotoSubject>('gauge');
  const [caption, setCaption] = useState('');
  // the newest reading, also one that came while this was open, until another is chosen
  const [chosen, setBeside] = useState<string | null>(null);
  const beside = chosen ?? lastReadingId(view.state) ?? '';
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const readings = [...new Map(readingsOf(view.state).map((r) => [r.reading.id, r])).values()]
    .sort((a, b) => b.reading.at - a.reading.at)
    .slice(0, NEWEST);
  const own = view.state.photos.filter((p) => p.visit === visit.ordinal);
  const proves = shows === 'gauge' || shows === 'level';
  const send = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    setBusy(true);
    try {
      const hash = await engine.keepPhoto(file);
      const answer = await act({
        kind: 'photo',
        hash,
        caption: caption.trim() || `${visit.title}, ${PHOTO_SUBJECTS[shows]}`,
        shows,
        ...(proves && beside ? { beside } : {}),
      });
      if (!answer.accepted) setTrouble(answer.text);
      else setCaption('');
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="grid gap-3">
      <h3 id="shows" className="text-lg font-semibold">
        What does the photo show?
      </h3>
      <div role="group" aria-labelledby="shows" className="grid grid-cols-3 gap-2 sm:grid-cols-5">
        {SUBJECTS.map((s) => (
          <Button
            key={s}
            className="min-h-12 px-1"
            tone={shows === s ? 'act' : 'plain'}
            aria-pressed={shows === s}
            onClick={() => setShows(s)}
          >
            {PHOTO_SUBJECTS[s].replace(/^(the|a) /, '')}
          </Button>
        ))}
      </div>
      {proves && readings.length > 0 && (
        <label>
          Stands beside
          <select className={FIELD} value={beside} onChange={(e) => setBeside(e.target.value)}>
            {readings.map(({ reading, what }) => (
              <option key={reading.id} value={reading.id}>
                {what}: {showExact(reading.figure)}, {clockTime(reading.at, view.plan.made.zone)}
              </option>
            ))}
            <option value="">no reading</option>
          </select>
        </label>
      )}
      <details>
        <summary className="min-h-11 cursor-pointer py-2">Words of your own with the next photo</summary>
        <label className="sr-only" htmlFor="caption">
          In words
        </label>
        <input
          id="caption"
          className={FIELD}
          value={caption}
          onChange={(e) => setCaption(e.target.value)}
          maxLength={300}
          placeholder={`${visit.title}, ${PHOTO_SUBJECTS[shows]}`}
        />
      </details>
      <PhotoInput className="text-lg" busy={busy} onFile={(file) => void send(file)}>
        Photo, by camera or from a file
      </PhotoInput>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <p aria-live="polite" className="text-quiet">
        {busy
          ? 'Keeping the photo …'
          : own.length
            ? `${own.length} with this stage${view.photosWaiting ? `; ${view.photosWaiting} wait here for a signal` : ', all with the office'}`
            : ''}
      </p>
      {own.length > 0 && (
        <ul className="flex flex-wrap gap-3">
          {own.map((p) => (
            <li key={p.hash} className="max-w-40 text-sm">
              <Thumbnail engine={engine} hash={p.hash} words={p.caption} />
              {besidePhoto(view.state, p) || p.caption}
            </li>
          ))}
        </ul>
      )}
      <Button className="min-h-14" onClick={onDone}>
        Back
      </Button>
    </div>
  );
}
