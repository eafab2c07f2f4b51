import { bool, entry, exactSchema, maybeExact, maybeOne, reason, word } from '@/core/run/field';

export const dialEntries = {
  'dial-start': entry({ mark: word(120) }),
  'dial-end': entry({
    moved: bool(),
    turns: maybeExact(),
    direction: maybeOne(['forward', 'backward']),
    short: reason(),
  }),
  'dial-input': entry({ appliance: word(), turns: exactSchema, seconds: exactSchema }),
};
