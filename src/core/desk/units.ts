/** Desk lines that turn a figure into every other unit of what it measures, and an altitude into a barometer. */
import { atmosphereAt } from '@/core/medium/atmosphere';
import { type Unit, UNITS, unitLabel } from '@/core/quantity/unit';
import { barometer, input, type DeskFormula, type DeskInput, type DeskOutput } from './types';

const FACTORS = 'Conversion factors of the International System of Units (NIST SP 811, appendix B)';
/** What a unit's short name leaves open. */
const NAMED: Partial<Record<Unit, string>> = {
  atm: '1013.25 mbar each',
  at: '1 kgf/cm² each',
  inWC: 'inches of water, conventional',
  inWC60: 'inches of water at 60 °F',
  ftWC: 'feet of water, conventional',
  mmWC: 'millimetres of water, conventional',
  mWC: 'metres of water, conventional',
  inHg: 'inches of mercury, conventional',
  mmHg: 'millimetres of mercury, conventional',
  micron: 'microns, a thousandth of a torr',
  gal: 'US gallons, 231 in³ each',
};
/** A unit as the key of an output, which a link and the command line carry. */
const keyOf = (unit: Unit): string => unit.replaceAll(/[^A-Za-z0-9]+/g, '_').replace(/_$/, '');
const outputs = (units: readonly Unit[], absolute?: true): DeskOutput[] =>
  units.map((unit) => ({
    key: `in_${keyOf(unit)}`,
    name: NAMED[unit] ?? `in ${unitLabel(unit)}`,
    unit,
    ...(absolute ? { absolute } : {}),
  }));
/** A line whose results are one figure in many units. */
function line(
  id: string,
  title: string,
  answers: string,
  from: DeskInput,
  units: readonly Unit[],
  more: Partial<DeskFormula> = {},
): DeskFormula {
  const to = outputs(units, from.kind === 'temperature' ? true : undefined);
  return {
    id,
    group: 'units',
    title,
    answers,
    formula: 'x in the other unit = x × SI value of its unit / SI value of the other',
    source: FACTORS,
    table: true,
    inputs: [from],
    outputs: to,
    work: (n) => Object.fromEntries(to.map((o) => [o.key, n[from.key]!])),
    ...more,
  };
}
const all = (dimension: string, but: readonly Unit[] = []): Unit[] =>
  (Object.keys(UNITS) as Unit[]).filter((u) => UNITS[u].dimension === dimension && !but.includes(u));

const VACUUM: readonly Unit[] = all('absolute');
const vacuumInput = input('p', 'p, absolute pressure', 'micron', 'not-negative', '500');
const vacuumOutputs = outputs(VACUUM);
export const UNIT_LINES: readonly DeskFormula[] = [
  line(
    'convert-pressure',
    'Pressure in other units',
    'One gauge pressure in every unit of the trade, each kind of water column and of atmosphere by its name.',
    input('p', 'p, pressure', 'mbar', 'any', '20'),
    all('pressure', ['hPa', 'GPa']),
    {
      note: 'A column of water weighs as warm as it is: the conventional one has 1000 kg/m³, an inch at 60 °F weighs 0.1 % less',
    },
  ),
  {
    ...line(
      'convert-vacuum',
      'Vacuum in other units',
      'An absolute pressure in micron, torr, pascal and millibar, and how far below the atmosphere it is.',
      vacuumInput,
      VACUUM,
    ),
    formula: 'p_gauge = p − P_atm; 1 micron = 0.001 Torr = 101325/760000 Pa',
    inputs: [vacuumInput, barometer()],
    outputs: [...vacuumOutputs, { key: 'below', name: 'against the atmosphere', unit: 'mbar' }],
    work: (n) => ({
      ...Object.fromEntries(vacuumOutputs.map((o) => [o.key, n.p!])),
      below: n.p! - n.atm!,
    }),
  },
  {
    id: 'altitude-barometer',
    group: 'units',
    title: 'Barometer from altitude',
    answers: 'What a barometer would show at an altitude when none is at hand.',
    formula: 'P = P_sea × (1 − 0.0065 h / 288.15)^5.25588',
    source: 'Standard atmosphere (ISO 2533), troposphere, up to 11 km',
    note: 'The weather moves it by some 30 mbar either way; a forecast gives the pressure reduced to the sea, which can be entered',
    inputs: [
      input('h', 'h, altitude above the sea', 'm', 'any', '500'),
      input(
        'sea',
        'P_sea, pressure at the sea',
        'mbar',
        'absolute',
        '1013.25',
        'standard, or as a forecast gives it',
      ),
    ],
    outputs: [
      { key: 'P', name: 'barometer at this altitude', unit: 'mbar' },
      { key: 'inHg', name: 'in inches of mercury', unit: 'inHg' },
    ],
    work: (n) => {
      const p = atmosphereAt(n.h!, n.sea!);
      return { P: p, inHg: p };
    },
  },
  line(
    'convert-length',
    'Length in other units',
    'A length in metres, feet, millimetres and inches.',
    input('x', 'x, length', 'm', 'any', '1'),
    ['mm', 'cm', 'm', 'in', 'ft'],
  ),
  line(
    'convert-area',
    'Area in other units',
    'An area, a bore or a surface, in other units.',
    input('x', 'x, area', 'm2', 'any', '1'),
    ['mm2', 'cm2', 'm2', 'in2', 'ft2'],
  ),
  line(
    'convert-volume',
    'Volume in other units',
    'A volume in litres, cubic metres, cubic feet and gallons.',
    input('x', 'x, volume', 'l', 'any', '20'),
    all('volume'),
  ),
  line(
    'convert-flow',
    'Flow and leak in other units',
    'A leak or a flow of air in other units.',
    input('x', 'x, flow', 'l/h', 'any', '1'),
    all('flow'),
  ),
  line(
    'convert-temperature',
    'Temperature in other units',
    'A temperature on the scales of Celsius, Fahrenheit and kelvin.',
    input('T', 'T, temperature', 'C', 'temperature', '20'),
    ['C', 'F', 'K'],
  ),
  line(
    'convert-power',
    'Heat input in other units',
    'A power in kilowatts and Btu an hour.',
    input('x', 'x, power', 'kW', 'any', '24'),
    all('power'),
  ),
  line(
    'convert-heating-value',
    'Heating value in other units',
    'What a volume of gas gives, in other units.',
    input('x', 'x, heating value', 'MJ/m3', 'any', '38'),
    all('heating-value'),
  ),
  line(
    'convert-rate',
    'Fall or rise per time in other units',
    'How fast a pressure moves, in other units.',
    input('x', 'x, change per time', 'mbar/min', 'any', '0.5'),
    all('pressure-rate'),
  ),
  line(
    'convert-mass',
    'Mass in other units',
    'A mass in kilograms, grams and pounds.',
    input('x', 'x, mass', 'kg', 'any', '1'),
    all('mass'),
  ),
  line(
    'convert-mass-flow',
    'Refrigerant loss in other units',
    'Grams and ounces lost a year.',
    input('x', 'x, loss', 'g/year', 'any', '10'),
    all('mass-flow'),
  ),
  line(
    'convert-energy',
    'Stored energy in other units',
    'An energy in joules and foot-pounds.',
    input('x', 'x, energy', 'J', 'any', '1000'),
    all('energy'),
  ),
  line(
    'convert-force',
    'Force in other units',
    'A force on a cap or plug, in newtons and pounds.',
    input('x', 'x, force', 'N', 'any', '1000'),
    all('force'),
  ),
  line(
    'convert-flux',
    'Duct leakage per surface in other units',
    'What leaks through a surface or floor, in other units.',
    input('x', 'x, flow per area', 'l/s/m2', 'any', '1'),
    all('flux'),
  ),
  line(
    'convert-time',
    'Time in other units',
    'A time in seconds, minutes, hours and days.',
    input('x', 'x, time', 'min', 'any', '90'),
    all('time'),
  ),
];
