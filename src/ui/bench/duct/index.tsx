'use client';
/** Panels of ducts: part of no other bench. */
export { FanPanel } from './fan';
export { SmokePanel } from './smoke';
