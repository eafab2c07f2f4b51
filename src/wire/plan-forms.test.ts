import { networkOf } from '@/core/network/enter';
import type { Schema } from 'yup';
import { bakery, uuid } from '@/core/testing/bakery';
import { parseWithUnit } from '@/core/quantity/exact';
import { gaugeFormSchema, kitFormSchema, kitFromForm, logSchema } from './cabinet';
import { siteSchema, systemSchema } from './places';
import { emptySystem, formOfSystem, systemFromForm } from './system-form';
import { messageSchema, newVisitSchema, visitChangeSchema } from './visits';

const said = (schema: Schema, value: unknown): string => {
  try {
    schema.validateSync(value, { strict: true });
    return '';
  } catch (error) {
    return `${(error as { path?: string }).path ?? ''}: ${(error as Error).message}`;
  }
};

const aTask = {
  id: 'a',
  title: 'A',
  kind: 'other',
  hands: 5,
  wait: 0,
  close: 0,
  after: [],
  takes: [],
  frees: [],
};
function change() {
  return {
    version: 1,
    title: 'x',
    day: '2026-11-24',
    start: '08:30',
    crew: 1,
    present: [],
    permit: '',
    promise: '',
    removed: [],
    tasks: [] as unknown[],
    wishes: {},
    pinned: [],
    done: {},
  };
}
const aGauge = {
  id: uuid(2),
  name: 'G',
  serial: 'S',
  kind: 'digital',
  least: '0 mbar',
  greatest: '200 mbar',
  resolution: '0.01 mbar',
  accuracy: '',
  calibrated: '2026-01-01',
  calibrationDue: '2027-01-01',
};
const aKit = {
  id: uuid(3),
  kind: 'pump',
  name: 'P',
  serial: '',
  due: '',
  interval: null,
  note: '',
  resolution: '',
  stroke: '45 ml',
  rating: '60 bar',
  volume: '',
  size: '',
  batch: '',
  accuracy: '',
  ranges: [],
};
const ring = { name: 'ring 1', least: '90 CFM', greatest: '460 CFM', k: '27', m: '0.5' };
const RANGE = { name: 'ring 1', least: parseWithUnit('90 CFM'), greatest: parseWithUnit('460 CFM') };
const aFan = { ...aKit, kind: 'fan', stroke: '', rating: '', accuracy: '3 %', ranges: [ring] };

test('a system written into the form and read back is the same system', () => {
  const system = bakery({
    elements: [{ id: 'e', name: 'Strainer', place: 'yard', most: { digits: 20, scale: 0, unit: 'psi' } }],
    factoryTested: [{ id: 'f', name: 'Coil', certificate: 'C-1' }],
    measured: {
      by: 'strokes',
      volume: { digits: 144, scale: 2, unit: 'l' },
      uncertainty: { digits: 5, scale: 0, unit: '%' },
      said: '32 strokes',
    },
  });
  const form = formOfSystem(system);
  expect(said(systemSchema, form)).toBe('');
  const { network, ...lists } = systemFromForm(form, system, system.id);
  expect(lists).toEqual(system);
  expect(network).toEqual(networkOf(system));
});
test('what is taken away from the form is gone from the system, what the form does not show stays', () => {
  const system = bakery({
    tank: { id: 't', name: 'Tank', place: 'yard', size: '120 gal' },
    elements: [{ id: 'e', name: 'x', place: '', most: { digits: 1, scale: 0, unit: 'bar' } }],
  });
  const after = systemFromForm({ ...formOfSystem(system), elements: [] }, system, system.id);
  expect(after.elements).toBeUndefined();
  expect(after.tank).toEqual(system.tank);
});

test.each<[string, Schema, unknown, RegExp]>([
  [
    'a place without a name',
    siteSchema,
    { id: uuid(1), name: '', address: 'x', customer: 'x' },
    /name: is needed/,
  ],
  [
    'a key too many',
    siteSchema,
    { id: uuid(1), name: 'x', address: 'x', customer: 'x', role: 'owner' },
    /role/,
  ],
  ['a system without pipes', systemSchema, { ...emptySystem(), name: 'x' }, /at least one pipe/],
  [
    'a length in bar',
    systemSchema,
    { ...formOfSystem(bakery()), pipes: [{ ...formOfSystem(bakery()).pipes[0]!, length: '4 bar' }] },
    /does not measure a length/,
  ],
  [
    'a comma that could be either',
    systemSchema,
    { ...formOfSystem(bakery()), workingPressure: '2,100 mbar' },
    /2,100 can be read as 2.100 or as 2100/,
  ],
  [
    'a day that is none',
    newVisitSchema,
    { id: uuid(1), title: 'x', day: 'tomorrow', start: '08:30', zone: 'UTC' },
    /not a day/,
  ],
  [
    'a clock time past midnight',
    newVisitSchema,
    { id: uuid(1), title: 'x', day: '2026-11-24', start: '24:10', zone: 'UTC' },
    /not a clock time/,
  ],
  ['minutes below zero', visitChangeSchema, { ...change(), tasks: [{ ...aTask, hands: -1 }] }, /hands/],
  ['a crew of none', visitChangeSchema, { ...change(), crew: 0 }, /crew/],
  ['wishes that are no minutes', visitChangeSchema, { ...change(), wishes: { a: 'soon' } }, /minutes/],
  ['done before it began', visitChangeSchema, { ...change(), done: { a: { start: 5, end: 4 } } }, /minutes/],
  [
    'a message to nobody',
    messageSchema,
    { id: uuid(1), to: 'the tenant', subject: 'x', body: 'x' },
    /e-mail/,
  ],
  ['a gauge of two units', gaugeFormSchema, { ...aGauge, greatest: '200 psi' }, /same unit/],
  ['a gauge that ends before it begins', gaugeFormSchema, { ...aGauge, least: '300 mbar' }, /end above/],
  [
    'a gauge calibrated after its next calibration',
    gaugeFormSchema,
    { ...aGauge, calibrated: '2028-01-01' },
    /after the last/,
  ],
  [
    'a pump whose stroke is a pressure',
    kitFormSchema,
    { ...aKit, stroke: '45 mbar' },
    /does not measure a volume/,
  ],
  [
    'a ring with k and no m',
    kitFormSchema,
    { ...aFan, ranges: [{ ...ring, m: '' }] },
    /k and m come together/,
  ],
  [
    'a ring that ends where it begins',
    kitFormSchema,
    { ...aFan, ranges: [{ ...ring, greatest: '90 CFM' }] },
    /end above/,
  ],
  [
    'a ring in two units',
    kitFormSchema,
    { ...aFan, ranges: [{ ...ring, greatest: '200 l/s' }] },
    /same unit/,
  ],
  [
    'an exponent that no ring has',
    kitFormSchema,
    { ...aFan, ranges: [{ ...ring, m: '2' }] },
    /between 0\.3 and 1/,
  ],
  ['a k of words', kitFormSchema, { ...aFan, ranges: [{ ...ring, k: 'nine' }] }, /as the sheet prints it/],
  [
    'a test of a hose without its flow',
    logSchema,
    {
      id: uuid(4),
      what: 'through',
      figure: '',
      pressure: '25 Pa',
      loss: '',
      flow: '',
      on: '',
      due: '',
      text: '',
    },
    /flow that still passed/,
  ],
])('%s is refused', (_name, schema, value, words) => expect(said(schema, value)).toMatch(words));
test('what is right passes', () => {
  expect(said(visitChangeSchema, change())).toBe('');
  expect(said(gaugeFormSchema, aGauge)).toBe('');
  expect(said(kitFormSchema, aKit)).toBe('');
  expect(said(kitFormSchema, aFan)).toBe('');
  expect(kitFromForm(aFan as never).ranges).toEqual([{ ...RANGE, k: '27', m: '0.5' }]);
});
