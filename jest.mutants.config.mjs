import { fileURLToPath } from 'node:url';
import config from './jest.config.mjs';

/** The tests of the core alone: what a mutant of a verdict is tried against. */
const { displayName: _, ...unit } = config.projects[0];

export default {
  ...unit,
  moduleFileExtensions: [...unit.moduleFileExtensions, 'cjs'],
  testMatch: ['<rootDir>/scripts/mutants/core.entry.cjs'],
  // an absolute path: in the copy of the tree too
  testEnvironment: fileURLToPath(new URL('scripts/mutants/environment.cjs', import.meta.url)),
};
