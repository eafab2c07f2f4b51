import { METRIC, US_CUSTOMARY } from '@/core/quantity/usage';
import { formOfWishes, usageSchema, wishesOf } from './usage';

test('wishes go through the form and back; what nobody may choose is refused with its name', () => {
  for (const usage of [METRIC, US_CUSTOMARY, {}]) {
    const form = formOfWishes(usage);
    expect(usageSchema.validateSync(form, { strict: true })).toEqual(form);
    expect(wishesOf(form)).toEqual(usage);
  }
  const said = (change: object) => {
    try {
      usageSchema.validateSync({ ...formOfWishes({}), ...change }, { strict: true });
      return '';
    } catch (error) {
      return (error as { path: string }).path;
    }
  };
  // a length in mbar, a unit that is no choice there, a key that is none
  expect([
    said({ length: 'mbar' }),
    said({ low: 'GPa' }),
    said({ days: 'whenever' }),
    said({ low: 5 }),
  ]).toEqual(['length', 'low', 'days', 'low']);
  expect(() => usageSchema.validateSync({ ...formOfWishes({}), more: '' }, { strict: true })).toThrow();
});
