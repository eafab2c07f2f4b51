import { pressurePerKelvin } from '@/core/medium/gas';
import { exact, type Exact, inUnit, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { permittedDrop } from '@/core/run/read';
import { plannedMinutes } from '@/core/run/long-hold';
import { judgeTightness } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';
import { judgeCorrected } from './corrected';

export const judge: RoleJudge = (judging) => {
  const { plan, state, hold, facts, perceptible, own, part } = judging;
  if (own?.judge === 'corrected') return judgeCorrected(judging);
  if (own?.witness && hold.witness.end?.seen === 'fell')
    return {
      ...judgeTightness(facts, { perceptible, permitted: null, minutes: hold.minutes, lateAfter: 0 }),
      outcome: 'witness',
    };
  return judgeTightness(facts, {
    perceptible,
    permitted: own?.allowance ? permittedDrop(plan, state, part) : null,
    // a permitted drop belongs to the minutes that were planned for it
    minutes: plannedMinutes(hold),
    lateAfter: own?.lateAfter ?? 0,
    small: own?.on['small-fall'] && !state.smallFalls ? fifthOfKelvin(hold.start.figure) : null,
    again: state.smallFalls > 0,
  });
};

/** What 0.2 K does to gas at this pressure, in the gauge's unit: P/T x 0.2 K at 20 C. Source: general rules of judging */
export function fifthOfKelvin(start: Exact): Exact {
  const pascal = pressurePerKelvin(convert(toNumber(start), start.unit, 'Pa'), 293.15) * 0.2;
  return inUnit(exact(Math.floor(pascal * 1000), 3, 'Pa'), start.unit, start.scale + 2, 'down');
}
