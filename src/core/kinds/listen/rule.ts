import { stageBase } from '@/core/grammar/rule';
import { figure, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  /** A stretch wider than this is no place to dig at. */
  widest: figure(),
  widestSource: text(),
});
/** Air goes into the leaking line and is listened for along the run; the place must agree with everything else known. */
export const listen = kind('listen', schema, {
  outcomes: () => ['located', 'wide', 'against', 'silent'],
  step: () => 'answer',
  good: () => 'located',
  work: () => ({ hands: 30 }),
  bandSource: (stage) => stage.widestSource,
  lines: (stage, write) => {
    write.add(['widest'], 'Place no wider than', stage.widest, 'greater', stage.widestSource, 'figure');
    write.add(['gate'], 'Gate', 'held against soil, level, dye and map before anything is opened', 'removed');
  },
});
