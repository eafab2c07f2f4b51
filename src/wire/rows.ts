/** A row of a place's list as it is entered: figures are text with their unit, what is not known is empty. */
import { type Fact, type FactRule } from '@/core/network/catalogue';
import { cellsOf, type ListRow, type PartListKey } from '@/core/network/lists';
import { type Exact, parseWithUnit, showUnit } from '@/core/quantity/exact';

export interface RowForm {
  id: string;
  name: string;
  [field: string]: string | boolean;
}

const written = (rule: FactRule, fact: Fact | undefined): string | boolean => {
  if (rule.kind === 'yes-no') return fact === true;
  if (fact === undefined) return '';
  return typeof fact === 'object' ? showUnit(fact) : String(fact);
};
const read = (rule: FactRule, value: string | boolean | undefined): string | boolean | number | Exact => {
  if (rule.kind === 'yes-no') return value === true;
  const text = String(value ?? '');
  if (rule.kind === 'figure') return parseWithUnit(text);
  return rule.kind === 'count' ? Number(text) : text;
};

/** A new row; what is usual there stands in it already. */
export const blankRow = (
  list: PartListKey,
  id: string,
  usual: Readonly<Record<string, string>> = {},
): RowForm => ({
  ...formOfRow(list, { id, name: '' }),
  ...usual,
});
/** A row as a form shows it. */
export const formOfRow = (list: PartListKey, row: ListRow): RowForm => ({
  id: row.id,
  name: row.name,
  ...Object.fromEntries(cellsOf(list).map(({ field, rule }) => [field, written(rule, row[field])])),
});
/** The row that was entered, over what else is known of it; what was left empty is absent, unless rules always read it. */
export function rowFromForm(list: PartListKey, form: RowForm, before?: ListRow): ListRow {
  const cells = cellsOf(list);
  const entered = new Set(cells.map((c) => c.field));
  return {
    ...Object.fromEntries(Object.entries(before ?? {}).filter(([key]) => !entered.has(key))),
    id: form.id,
    name: form.name,
    ...Object.fromEntries(
      cells.flatMap(({ field, rule, always }) =>
        form[field] === '' && !always ? [] : [[field, read(rule, form[field])] as const],
      ),
    ),
  };
}
