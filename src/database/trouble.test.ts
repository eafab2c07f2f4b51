import { faultOf } from '@/wire/database-trouble';
import { databaseTrouble, marked } from './trouble';

const fails = (code: string, message = '') => Object.assign(new Error(message), { code });
test.each([
  ['25006', 'read-only'],
  ['53100', 'disk-full'],
  ['ENOSPC', 'disk-full'],
  ['53300', 'busy'],
  ['53200', 'busy'],
  ['ECONNREFUSED', 'database-away'],
  ['57P01', 'database-away'],
  ['57P03', 'database-away'],
  ['08006', 'database-away'],
  ['ETIMEDOUT', 'database-away'],
  ['23505', null],
  ['22P02', null],
  ['', null],
])('what the database says by %s is %s, however deep it lies', (code, kind) => {
  expect(databaseTrouble(fails(code), true)).toBe(kind);
  expect(
    databaseTrouble(new Error('query failed', { cause: new Error('x', { cause: fails(code) }) }), true),
  ).toBe(kind);
});
test('who waited in vain waited for a place where the database answers others, for the database where it answers nobody', () => {
  const waited = new Error('timeout exceeded when trying to connect');
  expect([databaseTrouble(waited, true), databaseTrouble(waited, false)]).toEqual(['busy', 'database-away']);
  const cut = new Error('Connection terminated due to connection timeout');
  expect(databaseTrouble(cut, true)).toBe('database-away');
});
test.each([undefined, null, 7, 'text', {}, Object.assign(new Error('self'), { cause: undefined })])(
  'what says nothing of the database is nothing of it: %p',
  (thrown) => {
    expect(databaseTrouble(thrown, true)).toBeNull();
    expect(marked(thrown, true)).toBe(thrown);
  },
);
test('an error that turns in a circle ends', () => {
  const round = new Error('round');
  round.cause = round;
  expect(databaseTrouble(round, true)).toBeNull();
});
test('a page is told its kind and the number it has in the log; any other fault keeps the number the framework gave', () => {
  const error = fails('53100') as Error & { digest?: string };
  marked(error, true);
  const first = error.digest;
  marked(error, true);
  expect(error.digest).toBe(first);
  expect(faultOf(first)).toEqual({ kind: 'disk-full', number: expect.stringMatching(/^[0-9a-f]{8}$/) });
  expect(faultOf('3210987654')).toEqual({ kind: null, number: '3210987654' });
  expect(faultOf('constructor.12')).toEqual({ kind: null, number: 'constructor.12' });
  expect(faultOf()).toEqual({ kind: null, number: '' });
});
