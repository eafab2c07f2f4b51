'use client';
import { useState } from 'react';
import type { BenchEngine } from '@/device/bench';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';

/** A link and its code, for whoever signs on a phone of their own. The signature comes back to this bench by itself. */
export function OwnDevice({
  run,
  engine,
  signs,
  name,
}: {
  run: string;
  engine: Pick<BenchEngine, 'sync'>;
  signs: 'customer' | 'witness';
  name: string;
}) {
  const [link, setLink] = useState('');
  const [code, setCode] = useState<{ size: number; path: string } | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setTrouble('');
    setBusy(true);
    try {
      // the tester's own signature, just made here, may still be on its way: a link comes after it
      await engine.sync();
      const answer = await office<{ link: string }>(`/api/runs/${run}/signature-links`, {
        body: { role: signs, name },
      });
      const { qrPath } = await import('@/chart/qr');
      setCode(qrPath(answer.link));
      setLink(answer.link);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return (
    <div>
      {link && code ? (
        <div className="flex flex-wrap items-center gap-5 border-l-4 border-lake pl-3">
          <svg
            viewBox={`-2 -2 ${code.size + 4} ${code.size + 4}`}
            width={190}
            height={190}
            role="img"
            aria-label="Code of the link to sign"
          >
            <rect x={-2} y={-2} width={code.size + 4} height={code.size + 4} fill="#fff" />
            <path d={code.path} fill="#000" />
          </svg>
          <p className="min-w-0 max-w-sm" role="status">
            Let the {signs} scan this, or open <span className="figure-narrow text-sm break-all">{link}</span>
            . It works once, for two days. The signature appears here by itself.
          </p>
        </div>
      ) : (
        <Button className="min-h-14" disabled={busy} onClick={() => void make()}>
          {signs === 'customer' ? 'Customer signs on their own phone' : 'Witness signs on their own phone'}
        </Button>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}
