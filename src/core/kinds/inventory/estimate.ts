export const PER_THING = 4;
export const BASE = 1;
/** Minutes that writing down so many things takes. House estimate. */
export const minutesForInventory = (count: number): number => BASE + PER_THING * count;
