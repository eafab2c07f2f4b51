import { stageBase } from '@/core/grammar/rule';
import { callWords, conditionWords } from '@/core/grammar/lines';
import { among, condition, formulaCall, list, maybe, number, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

/** What an edition permits; several entries of one key are one edition in several cases. */
const edition = object({
  key: text(40),
  title: text(120),
  /** What the code itself calls the figure. */
  label: text(120),
  when: condition,
  limit: formulaCall,
  source: text(),
});
const schema = object({
  ...stageBase,
  /** Ducts, or the tester's own hose and ring closed on themselves. */
  of: among(['system', 'hose']),
  editions: list(edition).min(1),
  /** The choice whose answer names the edition that judges; the others are printed beside it. */
  judgedBy: text(40),
  /** The choice whose answer says whether air is pushed in or drawn out. */
  direction: maybe().max(40),
  law: object({
    assumed: number().min(0.5).max(1),
    doubtful: number().min(0.5).max(1),
    source: text(),
  }),
  /** How well flows are known where the sheet of the fan does not say it, percent, 95 %. */
  accuracy: number().min(0.5).max(50),
  accuracySource: text(),
  /** Own kit: days for which its test counts, and the share of the limit above which it is not used, percent. */
  ownKit: object({
    lasts: number().integer().min(1).max(366),
    share: number().min(1).max(100),
    source: text(),
  }),
});
/** A fan blows into what is shut: pressure and flow read together, judged at the reference pressure. */
export const fan = kind('fan', schema, {
  presses: true,
  outcomes: (stage) =>
    stage.of === 'hose'
      ? ['measured', 'large', 'none']
      : [
          'within',
          'unresolved',
          'beyond',
          'void',
          'doubtful',
          'blank',
          'unchecked',
          'unsure',
          'none',
          'no-limit',
        ],
  step: () => 'answer',
  good: (stage) => (stage.of === 'hose' ? 'measured' : 'within'),
  work: (stage) => ({ hands: stage.of === 'hose' ? 4 : 8 }),
  named: (stage) => (stage.of === 'hose' ? 'fan, own kit' : 'fan'),
  bandSource: (stage) => stage.editions[0]!.source,
  claims: (stage) => (stage.of === 'hose' ? { named: 'measured' } : { within: 'within' }),
  lines: (stage, write) => {
    stage.editions.forEach((e, i) =>
      write.add(
        ['editions', i, 'limit'],
        `${e.title}${e.when ? `, ${conditionWords(e.when)}` : ''}`,
        callWords(e.limit),
        'any',
        e.source,
      ),
    );
    write.add(
      ['law', 'assumed'],
      'Exponent where none is measured',
      stage.law.assumed,
      'any',
      stage.law.source,
      'number',
    );
    write.add(
      ['law', 'doubtful'],
      'Exponent is doubted above',
      stage.law.doubtful,
      'greater',
      stage.law.source,
      'number',
    );
    write.add(
      ['accuracy'],
      'Flows known to, where no sheet says it, %',
      stage.accuracy,
      'any',
      stage.accuracySource,
      'number',
    );
    write.add(
      ['ownKit', 'lasts'],
      'Own-kit test counts for, days',
      stage.ownKit.lasts,
      'greater',
      stage.ownKit.source,
      'number',
    );
    write.add(
      ['ownKit', 'share'],
      'Own kit passes at most, % of the limit',
      stage.ownKit.share,
      'greater',
      stage.ownKit.source,
      'number',
    );
  },
  check: (stage, around) => {
    for (const key of [stage.judgedBy, ...(stage.direction ? [stage.direction] : [])])
      if (!around.hasChoice(key)) around.fail('judgedBy', `There is no choice "${key}".`);
  },
});
