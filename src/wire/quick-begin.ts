/** What a test on what stands before a person makes: the same at the office and on a device without a signal. */
import { formatExact, parseWithUnit } from '@/core/quantity/exact';
import { localDate } from '@/core/quantity/local-date';
import type { GaugeForm } from './cabinet';
import type { SiteForm } from './places';
import type { QuickTest } from './quick-test';
import type { StartRun } from './requests';

/** A place of which nothing was said yet. @param at when it was begun, ms */
export const siteOfQuick = ({ site, zone }: QuickTest, at: number): SiteForm => ({
  id: site,
  name: `New place, ${localDate(at, zone)}`,
  address: '',
  customer: '',
});
/** A gauge of which name, range and step were said. */
export function gaugeOfQuick(gauge: NonNullable<QuickTest['newGauge']>): GaugeForm {
  const { unit, scale } = parseWithUnit(gauge.greatest);
  return {
    ...gauge,
    serial: 'not entered',
    kind: 'digital',
    least: `${formatExact({ digits: 0, scale, unit })} ${gauge.greatest.trim().split(/\s+/)[1]}`,
    accuracy: '',
    calibrated: '',
    calibrationDue: '',
  };
}
/** The run it begins. */
export const runOfQuick = (asked: QuickTest): StartRun => ({
  id: asked.run,
  system: asked.system,
  pack: asked.pack,
  procedure: asked.procedure,
  case: asked.case,
  choices: {},
  practice: false,
  zone: asked.zone,
  ...(asked.section ? { section: asked.section } : {}),
  ...(asked.newGauge || asked.gauge ? { gauge: asked.newGauge?.id ?? asked.gauge! } : {}),
  ...(asked.carried ? { carried: asked.carried } : {}),
});
