'use client';
/** Panels of the rarer stages: loaded after the bench stands, so that it opens fast. */
export { DialPanel } from './dial';
export { InventoryPanel } from './inventory';
export { JointsPanel } from './joints';
export { VolumePanel } from './volume';
export { InventoryForm } from '../inventory-form';
export { JointList } from '../joint-list';
