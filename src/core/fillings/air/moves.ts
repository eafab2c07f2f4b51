/** Air through ducts: nothing is held, so no movement of a pressure means a loss. */
import type { Moves } from '../filling';

export const airMoves: Moves = {
  alone: () => () => null,
  sees: () => null,
  rate: () => null,
  weather: () => null,
};
