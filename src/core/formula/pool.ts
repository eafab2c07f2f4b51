/** Named formulas of pool lines. */
import { largestSize, metres } from '@/core/installation/section';
import { poolPressure, type PoolPressure, type PoolSchool } from '@/core/limit/pool';
import { type Exact, exact, showExact, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { type Formula, FormulaError, wanted } from './formula';

/** The name under which the least rating of the plugs of a line is kept once they are in. */
export const LEAST_PLUG = 'least-plug';
const pascal = (a: Exact): number => convert(toNumber(a), a.unit, 'Pa');
/** Whole tenths of a psi, downwards: what is printed on a plug is not more exact. */
const psi = (pa: number): Exact => exact(Math.floor(convert(pa, 'Pa', 'psi') * 10 + 1e-6), 1, 'psi');
const NAMES: Readonly<Record<PoolSchool, string>> = {
  narrow: 'Narrow school',
  wide: 'Wide school',
  air: 'Air school',
  code: 'New pipe by code',
};
const BY: Readonly<Record<PoolPressure['by'], string>> = {
  school: 'the school sets it',
  pump: 'the pump’s working pressure sets it',
  plug: 'the weakest plug at this bore sets it',
  unknown: 'pump or plug not known: 15 psi to 2 in, 10 above',
};

export const POOL_FORMULAS: Readonly<Record<string, Formula>> = {
  'pool-pressure@1': {
    args: ['school'],
    says: (a) =>
      `band of the school (${a.school}) by pipe size, under the plugs’ rating and the pump’s pressure`,
    pressure: (c, a) => {
      const size = largestSize(c.system);
      if (!size)
        throw new FormulaError(
          'No pipe of this line is entered: its size caps the pressure. Draw the pipe between its ends on the place page.',
        );
      const pump = pascal(c.system.workingPressure) > 0 ? c.system.workingPressure : null;
      const plug = c.kept[LEAST_PLUG] ?? null;
      const band = poolPressure(
        metres(size),
        a.school as PoolSchool,
        pump && pascal(pump),
        plug && pascal(plug),
      );
      return {
        low: wanted(psi(band.low), c.unit, 'up'),
        high: wanted(psi(band.high), c.unit, 'down'),
        working: {
          formula: 'min(school’s band, plug rating at that bore, pump working pressure)',
          inputs: [
            { name: 'largest pipe of the line', value: showExact(size) },
            { name: 'pump working pressure', value: pump ? showExact(pump) : 'not known' },
            { name: 'weakest plug', value: plug ? showExact(plug) : 'not known before the plugs are in' },
          ],
          text: `${NAMES[a.school as PoolSchool]}; ${BY[band.by]}.${band.impossible ? ' It lies below the band asked for: the record says so.' : ''}`,
        },
      };
    },
  },
};
