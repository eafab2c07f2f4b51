import { passwordTrouble } from './password';

test.each([
  ['elevenchars', /12 characters/],
  ['', /12 characters/],
  ['aaaaaaaaaaaa', /few letters/],
  ['abababababab', /few letters/],
  ['Abcd1!Abcd1!', /few letters/],
  ['xyzzyxyzzyxy', /few letters/],
  ['123456789012', /keyboard/],
  ['987654321098', /keyboard/],
  ['abcdefghijkl', /keyboard/],
  ['QwertyUiopAs', /keyboard/],
  ['1q2w3e4r5t6y', /keyboard/],
  ['password1234', /common/],
  ['Passw0rd!2026', /common/],
  ['P@ssword-P@ssword', /common/],
  ['welcome-admin-1', /common/],
  ['letmein123456', /common/],
  ['iloveyou2026!', /common/],
  ['vast-stone-2026', /common/],
])('%s is refused', (password, said) => expect(passwordTrouble(password)).toMatch(said));
test.each([
  'millrace-yun',
  'a long password',
  'copper heron lintel',
  'zwölf Äpfel im Korb',
  '0417 kiln door ajar',
])('%s will do', (password) => expect(passwordTrouble(password)).toBe(''));
test('exactly twelve characters, counted as people count them, will do; eleven will not', () => {
  expect(passwordTrouble('heron lintel')).toBe('');
  expect(passwordTrouble('heron linte')).toMatch(/12/);
  expect(passwordTrouble('🔥kiln door 7')).toBe('');
});
test('the address itself will not do, whole, with a tail, or its name with one', () => {
  const email = 'imre@hollin.example';
  for (const p of ['Imre@Hollin.example', 'imre@hollin.example1', 'imreimreimre7a', 'imre2026imre'])
    expect([p, passwordTrouble(p, email)]).toEqual([p, expect.stringMatching(/e-mail|few letters/)]);
  expect(passwordTrouble('millrace-imre', email)).toBe('');
});
