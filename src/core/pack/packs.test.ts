import { readFileSync, readdirSync } from 'node:fs';
import fc from 'fast-check';
import { composeSequence } from '@/core/plan/sequence';
import { packs } from '@/core/testing/quarter';
import { parseWithUnit } from '@/core/quantity/exact';
import { copyAsHouse, checkHouse, editHouse, type RuleEdit } from './house';
import { lineKey } from '@/core/grammar/lines';
import { compareProcedures, ruleLines } from './lines';
import { PackError } from './error';
import { loadPack } from './load';
import { edgesOf } from '@/core/grammar/edges';
import type { Edge } from '@/core/grammar/rule';
import { outcomesOf, waysOn } from '@/core/kinds/outcomes';
import type { Pack, Procedure } from './schema';

const all: Procedure[] = Object.values(packs).flatMap((pack) => [
  ...pack.procedures,
  ...(pack.sequences ?? []).map((s) => composeSequence(pack, s, s.cases[0]!.key)),
]);

describe.each(all.map((p) => [p.id, p] as const))('%s', (_id, p) => {
  const classesOf = (part?: string) =>
    (p.parts?.find((x) => x.key === part)?.rule?.classes ?? p.classes)?.map((c) => c.key);
  test('every outcome of every stage leads on: to a stage with an instruction, to the next part, or to the end', () => {
    for (const [key, stage] of Object.entries(p.stages)) {
      expect([key, stage.instruction.length > 3]).toEqual([key, true]);
      const { must, may } = waysOn(stage);
      const outcomes = [
        ...outcomesOf(stage, classesOf(stage.part)),
        ...must,
        ...may.filter((n) => stage.on[n]),
      ];
      expect([key, Object.keys(stage.on).sort()]).toEqual([key, [...outcomes].sort()]);
      for (const outcome of outcomes)
        for (const e of edgesOf(stage.on[outcome]))
          expect([key, outcome, e.close === true || p.stages[e.to!]?.instruction !== undefined]).toEqual([
            key,
            outcome,
            true,
          ]);
    }
  });
  test('from every stage the end can be reached, and every stage is reached from the first', () => {
    const starts = [p.first, ...(p.parts ?? []).map((x) => x.first)];
    const reached = new Set(starts);
    const queue = [...starts];
    const back = new Map<string, Set<string>>();
    const ends = new Set<string>();
    while (queue.length) {
      const key = queue.pop()!;
      const stage = p.stages[key]!;
      const restart = stage.kind === 'hold' && stage.restart ? [{ to: stage.restart } as Edge] : [];
      for (const on of [...Object.values(stage.on), restart])
        for (const e of edgesOf(on)) {
          if (e.close) ends.add(key);
          if (!e.to) continue;
          back.set(e.to, (back.get(e.to) ?? new Set()).add(key));
          if (!reached.has(e.to)) {
            reached.add(e.to);
            queue.push(e.to);
          }
        }
    }
    expect([...reached].sort()).toEqual(Object.keys(p.stages).sort());
    const canEnd = new Set(ends);
    const walk = [...ends];
    while (walk.length)
      for (const from of back.get(walk.pop()!) ?? [])
        if (!canEnd.has(from)) {
          canEnd.add(from);
          walk.push(from);
        }
    expect([...canEnd].sort()).toEqual(Object.keys(p.stages).sort());
  });
  test('every limit, band and period names its source', () => {
    const silent = ruleLines(p).filter(
      (l) => (l.edit === 'figure' || /^Minutes|^Band/.test(l.label)) && !l.source,
    );
    expect(silent.map(lineKey)).toEqual([]);
  });
  test('what a leak can be found by is never a way to Tight: only a judged hold or a still dial claims it', () => {
    for (const stage of Object.values(p.stages))
      for (const [outcome, on] of Object.entries(stage.on))
        for (const e of edgesOf(on))
          if (e.finds === 'tight')
            expect(`${stage.kind}/${outcome}`).toMatch(
              p.ofKit ? /^fan\/measured$/ : p.called?.tight ? /^hold\/(withstood|held)$/ : PROVES,
            );
  });
});

const PROVES = /^(hold\/(nil|kept|within)|dial\/still)$/;
describe('a pack with an error is refused with its place and what to do', () => {
  type Loose = { [key: string]: Loose } & { [index: number]: Loose } & {
    splice(at: number, n: number): void;
  };
  const spoil = (change: (pack: Loose, procedure: Loose) => void): PackError => {
    const copy = structuredClone(packs.imperial) as unknown as Loose;
    change(copy, copy.procedures![0]!);
    try {
      loadPack(copy);
    } catch (error) {
      return error as PackError;
    }
    throw new Error('it loaded');
  };
  const set = (value: unknown) => value as Loose;
  test.each<[string, (pack: Loose, p: Loose) => void, RegExp, RegExp]>([
    [
      'a figure without unit',
      (_, p) => (p.stages!['raise-low']!.band!.low = set('0.5')),
      /band\.low/,
      /like "0.25 mbar"/,
    ],
    [
      'a unit of another thing',
      (_, p) => (p.adequacy!.leakThatMatters = set('0.1 furlong')),
      /adequacy\.leakThatMatters/,
      /figure with its unit/,
    ],
    [
      'an unknown formula',
      (_, p) => (p.stages!.raise!.band!.formula = set('guess@1')),
      /band\.formula/,
      /there is no formula "guess@1"\. Known: air-test/,
    ],
    [
      'a formula without an argument',
      (_, p) => delete p.stages!.raise!.band!.args!.least,
      /band\.args/,
      /also needs: least/,
    ],
    [
      'a formula with one too many',
      (_, p) => (p.stages!.raise!.band!.args!.more = set('1')),
      /band\.args/,
      /does not know: more/,
    ],
    [
      'an outcome nobody follows',
      (_, p) => delete p.stages!.hold!.on!.rose,
      /hold\.on\.rose/,
      /Nothing follows/,
    ],
    [
      'an outcome that never comes',
      (_, p) => (p.stages!.zero!.on!.purple = set({ close: true })),
      /zero\.on\.purple/,
      /never has the outcome/,
    ],
    [
      'a way to nowhere',
      (_, p) => (p.stages!.zero!.on!.zeroed = set({ to: 'mars' })),
      /zero\.on\.zeroed/,
      /There is no stage "mars"/,
    ],
    [
      'a conditional last edge',
      (_, p) => (p.stages!.zero!.on!.zeroed = set([{ to: 'raise-low', when: { case: ['dwelling'] } }])),
      /zero\.on/,
      /unconditionally/,
    ],
    [
      'Tight without a judged hold',
      (_, p) => (p.stages!.listen!.on!.quiet = set({ to: 'raise', finds: 'tight' })),
      /listen\.on\.quiet/,
      /Only a hold without movement/,
    ],
    [
      'a live boundary without let-by',
      (_, p) => (p.boundary = set('live')),
      /boundary/,
      /add a let-by stage/,
    ],
    [
      'a reading nobody kept',
      (_, p) =>
        (p.stages!.raise!.band = set({
          formula: 'near-reading@1',
          args: { of: 'moon', below: '1 psi', above: '1 psi' },
        })),
      /raise\.band/,
      /keeps a reading named "moon"/,
    ],
    [
      'an unknown caution',
      (_, p) => (p.stages!.raise!.cautions = set(['dragons'])),
      /raise\.cautions/,
      /no caution "dragons"/,
    ],
    [
      'an unknown debt',
      (_, p) => (p.stages!.raise!.opens = set(['gold'])),
      /raise/,
      /no put-back debt "gold"/,
    ],
    ['a part that is not there', (_, p) => (p.stages!.raise!.part = set('z')), /raise\.part/, /no part "z"/],
    [
      'a stage of no known kind',
      (_, p) => (p.stages!.raise!.kind = set('dance')),
      /stages\.raise/,
      /must be one of: checks/,
    ],
    ['a stranger field', (_, p) => (p.colour = set('red')), /procedures\[0\]/, /unspecified keys: colour/],
    [
      'a let-by without its limit',
      (pack) => delete pack.procedures![2]!.stages!.seepage!.limit,
      /seepage\.limit/,
      /needs its limit/,
    ],
    [
      'a lock-up without bounds',
      (pack) => delete pack.procedures![2]!.stages!['lock-up']!.accept,
      /lock-up/,
      /Nothing follows|never has|between which pressures/,
    ],
    [
      'a sequence of strangers',
      (pack) => (pack.sequences![0]!.parts![0]!.procedure = set('ghost')),
      /sequences\[0\]\.parts\[0\]/,
      /no procedure "ghost"/,
    ],
    [
      'a sequence that leaves a case open',
      (pack) => (pack.sequences![0]!.parts![0]!.case = set({})),
      /sequences\[0\]\.parts\[0\]\.case/,
      /Say which case/,
    ],
    ...(
      [
        ['settle', 'falls'],
        ['settle', 'falls-early'],
        ['settle', 'rises'],
        ['raise', 'falls'],
        ['hold', 'falls'],
      ] as const
    ).map(([stage, way]): [string, (pack: Loose, p: Loose) => void, RegExp, RegExp] => [
      `no way on where ${stage} ${way}`,
      (_, p) => delete p.stages![stage]!.on![way],
      new RegExp(`${stage}\\.on\\.${way}`),
      /Nothing follows/,
    ]),
    [
      'a live source that stays low without a way on',
      (pack) => delete pack.procedures![2]!.stages!['gauge-static']!.on!.low,
      /gauge-static\.on\.low/,
      /Nothing follows "low"/,
    ],
    [
      'an edge that leads on and closes',
      (_, p) => (p.stages!.zero!.on!.zeroed = set({ to: 'raise-low', close: true })),
      /zero\.on\.zeroed/,
      /one of the two/,
    ],
    [
      'an edge that does neither',
      (_, p) => (p.stages!.zero!.on!.zeroed = set({ because: 'x' })),
      /zero\.on\.zeroed/,
      /one of the two/,
    ],
    [
      'within allowance where nothing measured it',
      (_, p) => (p.stages!.hold!.on!.nil = set({ to: 'joints', finds: 'within-allowance' })),
      /hold\.on\.nil/,
      /can claim Tight within allowance/,
    ],
    [
      'a stage nobody comes to',
      (_, p) => (p.stages!.attic = set(structuredClone(p.stages!.zero))),
      /stages\.attic/,
      /No outcome leads/,
    ],
    ['a first stage that is not there', (_, p) => (p.first = set('moon')), /first/, /no stage "moon"/],
    [
      'a hold without its band',
      (_, p) => delete p.stages!.hold!.band,
      /hold\.band/,
      /needs the band it may start in/,
    ],
    [
      'a broken hold that goes nowhere',
      (_, p) => (p.stages!.hold!.restart = set('mars')),
      /hold\.restart/,
      /no stage "mars"/,
    ],
    [
      'an allowance without its table',
      (_, p) => (p.stages!.hold!.allowance = set(true)),
      /hold/,
      /no allowance table|Nothing follows/,
    ],
    [
      'a comparator choice that nobody asks',
      (pack) => (pack.procedures![2]!.stages!.seepage!.comparatorChoice = set('mood')),
      /comparatorChoice/,
      /no choice "mood"/,
    ],
    [
      'a debt that waits for one that is not there',
      (_, p) => (p.debts!.bond!.after = set(['moon'])),
      /debts\.bond\.after/,
      /no other put-back debt "moon"/,
    ],
    [
      'an option bound to an answer that is not there',
      (_, p) => (p.choices![0]!.options![0]!.onlyWith = set({ choice: 'school', option: 'x', text: 'x' })),
      /choices/,
      /an answer that is not there/,
    ],
    [
      'a bound by a later part of a sequence',
      (pack) => (pack.sequences![0]!.parts![0]!.noWorseThan = set(1)),
      /noWorseThan/,
      /Only an earlier part/,
    ],
    [
      'a caution said in two ways by the procedures of a sequence',
      (pack) => {
        const [one, two] = pack.sequences![0]!.parts as unknown as { procedure: string }[];
        const of = (id: string) =>
          (pack.procedures as unknown as (Loose & { id: string })[]).find((p) => p.id === id)!;
        of(one!.procedure).cautions!.twice = set('Stand clear.');
        of(two!.procedure).cautions!.twice = set('Stand closer.');
      },
      /sequences\[0\]\.parts/,
      /The cautions "twice" differ/,
    ],
    [
      'a part that begins nowhere',
      (pack) =>
        ((pack.procedures as unknown as Loose[]).find((p) => p.parts)!.parts![0]!.first = set('mars')),
      /parts\[0\]\.first/,
      /no stage "mars"/,
    ],
    [
      'a last edge that holds only while something repeats',
      (_, p) => (p.stages!.zero!.on!.zeroed = set([{ to: 'raise-low', whileRepeats: 1 }])),
      /zero\.on\.zeroed/,
      /unconditionally|whileRepeats/,
    ],
    [
      'an option bound to an answer that this question never has',
      (pack) => {
        const p = (pack.procedures as unknown as Loose[]).find(
          (x) => (x.choices as unknown as Loose[]).length > 0,
        )!;
        const c = p.choices![0]!;
        c.options![0]!.onlyWith = set({ choice: c.key, option: 'never', text: 'x' });
      },
      /choices/,
      /an answer that is not there/,
    ],
  ])('%s', (_name, change, path, text) => {
    const error = spoil(change);
    expect(error).toBeInstanceOf(PackError);
    expect(error.path).toMatch(path);
    expect(error.message).toMatch(text);
  });
  test.each([
    'Gas',
    'gas metric',
    '../gas',
    'gas/metric',
    '__proto__',
    'constructor',
    '-gas',
    'gas\u0000',
    'a'.repeat(61),
  ])('a pack or a procedure called %s', (name) => {
    for (const error of [spoil((pack) => (pack.id = set(name))), spoil((_, p) => (p.id = set(name)))])
      expect([error.constructor, error.path.endsWith('id')]).toEqual([PackError, true]);
  });
  test('what is not a pack at all', () => {
    for (const nothing of [null, [], 'pack', 7, {}]) expect(() => loadPack(nothing)).toThrow(PackError);
  });
});

describe('house packs', () => {
  const metric = packs.metric!;
  const id = metric.procedures[0]!.id;
  const house = copyAsHouse(metric, 'house-x', 'Hollin', '2026-11-24');
  const edit = (path: string, value: string | null, reason = ''): RuleEdit => ({
    procedure: id,
    at: path.split('/').map((k) => (/^\d+$/.test(k) ? Number(k) : k)),
    value,
    reason,
  });
  const apply = (...edits: RuleEdit[]): Pack => editHouse(house, metric, edits, 'Hollin', '2026-11-24');
  test.each([
    ['a longer hold', 'stages/tightness/minutes', '5', false],
    ['a shorter hold', 'stages/tightness/minutes', '1', true],
    ['a smaller drop', 'allowance/rows/0/drops/0', '3 mbar', false],
    ['a greater drop', 'allowance/rows/0/drops/0', '4.01 mbar', true],
    ['a smaller limit', 'stages/letby/limit/two-decimal/value', '0.2 mbar', false],
    ['a greater limit', 'stages/letby/limit/two-decimal/value', '0.26 mbar', true],
    ['a check taken away', 'stages/prepare/items/restart', null, true],
    ['a wider band upwards', 'stages/raise/band/high', '22 mbar', true],
    ['a narrower band', 'stages/raise/band/low', '20.5 mbar', false],
    ['a read later allowed', 'stages/tightness/lateAfter', '60', true],
  ])('%s', (_name, path, value, more) => {
    const without = () => apply(edit(path, value));
    if (!more) expect(without().loosened).toEqual([]);
    else {
      expect(without).toThrow(/Give the reason; it prints/);
      const kept = apply(edit(path, value, 'agreed with the network')).loosened!;
      expect(kept).toHaveLength(1);
      expect(kept[0]).toMatchObject({ reason: 'agreed with the network', path: `${id}/${path}` });
    }
  });
  test('a unit of another dimension, a slip of a thousand, words for figures and what cannot be edited are refused', () => {
    expect(() => apply(edit('allowance/rows/0/drops/0', '4 mm'))).toThrow(/not a pressure/);
    expect(() => apply(edit('allowance/rows/0/drops/0', '4 bar', 'x'))).toThrow(/Check the unit/);
    expect(() => apply(edit('allowance/rows/0/drops/0', 'four'))).toThrow(/number and a known unit/);
    expect(() => apply(edit('stages/tightness/minutes', '-1'))).toThrow(/not a number/);
    expect(() => apply(edit('stages/tightness/instruction', 'Go home'))).toThrow(/cannot be edited/);
    expect(() => editHouse(metric, metric, [edit('stages/tightness/minutes', '5')], 'x', 'y')).toThrow(
      /Copy this pack/,
    );
  });
  test('an imported house pack that permits more in silence is refused, whatever it loosened', () => {
    const quiet = structuredClone(house) as unknown as {
      procedures: { stages: Record<string, { on: object }> }[];
    };
    quiet.procedures[0]!.stages['own-kit']!.on = {
      ...quiet.procedures[0]!.stages['own-kit']!.on,
      accept: { to: 'zero-after', finds: 'inconclusive' },
    };
    expect(() => checkHouse(metric, quiet as unknown as Pack)).toThrow(/permits more/);
  });
  test('law: raising any editable limit and putting it back leaves nothing that permits more', () => {
    const lines = ruleLines(metric.procedures[0]!).filter((l) => l.edit === 'figure');
    fc.assert(
      fc.property(fc.constantFrom(...lines), fc.integer({ min: 1, max: 9 }), (line, tenth) => {
        const figure = parseWithUnit(line.value);
        const other = `${line.value.split(' ')[0]}${figure.scale ? '' : '.'}${tenth} ${line.value.split(' ')[1]}`;
        const edited = editHouse(house, metric, [edit(lineKey(line), other, 'why not')], 'a', 'd');
        const back = editHouse(edited, metric, [edit(lineKey(line), line.value)], 'a', 'd');
        expect(back.loosened).toEqual([]);
        expect(compareProcedures(metric.procedures[0]!, back.procedures[0]!)).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });
});
test('every pack that ships is a file that loads, and no two claim the same procedure', () => {
  const ids = readdirSync('packs').flatMap((f) => {
    const pack = loadPack(JSON.parse(readFileSync(`packs/${f}`, 'utf8')));
    return [...pack.procedures, ...(pack.sequences ?? [])].map((p) => p.id);
  });
  expect(new Set(ids).size).toBe(ids.length);
});
