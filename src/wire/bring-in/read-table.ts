/** Reads the rows of a table by its mapping. What cannot be read is listed with what is wrong; nothing is guessed. */
import type { LogRead, RowError } from '@/core/gauge-log/mapping';
import { meterVolume } from '@/core/installation/meters';
import { PIPE_TABLES, pipeTable } from '@/core/installation/pipes';
import { dutyFrom, tradeOf } from '@/core/trades';
import { type BeforeYou, BEFORE_YOU } from '@/core/trades/before-you';
import * as yup from 'yup';
import { USUAL_VOLUME } from '../first-facts';
import type { FirstFactsForm } from '../first-facts-schema';
import { noFacts } from '../no-facts';
import { alike, CellError, dayCell, figureCell, rangeCell, yesNoCell } from './cells';
import {
  type ApplianceRow,
  applianceRowSchema,
  type GaugeRow,
  gaugeRowSchema,
  type PlaceRow,
  placeRowSchema,
} from './schema';
import { columnsOf, type TableMapping } from './tables';

export interface MeterClass {
  readonly kind: string;
  readonly label: string;
}
export interface TableRead extends Pick<LogRead, 'errors' | 'errorCount' | 'rows'> {
  readonly places: readonly PlaceRow[];
  readonly appliances: readonly ApplianceRow[];
  readonly gauges: readonly GaugeRow[];
}
/** No file is longer: more than this no office has, and no page holds. */
export const MOST_ROWS = 20_000;
const MOST_ERRORS = 500;

/** One row, read cell by cell; what is wrong with a cell is told with its column. */
class Row {
  constructor(
    private readonly cells: readonly string[],
    private readonly mapping: TableMapping,
    private readonly wrong: (column: string, text: string) => void,
  ) {}
  private failed = false;
  get good(): boolean {
    return !this.failed;
  }
  /** Notes that a cell cannot be taken. */
  fail(key: string, text: string): void {
    this.failed = true;
    this.wrong(columnsOf(this.mapping.table).find((c) => c.key === key)?.title ?? key, text);
  }
  has(key: string): boolean {
    return this.text(key) !== '';
  }
  text(key: string): string {
    const at = this.mapping.at[key];
    return at === undefined ? '' : (this.cells[at] ?? '').replace(/\s+/g, ' ').trim();
  }
  /** What a cell says, read by a function that says what is wrong with it; `other` where it says nothing or cannot be read. */
  read<T>(key: string, read: (text: string) => T, other: T): T {
    if (!this.has(key)) return other;
    try {
      return read(this.text(key));
    } catch (error) {
      if (!(error instanceof CellError)) throw error;
      this.fail(key, error.message);
      return other;
    }
  }
  figure(key: string, other = ''): string {
    const { unit } = columnsOf(this.mapping.table).find((c) => c.key === key)!;
    const { decimal, units } = this.mapping;
    return this.read(key, (t) => figureCell(t, unit!, decimal, units[key] ?? ''), other);
  }
  /** Checked as the server will check it. */
  checked<T>(schema: yup.Schema<T>, value: unknown, titles: Readonly<Record<string, string>> = {}): T | null {
    if (this.failed) return null;
    try {
      return schema.validateSync(value, { strict: true });
    } catch (error) {
      if (!(error instanceof yup.ValidationError)) throw error;
      const path = error.path?.split('.').at(-1) ?? '';
      this.fail(titles[path] ?? path, error.message);
      return null;
    }
  }
}

/** Words under which an office writes what stands before a person. A meter that nobody named is one that nobody looked at. */
const CALLED: Readonly<Record<string, string>> = {
  gas: 'gas-none',
  naturalgas: 'gas-none',
  lpg: 'propane',
  heating: 'water-pipes',
  heatingpipes: 'water-pipes',
  water: 'water-pipes',
  waterpipes: 'water-pipes',
  floorheating: 'loops',
  watersupply: 'house-supply',
  supply: 'house-supply',
  drains: 'drain',
  sewer: 'drain',
  main: 'main',
  watermain: 'main',
  spa: 'pool',
  refrigerant: 'circuit',
  refrigeration: 'circuit',
  duct: 'ducts',
};
function whatOf(text: string): BeforeYou {
  const word = alike(text);
  const found =
    BEFORE_YOU.find((b) => alike(b.key) === word || alike(b.title) === word) ??
    BEFORE_YOU.find((b) => b.key === CALLED[word]);
  if (!found)
    throw new CellError(
      `“${text.slice(0, 40)}” is nothing that is tested here. Write one of: gas; ${BEFORE_YOU.map((b) => b.title.toLowerCase()).join('; ')}.`,
    );
  return found;
}
function meterOf(text: string, meters: readonly MeterClass[]): string {
  const word = alike(text);
  const found = meters.find((m) => alike(m.kind) === word || alike(m.label) === word);
  if (!found)
    throw new CellError(
      `“${text.slice(0, 40)}” is no class of meter here. Write one of: ${meters.map((m) => m.label).join('; ')}.`,
    );
  return found.kind;
}
function pipeOf(text: string): string {
  const word = alike(text);
  const same = PIPE_TABLES.filter((t) => alike(t.key) === word || alike(t.title) === word);
  const fitting = same.length ? same : PIPE_TABLES.filter((t) => alike(t.title).startsWith(word));
  const found = fitting.length === 1 ? fitting[0] : undefined;
  if (!found)
    throw new CellError(
      `“${text.slice(0, 40)}” is no one pipe of the tables. Write one of: ${PIPE_TABLES.map((t) => t.title).join('; ')}.`,
    );
  return found.key;
}
/** A size of a table: as it stands there, or so much of it that only one begins so. */
function sizeOf(text: string, table: string): string {
  const { sizes, title } = pipeTable(table)!;
  const word = alike(text.replace(/\b(mm|dn)\b/gi, '').replace(/(\d),(\d)/g, '$1.$2'));
  const same = sizes.filter((s) => alike(s.key) === word);
  const found = same.length ? same : sizes.filter((s) => alike(s.key).startsWith(`${word}x`));
  if (found.length !== 1)
    throw new CellError(
      `“${text.slice(0, 20)}” is no one size of ${title}. Write one of: ${sizes.map((s) => s.key).join('; ')}.`,
    );
  return found[0]!.key;
}
/** What was counted: "boiler, 2 hob" or "boiler; hob x2". */
function countedOf(text: string, words: readonly string[]): FirstFactsForm['counted'] {
  return text
    .split(/[,;+\n]/)
    .map((t) => t.trim())
    .filter(Boolean)
    .map((t) => {
      const parts = /^(\d{1,2})\s*[x×]?\s*(.+)$/.exec(t) ?? null;
      const behind = /^(.+?)\s*[x×]?\s*(\d{1,2})$/.exec(t);
      const [name, count] = parts ? [parts[2]!, parts[1]!] : behind ? [behind[1]!, behind[2]!] : [t, '1'];
      const word = words.find((w) => [alike(w), `${alike(w)}s`, `${alike(w)}es`].includes(alike(name)));
      if (!word)
        throw new CellError(
          `“${t.slice(0, 30)}” is none of what is counted here: ${words.join(', ')}. Write “other appliance” for what has no word, or leave it out and draw it later.`,
        );
      return { word, count: Number(count) };
    });
}

const FACT_TITLES: Readonly<Record<string, string>> = {
  name: 'system',
  workingPressure: 'workingPressure',
  meterVolume: 'meterVolume',
  length: 'length',
  counted: 'things',
  value: 'floorServed',
};
/** What is installed there by the few facts of a row; null where it says nothing or cannot be read. */
function factsOf(row: Row, meters: readonly MeterClass[]): FirstFactsForm | null {
  const of = row.read('what', whatOf, null);
  if (!of) {
    if (row.good && ['system', 'meter', 'length', 'things', 'nominal'].some((k) => row.has(k)))
      row.fail('what', 'is needed to enter the installation: gas, propane, heating, drain, pool, ducts …');
    return null;
  }
  const trade = tradeOf({ medium: of.medium, ...dutyFrom(of.medium, of.duty) });
  const meterKind = row.read(
    'meter',
    (t) => meterOf(t, meters),
    of.key === 'gas-none' ? 'unknown' : of.meterKind || 'unknown',
  );
  const volume = row.figure('meterVolume', meterVolume(meterKind));
  if (!volume) row.fail('meterVolume', 'is needed for this class of meter, as its badge says it.');
  const table = row.read('table', pipeOf, of.table);
  if (!trade.unpiped)
    for (const key of ['nominal', 'length'])
      if (!row.has(key))
        row.fail(
          key,
          'is needed: the volume, and with it every limit, depends on it. Fill it in, or leave “What it is” empty and enter the installation at the place.',
        );
  const nominal = trade.unpiped ? of.nominal : row.read('nominal', (t) => sizeOf(t, table), '');
  const facts = {
    ...noFacts(),
    name: row.text('system') || of.title.split(',')[0]!,
    medium: of.medium,
    duty: of.duty,
    workingPressure: row.figure('workingPressure', of.workingPressure),
    meterKind,
    meterVolume: volume,
    table,
    nominal,
    length: row.figure('length'),
    counted: row.read('things', (t) => countedOf(t, trade.first.things?.words ?? []), []),
    asked: (trade.first.asks ?? []).map((key) => ({
      key,
      value: key === 'floorServed' ? row.figure('floorServed') : '',
    })),
  };
  return row.good ? facts : null;
}

function placeOf(row: Row, n: number, meters: readonly MeterClass[]): PlaceRow | null {
  const place = {
    row: n,
    name: row.text('place'),
    address: row.text('address'),
    customer: row.text('customer'),
  };
  const whole = row.checked(placeRowSchema, place, { name: 'place' });
  if (!whole) return null;
  const facts = factsOf(row, meters);
  // the place is there even where what is installed there could not be read
  return (facts && row.checked(placeRowSchema, { ...place, facts }, FACT_TITLES)) || whole;
}
function applianceOf(row: Row, n: number): ApplianceRow | null {
  const [name, kind] = [row.text('name'), row.text('kind')];
  const words = Object.fromEntries(
    ['system', 'where', 'make', 'model', 'serial'].map((k) => [k, row.text(k)]),
  );
  return row.checked(applianceRowSchema, {
    ...words,
    row: n,
    place: row.text('place'),
    name,
    kind: kind || name.toLowerCase().slice(0, 60),
    valve: row.text('valve') || 'isolating valve',
    volume: row.figure('volume', USUAL_VOLUME),
    hasPilot: row.read('hasPilot', yesNoCell, null),
    hasLid: row.read('hasLid', yesNoCell, null),
    maxInlet: row.figure('maxInlet'),
    input: row.figure('input'),
  });
}
/** As gauges show pressure: above the atmosphere, or absolute. */
function eitherWay<T>(read: (dimension: 'pressure' | 'absolute') => T): T {
  try {
    return read('pressure');
  } catch (error) {
    try {
      return read('absolute');
    } catch {
      throw error;
    }
  }
}
function gaugeOf(row: Row, n: number, { decimal, units, day }: TableMapping): GaugeRow | null {
  const unit = units.greatest ?? units.least ?? units.resolution ?? '';
  const range = row.read('greatest', (t) => eitherWay((d) => rangeCell(t, d, decimal, unit)), {
    least: null,
    greatest: '',
  });
  const shown = range.greatest.split(' ')[1] ?? unit;
  const step = row.read(
    'resolution',
    (t) => eitherWay((d) => figureCell(t, d, decimal, units.resolution ?? shown)),
    '',
  );
  const places = /\.(\d+)/.exec(step)?.[1]?.length ?? 0;
  return row.checked(gaugeRowSchema, {
    row: n,
    gauge: {
      // told apart by the row alone until the server gives it one
      id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
      name: row.text('name'),
      serial: row.text('serial') || 'not entered',
      kind: row.text('kind').toLowerCase(),
      least: row.read(
        'least',
        (t) => eitherWay((d) => figureCell(t, d, decimal, units.least ?? shown)),
        range.least ?? `${(0).toFixed(places)} ${shown}`,
      ),
      greatest: range.greatest,
      resolution: step,
      accuracy: row.text('accuracy'),
      calibrated: row.read('calibrated', (t) => dayCell(t, day), ''),
      calibrationDue: row.read('calibrationDue', (t) => dayCell(t, day), ''),
    },
  });
}

/** @param meters classes of meters that the rule packs know */
export function readTable(
  rows: readonly (readonly string[])[],
  mapping: TableMapping,
  meters: readonly MeterClass[],
): TableRead {
  const errors: RowError[] = [];
  let errorCount = 0;
  let read = 0;
  const found = { places: [] as PlaceRow[], appliances: [] as ApplianceRow[], gauges: [] as GaugeRow[] };
  for (const [i, cells] of rows.entries()) {
    if (i < mapping.headerRows || cells.every((c) => !c.trim())) continue;
    const n = i + 1;
    const wrong = (column: string, text: string) => {
      errorCount += 1;
      if (errors.length < MOST_ERRORS) errors.push({ row: n, column, text });
    };
    read += 1;
    if (read > MOST_ROWS) {
      wrong('row', `More than ${MOST_ROWS} rows are not read at once: part the file.`);
      break;
    }
    const row = new Row(cells, mapping, wrong);
    for (const c of columnsOf(mapping.table))
      if (c.needed && !row.has(c.key))
        row.fail(c.key, mapping.at[c.key] === undefined ? 'say which column it is' : 'is empty, and needed');
    if (!row.good) continue;
    if (mapping.table === 'places') {
      const place = placeOf(row, n, meters);
      if (place) found.places.push(place);
    } else if (mapping.table === 'appliances') {
      const appliance = applianceOf(row, n);
      if (appliance) found.appliances.push(appliance);
    } else {
      const gauge = gaugeOf(row, n, mapping);
      if (gauge) found.gauges.push(gauge);
    }
  }
  return { ...found, errors, errorCount, rows: read };
}
