/** A row of a place's list as it is entered: figures are text with their unit, what is not known is empty. */
import { type Fact, type FactRule } from '@/core/network/catalogue';
import { columnsOf, type ListRow, listRule, type PartListKey } from '@/core/network/lists';
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
export function blankRow(
  list: PartListKey,
  id: string,
  usual: Readonly<Record<string, string>> = {},
): RowForm {
  const { placeless, valve } = listRule(list);
  return {
    id,
    name: '',
    ...(placeless ? {} : { place: '' }),
    ...Object.fromEntries(columnsOf(list).map(({ field, rule }) => [field, written(rule, undefined)])),
    ...(valve ? { valve: '' } : {}),
    ...usual,
  };
}
/** A row as a form shows it. */
export function formOfRow(list: PartListKey, row: ListRow): RowForm {
  const { placeless, valve } = listRule(list);
  return {
    id: row.id,
    name: row.name,
    ...(placeless ? {} : { place: row.place ?? '' }),
    ...Object.fromEntries(columnsOf(list).map(({ field, rule }) => [field, written(rule, row[field])])),
    ...(valve ? { valve: String(row.valve as string) } : {}),
  };
}
/**
 * The row that was entered, over what else is known of it. Words that rules always read stand there even when empty; what
 * else was left empty is absent.
 */
export function rowFromForm(list: PartListKey, form: RowForm, before?: ListRow): ListRow {
  const { placeless, valve } = listRule(list);
  const columns = columnsOf(list);
  const kept = Object.fromEntries(
    Object.entries(before ?? {}).filter(([key]) => !columns.some((c) => c.field === key)),
  );
  return {
    ...kept,
    id: form.id,
    name: form.name,
    ...(placeless ? {} : { place: String(form.place) }),
    ...(valve ? { valve: String(form.valve) } : {}),
    ...Object.fromEntries(
      columns.flatMap(({ field, rule }) =>
        form[field] === '' && !ALWAYS.has(`${list}.${field}`)
          ? []
          : [[field, read(rule, form[field])] as const],
      ),
    ),
  };
}
/** Words that rules read without asking whether they are there. */
const ALWAYS = new Set(['appliances.kind', 'loops.flowMeter']);
