'use client';
import { byNeed } from '@/ui/kit/by-need';
import type { ComponentType } from 'react';
import { Back, type Side, type SideProps } from './sides/entry';
import { ExtendSide } from './sides/extend';
import { BarometerSide, TemperatureSide } from './sides/logged';
import { CorrectSide, LateSide, ReadingSide, TopUpSide } from './sides/readings';
import { DisturbanceSide, NoteSide, ObservationSide } from './sides/said';
import { GaugeSide, KitSide, MoreSide, SkipSide } from './sides/stage';

export type { Side } from './sides/entry';

const JointList = byNeed(() => import('./panels/extra').then((m) => m.JointList));
const PhotoEntry = byNeed(() => import('./panels/extra').then((m) => m.PhotoEntry));
const MapWork = byNeed(() => import('./panels/pool').then((m) => m.MapWork));
const PlugFails = byNeed(() => import('./panels/pool').then((m) => m.PlugFails));
const SearchPane = byNeed(() => import('@/ui/analysis/search-pane').then((m) => m.SearchPane));
const InventoryForm = byNeed(() => import('./panels/extra').then((m) => m.InventoryForm));

/** Every entry that can be made beside the main line of a stage. */
const SIDES: Readonly<Record<Side, ComponentType<SideProps>>> = {
  reading: ReadingSide,
  'top-up': TopUpSide,
  disturbance: DisturbanceSide,
  note: NoteSide,
  more: MoreSide,
  late: LateSide,
  correct: CorrectSide,
  temperature: TemperatureSide,
  skip: SkipSide,
  gauge: GaugeSide,
  barometer: BarometerSide,
  observation: ObservationSide,
  kit: KitSide,
  photo: ({ view, engine, act, visit, onDone }) => (
    <PhotoEntry view={view} engine={engine} act={act} visit={visit} onDone={onDone} />
  ),
  joints: (props) => (
    <div className="grid gap-3">
      <JointList {...props} />
      <Back onDone={props.onDone} />
    </div>
  ),
  plug: (props) => <PlugFails {...props} />,
  look: (props) => (
    <div className="grid gap-3">
      <MapWork {...props} />
      <Back onDone={props.onDone} />
    </div>
  ),
  extend: ExtendSide,
  search: (props) => <SearchPane {...props} />,
  inventory: (props) => (
    <div className="grid gap-3">
      <InventoryForm {...props} />
      <Back onDone={props.onDone} />
    </div>
  ),
};
/** An entry in the place of the trace, never a box over it. */
export function SideEntry(props: SideProps) {
  const Entry = SIDES[props.side];
  return <Entry key={props.side} {...props} />;
}
