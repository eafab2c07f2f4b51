/**
 * Pipes by standard and nominal size: outside diameter and wall, from which the bore follows. Nominal walls of the
 * editions named; a pipe in the wall may differ: the maker's print on it wins.
 */
import { exact, type Exact } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';

export type WallMaterial = 'steel' | 'copper' | 'ductile iron' | 'PVC' | 'PE' | 'PE-X' | 'multilayer';
/** Elastic modulus (Pa) and thermal expansion (1/K) of walls. Source: usual moduli of pipe materials */
export const WALLS: Readonly<
  Record<WallMaterial, { readonly modulus: number; readonly alpha: number; readonly note: string }>
> = {
  steel: { modulus: 210e9, alpha: 12e-6, note: '210 GPa' },
  copper: { modulus: 120e9, alpha: 17e-6, note: '120 GPa' },
  'ductile iron': { modulus: 170e9, alpha: 11e-6, note: '170 GPa' },
  PVC: { modulus: 3e9, alpha: 70e-6, note: '3 GPa' },
  PE: { modulus: 0.9e9, alpha: 175e-6, note: '0.8 to 1 GPa' },
  'PE-X': { modulus: 0.7e9, alpha: 175e-6, note: '0.6 to 0.8 GPa' },
  multilayer: { modulus: 70e9, alpha: 25e-6, note: 'the aluminium layer carries: 70 GPa' },
};

/** One size: its name in the trade, outside diameter, wall; for lined pipe the lining, for multilayer the layer that carries. */
export interface PipeSize {
  readonly key: string;
  readonly outside: number;
  readonly wall: number;
  readonly lining?: number;
  readonly carrying?: number;
}
export interface PipeTable {
  readonly key: string;
  readonly title: string;
  readonly standard: string;
  readonly material: WallMaterial;
  /** Unit of the figures below. */
  readonly unit: 'mm' | 'in';
  readonly sizes: readonly PipeSize[];
}

type Row = readonly [string, number, number, number?];
const rows = (list: readonly Row[], third?: 'lining' | 'carrying'): PipeSize[] =>
  list.map(([key, outside, wall, extra]) => ({
    key,
    outside,
    wall,
    ...(third && extra ? { [third]: extra } : {}),
  }));
const byWall = (list: readonly (readonly [number, number])[]): PipeSize[] =>
  list.map(([outside, wall]) => ({ key: `${outside} × ${wall.toFixed(1)}`, outside, wall }));
const IPS: readonly Row[] = [
  ['½ in', 0.84, 0.109],
  ['¾ in', 1.05, 0.113],
  ['1 in', 1.315, 0.133],
  ['1¼ in', 1.66, 0.14],
  ['1½ in', 1.9, 0.145],
  ['2 in', 2.375, 0.154],
  ['2½ in', 2.875, 0.203],
  ['3 in', 3.5, 0.216],
  ['4 in', 4.5, 0.237],
  ['6 in', 6.625, 0.28],
];

export const PIPE_TABLES: readonly PipeTable[] = [
  {
    key: 'steel-en10255',
    title: 'Steel, medium series',
    standard: 'EN 10255, medium series',
    material: 'steel',
    unit: 'mm',
    sizes: rows([
      ['DN 10 (3/8)', 17.2, 2.3],
      ['DN 15 (½)', 21.3, 2.6],
      ['DN 20 (¾)', 26.9, 2.6],
      ['DN 25 (1)', 33.7, 3.2],
      ['DN 32 (1¼)', 42.4, 3.2],
      ['DN 40 (1½)', 48.3, 3.2],
      ['DN 50 (2)', 60.3, 3.6],
      ['DN 65 (2½)', 76.1, 3.6],
      ['DN 80 (3)', 88.9, 4],
      ['DN 100 (4)', 114.3, 4.5],
      ['DN 125 (5)', 139.7, 5],
      ['DN 150 (6)', 165.1, 5],
    ]),
  },
  {
    key: 'steel-sch40',
    title: 'Steel, schedule 40',
    standard: 'ASME B36.10M, schedule 40',
    material: 'steel',
    unit: 'in',
    sizes: rows([['3/8 in', 0.675, 0.091], ...IPS, ['8 in', 8.625, 0.322]]),
  },
  {
    key: 'copper-thin',
    title: 'Copper, thin wall (0.7 to 1.5)',
    standard: 'EN 1057, R250 thin wall',
    material: 'copper',
    unit: 'mm',
    sizes: byWall([
      [15, 0.7],
      [22, 0.9],
      [28, 0.9],
      [35, 1.2],
      [42, 1.2],
      [54, 1.2],
      [66.7, 1.2],
      [76.1, 1.5],
      [108, 1.5],
    ]),
  },
  {
    key: 'copper-standard',
    title: 'Copper, 1 mm wall and more',
    standard: 'EN 1057',
    material: 'copper',
    unit: 'mm',
    sizes: byWall([
      [8, 1],
      [10, 1],
      [12, 1],
      [15, 1],
      [18, 1],
      [22, 1],
      [28, 1],
      [28, 1.5],
      [35, 1.5],
      [42, 1.5],
      [54, 2],
      [64, 2],
      [76.1, 2],
      [88.9, 2],
      [108, 2.5],
    ]),
  },
  {
    key: 'copper-l',
    title: 'Copper tube, type L',
    standard: 'ASTM B88, type L',
    material: 'copper',
    unit: 'in',
    sizes: rows([
      ['3/8 in', 0.5, 0.035],
      ['½ in', 0.625, 0.04],
      ['¾ in', 0.875, 0.045],
      ['1 in', 1.125, 0.05],
      ['1¼ in', 1.375, 0.055],
      ['1½ in', 1.625, 0.06],
      ['2 in', 2.125, 0.07],
      ['2½ in', 2.625, 0.08],
      ['3 in', 3.125, 0.09],
      ['4 in', 4.125, 0.11],
    ]),
  },
  {
    key: 'copper-m',
    title: 'Copper tube, type M',
    standard: 'ASTM B88, type M',
    material: 'copper',
    unit: 'in',
    sizes: rows([
      ['½ in', 0.625, 0.028],
      ['¾ in', 0.875, 0.032],
      ['1 in', 1.125, 0.035],
      ['1¼ in', 1.375, 0.042],
      ['1½ in', 1.625, 0.049],
      ['2 in', 2.125, 0.058],
    ]),
  },
  {
    key: 'pe-sdr11',
    title: 'PE water pipe, SDR 11',
    standard: 'EN 12201-2, SDR 11',
    material: 'PE',
    unit: 'mm',
    sizes: byWall([
      [20, 2],
      [25, 2.3],
      [32, 3],
      [40, 3.7],
      [50, 4.6],
      [63, 5.8],
      [75, 6.8],
      [90, 8.2],
      [110, 10],
      [125, 11.4],
      [160, 14.6],
      [180, 16.4],
      [200, 18.2],
      [225, 20.5],
      [250, 22.7],
    ]),
  },
  {
    key: 'pe-sdr17',
    title: 'PE water pipe, SDR 17',
    standard: 'EN 12201-2, SDR 17',
    material: 'PE',
    unit: 'mm',
    sizes: byWall([
      [63, 3.8],
      [75, 4.5],
      [90, 5.4],
      [110, 6.6],
      [125, 7.4],
      [160, 9.5],
      [180, 10.7],
      [200, 11.9],
      [225, 13.4],
      [250, 14.8],
    ]),
  },
  {
    key: 'pe-gas',
    title: 'PE gas pipe, SDR 11',
    standard: 'EN 1555-2, SDR 11',
    material: 'PE',
    unit: 'mm',
    sizes: byWall([
      [20, 3],
      [25, 3],
      [32, 3],
      [40, 3.7],
      [50, 4.6],
      [63, 5.8],
      [75, 6.8],
      [90, 8.2],
      [110, 10],
      [125, 11.4],
      [160, 14.6],
      [180, 16.4],
    ]),
  },
  {
    key: 'pe-gas-ips',
    title: 'PE gas pipe, iron pipe size, SDR 11',
    standard: 'ASTM D2513, IPS SDR 11',
    material: 'PE',
    unit: 'in',
    sizes: rows([
      ['¾ in', 1.05, 0.095],
      ['1 in', 1.315, 0.12],
      ['1¼ in', 1.66, 0.151],
      ['2 in', 2.375, 0.216],
      ['3 in', 3.5, 0.318],
      ['4 in', 4.5, 0.409],
    ]),
  },
  {
    key: 'pex',
    title: 'PE-X',
    standard: 'EN ISO 15875-2 and common heating sizes',
    material: 'PE-X',
    unit: 'mm',
    sizes: byWall([
      [16, 2],
      [16, 2.2],
      [17, 2],
      [20, 2],
      [20, 2.8],
      [25, 2.3],
      [25, 3.5],
      [32, 2.9],
      [32, 4.4],
      [40, 3.7],
      [50, 4.6],
      [63, 5.8],
    ]),
  },
  {
    key: 'pex-cts',
    title: 'PEX tubing, SDR 9',
    standard: 'ASTM F876, CTS SDR 9',
    material: 'PE-X',
    unit: 'in',
    sizes: rows([
      ['3/8 in', 0.5, 0.07],
      ['½ in', 0.625, 0.07],
      ['¾ in', 0.875, 0.097],
      ['1 in', 1.125, 0.125],
      ['1¼ in', 1.375, 0.153],
      ['1½ in', 1.625, 0.181],
      ['2 in', 2.125, 0.236],
    ]),
  },
  {
    key: 'multilayer',
    title: 'Multilayer',
    standard: 'ISO 21003; aluminium layer as commonly made, see the maker’s sheet',
    material: 'multilayer',
    unit: 'mm',
    sizes: rows(
      [
        ['14 × 2.0', 14, 2, 0.2],
        ['16 × 2.0', 16, 2, 0.2],
        ['18 × 2.0', 18, 2, 0.2],
        ['20 × 2.0', 20, 2, 0.25],
        ['20 × 2.25', 20, 2.25, 0.25],
        ['25 × 2.5', 25, 2.5, 0.3],
        ['26 × 3.0', 26, 3, 0.3],
        ['32 × 3.0', 32, 3, 0.35],
        ['40 × 3.5', 40, 3.5, 0.5],
        ['50 × 4.0', 50, 4, 0.6],
        ['63 × 4.5', 63, 4.5, 0.8],
      ],
      'carrying',
    ),
  },
  {
    key: 'iron-en545',
    title: 'Ductile iron, class 40, cement lined',
    standard: 'EN 545, class 40, 4 mm cement lining',
    material: 'ductile iron',
    unit: 'mm',
    sizes: rows(
      [
        ['DN 80', 98, 4.4, 4],
        ['DN 100', 118, 4.4, 4],
        ['DN 125', 144, 4.5, 4],
        ['DN 150', 170, 4.5, 4],
        ['DN 200', 222, 4.7, 4],
        ['DN 250', 274, 5.5, 4],
        ['DN 300', 326, 6.2, 4],
      ],
      'lining',
    ),
  },
  {
    key: 'iron-c151',
    title: 'Ductile iron, pressure class 350, cement lined',
    standard: 'AWWA C151, pressure class 350, 1/16 in lining',
    material: 'ductile iron',
    unit: 'in',
    sizes: rows(
      [
        ['4 in', 4.8, 0.25, 0.0625],
        ['6 in', 6.9, 0.25, 0.0625],
        ['8 in', 9.05, 0.25, 0.0625],
        ['10 in', 11.1, 0.26, 0.0625],
        ['12 in', 13.2, 0.28, 0.0625],
      ],
      'lining',
    ),
  },
  {
    key: 'pvc-pn16',
    title: 'PVC-U pressure pipe, PN 16',
    standard: 'EN ISO 1452-2, PN 16',
    material: 'PVC',
    unit: 'mm',
    sizes: byWall([
      [20, 1.5],
      [25, 1.9],
      [32, 2.4],
      [40, 3],
      [50, 3.7],
      [63, 4.7],
      [75, 5.6],
      [90, 6.7],
      [110, 6.6],
      [125, 7.4],
      [160, 9.5],
      [200, 11.9],
      [225, 13.4],
    ]),
  },
  {
    key: 'pvc-sch40',
    title: 'PVC, schedule 40',
    standard: 'ASTM D1785, schedule 40',
    material: 'PVC',
    unit: 'in',
    sizes: rows(IPS),
  },
];

export const pipeTable = (key: string): PipeTable | undefined => PIPE_TABLES.find((t) => t.key === key);
/** A size of a table. @throws RangeError naming what is not known */
export function pipeSize(table: string, size: string): { table: PipeTable; size: PipeSize } {
  const found = pipeTable(table);
  if (!found) throw new RangeError(`There is no pipe table "${table}".`);
  const row = found.sizes.find((s) => s.key === size);
  if (!row) throw new RangeError(`${found.title} has no size "${size}".`);
  return { table: found, size: row };
}
/** Inside diameter in the table's unit: outside less two walls and linings. */
export const boreOf = (s: PipeSize): number => s.outside - 2 * (s.wall + (s.lining ?? 0));

const decimals = { mm: 2, in: 4 } as const;
const asExact = (value: number, unit: 'mm' | 'in'): Exact =>
  exact(Math.round(value * 10 ** decimals[unit]), decimals[unit], unit);
const FRACTION: Readonly<Record<string, number>> = { '½': 0.5, '¼': 0.25, '¾': 0.75, '3/8': 0.375 };
/**
 * The size that the trade's tables go by: DN for iron and steel in mm, the nominal inch, otherwise the outside diameter
 * (copper, PE, PE-X, multilayer and PVC are named by it).
 */
export function nominalOf(t: PipeTable, s: PipeSize): Exact {
  const dn = /^DN (\d+)/.exec(s.key);
  if (dn) return exact(Number(dn[1]), 0, 'mm');
  const inches = /^(?:(3\/8)|(\d+)?(½|¼|¾)?) in$/.exec(s.key);
  if (inches)
    return exact(
      Math.round((Number(inches[2] ?? 0) + (FRACTION[inches[1] ?? inches[3] ?? ''] ?? 0)) * 1000),
      3,
      'in',
    );
  return asExact(s.outside, t.unit);
}
/** Nominal size, bore and wall of a size as exact figures, for the pipe list. @throws RangeError as pipeSize */
export function pipeFigures(table: string, size: string): { nominal: Exact; bore: Exact; wall: Exact } {
  const { table: t, size: s } = pipeSize(table, size);
  return {
    nominal: nominalOf(t, s),
    bore: asExact(boreOf(s), t.unit),
    wall: asExact(s.carrying ?? s.wall, t.unit),
  };
}
/** Wall of a size as its stiffness needs it, SI. @throws RangeError as pipeSize */
export function pipeWall(
  table: string,
  size: string,
): { diameter: number; wall: number; modulus: number; alpha: number; bore: number; material: WallMaterial } {
  const { table: t, size: s } = pipeSize(table, size);
  const m = (v: number) => convert(v, t.unit, 'm');
  const { modulus, alpha } = WALLS[t.material];
  return {
    diameter: m(s.outside),
    wall: m(s.carrying ?? s.wall),
    bore: m(boreOf(s)),
    modulus,
    alpha,
    material: t.material,
  };
}
