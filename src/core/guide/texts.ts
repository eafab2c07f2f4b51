/** The guide's own texts, without the formulas: what a page loads that shows one of them. */
export * from './articles';
export * from './schools';
export * from './words';
