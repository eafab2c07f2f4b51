import { entry, maybeOne, one, text, word } from '@/core/run/field';

/** Whose a joint is: the installation's (absent), the tester's own kit, or a valve or plug that bounds the section. */
const owners = ['own', 'boundary'] as const;
/** What leak fluid showed on a joint: ordinary foam is fine and stays small; a leak makes large, growing bubbles. */
const findings = ['none', 'foam', 'growing'] as const;
export const BUBBLE_SIZES = ['pinhead', 'pea', 'larger'] as const;
export type JointOwner = (typeof owners)[number];
export type JointFinding = (typeof findings)[number];
export type BubbleSize = (typeof BUBBLE_SIZES)[number];
export const jointsEntries = {
  joint: entry({ joint: word(), name: word(120), place: text(120), whose: maybeOne(owners) }),
  'joint-look': entry({ joint: word(), found: one(findings), size: maybeOne(BUBBLE_SIZES) }),
};
