/** What keys do, where: the bench's own list, the guide and the search all show it from here. */
export const BENCH_KEYS = [
  ['Enter', 'the main action'],
  ['R', 'reading'],
  ['T', 'top-up or re-adjusted'],
  ['D', 'disturbance'],
  ['N', 'note'],
  ['Esc', 'back'],
  ['?', 'this list'],
] as const;
export const KEYS = [
  { where: 'On the bench', keys: BENCH_KEYS },
  {
    where: 'Everywhere',
    keys: [
      ['Ctrl or Cmd + K', 'find anything'],
      ['/', 'to the search field of a page'],
      ['Tab', 'to the next thing that can be worked'],
    ],
  },
] as const;
