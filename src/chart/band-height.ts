export const ROW = 64;
export const TOP = 26;
/** Known before the order is: the place that a band will take. */
export const bandHeight = (rows: number): number => TOP + rows * ROW;
