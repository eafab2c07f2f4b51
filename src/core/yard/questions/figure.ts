/** A figure to work out: a line of the Desk with other figures, or the same size in another unit. */
import { deskLine } from '@/core/desk';
import { deskResult, type Entries } from '@/core/desk/work';
import { DESK_GROUPS, type DeskFormula, DeskError } from '@/core/desk/types';
import { significantText } from '@/core/quantity/figure';
import { convert, type Unit, unitLabel, UNITS } from '@/core/quantity/unit';
import { Pick } from './pick';
import type { Posed } from './question';

/** Lines that are worked by hand or with a pocket calculator in the field, from what they name alone. */
export const WORKED = [
  'leak-rate',
  'rate-at-pressure',
  'gas-temperature',
  'balance-pressure',
  'drawn-volume',
  'dial-rate',
  'pipe-volume',
  'stroke-volume',
  'head',
  'loss-from-fall',
  'main-loss-us',
  'main-loss-eu',
  'pool-bucket',
  'pool-thrust',
  'pool-volume',
  'nitrogen-temperature',
  'duct-flow',
  'duct-halving',
  'duct-floor-limit',
] as const;
/** Units that stand beside each other on gauges and papers, with a size that is met there. */
export const PAIRS: readonly (readonly [Unit, Unit, number])[] = [
  ['mbar', 'inWC', 20],
  ['inWC', 'mbar', 11],
  ['psi', 'bar', 60],
  ['bar', 'psi', 3],
  ['psi', 'kPa', 3],
  ['inWC', 'psi', 28],
  ['mbar', 'Pa', 0.25],
  ['mmWC', 'mbar', 200],
  ['micron', 'Pa(abs)', 500],
  ['Pa(abs)', 'micron', 130],
  ['Torr', 'mbar(abs)', 1],
  ['at', 'bar', 6],
  ['ft3/h', 'l/h', 0.1],
  ['l/s', 'CFM', 25],
  ['CFM', 'l/s', 48],
  ['gal/h', 'l/h', 2],
  ['gal', 'l', 15],
  ['ft3', 'l', 1.5],
  ['MJ/m3', 'Btu/ft3', 38],
  ['kW', 'Btu/h', 24],
  ['oz/year', 'g/year', 0.5],
  ['F', 'C', 68],
  ['C', 'F', 20],
];
/** A figure as a person would be told it: two digits that count. */
const told = (v: number): string => String(Number(v.toPrecision(2)));

function ofUnits(pick: Pick): Posed {
  const [from, to, size] = pick.one(PAIRS);
  const text = told(size * pick.between(0.4, 2.5));
  const value = convert(Number(text), from, to);
  const shown = `${significantText(value, 3)} ${unitLabel(to)}`;
  const of = `${text} ${unitLabel(from)}`;
  const straight = UNITS[from].dimension !== 'temperature';
  return {
    question: {
      about: 'figure',
      trade: 'every trade',
      title: 'The same in another unit',
      ask: `How much is ${of} in ${unitLabel(to)}?`,
      facts: [],
      unit: unitLabel(to),
    },
    solution: {
      figure: { value, text: shown },
      tells: [
        `${of} is ${shown}.`,
        straight
          ? `One ${unitLabel(from)} is ${significantText(convert(1, from, to))} ${unitLabel(to)}.`
          : 'Fahrenheit counts 9 degrees where Celsius counts 5, and begins 32 higher.',
      ],
      source: 'Definitions of the units',
    },
    traps: [],
  };
}
/** A display has the steps it has; a barometer stays where it is. */
const KEPT = new Set(['r', 'atm']);
/** Inputs like those of the example: sizes of one unit move together, so that what falls in the example falls here too. */
function entriesOf(f: DeskFormula, pick: Pick): Entries {
  const together = pick.between(0.6, 1.8);
  const byUnit = new Map<Unit, number>();
  return Object.fromEntries(
    f.inputs
      .filter((i) => i.value !== '' && !KEPT.has(i.key))
      .map((i) => {
        const example = Number(i.value);
        const all = byUnit.get(i.unit) ?? pick.between(0.5, 2);
        byUnit.set(i.unit, all);
        const by = all * pick.between(0.94, 1.06);
        const value =
          i.kind === 'temperature'
            ? Math.round(example + (by - 1.2) * 8)
            : i.kind === 'gauge' || i.kind === 'absolute'
              ? Number((example * together).toPrecision(4))
              : i.kind === 'count' || i.kind === 'any' || i.unit === '1'
                ? example
                : Number(told(example * by));
        return [i.key, { text: String(value), unit: i.unit }];
      }),
  );
}
function ofLine(pick: Pick): Posed | null {
  const f = deskLine(pick.one(WORKED))!;
  const entries = entriesOf(f, pick);
  let result;
  try {
    result = deskResult(f, entries);
  } catch (error) {
    if (error instanceof DeskError) return null; // figures that do not go together: others are drawn
    throw error;
  }
  const out = result.outputs.find((o) => o.value !== null && o.unit !== null);
  if (!out || !(Math.abs(out.value!) > 1e-6)) return null;
  const given = f.inputs.filter((i) => entries[i.key]);
  return {
    question: {
      about: 'figure',
      trade: DESK_GROUPS[f.group],
      title: f.title,
      ask: `Work out: ${out.name}`,
      facts: [
        ...given.map((i) => ({
          name: i.name,
          value: `${entries[i.key]!.text} ${unitLabel(i.unit)}`.trim(),
        })),
        ...(f.choices ?? []).map((c) => ({
          name: c.name,
          value: c.options.find((o) => o.key === c.value)!.label,
        })),
      ],
      unit: unitLabel(out.unit!),
    },
    solution: {
      figure: { value: out.value!, text: out.text },
      tells: [
        `${f.formula}. That gives ${out.text}.`,
        ...(f.note ? [`${f.note}.`] : []),
        ...result.sensitivity.slice(0, 1).map((s) => `${s.input}: ${s.step} changes it by ${s.change}.`),
      ],
      source: f.source,
    },
    traps: [],
  };
}
/** @param seed the same seed asks the same */
export function figureQuestion(seed: number): Posed {
  const pick = new Pick(seed);
  if (pick.next() < 0.3) return ofUnits(pick);
  for (let tried = 0; tried < 12; tried += 1) {
    const posed = ofLine(pick);
    if (posed) return posed;
  }
  return ofUnits(pick);
}
