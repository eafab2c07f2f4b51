/**
 * What a person is used to: units by what is measured, how days and times are written. A figure is kept, judged and sealed as it was
 * made; it is only told in these.
 */
import { convert, fromKelvin, toKelvin, twinOf, UNITS, unitLabel, type Unit } from './unit';

/** What a unit is chosen for, and what may be chosen. The first is the metric house's, `us` the customary one's. */
export const UNIT_CHOICES = {
  low: {
    title: 'Low pressure',
    of: 'gas, ducts, drains',
    units: ['mbar', 'hPa', 'Pa', 'kPa', 'inWC', 'mmWC', 'psi'],
    us: 'inWC',
  },
  pressure: {
    title: 'Pressure',
    of: 'water, pools, refrigerant',
    units: ['bar', 'kPa', 'MPa', 'psi', 'ftWC', 'at', 'atm'],
    us: 'psi',
  },
  vacuum: {
    title: 'Vacuum',
    of: 'absolute',
    units: ['Pa(abs)', 'mbar(abs)', 'micron', 'Torr'],
    us: 'micron',
  },
  length: { title: 'Length', of: 'pipe', units: ['m', 'ft'], us: 'ft' },
  bore: { title: 'Bore and small lengths', of: 'pipe, wall, level', units: ['mm', 'cm', 'in'], us: 'in' },
  volume: { title: 'Volume', of: '', units: ['l', 'm3', 'ft3', 'gal'], us: 'ft3' },
  dose: { title: 'Small volume', of: 'what is drawn or pumped', units: ['ml', 'in3', 'floz'], us: 'in3' },
  leak: {
    title: 'Leak',
    of: 'gas and water',
    units: ['l/h', 'ml/min', 'l/min', 'ft3/h', 'gal/h'],
    us: 'ft3/h',
  },
  air: { title: 'Air', of: 'ducts', units: ['l/s', 'm3/h', 'CFM'], us: 'CFM' },
  temperature: { title: 'Temperature', of: '', units: ['C', 'F'], us: 'F' },
} as const satisfies Record<string, { title: string; of: string; units: readonly Unit[]; us: Unit }>;
export type Measured = keyof typeof UNIT_CHOICES;
export const MEASURED = Object.keys(UNIT_CHOICES) as Measured[];

/** How a day is written, shown by an example. */
export const DAY_WAYS = {
  'day-first': '24 Mar 2026',
  'month-first': 'Mar 24, 2026',
  'year-first': '2026-03-24',
} as const;
export type DayWay = keyof typeof DAY_WAYS;
export const CLOCK_WAYS = { '24': '16:05', '12': '4:05 pm' } as const;
export type ClockWay = keyof typeof CLOCK_WAYS;
/** Units, days and times somebody can choose. */
export type Habits = Readonly<Record<Measured, Unit>> & {
  readonly days: DayWay;
  readonly clock: ClockWay;
};
export type Usage = Habits & {
  /** Some unit was chosen: figures are told in them, the usual ones too. Nobody chose: figures stay as they were made. */
  readonly chosen?: boolean;
};
/** What somebody chose; what is not in it is as the organisation has it, and there as a metric house has it. */
export type Wishes = Partial<Habits>;
const unitsBy = (pick: (m: Measured) => Unit): Record<Measured, Unit> =>
  Object.fromEntries(MEASURED.map((m) => [m, pick(m)])) as Record<Measured, Unit>;
export const METRIC: Habits = {
  ...unitsBy((m) => UNIT_CHOICES[m].units[0]!),
  days: 'day-first',
  clock: '24',
};
export const US_CUSTOMARY: Habits = {
  ...unitsBy((m) => UNIT_CHOICES[m].us),
  days: 'month-first',
  clock: '12',
};
/** The wishes of an organisation and, over them, of a person. */
export const usageOf = (organisation: Wishes, person: Wishes): Usage => ({
  ...METRIC,
  ...organisation,
  ...person,
  chosen: MEASURED.some((m) => organisation[m] ?? person[m]),
});

/** What a unit belongs to; units of no group have the other system's beside them only. */
const GROUP: Partial<Record<Unit, Measured>> = {
  ...Object.fromEntries(MEASURED.flatMap((m) => UNIT_CHOICES[m].units.map((u) => [u, m]))),
  // pressures that several groups offer stand with what they are usual for
  kPa: 'pressure',
  psi: 'pressure',
  'm3/h': 'air',
};
/** Which of a choice's units are of the other side of the sea. */
// prettier-ignore
const CUSTOMARY: ReadonlySet<string> = new Set<Unit>([
  'inWC', 'psi', 'ftWC', 'ft', 'in', 'ft3', 'gal', 'in3', 'floz', 'ft3/h', 'gal/h', 'CFM', 'F',
  'in2', 'ft2', 'Btu/h', 'Btu/ft3', 'F/min', 'psi/min', 'inWC/min', 'in3/psi', 'ft-lb', 'lbf', '1/F', 'CFM/100ft2',
  'lb', 'oz/year', 'psi/K', 'psi/F', 'inWC/K',
]);
/** Where a choice among units of one side is followed too: a house of kPa reads no bar, but litres stay litres beside m³. */
const RESTATED: ReadonlySet<Measured> = new Set<Measured>(['low', 'pressure', 'vacuum', 'leak', 'air']);
/**
 * The unit somebody is used to for a figure in another. What is of their side stays as it was entered, but for pressures and flows where
 * they chose another than their side's usual; what no choice is for follows the length, metric or customary.
 */
export function ownUnit(unit: Unit, usage: Usage): Unit {
  if (unit === 'K') return unit; // a difference, which no scale is for
  const group = GROUP[unit];
  if (!group) {
    const twin = twinOf(unit);
    return twin && CUSTOMARY.has(unit) !== (usage.length === 'ft') ? twin : unit;
  }
  const chosen = usage[group];
  const customary = CUSTOMARY.has(chosen);
  if (CUSTOMARY.has(unit) !== customary) return chosen;
  const usual = customary ? UNIT_CHOICES[group].us : UNIT_CHOICES[group].units[0];
  return chosen === usual || !RESTATED.has(group) ? unit : chosen;
}

/** A number in another unit of its dimension; temperatures by their scales. */
const across = (value: number, from: Unit, to: Unit): number =>
  UNITS[from].dimension === 'temperature' ? fromKelvin(toKelvin(value, from), to) : convert(value, from, to);
/**
 * A figure as it reads in another unit: as fine as its last digit was, never coarser than two digits that mean something.
 * @param digits the number as written, "20.35"
 * @returns the number alone, "8.17"
 */
export function numberIn(digits: string, from: Unit, to: Unit): string {
  const value = Number(digits.replace('−', '-'));
  const decimals = digits.split('.')[1]?.length ?? 0;
  const told = across(value, from, to);
  const step = 10 ** -decimals * Math.abs(UNITS[from].si / UNITS[to].si);
  const size = Math.abs(told);
  const fine = Math.round(-Math.log10(step));
  const least = size > 0 ? 1 - Math.floor(Math.log10(size)) : 0;
  const text = told.toFixed(Math.max(0, Math.min(9, Math.max(fine, least))));
  return (Number(text) === 0 ? text.replace('-', '') : text).replace('-', '−');
}

const LABELS = new Map<string, Unit>((Object.keys(UNITS) as Unit[]).map((u) => [UNITS[u].label, u]));
LABELS.delete('');
LABELS.delete('%');
// as sentences say it
LABELS.set('litres', 'l').set('litres an hour', 'l/h');
// times stay times, and kelvins are differences
for (const unit of ['s', 'min', 'h', 'd', 'K']) LABELS.delete(unit);
const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
const NUMBER = String.raw`[+−-]?\d+(?:\.\d+)?`;
const NUMBERS = new RegExp(NUMBER, 'g');
const UNIT = [...LABELS.keys()]
  .toSorted((a, b) => b.length - a.length)
  // "2 in the list" is no length
  .map((label) => (label === 'in' ? String.raw`in(?=$|[),.;:])` : escape(label)))
  .join('|');
/** A figure, or several that share a unit: "0 to 160 mbar", "2.00 ± 0.10 bar". */
const FIGURES = new RegExp(
  String.raw`(?<![\w.,/])(${NUMBER}(?:(?: to | and | or | ± |–|\/)${NUMBER})*)([  ])(${UNIT})(?![\w/²³·°(])`,
  'g',
);
export interface Telling {
  readonly usage: Usage;
  /** Units of the gauges that judge here: what is in them stays, whatever somebody is used to. */
  readonly keep?: readonly Unit[] | 'all';
  /** Every figure with its twin beside. */
  readonly both?: boolean;
}
/**
 * Words with their figures told as somebody is used to. What a gauge of the test showed and what it is judged by stays in the gauge's
 * unit; with `both` the other stands beside, so that nothing that was judged is ever shown in one unit that nobody read.
 */
export function figuresTold(text: string, { usage, keep = [], both = false }: Telling): string {
  return text.replace(FIGURES, (whole, numbers: string, gap: string, label: string) => {
    const unit = LABELS.get(label)!;
    const own = ownUnit(unit, usage);
    const stays = own === unit || keep === 'all' || keep.includes(unit);
    const other = own === unit ? twinOf(unit) : own;
    if (stays && (!both || !other)) return whole;
    const told = numbers.replace(NUMBERS, (n, at: number) => {
      const sign = n.startsWith('+') ? '+' : '';
      const said = numberIn(sign ? n.slice(1) : n, unit, other!);
      return at > 0 && n.startsWith('-') ? `-${said.replace('−', '')}` : sign + said;
    });
    const there = `${told}${gap}${unitLabel(other!)}`;
    return stays ? `${whole} (${there})` : both ? `${there} (${whole})` : there;
  });
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
/** As they are written beside a day: en-GB has four letters for September. */
const MONTH = '(Jan|Feb|Mar|Apr|May|June?|July?|Aug|Sept?|Oct|Nov|Dec)';
const WORDED = new RegExp(String.raw`(?<!\d)(\d{1,2}) ${MONTH} (\d{4})(?!\d)`, 'g');
/** A day of the week with its day of the month, the year left out. */
const THIS_YEAR = new RegExp(
  String.raw`\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun),? (\d{1,2}) ${MONTH}\b(?! \d{4})`,
  'g',
);
const ISO = /(?<![\d-])(\d{4})-(\d{2})-(\d{2})(?![\d-]|T\d)/g;
const CLOCK = /(?<![\d:.])([01]\d|2[0-3]):([0-5]\d)(:[0-5]\d)?(?![\d:])/g;
function dayTold(year: string, month: number, day: number, way: DayWay): string {
  const two = (n: number) => String(n).padStart(2, '0');
  if (way === 'year-first') return `${year}-${two(month)}-${two(day)}`;
  const word = MONTHS[month - 1]!;
  return way === 'month-first' ? `${word} ${day}, ${year}` : `${day} ${word} ${year}`;
}
/** Words with their days and times written as somebody is used to. */
export function daysTold(text: string, { days, clock }: Pick<Usage, 'days' | 'clock'>): string {
  const told = text
    .replace(WORDED, (_, day: string, word: string, year: string) =>
      dayTold(year, MONTHS.indexOf(word.slice(0, 3)) + 1, Number(day), days),
    )
    .replace(ISO, (whole, year: string, month: string, day: string) =>
      Number(month) >= 1 && Number(month) <= 12 && Number(day) >= 1 && Number(day) <= 31
        ? dayTold(year, Number(month), Number(day), days)
        : whole,
    )
    .replace(THIS_YEAR, (whole, week: string, day: string, word: string) =>
      days === 'month-first' ? `${week}, ${word.slice(0, 3)} ${day}` : whole,
    );
  if (clock === '24') return told;
  return told.replace(CLOCK, (_, hour: string, minute: string, second = '') => {
    const h = Number(hour);
    return `${h % 12 || 12}:${minute}${second} ${h < 12 ? 'am' : 'pm'}`;
  });
}
/**
 * Words as somebody is used to read them: figures, days and times. Days stand in one way on every page and paper, however they were
 * written; figures stay as they were made where nobody chose a unit.
 */
export const told = (text: string, telling: Telling): string =>
  daysTold(telling.usage.chosen || telling.both ? figuresTold(text, telling) : text, telling.usage);
