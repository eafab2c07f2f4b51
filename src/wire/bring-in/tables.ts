/** Tables that an office brings in: what stands in their columns, and by which headings a column is known. */
import type { Dimension } from '@/core/quantity/unit';

export interface TableColumn {
  readonly key: string;
  readonly title: string;
  /** A heading that says it; the first column that fits is taken. */
  readonly heading: RegExp;
  readonly needed?: true;
  /** Figures may leave their unit to the heading. */
  readonly unit?: Dimension;
  readonly day?: true;
  /** A row as it may be filled in. */
  readonly like: string;
}
const column = (
  key: string,
  title: string,
  heading: RegExp,
  like: string,
  more: Partial<TableColumn> = {},
): TableColumn => ({ key, title, heading, like, ...more });

const PLACE = column(
  'place',
  'Place',
  /^(name of the )?(place|site|property|premises|building|object)( name)?$/i,
  'Fulling mill, flat 2',
  { needed: true },
);
export const TABLES = {
  places: {
    title: 'Places, and what is installed there',
    columns: [
      PLACE,
      column('address', 'Address', /address|street|where/i, '2 Tenter Lane, Hollin'),
      column('customer', 'Customer', /customer|client|owner|tenant|^for$/i, 'Fulling Mill Co-operative'),
      column('system', 'Name of the installation', /^(system|installation)( name)?$/i, 'Gas, flat 2'),
      column('what', 'What it is', /^(what|kind|type|medium|fuel|trade)\b/i, 'gas'),
      column('meter', 'Meter', /^meter( class| kind| type)?$/i, 'diaphragm U6 / G4'),
      column('meterVolume', 'Meter volume', /meter.*volume/i, '8 l', { unit: 'volume' }),
      column('workingPressure', 'Working pressure', /pressure/i, '21 mbar', { unit: 'pressure' }),
      column('table', 'Pipe', /^(pipe|material|pipe material)$/i, 'Copper, thin wall'),
      column('nominal', 'Largest size', /size|bore|diameter|nominal/i, '22 × 0.9'),
      column('length', 'Length of all pipe', /length|metres|meters|feet/i, '12 m', { unit: 'length' }),
      column('floorServed', 'Floor served', /floor|area served/i, '', { unit: 'area' }),
      column('things', 'What stands on it', /appliances|things|fixtures|outlets|loops/i, 'boiler, 2 hob'),
    ],
  },
  appliances: {
    title: 'Appliances',
    columns: [
      PLACE,
      column('system', 'Installation', /^(system|installation)( name)?$/i, 'Gas, flat 2'),
      column('name', 'Appliance', /^(appliance|name)( name)?$/i, 'Boiler', { needed: true }),
      column('kind', 'Kind', /^(kind|type)$/i, 'boiler'),
      column('where', 'Where it is', /room|where|location/i, 'kitchen'),
      column('valve', 'Its valve', /valve/i, 'valve below the boiler'),
      column('volume', 'Volume inside its valve', /volume/i, '0.3 l', { unit: 'volume' }),
      column('hasPilot', 'Has a pilot', /pilot/i, 'no'),
      column('hasLid', 'Has a lid that shuts it off', /lid/i, 'no'),
      column('maxInlet', 'Maximum inlet', /inlet/i, '', { unit: 'pressure' }),
      column('input', 'Heat input', /input|power|rating/i, '24 kW', { unit: 'power' }),
      column('make', 'Make', /make|maker|manufacturer|brand/i, ''),
      column('model', 'Model', /model/i, ''),
      column('serial', 'Serial number', /serial/i, ''),
    ],
  },
  gauges: {
    title: 'Gauges',
    columns: [
      column('name', 'Name', /^(gauge|name|id|instrument)$/i, 'G-07', { needed: true }),
      column('serial', 'Serial number', /serial/i, '40071'),
      column('kind', 'Kind', /^(kind|type)$/i, 'digital', { needed: true }),
      column('least', 'Range begins at', /least|from|min/i, '0 mbar', { unit: 'pressure' }),
      column('greatest', 'Range', /range|greatest|max|^to\b|full scale/i, '0 to 130 mbar', {
        unit: 'pressure',
        needed: true,
      }),
      column('resolution', 'Step it shows', /step|resolution|division/i, '0.01 mbar', {
        unit: 'pressure',
        needed: true,
      }),
      column('accuracy', 'Accuracy', /accuracy|class|error/i, ''),
      column('calibrated', 'Calibrated on', /calibrated|calibration date|last cal/i, '2026-06-02', {
        day: true,
      }),
      column('calibrationDue', 'Calibration due', /due|next cal|valid until|expires/i, '2027-06-02', {
        day: true,
      }),
    ],
  },
} as const satisfies Readonly<
  Record<string, { readonly title: string; readonly columns: readonly TableColumn[] }>
>;
export type TableKey = keyof typeof TABLES;
export const TABLE_KEYS = Object.keys(TABLES) as TableKey[];
export const columnsOf = (table: TableKey): readonly TableColumn[] => TABLES[table].columns;

/** Where each column stands in the file, and how it is written. */
export interface TableMapping {
  readonly table: TableKey;
  readonly delimiter: string;
  readonly decimal: '.' | ',';
  readonly headerRows: number;
  readonly day: 'iso' | 'dmy' | 'mdy';
  readonly at: Readonly<Record<string, number>>;
  /** Units of figures that name none, by column. */
  readonly units: Readonly<Record<string, string>>;
}
/** An empty table to be filled in: its headings, and one row as an example. */
export const emptyTable = (table: TableKey): string[][] => [
  columnsOf(table).map((c) => c.title),
  columnsOf(table).map((c) => c.like),
];
