import fc from 'fast-check';
import { plannedQuery, readPlanned } from './planned';

const back = (query: URLSearchParams) => readPlanned(Object.fromEntries(query));
test('what was planned comes back from its link', () => {
  const word = fc
    .string({ minLength: 1, maxLength: 60 })
    .map((s) => s.trim())
    .filter(Boolean);
  const planned = fc.record({
    choices: fc.dictionary(word, word, { maxKeys: 8, noNullPrototype: true }),
    permit: word,
    doneBy: fc.constantFrom('licensed' as const, 'owner' as const),
    present: word,
  });
  fc.assert(fc.property(planned, (p) => expect(back(plannedQuery(p))).toEqual(p)));
});
test('a link that somebody wrote by hand gives words of bounded length or nothing', () => {
  expect(
    readPlanned({ doneBy: 'anyone', permit: ['a', 'b'], present: ' ', 'choice.school': 'B', 'choice.': '' }),
  ).toEqual({
    choices: { school: 'B' },
  });
  expect(readPlanned({ permit: 'x'.repeat(500) }).permit).toHaveLength(60);
});
