/**
 * Every table carries `org` and is under forced row-level security (migrations/0000_baseline.sql); references between
 * tables are composite (org, id), so that no row can point into another organisation.
 */
export * from './jobs';
export * from './people';
export * from './places';
export * from './records';
export * from './rules';
export * from './runs';
export * from './yard';
