/** Units of the trade, each with its exact factor to the SI unit of its dimension. */
export const UNITS = {
  mbar: { dimension: 'pressure', si: 100, label: 'mbar' },
  Pa: { dimension: 'pressure', si: 1, label: 'Pa' },
  kPa: { dimension: 'pressure', si: 1000, label: 'kPa' },
  bar: { dimension: 'pressure', si: 100000, label: 'bar' },
  psi: { dimension: 'pressure', si: 6894.757293, label: 'psi' },
  inWC: { dimension: 'pressure', si: 249.08891, label: 'inWC' },
  hPa: { dimension: 'pressure', si: 100, label: 'hPa' },
  MPa: { dimension: 'pressure', si: 1e6, label: 'MPa' },
  GPa: { dimension: 'pressure', si: 1e9, label: 'GPa' },
  /** The physical (standard) atmosphere; the technical one is `at`, kgf/cm2. Never just "atmosphere". */
  atm: { dimension: 'pressure', si: 101325, label: 'atm (physical)' },
  at: { dimension: 'pressure', si: 98066.5, label: 'at (technical)' },
  mmWC: { dimension: 'pressure', si: 9.80665, label: 'mmWC' },
  /** Columns of water are conventional (1000 kg/m3) unless said otherwise; the warmer kind is NIST SP 811's inch at 60 °F. */
  ftWC: { dimension: 'pressure', si: 2989.06692, label: 'ftWC' },
  mWC: { dimension: 'pressure', si: 9806.65, label: 'mWC' },
  inWC60: { dimension: 'pressure', si: 248.84, label: 'inWC (60 °F)' },
  /** Columns of mercury, conventional (13595.1 kg/m3): barometers. NIST SP 811. */
  mmHg: { dimension: 'pressure', si: 133.3224, label: 'mmHg' },
  inHg: { dimension: 'pressure', si: 3386.389, label: 'inHg' },
  /** Absolute pressures of a vacuum: counted from nothing, never from the atmosphere. A micron is a thousandth of a torr. */
  'Pa(abs)': { dimension: 'absolute', si: 1, label: 'Pa abs' },
  micron: { dimension: 'absolute', si: 101325 / 760_000, label: 'micron' },
  'mbar(abs)': { dimension: 'absolute', si: 100, label: 'mbar abs' },
  Torr: { dimension: 'absolute', si: 101325 / 760, label: 'Torr' },
  in: { dimension: 'length', si: 0.0254, label: 'in' },
  ft: { dimension: 'length', si: 0.3048, label: 'ft' },
  mm: { dimension: 'length', si: 0.001, label: 'mm' },
  cm: { dimension: 'length', si: 0.01, label: 'cm' },
  m: { dimension: 'length', si: 1, label: 'm' },
  mm2: { dimension: 'area', si: 1e-6, label: 'mm²' },
  cm2: { dimension: 'area', si: 1e-4, label: 'cm²' },
  m2: { dimension: 'area', si: 1, label: 'm²' },
  in2: { dimension: 'area', si: 0.00064516, label: 'in²' },
  ft2: { dimension: 'area', si: 0.09290304, label: 'ft²' },
  ml: { dimension: 'volume', si: 0.000001, label: 'ml' },
  l: { dimension: 'volume', si: 0.001, label: 'l' },
  m3: { dimension: 'volume', si: 1, label: 'm³' },
  ft3: { dimension: 'volume', si: 0.028316846592, label: 'ft³' },
  /** US gallon, 231 cubic inches. */
  gal: { dimension: 'volume', si: 0.003785411784, label: 'gal (US)' },
  in3: { dimension: 'volume', si: 0.000016387064, label: 'in³' },
  /** US fluid ounce, 1/128 gallon. */
  floz: { dimension: 'volume', si: 0.0000295735295625, label: 'fl oz (US)' },
  s: { dimension: 'time', si: 1, label: 's' },
  min: { dimension: 'time', si: 60, label: 'min' },
  h: { dimension: 'time', si: 3600, label: 'h' },
  'l/h': { dimension: 'flow', si: 0.001 / 3600, label: 'l/h' },
  'ml/min': { dimension: 'flow', si: 1e-6 / 60, label: 'ml/min' },
  'l/min': { dimension: 'flow', si: 0.001 / 60, label: 'l/min' },
  'l/s': { dimension: 'flow', si: 0.001, label: 'l/s' },
  'm3/h': { dimension: 'flow', si: 1 / 3600, label: 'm³/h' },
  CFM: { dimension: 'flow', si: 0.028316846592 / 60, label: 'CFM' },
  'gal/h': { dimension: 'flow', si: 0.003785411784 / 3600, label: 'gal/h (US)' },
  'm3/s': { dimension: 'flow', si: 1, label: 'm³/s' },
  'J/m3': { dimension: 'heating-value', si: 1, label: 'J/m³' },
  'ft3/h': { dimension: 'flow', si: 0.028316846592 / 3600, label: 'ft³/h' },
  kW: { dimension: 'power', si: 1000, label: 'kW' },
  'Btu/h': { dimension: 'power', si: 1055.05585262 / 3600, label: 'Btu/h' },
  'MJ/m3': { dimension: 'heating-value', si: 1e6, label: 'MJ/m³' },
  'Btu/ft3': { dimension: 'heating-value', si: 1055.05585262 / 0.028316846592, label: 'Btu/ft³' },
  C: { dimension: 'temperature', si: 1, label: '°C' },
  K: { dimension: 'temperature', si: 1, label: 'K' },
  F: { dimension: 'temperature', si: 5 / 9, label: '°F' },
  day: { dimension: 'time', si: 86400, label: 'd' },
  'K/min': { dimension: 'temperature-rate', si: 1 / 60, label: 'K/min' },
  'F/min': { dimension: 'temperature-rate', si: 5 / 9 / 60, label: '°F/min' },
  'Pa/s': { dimension: 'pressure-rate', si: 1, label: 'Pa/s' },
  'mbar/min': { dimension: 'pressure-rate', si: 100 / 60, label: 'mbar/min' },
  'bar/h': { dimension: 'pressure-rate', si: 100000 / 3600, label: 'bar/h' },
  'psi/min': { dimension: 'pressure-rate', si: 6894.757293 / 60, label: 'psi/min' },
  'inWC/min': { dimension: 'pressure-rate', si: 249.08891 / 60, label: 'inWC/min' },
  'm3/Pa': { dimension: 'yield', si: 1, label: 'm³/Pa' },
  'ml/bar': { dimension: 'yield', si: 1e-11, label: 'ml/bar' },
  'l/bar': { dimension: 'yield', si: 1e-8, label: 'l/bar' },
  'in3/psi': { dimension: 'yield', si: 0.000016387064 / 6894.757293, label: 'in³/psi' },
  'l/m': { dimension: 'area', si: 0.001, label: 'l/m' },
  'l/mm': { dimension: 'area', si: 1, label: 'l/mm' },
  J: { dimension: 'energy', si: 1, label: 'J' },
  kJ: { dimension: 'energy', si: 1000, label: 'kJ' },
  'ft-lb': { dimension: 'energy', si: 1.3558179483314, label: 'ft·lbf' },
  N: { dimension: 'force', si: 1, label: 'N' },
  lbf: { dimension: 'force', si: 4.4482216152605, label: 'lbf' },
  '1/K': { dimension: 'expansion', si: 1, label: '1/K' },
  'um/mK': { dimension: 'expansion', si: 1e-6, label: 'µm/(m·K)' },
  '1/F': { dimension: 'expansion', si: 9 / 5, label: '1/°F' },
  'l/s/m2': { dimension: 'flux', si: 0.001, label: 'l/(s·m²)' },
  'CFM/100ft2': { dimension: 'flux', si: 0.028316846592 / 60 / 9.290304, label: 'CFM/100 ft²' },
  'l/m2': { dimension: 'length', si: 0.001, label: 'l/m²' },
  kg: { dimension: 'mass', si: 1, label: 'kg' },
  g: { dimension: 'mass', si: 0.001, label: 'g' },
  lb: { dimension: 'mass', si: 0.45359237, label: 'lb' },
  'g/year': { dimension: 'mass-flow', si: 0.001 / 31557600, label: 'g/year' },
  'oz/year': { dimension: 'mass-flow', si: 0.028349523125 / 31557600, label: 'oz/year' },
  'mbar/K': { dimension: 'pressure-per-kelvin', si: 100, label: 'mbar/K' },
  'bar/K': { dimension: 'pressure-per-kelvin', si: 100000, label: 'bar/K' },
  'psi/K': { dimension: 'pressure-per-kelvin', si: 6894.757293, label: 'psi/K' },
  'psi/F': { dimension: 'pressure-per-kelvin', si: (6894.757293 * 9) / 5, label: 'psi/°F' },
  'inWC/K': { dimension: 'pressure-per-kelvin', si: 249.08891, label: 'inWC/K' },
  '%': { dimension: 'none', si: 0.01, label: '%' },
  '1': { dimension: 'none', si: 1, label: '' },
} as const;

export type Unit = keyof typeof UNITS;

/** How a unit is written on screen and in print. */
export const unitLabel = (unit: Unit): string => UNITS[unit].label;

/**
 * Converts a floating-point value between units of one dimension. For physics and display only: readings and
 * limits are compared as exact decimals in the gauge's own unit (see exact.ts).
 * Temperature differences share the factor 1; use celsiusToKelvin for the absolute scale.
 * @throws RangeError when the dimensions differ.
 */
export function convert(value: number, from: Unit, to: Unit): number {
  if (UNITS[from].dimension !== UNITS[to].dimension)
    throw new RangeError(`${from} and ${to} measure different things.`);
  return (value * UNITS[from].si) / UNITS[to].si;
}

export type Dimension = (typeof UNITS)[Unit]['dimension'];

/** The other system's unit that stands beside a figure: mbar and inWC, bar and psi, l and ft3. */
const TWINS: Partial<Record<Unit, Unit>> = {
  N: 'lbf',
  lbf: 'N',
  mbar: 'inWC',
  inWC: 'mbar',
  bar: 'psi',
  psi: 'bar',
  kPa: 'psi',
  hPa: 'inWC',
  MPa: 'psi',
  GPa: 'psi',
  Pa: 'inWC',
  atm: 'at',
  at: 'atm',
  mmWC: 'Pa',
  ftWC: 'bar',
  mWC: 'psi',
  inWC60: 'mbar',
  mmHg: 'mbar',
  inHg: 'mbar',
  'Pa(abs)': 'micron',
  micron: 'Pa(abs)',
  'mbar(abs)': 'micron',
  Torr: 'Pa(abs)',
  mm: 'in',
  cm: 'in',
  in: 'mm',
  m: 'ft',
  ft: 'm',
  mm2: 'in2',
  cm2: 'in2',
  in2: 'cm2',
  m2: 'ft2',
  ft2: 'm2',
  l: 'gal',
  ml: 'in3',
  gal: 'l',
  in3: 'ml',
  floz: 'ml',
  m3: 'ft3',
  ft3: 'l',
  'l/h': 'ft3/h',
  'ft3/h': 'l/h',
  'ml/min': 'gal/h',
  'l/min': 'gal/h',
  'gal/h': 'l/h',
  'm3/h': 'ft3/h',
  'l/s': 'CFM',
  CFM: 'l/s',
  kW: 'Btu/h',
  'Btu/h': 'kW',
  'MJ/m3': 'Btu/ft3',
  'Btu/ft3': 'MJ/m3',
  C: 'F',
  F: 'C',
  K: 'F',
  'K/min': 'F/min',
  'F/min': 'K/min',
  'mbar/min': 'inWC/min',
  'inWC/min': 'mbar/min',
  'bar/h': 'psi/min',
  'psi/min': 'bar/h',
  'Pa/s': 'mbar/min',
  'ml/bar': 'in3/psi',
  'l/bar': 'in3/psi',
  'in3/psi': 'ml/bar',
  J: 'ft-lb',
  kJ: 'ft-lb',
  'ft-lb': 'J',
  'um/mK': '1/F',
  'l/s/m2': 'CFM/100ft2',
  'CFM/100ft2': 'l/s/m2',
  kg: 'lb',
  g: 'lb',
  lb: 'kg',
  'g/year': 'oz/year',
  'oz/year': 'g/year',
  'mbar/K': 'inWC/K',
  'inWC/K': 'mbar/K',
  'bar/K': 'psi/F',
  'psi/K': 'bar/K',
  'psi/F': 'bar/K',
};
/** The unit of the other system to show beside, or null where there is none. */
export const twinOf = (unit: Unit): Unit | null => TWINS[unit] ?? null;
/** All units of a dimension, in the table's order. */
export const unitsOf = (dimension: Dimension): Unit[] =>
  (Object.keys(UNITS) as Unit[]).filter((u) => UNITS[u].dimension === dimension);

/** Kelvin of a temperature reading in degrees Celsius, kelvin or degrees Fahrenheit. @throws RangeError otherwise */
export function toKelvin(value: number, unit: Unit): number {
  if (unit === 'C') return value + 273.15;
  if (unit === 'K') return value;
  if (unit === 'F') return ((value + 459.67) * 5) / 9;
  throw new RangeError(`${unit} is not a temperature.`);
}
/** A temperature in kelvin as a reading in another unit. @throws RangeError when the unit is not a temperature */
export function fromKelvin(kelvin: number, unit: Unit): number {
  if (unit === 'C') return kelvin - 273.15;
  if (unit === 'K') return kelvin;
  if (unit === 'F') return (kelvin * 9) / 5 - 459.67;
  throw new RangeError(`${unit} is not a temperature.`);
}

/** Absolute temperature in kelvin of a Celsius reading. */
export const celsiusToKelvin = (celsius: number): number => celsius + 273.15;

/** The standard atmosphere, Pa; used where no barometer was logged, and the record says so. */
export const STANDARD_ATMOSPHERE = 101325;
