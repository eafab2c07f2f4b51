/**
 * Uncertainty of an unlogged temperature where no pack says otherwise: 0.05 K per minute of hold, at most 0.1 K for holds
 * up to 2 min and 0.5 K for any. House figures. Source: house figures
 */
export const HOUSE_TEMPERATURE = {
  perMinute: 0.05,
  shortHoldMinutes: 2,
  shortHoldMost: 0.1,
  most: 0.5,
  source: 'House figure: temperature not logged, 0.05 K per minute, at most 0.1 K to 2 min and 0.5 K for any',
} as const;
