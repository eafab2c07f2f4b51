'use client';
import type { Carrying } from '@/device/carried';
import type { StoredRun } from '@/device/store';
import { ScanPage } from '@/ui/codes/scan-page';
import { NewPlace } from '@/ui/places/new-place';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import type { Identity } from '@/wire/role';
import { type ComponentType, useEffect } from 'react';
import { CabinetHere, NewSystemHere, PlacesHere, RunsHere, TodayHere, VisitHere, VisitsHere } from './views';

const PlaceHere = byNeed(() => import('./place').then((m) => m.PlaceHere));
const PlanHere = byNeed(() => import('./plan').then((m) => m.PlanHere));
const SharedView = byNeed(() => import('@/ui/shared/shared-view').then((m) => m.SharedView));
const TestHere = byNeed(() => import('./test').then((m) => m.TestHere));

export interface RoomProps {
  readonly who: Identity;
  readonly carrying: Carrying;
  readonly runs: readonly StoredRun[];
  /** The id in the address. */
  readonly id: string;
}
const ID = '([0-9a-f-]{36})';
const ROOMS: readonly (readonly [RegExp, string, ComponentType<RoomProps>])[] = [
  [/^\/(today)?$/, 'Today', TodayHere],
  [/^\/test$/, 'Test now', TestHere],
  [/^\/places$/, 'Places', PlacesHere],
  [/^\/places\/new$/, 'New place', NewPlaceHere],
  [new RegExp(`^/places/site/${ID}/new$`), 'New system', NewSystemHere],
  [new RegExp(`^/places/${ID}/plan$`), 'Plan', PlanHere],
  [new RegExp(`^/(?:places|l/s)/${ID}$`), 'Place', PlaceHere],
  [/^\/(?:cabinet$|l\/[gk]\/)/, 'Cabinet', CabinetHere],
  [/^\/plan$/, 'Plan', VisitsHere],
  [new RegExp(`^/plan/${ID}$`), 'Visit', VisitHere],
  [/^\/scan$/, 'Scan a code', ScanHere],
  [/^\/shared$/, 'Shared with Vast Stone', SharedView],
];

/** What stands under an address on this device. */
export function Rooms({
  who,
  path,
  carrying,
  runs,
}: Omit<RoomProps, 'carrying' | 'id'> & { path: string; carrying: Carrying | null }) {
  const room = ROOMS.find(([where]) => where.test(path));
  const title = room?.[1] ?? 'No signal';
  useEffect(() => {
    document.title = `${title} · Vast Stone`;
  }, [title]);
  if (!room || !carrying) return <NeedsOffice runs={runs} some={carrying !== null} />;
  const [where, , Room] = room;
  return <Room who={who} carrying={carrying} runs={runs} id={where.exec(path)?.[1] ?? ''} />;
}
/** What was not taken along: said, with what there is instead. */
export const NeedsOffice = ({ runs, some }: { runs: readonly StoredRun[]; some: boolean }) => (
  <>
    <h1 className="text-2xl font-bold">This page needs the office</h1>
    <p className="mt-2 max-w-xl">
      Runs that were opened on this device go on without a signal; what you enter is kept and sent later.
      {some && ' So do Today, Places, Cabinet, Plan and a new test.'}
    </p>
    <RunsHere runs={runs} />
    {some && (
      <a className={buttonClass('act', 'mt-6')} href="/today">
        Today
      </a>
    )}
  </>
);
function NewPlaceHere({ who }: RoomProps) {
  return <NewPlace role={who.role} />;
}
function ScanHere() {
  return (
    <>
      <h1 className="text-2xl font-bold">Scan a code</h1>
      <div className="mt-4 max-w-xl">
        <ScanPage />
      </div>
    </>
  );
}
