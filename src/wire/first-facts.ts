/** The few facts from which a new place is drawn. The same on both sides of the form. */
import type { System } from '@/core/installation/section';
import { parseWithUnit } from '@/core/quantity/exact';
import { dutyFrom, tradeFor } from '@/core/trades';
import { firstSection } from '@/core/trades/first';
import type { FirstFactsForm } from './first-facts-schema';
import { nextPipe, pipeFromForm } from './pipe';

/** Inside volume of a common appliance behind its valve, filled in to be checked on its plate. House figure. */
export const USUAL_VOLUME = '0.3 l';
/** A first section of what was entered. @param meterName as the rule packs call its class */
export function sectionOfFacts(f: FirstFactsForm, id: string, meterName: string): System {
  const volume = parseWithUnit(tradeFor(f.medium)?.fuel ? USUAL_VOLUME : '0 l');
  const pipe = {
    ...nextPipe('main', undefined, 'Main run'),
    table: f.table,
    nominal: f.nominal,
    // what is not made of pipe is drawn without one
    length: f.length || '1 m',
  };
  return firstSection({
    id,
    name: f.name,
    medium: f.medium,
    ...dutyFrom(f.medium, f.duty),
    workingPressure: parseWithUnit(tradeFor(f.medium)?.pressed === false ? '0 mbar' : f.workingPressure),
    meter: { kind: f.meterKind, name: meterName, volume: parseWithUnit(f.meterVolume) },
    pipe: pipeFromForm(pipe),
    asked: Object.fromEntries(f.asked.flatMap((a) => (a.value ? [[a.key, parseWithUnit(a.value)]] : []))),
    counted: f.counted.filter((c) => c.count > 0).map((c) => ({ ...c, volume })),
  });
}
