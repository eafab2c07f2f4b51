import type { HeightFact } from '@/core/installation/whole';

/** Ways in for a gauge, as packs name them. */
export const ACCESS = {
  port: 'a test port or gauge point',
  jet: 'the burner jet',
  'quick-connect': 'a quick-connect outlet',
} as const;

/** A height's field on the form: the test point is a name there already. */
export type FormHeight = Exclude<HeightFact, 'testPoint'> | 'testHeight';
export const formHeight = (key: HeightFact): FormHeight => (key === 'testPoint' ? 'testHeight' : key);
