import { toNumber } from '@/core/quantity/exact';
import type { Gauge } from './gauge';

/** Gauges of the same unit, kind and range that may also judge: what is swapped in before anything is opened up. */
export const sparesOf = (gauge: Gauge, cabinet: readonly Gauge[], day: string): Gauge[] =>
  cabinet.filter(
    (g) =>
      g.id !== gauge.id &&
      g.resolution.unit === gauge.resolution.unit &&
      g.kind === gauge.kind &&
      g.calibrationDue >= day &&
      !g.withdrawn &&
      toNumber(g.greatest) <= 2 * toNumber(gauge.greatest) &&
      toNumber(g.greatest) >= toNumber(gauge.greatest) / 2,
  );
