'use client';
import { readCode, readCodeFile } from '@/device/code-reader';
import { Button } from '@/ui/kit/button';
import { type Code, meaningOf } from '@/wire/codes';
import { useEffect, useEffectEvent, useRef, useState } from 'react';

const EVERY_MS = 250;

/** The camera looks for a code; where there is no camera, a photo of it does. */
export function Looking({
  label,
  onCode,
  onBack,
}: {
  label: string;
  /** @returns why it is not what was looked for; '' when it was taken */
  onCode: (code: Code, text: string) => string;
  /** Absent: there is nothing to go back to. */
  onBack?: (() => void) | undefined;
}) {
  // that there is no camera is known late, and must not wipe away what was said of a photo meanwhile
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const newest = useRef<File>(undefined);
  const take = (text: string) => {
    const wrong = onCode(meaningOf(text, location.origin), text);
    setSaid(wrong);
    if (!wrong) onBack?.();
  };
  const takeFile = async (file: File | undefined) => {
    if (!file) return;
    newest.current = file;
    setSaid('Looking for a code …');
    try {
      const text = await readCodeFile(file);
      if (newest.current !== file) return;
      if (text) take(text);
      else setSaid('No code could be read in it. Hold the camera nearer and straight, with light on it.');
    } catch (error) {
      if (newest.current === file) setSaid((error as Error).message);
    }
  };
  return (
    <section className="grid gap-2 border border-seam bg-panel p-3" aria-label={label}>
      <Camera onText={take} onTrouble={setTrouble} />
      <label className="text-sm">
        Or a photo of it
        <input
          type="file"
          accept="image/*"
          className="mt-1 block min-h-12 w-full text-base file:mr-3 file:min-h-12 file:border file:border-edge file:bg-panel file:px-4"
          onChange={(e) => {
            void takeFile(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
      </label>
      <p role="status" className="min-h-6">
        {said || trouble}
      </p>
      {onBack && <Button onClick={onBack}>Back</Button>}
    </section>
  );
}

/** The picture of the camera, looked through a few times a second. */
function Camera({
  onText,
  onTrouble,
}: {
  onText: (text: string) => void;
  onTrouble: (text: string) => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const [runs, setRuns] = useState(false);
  const found = useEffectEvent(onText);
  const trouble = useEffectEvent(onTrouble);
  useEffect(() => {
    let over = false;
    let stream: MediaStream | null = null;
    let last = '';
    const look = async (): Promise<void> => {
      const v = video.current;
      if (over || !v) return;
      if (v.readyState >= 2) {
        const text = await readCode(v, { width: v.videoWidth, height: v.videoHeight }).catch(() => null);
        // what was refused is not refused again with every picture
        if (text && text !== last && !over) found((last = text));
      }
      if (!over) setTimeout(() => void look(), EVERY_MS);
    };
    const begin = async () => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        if (over || !video.current) return stop();
        video.current.srcObject = stream;
        await video.current.play();
        setRuns(true);
        void look();
      } catch {
        if (!over) trouble('No camera can be used here: take a photo of the code instead.');
      }
    };
    const stop = () => stream?.getTracks().forEach((t) => t.stop());
    void begin();
    return () => {
      over = true;
      stop();
    };
  }, []);
  return (
    <video
      ref={video}
      muted
      playsInline
      aria-label="What the camera sees"
      className={`max-h-72 w-full bg-block object-contain ${runs ? '' : 'hidden'}`}
    />
  );
}
