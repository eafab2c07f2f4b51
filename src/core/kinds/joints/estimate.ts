export const PER_JOINT = 1.5;
export const BASE = 2;
/** Minutes that looking at so many joints takes. House estimate. */
export const minutesForJoints = (count: number): number => BASE + PER_JOINT * count;
