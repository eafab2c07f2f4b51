'use client';
import type { TraceRequest } from '@/chart/trace';
import { useSize } from '@/ui/kit/use-size';
import { TraceChart } from './trace';

/** A trace as wide as its place. */
export function FittedTrace({
  request,
  unit,
  title,
}: {
  request: Omit<TraceRequest, 'width' | 'height'>;
  unit: string;
  title: string;
}) {
  const [setEl, { width }] = useSize();
  return (
    <div ref={setEl} className="min-h-[220px] max-w-3xl">
      {width > 0 && <TraceChart request={{ ...request, width, height: 220 }} unit={unit} title={title} />}
    </div>
  );
}
