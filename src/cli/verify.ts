/**
 * Checks record files and bundles without any server: `npm run -s verify -- FILE...`. Exit code 0: all untouched,
 * 1: something was changed, 2: a file could not be read or something was not understood.
 * --key=HEX  only that key counts as the organisation's; its first eight figures or more will do
 * --anchor=LINE or --anchor=FILE  a daily anchor that was given out, or a file with one a line; files of the records
 * between it and an older one, given in the same call, prove the older one too
 */
import { existsSync, readFileSync } from 'node:fs';
import type { Seal } from '@/core/record/seal';
import { KEY_FIGURES, keyFigures } from '@/wire/key-figures';
import { verifyFile, verifyWords } from '@/wire/verify-file';

const args = process.argv.slice(2);
const files = args.filter((a) => !a.startsWith('--'));
const given = (name: string) =>
  args.flatMap((a) => (a.startsWith(`--${name}=`) ? [a.slice(name.length + 3)] : []));
const keys = given('key').map(keyFigures);
const anchors = given('anchor').flatMap((a) =>
  existsSync(a)
    ? readFileSync(a, 'utf8')
        .split('\n')
        .filter((l) => l.trim())
    : [a],
);
const unknown = [
  ...args.filter((a) => a.startsWith('--') && !/^--(key|anchor)=./.test(a)),
  ...keys.filter((k) => !KEY_FIGURES.test(k)).map((k) => `--key=${k}: give eight figures or more`),
  ...(keys.length > 1 ? ['--key twice'] : []),
];
if (!files.length || unknown.length) {
  if (unknown.length) console.error(`Not understood: ${unknown.join(' ')}`);
  console.error(
    'Which file? Give a record file (JSON) or a bundle (ZIP): npm run -s verify -- VS-00039.json [--key=HEX] [--anchor=LINE]',
  );
  process.exit(2);
}
const [key] = keys;
/** The seals of all files of this call. */
const others = files.flatMap((file): Seal[] => {
  try {
    const { record } = verifyFile(readFileSync(file));
    return record ? [record.seal] : [];
  } catch {
    return [];
  }
});
let code = 0;
for (const file of files) {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file);
  } catch {
    console.log(`${file}: cannot be read. Check the name.`);
    code = 2;
    continue;
  }
  const check = verifyFile(bytes, undefined, { ...(key ? { key } : {}), anchors, others });
  console.log(`${file}: ${verifyWords(check)}`);
  for (const f of check.faults) console.log(`  changed  ${f}`);
  for (const m of check.marks) console.log(`  said     ${m}`);
  for (const n of check.notes) console.log(`  note     ${n}`);
  if (check.facts) {
    const { number, title, label, organisation, place, sealed, key: by, hash } = check.facts;
    console.log(`  ${number}  ${title}. ${organisation}, ${place}`);
    console.log(`  ${label}; sealed ${sealed}`);
    console.log(`  fingerprint ${hash}`);
    console.log(`  key         ${by}${key ? '' : '  (compare it with the one the organisation gave you)'}`);
  }
  if (!check.untouched) code = Math.max(code, 1);
}
process.exitCode = code;
