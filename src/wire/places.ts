/** Places as they are entered: figures are text with their unit. The same on both sides. */
import { OPTIONAL_VALVES } from '@/core/installation/section';
import { HEIGHT_KEYS, WHOLE_FACTS, WHOLE_KEYS, type WholeRule } from '@/core/installation/whole';
import type { FactRule } from '@/core/network/catalogue';
import { cellsOf, PART_LIST_KEYS, type PartListKey } from '@/core/network/lists';
import { MEDIA, USES, tradeFor } from '@/core/trades';
import * as yup from 'yup';
import { figure, free, list, optionalFigure, shape, text, uuid } from './figure';
import { ACCESS, formHeight, type FormHeight } from './form-words';
import { pipeSchema } from './pipe-schema';
import { meterRule, pressureRule } from './place-rules';
import type { RowForm } from './rows';

/** A site as it is entered. */
export const siteSchema = shape({
  id: uuid(),
  name: text(80),
  address: text(160),
  customer: text(120),
});
export type SiteForm = yup.InferType<typeof siteSchema>;

/** A system copied to a place that is here already, or to a new one of which the address may follow. */
export const copySystemSchema = shape({
  id: uuid(),
  name: text(80),
  site: uuid(),
  newSite: shape({ name: text(80), address: free(160), customer: free(120) })
    .optional()
    .default(undefined),
});
export type CopySystem = yup.InferType<typeof copySystemSchema>;

const whole = (rule: WholeRule) => optionalFigure(rule.dimension, rule.least);
/** What may be entered for a fact, by what the catalogue says of it. */
function factSchema(rule: FactRule): yup.AnySchema {
  switch (rule.kind) {
    case 'words':
      return rule.needed ? text(rule.most) : free(rule.most);
    case 'figure':
      return rule.needed ? figure(rule.dimension, rule.least) : optionalFigure(rule.dimension, rule.least);
    case 'yes-no':
      return yup.boolean().strict(true).required();
    case 'count':
      return (rule.needed ? text(5) : free(5)).matches(
        rule.large ? /^(|[1-9]\d{0,4})$/ : /^(|[1-9]\d?)$/,
        rule.large ? 'is a whole number, like 2088' : 'is how many there are, from 1 to 99',
      );
    case 'one-of': {
      const options = Object.keys(rule.options);
      return rule.needed ? text(20).oneOf(options) : free(20).oneOf(['', ...options]);
    }
  }
}
const MOST_ROWS = 60;
function rows(key: PartListKey) {
  const row = shape({
    id: text(60),
    ...Object.fromEntries(cellsOf(key).map(({ field, rule }) => [field, factSchema(rule)])),
  });
  return list(row, MOST_ROWS) as unknown as yup.Schema<RowForm[]>;
}
const each = <K extends string, S>(keys: readonly K[], of: (key: K) => S) =>
  Object.fromEntries(keys.map((k) => [k, of(k)])) as Record<K, S>;

export const systemSchema = shape({
  name: text(80),
  medium: text(20).oneOf([...MEDIA]),
  workingPressure: figure('pressure', 'zero'),
  supplyPressure: figure('pressure', 'zero'),
  duty: free(20).oneOf(['', ...USES]),
  supplyValve: free(120),
  supplyValveOwner: free(80),
  testPoint: free(120),
  emergencyContact: free(60),
  /** Months between tests as the place wants them; empty where it is not said. */
  everyMonths: free(3).matches(/^(|[1-9]\d{0,2})$/, 'must be whole months, like 12, or stay empty'),
  ...each(WHOLE_KEYS, (k) => whole(WHOLE_FACTS[k])),
  access: list(text(20).oneOf(Object.keys(ACCESS)), 6),
  meterValve: free(80),
  meterValveOwner: free(80),
  noValves: list(text(20).oneOf([...OPTIONAL_VALVES]), 6),
  tankSize: free(40),
  tankPlace: free(80),
  tankMake: free(80),
  tankSerial: free(60),
  meterKind: text(40),
  meterName: text(80),
  meterVolume: figure('volume', 'zero'),
  meterSerial: free(60),
  testDial: optionalFigure('volume', 'above zero'),
  pipes: list(pipeSchema, 60),
  ...each(PART_LIST_KEYS, rows),
  datum: free(80),
  ...(each(HEIGHT_KEYS.map(formHeight), () => optionalFigure('length')) as Record<
    FormHeight,
    ReturnType<typeof optionalFigure>
  >),
  inScope: list(text(200), 30),
  notCovered: list(text(200), 30),
  measuredBy: free(10).oneOf(['', 'draw', 'strokes']),
  measuredVolume: optionalFigure('volume', 'above zero'),
  measuredUncertainty: free(10).matches(/^(\d{1,2}(\.\d)?)?$/, 'is a percentage, like 5'),
  measuredSaid: free(200),
})
  .test('pressures', pressureRule('workingPressure', 'supplyPressure'))
  .test('piped', (value, context) =>
    value.pipes.length || tradeFor(value.medium)?.unpiped
      ? true
      : context.createError({
          path: 'pipes',
          message: 'Enter at least one pipe: the volume and the limits depend on it.',
        }),
  )
  .test('bounded', (value, context) => {
    // each section is bounded by its own plugs or valves
    const trade = tradeFor(value.medium);
    if (trade?.parted) return true;
    const asked = trade?.unpiped
      ? (['testPoint'] as const)
      : (['supplyValve', 'supplyValveOwner', 'testPoint'] as const);
    const path = asked.find((k) => !value[k].trim());
    return path ? context.createError({ path, message: 'must not be empty' }) : true;
  })
  .test('heights', (value, context) =>
    !value.datum && HEIGHT_KEYS.some((k) => value[formHeight(k)])
      ? context.createError({ path: 'datum', message: 'Say over what the heights are counted.' })
      : true,
  )
  .test('meter-volume', meterRule)
  .test('no-valves', (value, context) => {
    const both = value.valves.findIndex((v) => (value.noValves as string[]).includes(String(v.kind)));
    return both < 0
      ? true
      : context.createError({
          path: `valves.${both}.kind`,
          message: 'One is entered, and below it says that there is none. Take one of them away.',
        });
  })
  .test('tank', (value, context) =>
    !value.tankSize && (value.tankPlace || value.tankMake || value.tankSerial)
      ? context.createError({ path: 'tankSize', message: 'Say how large the tank is, like 120 gal.' })
      : true,
  )
  .test('measured', (value, context) =>
    value.measuredBy && !value.measuredVolume
      ? context.createError({ path: 'measuredVolume', message: 'Enter the volume that was measured.' })
      : true,
  );
export type SystemForm = yup.InferType<typeof systemSchema>;
