/** What is checked of the few facts from which a new place is drawn. */
import { MEDIA, tradeFor, USES } from '@/core/trades';
import * as yup from 'yup';
import { WHOLE_FACTS, WHOLE_KEYS, type WholeFact } from '@/core/installation/whole';
import { figure, free, list, optionalFigure, shape, text } from './figure';
import { meterRule, pressureRule } from './place-rules';

/** Rules of the whole, where there is one: facts may be left out as a whole. */
const there =
  <V>(rule: (value: V, context: yup.TestContext) => true | yup.ValidationError) =>
  (value: V | undefined, context: yup.TestContext) =>
    value === undefined || rule(value, context);
export const firstFactsSchema = shape({
  name: text(80),
  medium: text(20).oneOf([...MEDIA]),
  duty: free(20).oneOf(['', ...USES]),
  workingPressure: figure('pressure', 'zero'),
  meterKind: text(40),
  meterVolume: figure('volume', 'zero'),
  table: text(40),
  nominal: text(40),
  length: optionalFigure('length', 'above zero'),
  counted: list(
    shape({ word: text(40), count: yup.number().strict(true).integer().min(0).max(60).required() }),
    20,
  ),
  /** Facts of the whole that the trade asks for before anything is drawn. */
  asked: list(
    shape({ key: text(20).oneOf(WHOLE_KEYS), value: free(40) }).test('asked', (v, context) => {
      if (!v.value) return true;
      const { dimension, ...rule } = WHOLE_FACTS[v.key as WholeFact];
      try {
        optionalFigure(dimension, 'least' in rule ? rule.least : undefined).validateSync(v.value);
        return true;
      } catch (error) {
        return context.createError({ path: `${context.path}.value`, message: (error as Error).message });
      }
    }),
    10,
  ),
})
  .test(
    'length',
    there((value, context) =>
      value.length || tradeFor(value.medium)?.unpiped
        ? true
        : context.createError({ path: 'length', message: 'is needed' }),
    ),
  )
  .test('pressure', there(pressureRule('workingPressure')))
  .test('meter-volume', there(meterRule));
export type FirstFactsForm = yup.InferType<typeof firstFactsSchema>;
