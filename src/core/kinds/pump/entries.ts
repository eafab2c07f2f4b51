import { entry, maybeExact, one, text, timed, word } from '@/core/run/field';

import * as yup from 'yup';

export const pumpEntries = {
  /** A step of staged pumping reached; `added`: what the pump delivered since the step before. */
  'pump-step': entry({
    ...timed,
    added: maybeExact(),
    strokes: yup.number().strict(true).integer().min(0).max(100_000).optional(),
  }),
  'pump-look': entry({ ...timed, joints: one(['dry', 'drips']), where: text(200) }),
  'pump-failed': entry({ text: word(500) }),
};
