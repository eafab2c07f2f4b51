/** Minutes before the end of a wait from which a person chooses; 0 is the end. House figures. */
export const BEFORE_MINUTES = [5, 1, 0] as const;
