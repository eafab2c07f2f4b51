/** The panel of each kind of stage on the bench. A new kind adds its own; the rarer ones are loaded by need. */
import type { ComponentType, LazyExoticComponent } from 'react';
import { byNeed } from '@/ui/kit/by-need';
import type { StageKind } from '@/core/kinds';
import type { PanelProps } from '../shared';
import { ChecksPanel } from './checks';
import type * as Extra from './extra';
import type * as Duct from '../duct';
import type * as Pool from './pool';
import { FillPanel } from './fill';
import { HoldPanel } from './hold';
import { ObservePanel } from './observe';
import { ZeroPanel } from './zero';

type Panel = ComponentType<PanelProps>;
interface Entry {
  readonly panel: Panel | LazyExoticComponent<Panel>;
  /** Its instruction stands in the panel itself, beside what is entered. */
  readonly saysItself?: true;
}
const extra = (pick: (all: typeof Extra) => Panel): Entry['panel'] =>
  byNeed(() => import('./extra').then(pick));

/** The same for pools: maps, plugs and listening are no part of any other bench. */
const pool = (pick: (all: typeof Pool) => Panel): Entry['panel'] => byNeed(() => import('./pool').then(pick));

/** The same for ducts. */
const duct = (pick: (all: typeof Duct) => Panel): Entry['panel'] =>
  byNeed(() => import('../duct').then(pick));

export const PANELS: { readonly [K in StageKind]: Entry } = {
  checks: { panel: ChecksPanel },
  zero: { panel: ZeroPanel, saysItself: true },
  fill: { panel: FillPanel, saysItself: true },
  hold: { panel: HoldPanel, saysItself: true },
  observe: { panel: ObservePanel },
  'isolate-and-repeat': { panel: extra((all) => all.IsolatePanel) },
  dial: { panel: extra((all) => all.DialPanel) },
  joints: { panel: extra((all) => all.JointsPanel) },
  inventory: { panel: extra((all) => all.InventoryPanel) },
  pump: { panel: extra((all) => all.PumpPanel), saysItself: true },
  'draw-down': { panel: extra((all) => all.DrawDownPanel), saysItself: true },
  volume: { panel: extra((all) => all.VolumePanel) },
  map: { panel: pool((all) => all.MapPanel) },
  plugs: { panel: pool((all) => all.PlugsPanel) },
  bucket: { panel: pool((all) => all.BucketPanel) },
  cure: { panel: pool((all) => all.CurePanel) },
  listen: { panel: pool((all) => all.ListenPanel) },
  cylinder: { panel: extra((all) => all.CylinderPanel) },
  fan: { panel: duct((all) => all.FanPanel) },
  smoke: { panel: duct((all) => all.SmokePanel) },
};
