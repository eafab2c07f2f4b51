'use client';
import { metres } from '@/core/installation/section';
import type { placeNow } from '@/core/kinds/listen/fold';
import { Button } from '@/ui/kit/button';
import { type PointerEvent, useEffect, useState } from 'react';
import { QuickPhoto } from '../quick-photo';
import type { PanelProps } from '../shared';

type Point = readonly [x: number, y: number];
const THOUSAND = 1000;
/** The steps an arrow key moves an end by, in thousandths. */
const KEY_STEP = 20;
const KEYS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-KEY_STEP, 0],
  ArrowRight: [KEY_STEP, 0],
  ArrowUp: [0, -KEY_STEP],
  ArrowDown: [0, KEY_STEP],
};
const within = (n: number): number => Math.min(THOUSAND, Math.max(0, Math.round(n)));

/** The run as it lies there: drawn by two taps on a photo, with what was heard and where the place is. */
export function RunOnPhoto(props: PanelProps & { place: ReturnType<typeof placeNow> }) {
  const { view, act } = props;
  const { picture } = view.state.rooms.listen;
  const [taken, setTaken] = useState('');
  const [from, setFrom] = useState<Point | null>(null);
  const [trouble, setTrouble] = useState('');
  const photo = taken || picture?.photo || '';
  const asking = taken !== '' && (from === null ? 'Tap where the run begins.' : 'Tap where it ends.');
  const tap = async (at: Point) => {
    if (!asking) return;
    if (!from) return setFrom(at);
    const answer = await act({ kind: 'listen-picture', photo, from: [...from], to: [...at] });
    setTrouble(answer.accepted ? '' : answer.text);
    setFrom(null);
    if (answer.accepted) setTaken('');
  };
  return (
    <details className="border-y border-seam" open={!!photo}>
      <summary className="min-h-11 cursor-pointer py-2">The run on a photo of the place</summary>
      <div className="grid gap-3 pb-3">
        <QuickPhoto {...props} asks="the whole run in sight" onTaken={setTaken} />
        {photo && (
          <>
            {asking && (
              <p aria-live="polite" className="text-lg font-semibold">
                {asking}
              </p>
            )}
            <Photo {...props} photo={photo} from={from} asking={!!asking} onTap={(p) => void tap(p)} />
            {!asking && (
              <Button className="min-h-12" onClick={() => setTaken(photo)}>
                Draw the run again
              </Button>
            )}
          </>
        )}
        <p role="alert" className="text-rust empty:hidden">
          {trouble}
        </p>
      </div>
    </details>
  );
}
function Photo({
  view,
  engine,
  place,
  photo,
  from,
  asking,
  onTap,
}: PanelProps & {
  place: ReturnType<typeof placeNow>;
  photo: string;
  from: Point | null;
  asking: boolean;
  onTap: (at: Point) => void;
}) {
  const [address, setAddress] = useState('');
  const [cursor, setCursor] = useState<Point>([THOUSAND / 2, THOUSAND / 2]);
  useEffect(() => {
    let gone = false;
    void engine.photoAddress(photo).then((a) => !gone && setAddress(a.replace('?small=1', '')));
    return () => {
      gone = true;
    };
  }, [engine, photo]);
  const { run, spots, picture } = view.state.rooms.listen;
  const drawn = !asking && picture?.photo === photo ? picture : null;
  const length = metres(run!.length);
  const on = (m: number): Point => [
    drawn!.from[0]! + ((drawn!.to[0]! - drawn!.from[0]!) * m) / length,
    drawn!.from[1]! + ((drawn!.to[1]! - drawn!.from[1]!) * m) / length,
  ];
  const pointed = (e: PointerEvent<SVGSVGElement>): Point => {
    const box = e.currentTarget.getBoundingClientRect();
    return [
      within(((e.clientX - box.left) / box.width) * THOUSAND),
      within(((e.clientY - box.top) / box.height) * THOUSAND),
    ];
  };
  const line = (a: Point, b: Point, stroke: string, width: number) => (
    <line
      x1={a[0]}
      y1={a[1]}
      x2={b[0]}
      y2={b[1]}
      stroke={stroke}
      strokeWidth={width}
      strokeLinecap="round"
      vectorEffect="non-scaling-stroke"
    />
  );
  return (
    <div className="relative">
      {address && <img src={address} alt="The run, as it lies there" className="block w-full" />}
      <svg
        viewBox="0 0 1000 1000"
        preserveAspectRatio="none"
        role={asking ? 'application' : 'img'}
        tabIndex={asking ? 0 : -1}
        aria-label={
          asking
            ? 'The photo: tap, or move with the arrow keys and press Enter'
            : drawn
              ? `The run drawn on the photo, ${spots.length} spots heard`
              : 'The photo'
        }
        className="absolute inset-0 h-full w-full touch-manipulation"
        onPointerUp={(e) => onTap(pointed(e))}
        onKeyDown={(e) => {
          const step = KEYS[e.key];
          if (asking && step) {
            e.preventDefault();
            setCursor(([x, y]) => [within(x + step[0]), within(y + step[1])]);
          } else if (asking && e.key === 'Enter') onTap(cursor);
        }}
      >
        {drawn && (
          <>
            {line(on(0), on(length), 'white', 7)}
            {line(on(0), on(length), 'black', 3)}
            {place && line(on(place.from), on(place.to), 'var(--ochre)', 12)}
            {spots.map((s, i) => {
              const at = on(metres(s.along));
              // a dot whose size is how loud it was, round on any shape of photo
              return (
                <g key={i}>
                  {line(at, at, 'black', 8 + s.loud * 2.4)}
                  {line(at, at, 'white', 4 + s.loud * 2.4)}
                </g>
              );
            })}
            {place && line(on(place.best), on(place.best), 'var(--rust)', 14)}
          </>
        )}
        {asking && from && line(from, from, 'var(--lake)', 16)}
        {asking && line(cursor, cursor, 'white', 6)}
      </svg>
    </div>
  );
}
