import { columnsOf, type ListRow, PART_LIST_KEYS, type PartListKey } from '@/core/network/lists';
import { PART_KINDS, ruleOfPart } from '@/core/network/catalogue';
import { listRule } from '@/core/network/lists';
import { TRADES } from '@/core/trades';
import { bakery } from '@/core/testing/bakery';
import fc from 'fast-check';
import { systemSchema } from './places';
import { blankRow, formOfRow, rowFromForm, type RowForm } from './rows';
import { formOfSystem } from './system-form';

const form = { ...formOfSystem(bakery()), noValves: [] };
const trouble = (list: PartListKey, row: RowForm): string => {
  try {
    systemSchema.validateSync({ ...form, [list]: [row] }, { strict: true });
    return '';
  } catch (error) {
    return (error as { path: string }).path.replace(`${list}[0].`, '');
  }
};
/** A row of a list with every fact known. */
const full = (list: PartListKey): RowForm => ({
  ...blankRow(list, 'x', { name: 'Some part', ...(listRule(list).valve ? { valve: 'its valve' } : {}) }),
  ...Object.fromEntries(
    columnsOf(list).map(({ field, rule }) => [
      field,
      rule.kind === 'yes-no'
        ? true
        : rule.kind === 'figure'
          ? { pressure: '2.5 bar', volume: '0.30 l', power: '12 kW', length: '100 mm', mass: '14 kg' }[
              rule.dimension as 'pressure'
            ]
          : rule.kind === 'count'
            ? '2'
            : rule.kind === 'one-of'
              ? Object.keys(rule.options)[0]!
              : 'words',
    ]),
  ),
});
const cases = PART_LIST_KEYS.map((l) => [l] as const);

test.each(cases)('a row of %s keeps all that is entered, and its form shows it again', (list) => {
  const row = full(list);
  expect(trouble(list, row)).toBe('');
  expect(formOfRow(list, rowFromForm(list, row))).toEqual(row);
});
test.each(cases)(
  'a row of %s without a fact that it needs is refused at that fact, any other may be empty',
  (list) => {
    for (const { field, rule } of columnsOf(list)) {
      if (rule.kind === 'yes-no') continue;
      expect([field, trouble(list, { ...full(list), [field]: '' })]).toEqual([
        field,
        rule.needed ? field : '',
      ]);
      expect(trouble(list, { ...full(list), [field]: 'x'.repeat(200) })).toBe(field);
    }
    expect(trouble(list, { ...full(list), name: '' })).toBe('name');
    expect(trouble(list, { ...full(list), colour: 'red' })).not.toBe('');
  },
);
test('what is known of a thing and stands on no form stays when its row is changed', () => {
  const before: ListRow = {
    id: 'x',
    name: 'Oven',
    place: 'kitchen',
    kind: 'oven',
    condition: 'worn',
    make: 'Old',
  };
  const after = rowFromForm('appliances', { ...full('appliances'), make: '' }, before);
  expect([after.condition, after.make, after.kind]).toEqual(['worn', undefined, 'words']);
});
test('every kind that a trade needs and rules read can be entered, with all that the catalogue knows of it', () => {
  const listed = new Set(PART_LIST_KEYS.map((l) => listRule(l).kind));
  // asked by fields of their own, or mere joints of the drawing
  const otherwise = new Set(['source', 'tank', 'meter', 'point', 'tee', 'cap', 'tap', 'vent', 'equipment']);
  expect(PART_KINDS.filter((k) => !listed.has(k) && !otherwise.has(k))).toEqual([]);
  expect(TRADES.flatMap((t) => t.palette).filter((k) => !listed.has(k) && !otherwise.has(k))).toEqual([]);
  for (const list of PART_LIST_KEYS) {
    const { kind, facts } = listRule(list);
    expect([list, columnsOf(list).map((c) => c.key)]).toEqual([
      list,
      facts ?? Object.keys(ruleOfPart(kind).facts),
    ]);
  }
});
test('whatever a client sends as a row is entered or refused, never worse', () => {
  fc.assert(
    fc.property(fc.constantFrom(...PART_LIST_KEYS), fc.object(), (list, sent) => {
      const row = { ...full(list), ...(sent as RowForm) };
      if (trouble(list, row) === '') expect(() => rowFromForm(list, row)).not.toThrow();
    }),
  );
});
