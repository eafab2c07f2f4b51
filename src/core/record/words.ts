/** What leak fluid showed, in words. */
export const JOINT_WORDS = {
  none: 'no bubble',
  foam: 'fine foam: wiped, to be looked at again',
  growing: 'bubbles that grow',
} as const;
/** Whose a disturbed joint is, where it is not of the section itself. */
export const WHOSE_WORDS = { own: 'own kit', boundary: 'of a boundary' } as const;
/** The two classes of an unsafe situation. */
export const DANGER_WORDS = { 'immediate-danger': 'immediate danger', 'at-risk': 'at risk' } as const;
