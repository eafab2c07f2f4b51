'use client';
/** Panels of the rarer stages: loaded after the bench stands, so that it opens fast. */
export { Closing } from '../closing';
export { SetAsideLine } from '../set-aside';
export { SimulatedWorks } from '../simulated';
export { YardPane } from '@/ui/yard/yard-pane';
export { DialPanel } from './dial';
export { IsolatePanel } from './isolate';
export { DrawDownPanel } from './draw-down';
export { CylinderPanel } from './cylinder';
export { PumpPanel } from './pump';
export { PumpedWater } from '../pumped';
export { PhotoEntry } from '../photo-entry';
export { SecondPlace } from '../second-place';
export { InventoryPanel } from './inventory';
export { JointsPanel } from './joints';
export { VolumePanel } from './volume';
export { InventoryForm } from '../inventory-form';
export { JointList } from '../joint-list';
