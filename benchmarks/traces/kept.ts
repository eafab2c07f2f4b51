/**
 * What the referee said of the traces of the tests, kept beside the code that said it: what could be told of a trace does not
 * change when the analysis does, and takes ten times as long to find out. UPDATE_REFEREE=1 asks the referee anew.
 */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { number, object, string } from 'yup';

const FILE = 'benchmarks/traces/referee.json';
const schema = object({
  /** Over the code that makes the traces and judges them. */
  code: string().required(),
  seed: number().integer().required(),
  /** A sign for each seed: 1 what can be told, 0 what nobody could. */
  separable: string()
    .matches(/^[01]+$/)
    .required(),
});
/** A fingerprint of the code that the kept answers come from. */
const codeOfReferee = (): string => {
  const all = createHash('sha256');
  for (const file of [
    'benchmarks/traces/worlds.ts',
    'benchmarks/traces/referee.ts',
    'scripts/honesty/worlds.ts',
  ])
    all.update(readFileSync(file));
  return all.digest('hex').slice(0, 24);
};
/** The answers of a file, or the referee's own where none are kept or its code is another by now. */
export function kept(seed: number, traces: number) {
  const read =
    process.env.UPDATE_REFEREE === '1' || !existsSync(FILE)
      ? null
      : schema.validateSync(JSON.parse(readFileSync(FILE, 'utf8')));
  const fits = read?.code === codeOfReferee() && read.seed === seed && read.separable.length === traces;
  const found: string[] = [];
  return {
    fits,
    told: (at: number, judged: () => boolean): boolean => {
      const one = fits ? read.separable[at - seed] === '1' : judged();
      found.push(one ? '1' : '0');
      return one;
    },
    close: () => {
      if (process.env.UPDATE_REFEREE === '1')
        writeFileSync(
          FILE,
          `${JSON.stringify({ code: codeOfReferee(), seed, separable: found.join('') }, null, 2)}\n`,
        );
    },
  };
}
