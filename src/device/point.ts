import type { ClockPoint } from '@/core/run/clock';
import { aheadNow, clockOffset, mono, now } from './clock';
import { deviceId, pageLoad } from './identity';

/** The present moment on each of this device's clocks, as an entry made now would carry it. */
export const pointNow = (): ClockPoint => ({
  device: now(),
  // in practice time is passed at once: every clock of that run goes ahead by as much
  offset: clockOffset() + aheadNow(),
  mono: mono() + aheadNow(),
  pageLoad: pageLoad(),
  by: deviceId(),
});
