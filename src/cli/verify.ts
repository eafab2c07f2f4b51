/**
 * Checks record files and bundles without any server: `npm run -s verify -- FILE...`. Exit code 0: all untouched,
 * 1: something was changed, 2: a file could not be read. With --key=HEX only that key counts as the organisation's.
 */
import { readFileSync } from 'node:fs';
import { verifyFile, verifyWords } from '@/wire/verify-file';

const args = process.argv.slice(2);
const files = args.filter((a) => !a.startsWith('--'));
const wanted = args.flatMap((a) => /^--key=([0-9a-f]{64})$/.exec(a)?.[1] ?? []);
const unknown = args.filter((a) => a.startsWith('--') && !/^--key=[0-9a-f]{64}$/.test(a));
if (!files.length || unknown.length) {
  if (unknown.length) console.error(`Not understood: ${unknown.join(' ')}`);
  console.error(
    'Which file? Give a record file (JSON) or a bundle (ZIP): npm run -s verify -- VS-00039.json [--key=HEX]',
  );
  process.exit(2);
}
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
  const check = verifyFile(bytes, wanted.length ? wanted.map((key) => ({ key, retired: null })) : undefined);
  console.log(`${file}: ${verifyWords(check)}`);
  for (const f of check.faults) console.log(`  changed  ${f}`);
  for (const m of check.marks) console.log(`  said     ${m}`);
  for (const n of check.notes) console.log(`  note     ${n}`);
  if (check.facts) {
    const { number, title, label, organisation, place, sealed, key, hash } = check.facts;
    console.log(`  ${number}  ${title}. ${organisation}, ${place}`);
    console.log(`  ${label}; sealed ${sealed}`);
    console.log(`  fingerprint ${hash}`);
    console.log(
      `  key         ${key}${wanted.length ? '' : '  (compare it with the one the organisation gave you)'}`,
    );
  }
  if (!check.untouched) code = Math.max(code, 1);
}
process.exitCode = code;
