/** What a password must be: long, and not what everybody would try first. */
const LEAST = 12;
/** Runs along the alphabet, the digits and the keyboard, forwards and back. */
const RUNS = [
  '0123456789012345678901234567890',
  'abcdefghijklmnopqrstuvwxyzabcdefghijklmnopqrstuvwxyz',
  'qwertyuiopasdfghjklzxcvbnm',
  'qwertzuiopasdfghjklyxcvbnm',
  'azertyuiopqsdfghjklmwxcvbn',
  '1q2w3e4r5t6y7u8i9o0p',
  '1qaz2wsx3edc4rfv5tgb6yhn7ujm8ik',
  'qazwsxedcrfvtgbyhnujm',
  'zaq12wsxcde34rfvbgt56yhn',
].flatMap((run) => [run, [...run].reverse().join('')]);
/** Words that lists of common passwords are made of. */
const COMMON = new Set(
  `abc access account admin administrator america angel apple baseball basketball batman blink butterfly changeme
  changethis charlie cheese chocolate computer cookie correct default dragon family flower football forever friend
  friends george guest hannah hello hunter iloveyou internet jessica jordan letmein login london love lovely loveyou
  manager master matrix merlin michael michelle monkey mustang mypassword network newpassword nothing orange pass
  passcode passphrase password passwort pepper please princess private purple qwerty qwertz remember root samsung
  secret security server service shadow snoopy soccer spring starwars summer sunshine superman superuser support
  system tester testing testtest thomas thunder trustno trustnoone user welcome whatever william winter yellow your
  yourpassword abcdef asdf asdfgh heslo parola senha contrasena motdepasse salasana wachtwoord haslo jelszo
  boiler fitter gasfitter plumber plumbing tightness pressure vaststone vast stone`
    .split(/\s+/)
    .filter(Boolean),
);
const LETTERS_FOR: Readonly<Record<string, string>> = {
  '0': 'o',
  '1': 'i',
  '3': 'e',
  '4': 'a',
  '5': 's',
  '7': 't',
  '@': 'a',
  $: 's',
  '!': 'i',
};

/** Whether a text is made of nothing but common words, whatever stands between and after them. */
function onlyCommon(text: string): boolean {
  const plain = (words: string) => {
    // from the front as far as common words go: one that needs another word is none
    const reached = new Set([0]);
    for (let i = 0; i < words.length; i++)
      if (reached.has(i))
        for (let j = i + 3; j <= words.length; j++) if (COMMON.has(words.slice(i, j))) reached.add(j);
    return words.length > 0 && reached.has(words.length);
  };
  const asLetters = (some: string) => [...some].map((c) => LETTERS_FOR[c] ?? c).join('');
  // as written, with figures read as the letters they look like, and so without the year and the mark at the end
  return [text, asLetters(text), asLetters(text.replace(/[^a-z]+$/, ''))].some((t) =>
    plain(t.replace(/[^a-z]/g, '')),
  );
}

/**
 * Why a password will not do, in words; '' where it will.
 * @param email the address it belongs to, where that is known
 */
export function passwordTrouble(password: string, email = ''): string {
  if ([...password].length < LEAST) return `must have at least ${LEAST} characters`;
  const low = password.toLowerCase();
  const address = email.trim().toLowerCase();
  const name = address.split('@')[0] ?? '';
  if (address && (low === address || low.includes(address)))
    return 'must not be the e-mail address: anybody would try it';
  const rest = name.length >= 4 ? low.replaceAll(name, '') : low;
  if (rest.length < 6) return 'must not be the e-mail address: anybody would try it';
  if (new Set(low).size < 5) return 'repeats few letters: take several words that do not belong together';
  const unit = /^(.{1,6}?)\1+.{0,5}$/s.exec(low)?.[1];
  if (unit && low.startsWith(unit.repeat(Math.floor(low.length / unit.length))))
    return 'repeats few letters: take several words that do not belong together';
  if (RUNS.some((run) => run.includes(low) || run.includes(low.replace(/[^a-z0-9]/g, ''))))
    return 'runs along the keyboard: take several words that do not belong together';
  if (onlyCommon(low))
    return 'stands in every list of common passwords: take several words that do not belong together';
  return '';
}
