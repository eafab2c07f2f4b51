/** The few facts from which a new place is drawn. The same on both sides of the form. */
import { meterVolume } from '@/core/installation/meters';
import { MEDIA, type System, WATER_DUTIES, type WaterDuty } from '@/core/installation/section';
import { parseWithUnit } from '@/core/quantity/exact';
import { tradeFor } from '@/core/trades';
import { firstSection } from '@/core/trades/first';
import * as yup from 'yup';
import { figure, free, list, shape, text } from './figure';
import { nextPipe, pipeFromForm } from './pipe';
import { meterRule, pressureRule } from './place-rules';

export const firstFactsSchema = shape({
  name: text(80),
  medium: text(20).oneOf([...MEDIA]),
  duty: free(20).oneOf(['', ...Object.keys(WATER_DUTIES)]),
  workingPressure: figure('pressure', 'zero'),
  meterKind: text(40),
  meterVolume: figure('volume', 'zero'),
  table: text(40),
  nominal: text(40),
  length: figure('length', 'above zero'),
  counted: list(
    shape({ word: text(40), count: yup.number().strict(true).integer().min(0).max(60).required() }),
    20,
  ),
})
  .test('pressure', pressureRule('workingPressure'))
  .test('meter-volume', meterRule);
export type FirstFactsForm = yup.InferType<typeof firstFactsSchema>;

/** Inside volume of a common appliance behind its valve, filled in to be checked on its plate. House figure. */
const BEHIND_A_VALVE = '0.3 l';
/** A first section of what was entered. @param meterName as the rule packs call its class */
export function sectionOfFacts(f: FirstFactsForm, id: string, meterName: string): System {
  const gas = f.medium !== 'water' && f.medium !== 'drain';
  const volume = parseWithUnit(gas ? BEHIND_A_VALVE : '0 l');
  const pipe = {
    ...nextPipe('main', undefined, 'Main run'),
    table: f.table,
    nominal: f.nominal,
    length: f.length,
  };
  return firstSection({
    id,
    name: f.name,
    medium: f.medium,
    ...(f.medium === 'water' && f.duty ? { duty: f.duty as WaterDuty } : {}),
    workingPressure: parseWithUnit(tradeFor(f.medium)?.pressed === false ? '0 mbar' : f.workingPressure),
    meter: { kind: f.meterKind, name: meterName, volume: parseWithUnit(f.meterVolume) },
    pipe: pipeFromForm(pipe),
    counted: f.counted.filter((c) => c.count > 0).map((c) => ({ ...c, volume })),
  });
}
export const noFacts = (): FirstFactsForm => ({
  name: '',
  medium: 'natural gas',
  duty: '',
  workingPressure: '21 mbar',
  meterKind: 'unknown',
  meterVolume: meterVolume('unknown'),
  table: 'copper-thin',
  nominal: '22 × 0.9',
  length: '',
  counted: [],
});
