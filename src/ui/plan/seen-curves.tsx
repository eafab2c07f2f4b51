'use client';
import type { CurveLine } from '@/chart/curve';
import { byNeed } from '@/ui/kit/by-need';
import { useSize } from '@/ui/kit/use-size';
import { Suspense } from 'react';

const CurveChart = byNeed(() => import('@/ui/charts/curve').then((m) => m.CurveChart));

/** What each gauge could see as the hold grows longer. */
export function SeenCurves({
  lines,
  matters,
  chosen,
  marks,
}: {
  lines: readonly CurveLine[];
  matters: number;
  chosen: string;
  marks: readonly { readonly minutes: number; readonly name: string }[];
}) {
  const [setEl, { width }] = useSize();
  return (
    <div ref={setEl} className="mt-3 min-h-[250px]">
      {width > 0 && (
        <Suspense fallback={null}>
          <CurveChart request={{ width, height: 250, lines, matters }} chosen={chosen} marks={marks} />
        </Suspense>
      )}
    </div>
  );
}
