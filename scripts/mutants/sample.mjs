// Of a large file one mutant in SAMPLE is tried, chosen by where and what it is: the same ones each time.
import { createHash } from 'node:crypto';
import { CheckStatus } from '@stryker-mutator/api/check';
import { declareClassPlugin, PluginKind } from '@stryker-mutator/api/plugin';

const every = Number(process.env.SAMPLE ?? 1);
const chosen = (m) =>
  createHash('sha256')
    .update(JSON.stringify([m.fileName.replace(/.*\/src\//, ''), m.location, m.mutatorName, m.replacement]))
    .digest()
    .readUInt32BE(0) %
    every ===
  0;

class Sample {
  async init() {}
  async check(mutants) {
    return Object.fromEntries(
      mutants.map((m) => [
        m.id,
        chosen(m)
          ? { status: CheckStatus.Passed }
          : { status: CheckStatus.CompileError, reason: 'not in the sample' },
      ]),
    );
  }
}
export const strykerPlugins = [declareClassPlugin(PluginKind.Checker, 'sample', Sample)];
