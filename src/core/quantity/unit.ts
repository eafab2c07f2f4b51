/** Units of the trade, each with its exact factor to the SI unit of its dimension. */
export const UNITS = {
  mbar: { dimension: 'pressure', si: 100, label: 'mbar' },
  Pa: { dimension: 'pressure', si: 1, label: 'Pa' },
  kPa: { dimension: 'pressure', si: 1000, label: 'kPa' },
  bar: { dimension: 'pressure', si: 100000, label: 'bar' },
  psi: { dimension: 'pressure', si: 6894.757293, label: 'psi' },
  inWC: { dimension: 'pressure', si: 249.08891, label: 'inWC' },
  in: { dimension: 'length', si: 0.0254, label: 'in' },
  ft: { dimension: 'length', si: 0.3048, label: 'ft' },
  mm: { dimension: 'length', si: 0.001, label: 'mm' },
  m: { dimension: 'length', si: 1, label: 'm' },
  l: { dimension: 'volume', si: 0.001, label: 'l' },
  m3: { dimension: 'volume', si: 1, label: 'm³' },
  ft3: { dimension: 'volume', si: 0.028316846592, label: 'ft³' },
  s: { dimension: 'time', si: 1, label: 's' },
  min: { dimension: 'time', si: 60, label: 'min' },
  h: { dimension: 'time', si: 3600, label: 'h' },
  'l/h': { dimension: 'flow', si: 0.001 / 3600, label: 'l/h' },
  'm3/s': { dimension: 'flow', si: 1, label: 'm³/s' },
  'J/m3': { dimension: 'heating-value', si: 1, label: 'J/m³' },
  'ft3/h': { dimension: 'flow', si: 0.028316846592 / 3600, label: 'ft³/h' },
  kW: { dimension: 'power', si: 1000, label: 'kW' },
  'Btu/h': { dimension: 'power', si: 1055.05585262 / 3600, label: 'Btu/h' },
  'MJ/m3': { dimension: 'heating-value', si: 1e6, label: 'MJ/m³' },
  'Btu/ft3': { dimension: 'heating-value', si: 1055.05585262 / 0.028316846592, label: 'Btu/ft³' },
  C: { dimension: 'temperature', si: 1, label: '°C' },
  K: { dimension: 'temperature', si: 1, label: 'K' },
  'mbar/K': { dimension: 'pressure-per-kelvin', si: 100, label: 'mbar/K' },
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

/** Absolute temperature in kelvin of a Celsius reading. */
export const celsiusToKelvin = (celsius: number): number => celsius + 273.15;

/** The standard atmosphere, Pa; used where no barometer was logged, and the record says so. */
export const STANDARD_ATMOSPHERE = 101325;
