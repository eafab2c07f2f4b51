'use client';
/** Panels of pools: loaded where one is worked on. */
export { BucketPanel } from './bucket';
export { CurePanel } from './cure';
export { ListenPanel } from './listen';
export { MapPanel, MapWork } from './map';
export { PlugFails, PlugsPanel } from './plugs';
