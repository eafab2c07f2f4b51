'use client';
import type SignaturePad from 'signature_pad';
import { useEffect, useRef, useState } from 'react';
import { Button } from '@/ui/kit/button';

/** Fetched after the bench stands, so that it is there without a signal. */
export const prepareSignature = () => import('signature_pad');

/** Draws a signature; gives it as path data in a box of 300 by 100, whole numbers only. */
export function SignatureField({ label, onChange }: { label: string; onChange: (strokes: string) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const [drawn, setDrawn] = useState(false);
  const tell = useRef(onChange);
  useEffect(() => {
    tell.current = onChange;
  }, [onChange]);
  useEffect(() => {
    const el = canvas.current!;
    el.width = el.clientWidth;
    el.height = el.clientHeight;
    let gone = false;
    let off = () => {};
    void prepareSignature().then(({ default: Pad }) => {
      if (gone) return;
      const p = new Pad(el, { penColor: getComputedStyle(el).color, minWidth: 1.2, maxWidth: 2.4 });
      pad.current = p;
      const ended = () => {
        const sx = 300 / el.width;
        const sy = 100 / el.height;
        const place = (v: number, scale: number) => Math.max(0, Math.round(v * scale));
        const strokes = p
          .toData()
          .map((s) =>
            s.points.map((q, n) => `${n ? 'L' : 'M'} ${place(q.x, sx)} ${place(q.y, sy)}`).join(' '),
          )
          .join(' ');
        setDrawn(strokes !== '');
        tell.current(strokes.slice(0, 59000));
      };
      p.addEventListener('endStroke', ended);
      el.dataset.ready = '1';
      off = () => {
        p.removeEventListener('endStroke', ended);
        p.off();
      };
    });
    return () => {
      gone = true;
      off();
    };
  }, []);
  return (
    <div>
      <p>{label}</p>
      <canvas
        ref={canvas}
        aria-label={label}
        role="img"
        className="mt-1 block h-36 w-full max-w-xl touch-none border border-edge bg-panel text-ink"
      />
      <Button
        className="mt-2"
        disabled={!drawn}
        onClick={() => {
          pad.current?.clear();
          setDrawn(false);
          onChange('');
        }}
      >
        Clear and sign again
      </Button>
    </div>
  );
}
