'use client';
import { inQuestion } from '@/core/analysis/in-question';
import { closedNow } from '@/core/run/isolations';
import type { BenchView } from '@/device/bench';
import { may } from '@/wire/role';
import { lazy, Suspense, useState } from 'react';
import type { PanelProps } from './shared';

const SearchPane = lazy(() => import('@/ui/analysis/search-pane').then((m) => ({ default: m.SearchPane })));
const WhatCouldItBe = lazy(() =>
  import('@/ui/analysis/what-could-it-be').then((m) => ({ default: m.WhatCouldItBe })),
);

/** After a test that failed the search goes on until somebody signs. */
export function Find({ view, act, who }: Pick<PanelProps, 'act' | 'who'> & { view: BenchView }) {
  const [open, setOpen] = useState(false);
  const owed = closedNow(view.state).length > 0;
  if (!may(who.role, 'run')) return null;
  if (open || owed)
    return (
      <div className="border border-seam p-4">
        <Suspense>
          <SearchPane view={view} act={act} onDone={() => setOpen(false)} />
        </Suspense>
      </div>
    );
  return inQuestion(view.plan, view.state) ? (
    <Suspense>
      <WhatCouldItBe view={view} onSearch={() => setOpen(true)} />
    </Suspense>
  ) : null;
}
