'use client';
import { type ComponentType, lazy } from 'react';

/** Where a part's script could not be had. */
const Missing = () => (
  <p role="alert" className="text-rust">
    This part is not on this device yet. Go where there is a signal and open this page again; nothing that was
    entered is lost.
  </p>
);
/** A part whose script is on its way; where it cannot be had, words that say so. */
export const orMissing = <P extends object>(part: Promise<ComponentType<P>>): Promise<ComponentType<P>> =>
  part.catch(() => Missing as ComponentType<P>);
/** A part of a page whose script is fetched when it is first shown; without a signal it says so and the page stands. */
export const byNeed = <P extends object>(load: () => Promise<ComponentType<P>>) =>
  lazy(() => orMissing(load()).then((found) => ({ default: found })));
