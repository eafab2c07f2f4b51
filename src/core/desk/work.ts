import { FigureError, pointed } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import {
  convert,
  fromKelvin,
  STANDARD_ATMOSPHERE,
  toKelvin,
  twinOf,
  unitLabel,
  UNITS,
  unitsOf,
  type Unit,
} from '@/core/quantity/unit';
import { DeskError, type DeskFormula, type DeskInput, type DeskOutput, type Numbers } from './types';

/** An entry: the text of the figure and the unit it is in. */
export interface Entry {
  readonly text: string;
  readonly unit: Unit;
}
export type Entries = Readonly<Record<string, Entry>>;
export interface DeskValue {
  readonly key: string;
  readonly name: string;
  /** null where the result is words */ readonly value: number | null;
  readonly unit: Unit | null;
  readonly text: string;
  readonly twin: { readonly value: number; readonly unit: Unit; readonly text: string } | null;
}
export interface DeskResult {
  readonly outputs: readonly DeskValue[];
  readonly working: readonly { readonly name: string; readonly value: string }[];
  /** How the first figure moves when one input moves a little, the others kept. */
  readonly sensitivity: readonly { readonly input: string; readonly step: string; readonly change: string }[];
}

/** Units an input may be entered in. */
export const unitChoices = (unit: Unit): Unit[] => unitsOf(UNITS[unit].dimension);

const NUMBER = /^[+\-−]?(\d+[.,]?\d*|[.,]\d+)(e[+-]?\d+)?$/i;
/** A figure as a person types it. @throws DeskError naming the field */
function numberOf(field: DeskInput, text: string): number {
  let trimmed = text.trim().replace('−', '-');
  if (!trimmed) throw new DeskError(field.key, `${field.name}: type a figure, like ${field.value || '1'}.`);
  try {
    trimmed = pointed(trimmed);
  } catch (error) {
    if (error instanceof FigureError) throw new DeskError(field.key, `${field.name}: ${error.message}`);
    throw error;
  }
  const value = Number(trimmed);
  if (!NUMBER.test(trimmed) || !Number.isFinite(value))
    throw new DeskError(
      field.key,
      `${field.name}: "${text.trim()}" is not a figure. Type digits, like 20.35.`,
    );
  return value;
}
function inSI(field: DeskInput, entry: Entry): number {
  const value = numberOf(field, entry.text);
  if (!Object.hasOwn(UNITS, entry.unit) || UNITS[entry.unit].dimension !== UNITS[field.unit].dimension)
    throw new DeskError(
      field.key,
      `${field.name}: ${entry.unit} does not measure this. Use ${unitChoices(field.unit).join(', ')}.`,
    );
  if (field.kind === 'temperature') return toKelvin(value, entry.unit);
  return value * UNITS[entry.unit].si;
}
function check(field: DeskInput, value: number, atmosphere: number): void {
  const refuse = (text: string) => {
    throw new DeskError(field.key, `${field.name}: ${text}`);
  };
  switch (field.kind) {
    case 'gauge':
      if (value + atmosphere <= 0) refuse('that is below a perfect vacuum. Check figure, unit and sign.');
      break;
    case 'absolute':
    case 'positive':
      if (value <= 0) refuse('must be above zero.');
      break;
    case 'not-negative':
      if (value < 0) refuse('must not be below zero.');
      break;
    case 'temperature':
      if (value <= 0) refuse('that is below absolute zero.');
      break;
    case 'count':
      if (!Number.isInteger(value) || value < 0) refuse('must be a whole number.');
  }
}

/** SI values of the entries, checked. @throws DeskError naming the field that is wrong */
export function readEntries(
  f: DeskFormula,
  entries: Entries,
  choices: Readonly<Record<string, string>>,
): Numbers {
  for (const key of Object.keys(entries))
    if (!f.inputs.some((i) => i.key === key))
      throw new DeskError(
        key,
        `There is no input "${key}". It has: ${[...f.inputs, ...(f.choices ?? [])].map((i) => i.key).join(', ')}.`,
      );
  for (const [key, value] of Object.entries(choices)) {
    const choice = f.choices?.find((c) => c.key === key);
    if (!choice) throw new DeskError(key, `There is no input "${key}".`);
    if (!choice.options.some((o) => o.key === value))
      throw new DeskError(
        key,
        `${choice.name}: choose one of ${choice.options.map((o) => o.key).join(', ')}.`,
      );
  }
  const numbers: Record<string, number> = {};
  for (const field of f.inputs) {
    const entry = entries[field.key] ?? { text: field.value, unit: field.unit };
    if (field.value === '' && !entry.text.trim()) continue;
    numbers[field.key] = inSI(field, entry);
  }
  const atmosphere = numbers.atm ?? STANDARD_ATMOSPHERE;
  for (const field of f.inputs)
    if (numbers[field.key] !== undefined) check(field, numbers[field.key]!, atmosphere);
  return numbers;
}

const inUnitOf = (output: DeskOutput, si: number, unit: Unit): number =>
  output.absolute ? fromKelvin(si, unit) : si / UNITS[unit].si;
function shown(output: DeskOutput, result: number | string, unit?: Unit, alone?: true): DeskValue {
  if (typeof result === 'string' || !output.unit)
    return { key: output.key, name: output.name, value: null, unit: null, text: String(result), twin: null };
  const own = unit ?? output.unit;
  const value = inUnitOf(output, result, own);
  const with_ = (v: number, u: Unit) => `${significantText(v, alone ? 6 : 4)} ${unitLabel(u)}`.trim();
  const twin = alone ? null : twinOf(own);
  const twinValue = twin ? inUnitOf(output, result, twin) : null;
  return {
    key: output.key,
    name: output.name,
    value,
    unit: own,
    text: with_(value, own),
    twin: twin && twinValue !== null ? { value: twinValue, unit: twin, text: with_(twinValue, twin) } : null,
  };
}

/** The input that makes a formula refuse: the first that, put back to its example, lets it work. */
function culprit(f: DeskFormula, n: Numbers, c: Readonly<Record<string, string>>): string {
  const works = (numbers: Numbers) => {
    try {
      return Object.values(f.work(numbers, c)).every((v) => typeof v !== 'number' || Number.isFinite(v));
    } catch {
      return false;
    }
  };
  const found = f.inputs.find(
    (i) =>
      i.value !== '' &&
      n[i.key] !== undefined &&
      works({ ...n, [i.key]: inSI(i, { text: i.value, unit: i.unit }) }),
  );
  return (found ?? f.inputs[0]!).key;
}
/** Runs the formula; what a core function refuses is named by the input it speaks of where that can be told. */
function results(f: DeskFormula, n: Numbers, c: Readonly<Record<string, string>>) {
  let found: Readonly<Record<string, number | string>>;
  try {
    found = f.work(n, c);
  } catch (error) {
    if (error instanceof DeskError) throw error;
    if (error instanceof RangeError) throw new DeskError(culprit(f, n, c), error.message);
    throw error;
  }
  for (const o of f.outputs)
    if (typeof found[o.key] === 'number' && !Number.isFinite(found[o.key]))
      throw new DeskError(
        culprit(f, n, c),
        'These figures give no finite result. Check them and their units.',
      );
  return found;
}
const withChoices = (f: DeskFormula, choices: Readonly<Record<string, string>>) => ({
  ...Object.fromEntries((f.choices ?? []).map((c) => [c.key, c.value])),
  ...choices,
});

/**
 * A formula's results with unit twins, working and sensitivity.
 * @throws DeskError naming the field that is wrong
 */
export function deskResult(
  f: DeskFormula,
  entries: Entries = {},
  choices: Readonly<Record<string, string>> = {},
  units: Readonly<Record<string, Unit>> = {},
): DeskResult {
  const numbers = readEntries(f, entries, choices);
  const chosen = withChoices(f, choices);
  const found = results(f, numbers, chosen);
  const outputs = f.outputs
    .filter((o) => found[o.key] !== undefined)
    .map((o) => shown(o, found[o.key]!, units[o.key], f.table));
  const entryOf = (i: DeskInput): Entry => entries[i.key] ?? { text: i.value, unit: i.unit };
  return {
    outputs,
    working: [
      ...f.inputs
        .filter((i) => numbers[i.key] !== undefined)
        .map((i) => ({
          name: i.name,
          value: `${entryOf(i).text.trim()} ${unitLabel(entryOf(i).unit)}`.trim(),
        })),
      ...(f.choices ?? []).map((c) => ({
        name: c.name,
        value: c.options.find((o) => o.key === chosen[c.key])!.label,
      })),
    ],
    sensitivity: f.table ? [] : sensitivityOf(f, numbers, chosen, entryOf, outputs),
  };
}

/** Moves each input by 1 % (a temperature or a zero by one of its unit) and says how far the first figure follows. */
function sensitivityOf(
  f: DeskFormula,
  numbers: Numbers,
  chosen: Readonly<Record<string, string>>,
  entryOf: (i: DeskInput) => Entry,
  outputs: readonly DeskValue[],
): DeskResult['sensitivity'] {
  const first = outputs.find((o) => o.value !== null);
  const output = first && f.outputs.find((o) => o.key === first.key)!;
  if (!first || !output) return [];
  return f.inputs.flatMap((i) => {
    const value = numbers[i.key];
    if (value === undefined || i.kind === 'count') return [];
    const unit = entryOf(i).unit;
    const whole = i.kind === 'temperature' || value === 0;
    const step = whole ? (i.kind === 'temperature' ? convert(1, unit, 'K') : UNITS[unit].si) : value * 0.01;
    try {
      const moved = f.work({ ...numbers, [i.key]: value + step }, chosen)[output.key];
      if (typeof moved !== 'number' || !Number.isFinite(moved)) return [];
      const change = inUnitOf(output, moved, first.unit!) - first.value!;
      return [
        {
          input: i.name,
          step: whole ? `+ 1 ${unitLabel(unit)}`.trim() : '+ 1 %',
          change: `${change > 0 ? '+' : ''}${significantText(change, 3)} ${unitLabel(first.unit!)}`.trim(),
        },
      ];
    } catch {
      return []; // the step leaves the formula's domain
    }
  });
}

/** "20.35mbar", "20.35 mbar" or "20.35" as an entry of an input. @throws DeskError naming the field */
export function parseEntry(f: DeskFormula, key: string, text: string): Entry {
  const field = f.inputs.find((i) => i.key === key);
  if (!field)
    throw new DeskError(
      key,
      `There is no input "${key}". It has: ${[...f.inputs, ...(f.choices ?? [])].map((i) => i.key).join(', ')}.`,
    );
  const trimmed = text.trim();
  // the longest unit that ends the text: "3psi", "2e3Pa", "1/K" are all told apart from their figure
  const unit = (Object.keys(UNITS) as Unit[])
    .filter((u) => u !== '1' && trimmed.endsWith(u))
    .sort((a, b) => b.length - a.length)
    .find((u) => NUMBER.test(trimmed.slice(0, -u.length).trim()) || u === trimmed);
  if (unit) return { text: trimmed.slice(0, -unit.length).trim(), unit };
  if (/[a-z%°µ]+$/i.test(trimmed) && !/^[+-]?(infinity|nan)$/i.test(trimmed) && !NUMBER.test(trimmed))
    throw new DeskError(
      key,
      `${field.name}: "${trimmed}" has no unit that is known. Use ${unitChoices(field.unit).join(', ')}.`,
    );
  return { text: trimmed, unit: field.unit };
}

/** The part of a link that carries a formula and what was entered: "leak-rate?V=20l&p0=21mbar". */
export function deskLink(
  f: DeskFormula,
  entries: Entries,
  choices: Readonly<Record<string, string>>,
): string {
  const parts = [
    ...Object.entries(entries).map(([k, e]) => [k, `${e.text.trim()}${e.unit === '1' ? '' : e.unit}`]),
    ...Object.entries(choices),
  ].map(([k, v]) => `${k}=${encodeURIComponent(v!)}`);
  return parts.length ? `${f.id}?${parts.join('&')}` : f.id;
}
/** Reads such a part; what cannot be read is left out. */
export function readDeskLink(
  formulas: readonly DeskFormula[],
  link: string,
): { formula: DeskFormula; entries: Record<string, Entry>; choices: Record<string, string> } | null {
  const [id = '', query = ''] = link.replace(/^#/, '').split('?');
  const formula = formulas.find((f) => f.id === id);
  if (!formula) return null;
  const entries: Record<string, Entry> = {};
  const choices: Record<string, string> = {};
  for (const part of query.split('&').filter(Boolean)) {
    const [key = '', raw = ''] = part.split('=');
    let value: string;
    try {
      value = decodeURIComponent(raw);
    } catch {
      continue;
    }
    if (formula.choices?.some((c) => c.key === key && c.options.some((o) => o.key === value)))
      choices[key] = value;
    else if (formula.inputs.some((i) => i.key === key)) {
      try {
        entries[key] = parseEntry(formula, key, value);
      } catch {
        const own = formula.inputs.find((i) => i.key === key)!;
        entries[key] = { text: value.slice(0, 40), unit: own.unit };
      }
    }
  }
  return { formula, entries, choices };
}
