import { bool, entry, exactSchema } from '@/core/run/field';

export const bucketEntries = {
  /** Both marks made: on the wall of the pool and in the bucket. */
  'bucket-set': entry({}),
  /** How far each fell below its mark; above it: below zero. And what would make the comparison worthless. */
  'bucket-read': entry({
    pool: exactSchema,
    bucket: exactSchema,
    rain: bool(),
    filled: bool(),
    bathers: bool(),
  }),
};
