/** What is checked of the few facts from which a new place is drawn. */
import { MEDIA, USES } from '@/core/trades';
import * as yup from 'yup';
import { figure, free, list, shape, text } from './figure';
import { meterRule, pressureRule } from './place-rules';

export const firstFactsSchema = shape({
  name: text(80),
  medium: text(20).oneOf([...MEDIA]),
  duty: free(20).oneOf(['', ...USES]),
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
