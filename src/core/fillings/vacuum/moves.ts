/** An evacuated circuit: its rise is judged by shape, not turned into a loss; warmth is part of that shape. */
import type { Moves } from '../filling';

export const vacuumMoves: Moves = {
  alone: () => () => null,
  sees: () => null,
  rate: () => null,
  weather: () => null,
};
