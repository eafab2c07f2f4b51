'use client';
import SignaturePad from 'signature_pad';
import { useEffect, useRef, useState } from 'react';
import { Button } from '@/ui/kit/button';

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
    const p = new SignaturePad(el, { penColor: getComputedStyle(el).color, minWidth: 1.2, maxWidth: 2.4 });
    pad.current = p;
    const ended = () => {
      const sx = 300 / el.width;
      const sy = 100 / el.height;
      const strokes = p
        .toData()
        .map((s) =>
          s.points
            .map(
              (q, i) =>
                `${i ? 'L' : 'M'} ${Math.max(0, Math.round(q.x * sx))} ${Math.max(0, Math.round(q.y * sy))}`,
            )
            .join(' '),
        )
        .join(' ');
      setDrawn(strokes !== '');
      tell.current(strokes.slice(0, 59000));
    };
    p.addEventListener('endStroke', ended);
    return () => {
      p.removeEventListener('endStroke', ended);
      p.off();
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
