import { callWords, conditionWords } from '@/core/grammar/lines';
import { stageBase } from '@/core/grammar/rule';
import { among, object } from '@/core/grammar/schema';
import { HOLD_ROLES, roleOf } from '@/core/roles';
import { holdFields } from '@/core/roles/fields';
import { kind } from '../kind';

/** A section left alone for a time and read at both ends; its role says what for. */
export const hold = kind('hold', object({ ...stageBase, role: among(HOLD_ROLES), ...holdFields }), {
  presses: true,
  outcomes: (stage, classes) => [
    ...roleOf(stage.role).outcomes(stage, classes),
    ...(stage.accept?.vent ? ['vents'] : []),
    ...(stage.skip || stage.optional ? ['skipped'] : []),
  ],
  step: (_, running) => (running ? 'run' : 'start'),
  holds: true,
  outside: (stage) => stage.by !== 'level' && roleOf(stage.role).outside === true,
  paper: (stage) => roleOf(stage.role).paper,
  unheld: (stage, running) => {
    const { anywhere, adjusts, must, endsEarly, comesBack } = roleOf(stage.role);
    if (stage.since || anywhere) return [];
    if (comesBack) return ['rises'];
    if (!running) return ['falls'];
    if (adjusts && must) return ['falls', 'rises'];
    return endsEarly ? ['falls'] : [];
  },
  good: (stage, classes) => roleOf(stage.role).good(classes),
  work: (stage) => ({
    hands: 1,
    wait: { spec: stage.minutes, source: stage.minutesSource, sees: roleOf(stage.role).sees ?? false },
    close: 1,
  }),
  named: (stage) => `hold, ${stage.role}`,
  bandSource: (stage) => stage.minutesSource,
  waysOn: (stage) => {
    const { anywhere, comesBack, must = [], may = [] } = roleOf(stage.role);
    const own = stage.since || anywhere ? [] : [comesBack ? 'rises' : 'falls'];
    return { must: [...own, ...must], may };
  },
  claims: (stage, classes) => ({
    tight: roleOf(stage.role).proves,
    within: roleOf(stage.role).allows?.(stage, classes),
    named: roleOf(stage.role).named,
  }),
  provesBoundary: (stage) => roleOf(stage.role).provesBoundary ?? false,
  keeps: (stage) => [stage.keeps, stage.keepsStart],
  goesTo: (stage) => stage.restart,
  check: (stage, around) => {
    const { fail } = around;
    const own = roleOf(stage.role);
    if (!stage.band && !stage.since && !own.anywhere)
      fail('band', `A ${stage.role} hold needs the band it may start in.`);
    own.check?.(stage, around);
    if (stage.since && !around.kept.has(stage.since))
      fail('band', `No stage keeps a reading named "${stage.since}".`);
    if (stage.restart && !around.has(stage.restart)) fail('restart', `There is no stage "${stage.restart}".`);
    if (stage.allowance && !around.hasAllowance)
      fail('allowance', 'There is no allowance table in this procedure.');
    if (stage.comparatorChoice && !around.hasChoice(stage.comparatorChoice))
      fail('comparatorChoice', `There is no choice "${stage.comparatorChoice}".`);
  },
  lines: (stage, write, titleOf) => {
    write.minutes(stage.minutes, stage.minutesSource);
    write.limits(['limit'], 'Limit', stage.limit);
    write.add(
      ['until'],
      'Ends only when',
      stage.until && 'steady, no re-adjustment in the last window',
      'removed',
    );
    write.bound(['accept', 'low'], 'Holds from', stage.accept?.low, 'smaller');
    write.bound(['accept', 'high'], 'Holds up to', stage.accept?.high, 'greater');
    write.bound(['accept', 'vent'], 'Vent', stage.accept?.vent, 'any');
    if (stage.fall)
      write.limit(['fall'], 'Fall permitted', stage.fall, { label: 'exactly that much', at: 'is too much' });
    for (const [i, p] of (stage.permitted ?? []).entries())
      write.add(
        ['permitted', i],
        p.when ? `Water that may be added, under ${conditionWords(p.when)}` : 'Water that may be added',
        callWords(p.volume),
        'any',
        p.source,
      );
    write.add(
      ['vacuum', 'most'],
      'Vacuum stands at most at',
      stage.vacuum?.most,
      'greater',
      stage.vacuum?.source,
      'figure',
    );
    write.add(
      ['vacuum', 'leakRise'],
      'An even rise that is a leak',
      stage.vacuum?.leakRise,
      'greater',
      stage.vacuum?.source,
      'figure',
    );
    write.add(['judge'], 'Judged by', stage.judge && 'what is left without warmth and barometer', 'any');
    write.add(['since'], 'Runs from the reading', stage.since, 'any');
    write.add(['witness'], 'Second place', stage.witness, 'removed');
    write.add(['by'], 'Read against', stage.by && 'a level mark', 'any');
    write.add(['restart'], 'When it is broken', stage.restart && titleOf(stage.restart), 'any');
    write.add(
      ['lateAfter'],
      'A permitted drop may be read so many seconds late',
      stage.lateAfter,
      'greater',
      '',
      'number',
    );
    write.add(
      ['confirmPasses'],
      'Passes in a row after a fail',
      stage.confirmPasses,
      'smaller',
      '',
      'number',
    );
    write.add(
      ['barometerOver'],
      'Barometer logged for holds over, min',
      stage.barometerOver,
      'greater',
      '',
      'number',
    );
    write.add(['rhythm'], 'A reading every, min', stage.rhythm, 'greater', '', 'number');
    write.add(['allowance'], 'Permitted drop', stage.allowance && 'the table can apply', 'added');
    write.add(
      ['skip'],
      'May be skipped when',
      stage.skip?.reasons.map((r) => `${r.text}${r.sound ? '' : ' (cannot end Tight)'}`).join('; '),
      'any',
    );
  },
});
