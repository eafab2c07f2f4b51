/** What a movement means, by what fills the section. */
import { fillingOf } from '@/core/plan/filling';
import type { Plan } from '@/core/plan/plan';
import { airMoves } from './air/moves';
import type { Moves } from './filling';
import { gasMoves } from './gas/moves';
import type { FillingName } from './index';
import { levelMoves } from './level/moves';
import { liquidMoves } from './liquid/moves';
import { nitrogenMoves } from './nitrogen/moves';
import { vacuumMoves } from './vacuum/moves';

const MOVES: Record<FillingName, Moves> = {
  gas: gasMoves,
  liquid: liquidMoves,
  level: levelMoves,
  nitrogen: nitrogenMoves,
  vacuum: vacuumMoves,
  air: airMoves,
};
export const movesOf = (plan: Plan, part?: string | null): Moves => MOVES[fillingOf(plan, part).name];
