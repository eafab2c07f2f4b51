/**
 * Which version of the judgement made a plan: it changes with every change that a verdict could feel (physics, general rules,
 * what a section is derived from). A record says it, so that a later reader knows by what it was judged.
 */
export const ENGINE = '2026.11.3';
