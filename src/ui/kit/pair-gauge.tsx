'use client';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { useAttempt } from '@/ui/kit/use-attempt';
import { type PairedGauge, type PairingCode, pairingText } from '@/wire/pairing';
import { useEffect, useState } from 'react';

/** So often it is looked whether the device has come, ms. */
const LOOK_MS = 3_000;
interface Shown extends PairingCode {
  readonly qr: { readonly size: number; readonly path: string };
}

/** A gauge that sends what it shows by itself: its devices, and a code by which another is paired. */
export function PairGauge({ gauge }: { gauge: string }) {
  const [paired, setPaired] = useState<readonly PairedGauge[] | null>(null);
  const [shown, setShown] = useState<Shown | null>(null);
  const { busy, trouble, attempt } = useAttempt();
  useEffect(() => {
    let over = false;
    const look = () =>
      office<PairedGauge[]>('/api/gauges/paired')
        .then((all) => {
          if (over) return;
          const own = all.filter((p) => p.gauge === gauge);
          setPaired((before) => {
            // the device has come: its code is used up
            if (before && own.some((p) => !before.some((b) => b.id === p.id))) setShown(null);
            return own;
          });
        })
        .catch(() => undefined); // without the office nothing is paired; the next look asks again
    void look();
    const timer = shown ? setInterval(() => void look(), LOOK_MS) : undefined;
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [gauge, shown]);
  const make = () =>
    attempt(async () => {
      const code = await office<PairingCode>(`/api/gauges/${gauge}/code`, { body: {} });
      const { qrPath } = await import('@/chart/qr');
      setShown({ ...code, qr: qrPath(pairingText(location.origin, code.code)) });
    });
  const end = (id: string) =>
    attempt(async () => {
      await office(`/api/gauges/paired/${id}`, { method: 'DELETE' });
      setPaired((before) => before?.filter((p) => p.id !== id) ?? null);
    });
  return (
    <div className="grid justify-items-start gap-3">
      {paired && paired.length > 0 && (
        <ul className="grid gap-2" aria-label="Paired devices">
          {paired.map((p) => (
            <li key={p.id} className="flex flex-wrap items-center gap-3">
              <span>
                Paired: {p.device || 'a device without a name'}, since{' '}
                <span className="figure-narrow">{p.paired.slice(0, 10)}</span>
              </span>
              <Button disabled={busy} onClick={() => void end(p.id)}>
                End it
              </Button>
            </li>
          ))}
        </ul>
      )}
      {shown ? (
        <div className="flex flex-wrap items-center gap-5 border-l-4 border-lake pl-3" role="status">
          <svg
            viewBox={`-2 -2 ${shown.qr.size + 4} ${shown.qr.size + 4}`}
            width={150}
            height={150}
            role="img"
            aria-label="Where to and by which code, to be read by the device"
          >
            <rect x={-2} y={-2} width={shown.qr.size + 4} height={shown.qr.size + 4} fill="#fff" />
            <path d={shown.qr.path} fill="#000" />
          </svg>
          <div className="max-w-sm min-w-0">
            <p className="figure text-3xl font-bold">{shown.code}</p>
            <p>
              Type this into the device that reads the gauge, or let it read the picture. It serves once, for
              ten minutes. From then on what the gauge shows comes to every test that it judges.
            </p>
          </div>
        </div>
      ) : (
        <Button disabled={busy} onClick={() => void make()}>
          {paired?.length ? 'Pair another device' : 'It sends by itself: pair it'}
        </Button>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}
