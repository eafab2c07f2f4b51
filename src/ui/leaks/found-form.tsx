'use client';
import { FOUND_BY, type FoundBy } from '@/core/after/leaks';
import { BUBBLE_SIZES, type BubbleSize } from '@/core/kinds/joints/entries';
import { ruleOfPart } from '@/core/network/catalogue';
import { type Network, partName, partOf } from '@/core/network/network';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { Options, TextField, FIELD, Field } from '@/ui/kit/field';
import { photoPath } from '@/ui/network/place-photos';
import type { PartPhoto } from '@/wire/part-photo';
import { useState } from 'react';
import { type Say, Spotted } from './spotted';

const SIZES = Object.fromEntries(BUBBLE_SIZES.map((s) => [s, s])) as Record<BubbleSize, string>;
/** Where it leaks, how it was found, how large its bubbles are; a photo with the spot where there is one. */
export function FoundForm({
  system,
  network,
  part,
  onPart,
  photos,
  onPhotos,
  begin,
  say,
  onDone,
}: {
  system: string;
  network: Network;
  part: string;
  onPart: (id: string) => void;
  /** Null: photos are taken with the test. */
  photos: readonly PartPhoto[] | null;
  onPhotos?: (photos: readonly PartPhoto[]) => void;
  begin: { readonly run: string; readonly joint: string } | null;
  say: Say;
  onDone: () => void;
}) {
  const [joint, setJoint] = useState(begin?.joint ?? '');
  const [how, setHow] = useState<FoundBy>('fluid');
  const [size, setSize] = useState<BubbleSize | ''>('');
  const [text, setText] = useState('');
  const [picture, setPicture] = useState<Picture>({ photo: '' });
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const save = async () => {
    const name = joint.trim() || (part ? partName(partOf(network, part)!) : '');
    if (!name) return setTrouble('Name the joint, or touch the part of the drawing where it leaks.');
    setBusy(true);
    const wrong = await say({
      kind: 'found',
      joint: name,
      how,
      ...(size ? { size } : {}),
      part,
      ...(picture.photo ? { photo: picture.photo } : {}),
      ...(picture.photo && picture.spot ? { spot: picture.spot } : {}),
      ...(begin?.run ? { run: begin.run } : {}),
      text: text.trim(),
    });
    setBusy(false);
    if (wrong) setTrouble(wrong);
    else onDone();
  };
  return (
    <form
      aria-label="A leak that was found"
      className="grid gap-3 border border-seam bg-panel p-4"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Which joint"
          hint="as it is known there"
          value={joint}
          onChange={setJoint}
          maxLength={120}
        />
        <Field label="At which part of the drawing" hint="or touch it there">
          {(ids) => (
            <select {...ids} className={FIELD} value={part} onChange={(e) => onPart(e.target.value)}>
              <option value="">not in the drawing</option>
              <Options
                of={network.parts
                  .filter((p) => p.name && !ruleOfPart(p.kind).nameless)
                  .map((p) => [p.id, partName(p)] as const)}
              />
            </select>
          )}
        </Field>
      </div>
      <HowFound how={how} size={size} onHow={setHow} onSize={setSize} />
      {part && photos && onPhotos && (
        <PhotoOfIt
          system={system}
          part={part}
          photos={photos}
          onPhotos={onPhotos}
          name={joint || 'the joint'}
          size={size || undefined}
          value={picture}
          onChange={setPicture}
        />
      )}
      <TextField
        label="In a few words"
        hint="may stay empty"
        value={text}
        onChange={setText}
        maxLength={500}
      />
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <div className="grid grid-cols-2 gap-3 sm:flex">
        <Button className="min-h-14" onClick={onDone}>
          Back
        </Button>
        <Button type="submit" tone="act" className="min-h-14 sm:px-8" disabled={busy}>
          Into the book
        </Button>
      </div>
    </form>
  );
}

/** How it was found, and how large its bubbles grow. */
function HowFound({
  how,
  size,
  onHow,
  onSize,
}: {
  how: FoundBy;
  size: BubbleSize | '';
  onHow: (how: FoundBy) => void;
  onSize: (size: BubbleSize | '') => void;
}) {
  return (
    <>
      <fieldset>
        <legend className="text-sm">How it was found</legend>
        <div className="mt-1 grid grid-cols-2 gap-2 sm:grid-cols-4">
          {(Object.entries(FOUND_BY) as [FoundBy, string][]).map(([key, words]) => (
            <Button
              key={key}
              className="min-h-12"
              tone={key === how ? 'act' : 'plain'}
              aria-pressed={key === how}
              onClick={() => onHow(key)}
            >
              {words}
            </Button>
          ))}
        </div>
      </fieldset>
      {how === 'fluid' && (
        <fieldset>
          <legend className="text-sm">How large its bubbles grow</legend>
          <Choice
            label="Size of its bubbles"
            options={SIZES}
            value={size}
            onChange={onSize}
            className="mt-1 max-w-xl"
          />
        </fieldset>
      )}
    </>
  );
}
interface Picture {
  readonly photo: string;
  readonly spot?: { readonly x: number; readonly y: number };
}
/** A photo of the part, taken now or hanging there, and the spot on it. */
function PhotoOfIt({
  system,
  part,
  photos,
  onPhotos,
  name,
  size,
  value,
  onChange,
}: {
  system: string;
  part: string;
  photos: readonly PartPhoto[];
  onPhotos: (photos: readonly PartPhoto[]) => void;
  name: string;
  size: BubbleSize | undefined;
  value: Picture;
  onChange: (picture: Picture) => void;
}) {
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const own = photos.filter((p) => p.part === part);
  const take = async (file: File) => {
    setBusy(true);
    setTrouble('');
    try {
      const { encodePhoto } = await import('@/device/photo');
      const taken = await encodePhoto(file);
      await office(`${photoPath(system, taken.hash)}?part=${encodeURIComponent(part)}`, {
        method: 'PUT',
        file: new Blob([taken.bytes]),
      });
      onPhotos(await office<PartPhoto[]>(`/api/systems/${system}/photos`));
      onChange({ photo: taken.hash });
    } catch (error) {
      setTrouble(`${(error as OfficeError).message} The leak can be written down without it.`);
    }
    setBusy(false);
  };
  return (
    <div className="grid gap-2">
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
      <p role="alert" className={`text-rust ${trouble ? '' : 'hidden'}`}>
        {trouble}
      </p>
      {!value.photo && own.length > 0 && (
        <Button className="min-h-12 justify-self-start" onClick={() => onChange({ photo: own[0]!.hash })}>
          Use the photo that hangs there
        </Button>
      )}
      {value.photo && (
        <>
          <p className="text-sm text-quiet">Touch the photo where it leaks.</p>
          <Spotted
            system={system}
            hash={value.photo}
            spot={value.spot}
            size={size}
            n={1}
            name={name}
            onSpot={(spot) => onChange({ ...value, spot })}
          />
        </>
      )}
    </div>
  );
}
