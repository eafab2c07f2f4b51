import { LineWriter, type RuleLine } from '@/core/grammar/lines';
import { packs } from '@/core/testing/quarter';
import { HOLD_ROLES, roleOf } from '@/core/roles';
import { KIND_NAMES, kindOf, ruleOfKind, type HoldStage, type Stage } from '.';
import { outcomesOf, waysOn } from './outcomes';

/** Every stage of every procedure that ships, by name. */
const shipped = Object.values(packs).flatMap((pack) =>
  pack.procedures.flatMap((p) =>
    Object.entries(p.stages).map(([key, stage]): [string, Stage, string[]] => [
      `${p.id}.${key}`,
      stage,
      (p.classes ?? []).map((c) => c.key),
    ]),
  ),
);
const hold = (role: HoldStage['role'], more: Partial<HoldStage> = {}): HoldStage => ({
  kind: 'hold',
  role,
  title: 't',
  instruction: 'i',
  minutes: 2,
  minutesSource: 's',
  on: {},
  ...more,
});

test('the packs that ship use every kind and every role', () => {
  expect([...new Set(shipped.map(([, s]) => s.kind))].sort()).toEqual([...KIND_NAMES].sort());
  const roles = shipped.flatMap(([, s]) => (s.kind === 'hold' ? [s.role] : []));
  expect([...new Set(roles)].sort()).toEqual([...HOLD_ROLES].sort());
});
test.each(shipped)('%s: what is good, and what it may claim, is one of its outcomes', (_, stage, classes) => {
  const outcomes = outcomesOf(stage, classes);
  const { tight, within } = kindOf(stage).claims?.(stage, classes) ?? {};
  expect(new Set(outcomes).size).toBe(outcomes.length);
  expect(outcomes).toContain(kindOf(stage).good(stage, classes));
  for (const claim of [tight, within]) if (claim) expect(outcomes).toContain(claim);
  const { must, may } = waysOn(stage);
  for (const way of [...must, ...may]) expect(outcomes).not.toContain(way);
});
test.each(shipped)('%s: its work takes hands, and a wait is said by whom', (_, stage) => {
  const { hands, each, wait = 0, close = 0 } = kindOf(stage).work(stage);
  expect(hands).toBeGreaterThan(0);
  expect(each?.minutes ?? 1).toBeGreaterThan(0);
  expect(close).toBeGreaterThanOrEqual(0);
  if (typeof wait === 'number') expect(wait).toBeGreaterThanOrEqual(0);
  else expect(wait.source).not.toBe('');
});

describe('outcomes by what the pack says of a stage', () => {
  const base = { title: 't', instruction: 'i', on: {} };
  const band = { low: '1 mbar', high: '2 mbar' };
  test.each<[string, Stage, string[]]>([
    [
      'a list with an answer of its own',
      { ...base, kind: 'checks', items: [{ key: 'a', text: 'a', ask: true, yes: 'found' }] },
      ['done', 'found'],
    ],
    ['a list left out', { ...base, kind: 'checks', optional: true, items: [] }, ['done', 'skipped']],
    ['zero before', { ...base, kind: 'zero', when: 'before' }, ['zeroed']],
    ['zero after', { ...base, kind: 'zero', when: 'after' }, ['zeroed', 'off-zero']],
    ['raised', { ...base, kind: 'fill', band, source: 's', confirms: 'c' }, ['in-band']],
    [
      'raised in time',
      { ...base, kind: 'fill', band, source: 's', confirms: 'c', within: { minutes: 1, source: 's' } },
      ['in-band', 'late'],
    ],
    [
      'drained and compared',
      { ...base, kind: 'draw-down', from: 'a', to: 'b', source: 's', permitted: [] },
      ['measured', 'within', 'beyond'],
    ],
    ['drained', { ...base, kind: 'draw-down', from: 'a', to: 'b', source: 's' }, ['measured']],
    [
      'pumped, with a limit on air',
      { ...base, kind: 'pump', band, steps: [], source: 's', confirms: 'c', airMost: { source: 's' } },
      ['raised', 'drips', 'not-reached', 'air'],
    ],
    [
      'a permitted drop',
      hold('tightness', { allowance: true }),
      ['nil', 'beyond', 'rose', 'disagree', 'confirm', 'allowance', 'late'],
    ],
    [
      'seen at a second place',
      hold('tightness', { witness: 'the lowest trap' }),
      ['nil', 'beyond', 'rose', 'disagree', 'confirm', 'witness'],
    ],
    [
      'a vent',
      hold('lock-up', { accept: { vent: { value: '1 mbar', source: 's' } } }),
      ['holds', 'creeps', 'fell', 'too-low', 'too-high', 'vents'],
    ],
    ['left out', hold('let-by', { optional: true }), ['proved', 'suspected', 'fell', 'skipped']],
    ['stretch', hold('stretch'), ['within', 'beyond', 'rose']],
    [
      'stretch that must slow down',
      hold('stretch', { slowing: { source: 's' } }),
      ['within', 'beyond', 'rose', 'slowing', 'unread'],
    ],
    ['classed', hold('leak-rate'), ['small', 'large', 'rose']],
  ])('%s', (_, stage, outcomes) => expect(outcomesOf(stage, ['small', 'large'])).toEqual(outcomes));
});

describe('when the pressure will not stand', () => {
  const base = { kind: 'fill', title: 't', instruction: 'i', source: 's', confirms: 'c', on: {} } as const;
  const band = { low: '1 mbar', high: '2 mbar' };
  const stand = (stage: Stage, running: boolean) => kindOf(stage).unheld?.(stage, running) ?? [];
  test('what is raised must say what follows; let down it may; with the source open it may stay low', () => {
    expect(waysOn({ ...base, band })).toEqual({ must: ['falls'], may: [] });
    expect(waysOn({ ...base, band, live: true })).toEqual({ must: ['falls', 'low'], may: [] });
    expect(waysOn({ ...base, band, falling: true })).toEqual({ must: [], may: ['falls'] });
    expect(stand({ ...base, band }, false)).toEqual(['falls']);
    expect(stand({ ...base, band, live: true }, false)).toEqual(['falls', 'low']);
    expect(stand({ ...base, band, falling: true }, false)).toEqual([]);
    expect(stand({ ...base, band, falling: true, on: { falls: { close: true } } }, false)).toEqual(['falls']);
  });
  test.each<[HoldStage['role'], string[], string[], string[], string[]]>([
    // role, must, may, before it began, while it runs
    ['settle', ['falls', 'falls-early', 'rises'], [], ['falls'], ['falls', 'rises']],
    ['tightness', ['falls'], ['small-fall'], ['falls'], ['falls']],
    ['strength', ['falls'], [], ['falls'], ['falls']],
    ['let-by', ['falls'], [], ['falls'], []],
    ['lock-up', [], [], [], []],
    ['flow', [], [], [], []],
    ['leak-rate', ['falls'], [], ['falls'], []],
    ['make-up', ['falls'], [], ['falls'], []],
    ['decay', ['falls'], [], ['falls'], []],
  ])('a %s hold', (role, must, may, before, running) => {
    expect(waysOn(hold(role))).toEqual({ must, may });
    expect(stand(hold(role), false)).toEqual(before);
    expect(stand(hold(role), true)).toEqual(running);
    // a hold that begins with a reading before it waits in no band
    expect(waysOn(hold(role, { since: 'x' })).must).toEqual(must.filter((w) => w !== 'falls'));
    expect(stand(hold(role, { since: 'x' }), true)).toEqual([]);
  });
});

describe('roles', () => {
  test.each(HOLD_ROLES)('%s has words for each outcome it can be judged to', (role) => {
    const own = roleOf(role).outcomes(hold(role, { allowance: true, witness: 'w' }), []);
    expect(own.filter((o) => !roleOf(role).words[o])).toEqual([]);
    expect(roleOf(role).title).not.toBe('');
  });
  const those = (which: (r: ReturnType<typeof roleOf>) => unknown) =>
    HOLD_ROLES.filter((r) => which(roleOf(r))).sort();
  test('Tight may rest on these alone, and these decide', () => {
    expect(those((r) => r.proves)).toEqual(['floor', 'make-up', 'stretch', 'tightness', 'vacuum']);
    expect(those((r) => r.named)).toEqual(['strength']);
    expect(those((r) => r.comesBack)).toEqual(['vacuum']);
    expect(HOLD_ROLES.flatMap((r) => roleOf(r).proves ?? [])).toEqual([
      'nil',
      'kept',
      'within',
      'nil',
      'held',
    ]);
    expect(those((r) => r.decides)).toEqual([
      'floor',
      'leak-rate',
      'make-up',
      'strength',
      'stretch',
      'tightness',
      'vacuum',
    ]);
    expect(those((r) => r.provesBoundary)).toEqual(['let-by']);
    expect(roleOf('stretch').allows?.(hold('stretch'), [])).toBeUndefined();
    expect(roleOf('stretch').allows?.(hold('stretch', { slowing: { source: 's' } }), [])).toBe('within');
    expect(roleOf('leak-rate').allows?.(hold('leak-rate'), ['best', 'worst'])).toBe('best');
  });
  test('what a dial is tapped for, what the barometer can feign, what a fall may end early', () => {
    expect(those((r) => r.tapped)).toEqual(['let-by', 'strength', 'stretch', 'tightness']);
    expect(those((r) => r.moves)).toEqual(['leak-rate', 'tightness']);
    expect(those((r) => r.sees)).toEqual(['strength', 'tightness']);
    expect(those((r) => r.endsEarly)).toEqual(['strength', 'tightness', 'vacuum']);
    expect(those((r) => r.anywhere)).toEqual(['flow', 'lock-up']);
    expect(those((r) => r.bounded)).toEqual(['floor', 'make-up', 'stretch', 'vacuum']);
    expect(those((r) => r.outside)).toEqual(['let-by', 'settle', 'strength', 'tightness']);
    expect(those((r) => r.adjusts)).toEqual(['make-up', 'settle']);
    expect(those((r) => r.measures)).toEqual(['decay', 'make-up']);
    expect(those((r) => r.needsFloor)).toEqual(['floor', 'make-up']);
    expect(those((r) => r.regulator)).toEqual(['flow', 'lock-up']);
  });
});
test('a kind that times holds says so, and no other', () =>
  expect(KIND_NAMES.filter((k) => ruleOfKind(k).holds)).toEqual(['hold', 'isolate-and-repeat']));

describe('what a rule says, line by line', () => {
  const base = { title: 'Hold it', instruction: 'Look.', on: {} };
  const said = (stage: Stage) => {
    const lines: RuleLine[] = [];
    kindOf(stage).lines?.(stage, new LineWriter(lines, [], 'here'), (to) => `<${to}>`);
    return lines.map((l) => `${l.at.join('/')}: ${l.value}`);
  };
  const band = { low: '1 bar', high: '2 bar' };
  test('a hold says all that it asks for, and nothing that it does not', () => {
    expect(said(hold('settle'))).toEqual(['minutes: 2']);
    expect(
      said(
        hold('settle', {
          until: { minutes: 1 } as never,
          accept: { low: { value: '1 bar', source: 's' }, high: { value: '2 bar', source: 's' } },
          restart: 'fill',
          by: 'level',
          confirmPasses: 2,
          allowance: true,
        }),
      ),
    ).toEqual([
      'minutes: 2',
      'until: steady, no re-adjustment in the last window',
      'accept/low/value: 1 bar',
      'accept/high/value: 2 bar',
      'by: a level mark',
      'restart: <fill>',
      'confirmPasses: 2',
      'allowance: the table can apply',
    ]);
  });
  test('a filling says its finding, a pump its steps and their limits, a repeat its minutes', () => {
    const fill = { ...base, kind: 'fill', band, source: 's', confirms: 'c' } as const;
    expect(said(fill)).toEqual([]);
    expect(said({ ...fill, finding: { above: '3 bar', text: 'too much' } })).toEqual([
      'finding: 3 bar: too much',
    ]);
    const pump = { ...base, kind: 'pump', band, source: 's', confirms: 'c' } as const;
    expect(said({ ...pump, steps: [{ percent: 100, minutes: 5 }] })).toEqual(['steps: 100 %, pause 5 min']);
    expect(
      said({
        ...pump,
        steps: [],
        fastest: { value: '1 bar', source: 's' },
        airMost: { percent: 4, source: 's' },
      }),
    ).toEqual(['steps: ', 'fastest/value: 1 bar', 'airMost/percent: 4']);
    const isolate = { ...base, kind: 'isolate-and-repeat', subjects: 'pipework', band } as const;
    expect(said({ ...isolate, settleMinutes: 1, minutes: 2, minutesSource: 's' })).toEqual([
      'settleMinutes: 1',
      'minutes: 2',
    ]);
  });
});
describe('what a rule is refused for', () => {
  const around = { has: () => false, kept: new Set(['a']), classed: false, hasAllowance: false };
  const trouble = (stage: Stage): string => {
    const found: string[] = [];
    const fail = (where: string, text: string): never => {
      found.push(`${where}: ${text}`);
      throw new Error(text);
    };
    try {
      kindOf(stage).check?.(stage, { ...around, hasChoice: () => false, fail });
    } catch {
      // what was said is in `found`
    }
    return found.join();
  };
  const base = { title: 't', instruction: 'i', on: {}, source: 's' };
  test('a drawing between readings of which one is never kept, and steps that end short', () => {
    const drained = (from: string, to: string): Stage => ({ ...base, kind: 'draw-down', from, to });
    expect(trouble(drained('a', 'a'))).toBe('');
    expect(trouble(drained('a', 'b'))).toMatch(/keeps a reading named "b"/);
    expect(trouble(drained('b', 'a'))).toMatch(/keeps a reading named "b"/);
    const pump = (percent: number): Stage => ({
      ...base,
      kind: 'pump',
      band: { low: '1 bar', high: '2 bar' },
      steps: [
        { percent: 50, minutes: 1 },
        { percent, minutes: 1 },
      ],
      confirms: 'c',
    });
    expect(trouble(pump(100))).toBe('');
    expect(trouble(pump(99))).toMatch(/must reach 100 percent/);
  });
});
