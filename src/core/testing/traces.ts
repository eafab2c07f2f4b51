/** A gas section of 20 l at 20.5 mbar as an analysis takes it, for tests. */
import type { SectionFacts } from '@/core/analysis/section';

export const gasFacts: SectionFacts = {
  filling: 'gas',
  pressure: 2050,
  atmosphere: 101_325,
  give: 0.02 / 101_325,
  giveUncertainty: 0.05,
  perKelvin: 352,
  drift: { perMinute: 0.05, most: 0.1 },
  stretches: false,
  supply: null,
  matters: 1e-3 / 3600,
  step: 1,
  perceptible: 2,
  warmth: [],
  thermometer: 0.05,
};
