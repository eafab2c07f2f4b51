import { sectionOfFacts } from './first-facts';
import { noFacts } from './no-facts';
import { firstFactsSchema, type FirstFactsForm } from './first-facts-schema';
import { systemSchema } from './places';
import { formOfSystem } from './system-form';

const facts = (over: Partial<FirstFactsForm> = {}): FirstFactsForm => ({
  ...noFacts(),
  name: 'Tenter loft gas',
  length: '14 m',
  meterKind: 'diaphragm-U6-G4',
  meterVolume: '8 l',
  counted: [
    { word: 'boiler', count: 1 },
    { word: 'hob', count: 2 },
    { word: 'fire', count: 0 },
  ],
  ...over,
});
const trouble = (over: Partial<FirstFactsForm>): string => {
  try {
    firstFactsSchema.validateSync(facts(over), { strict: true });
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};
test.each<[string, Partial<FirstFactsForm>]>([
  ['gas', {}],
  ['propane without a meter', { medium: 'propane', meterKind: 'none', meterVolume: '0 l' }],
  [
    'a drain, which stands under no pressure',
    { medium: 'drain', workingPressure: '0 mbar', meterKind: 'none', meterVolume: '0 l' },
  ],
  [
    'a main',
    { medium: 'water', duty: 'main', workingPressure: '6 bar', meterKind: 'none', meterVolume: '0 l' },
  ],
])('%s: what is drawn from a few facts is a whole system that can be saved', (_, over) => {
  expect(trouble(over)).toBe('');
  const section = sectionOfFacts(facts(over), 'id', 'As its badge says');
  expect(() => systemSchema.validateSync(formOfSystem(section), { strict: true })).not.toThrow();
});
test('what was counted stands as so many branches; nothing is drawn of what was counted to none', () => {
  const section = sectionOfFacts(facts(), 'id', 'G4');
  expect(section.appliances.map((a) => a.name)).toEqual(['Boiler', 'Hob 1', 'Hob 2']);
  expect([section.meter.name, section.pipes[0]!.nominal]).toEqual(['G4', '22 × 0.9']);
});
test.each<[string, Partial<FirstFactsForm>, RegExp]>([
  ['no name', { name: '' }, /needed/],
  ['a length in bar', { length: '4 bar' }, /does not measure a length/],
  ['no length', { length: '' }, /needed/],
  ['a working pressure of nothing', { workingPressure: '0 mbar' }, /above zero/],
  ['a meter that holds nothing', { meterVolume: '0 l' }, /A meter holds gas/],
  ['seventy hobs', { counted: [{ word: 'hob', count: 70 }] }, /60/],
  ['half a hob', { counted: [{ word: 'hob', count: 0.5 }] }, /integer/],
])('%s is refused', (_, over, words) => expect(trouble(over)).toMatch(words));
