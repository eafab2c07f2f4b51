/** Installations as they are written by hand: their figures as text with a unit, like "21 mbar". */
import { parseWithUnit } from '@/core/quantity/exact';

/** Fields of a system that are figures with their unit, wherever they stand. */
const FIGURES = new Set([
  'workingPressure',
  'supplyPressure',
  'setPressure',
  'ventSetting',
  'floorServed',
  'ductSurface',
  'ductPressure',
  'heatingValue',
  'volume',
  'testDial',
  'maxInlet',
  'input',
  'size',
  'bore',
  'length',
  'most',
  'rating',
  'stroke',
  'resolution',
  'least',
  'greatest',
  'pressure',
  'loss',
  'flow',
  'gasInside',
  'surface',
  'psHigh',
  'psLow',
  'ps',
  'charge',
]);
/** Turns written figures ("21 mbar") into exact ones. A tank's size is a word, not a figure. */
export const figures = (value: unknown, inTank = false, inHeights = false): unknown =>
  Array.isArray(value)
    ? value.map((v) => figures(v))
    : value && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value).map(([k, v]) => [
            k,
            typeof v === 'string' && ((FIGURES.has(k) && !inTank) || (inHeights && k !== 'datum'))
              ? parseWithUnit(v)
              : figures(v, k === 'tank', k === 'heights'),
          ]),
        )
      : value;
