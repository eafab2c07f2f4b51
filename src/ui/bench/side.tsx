import { byNeed } from '@/ui/kit/by-need';
import { type ComponentProps, Suspense } from 'react';
import type { SideEntry as Entry } from './side-entry';

const Loaded = byNeed(() => import('./panels/beside').then((m) => m.SideEntry));
/** What comes on the side of a stage; its script is fetched when it is first asked for. */
export const SideEntry = (props: ComponentProps<typeof Entry>) => (
  <Suspense fallback={<p aria-live="polite">Opening …</p>}>
    <Loaded {...props} />
  </Suspense>
);
