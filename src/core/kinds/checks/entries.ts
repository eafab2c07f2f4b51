import { entry, line, one, word } from '@/core/run/field';

export const checksEntries = {
  check: entry({
    item: word(),
    subject: line().max(80).optional(),
    answer: one(['done', 'yes', 'no', 'undone']),
  }),
};
