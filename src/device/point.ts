import type { ClockPoint } from '@/core/run/clock';
import { clockOffset, mono, now } from './clock';
import { deviceId, pageLoad } from './identity';

/** The present moment on each of this device's clocks, as an entry made now would carry it. */
export const pointNow = (): ClockPoint => ({
  device: now(),
  offset: clockOffset(),
  mono: mono(),
  pageLoad: pageLoad(),
  by: deviceId(),
});
