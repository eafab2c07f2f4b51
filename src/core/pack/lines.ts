/** A procedure as lines a person can read, compare and edit; and which edits permit more. */
import { fillingNamed } from '@/core/fillings';
import {
  callWords,
  conditionWords,
  edgeWords,
  lineKey,
  LineWriter,
  type Permits,
  type RuleLine,
} from '@/core/grammar/lines';
import { edgesOf } from '@/core/grammar/edges';
import { isCall } from '@/core/grammar/schema';
import { kindOf, type Stage } from '@/core/kinds';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { Pack, Procedure } from './schema';

/** Everything in a procedure that a rule says in figures, checks and ways on, in reading order. */
export function ruleLines(p: Procedure): RuleLine[] {
  const lines: RuleLine[] = [];
  wholeLines(p, new LineWriter(lines, [], 'The whole procedure'));
  dropLines(p, new LineWriter(lines, [], 'Permitted drop'));
  for (const c of p.cases)
    new LineWriter(lines, ['cases'], 'What is tested').add(
      [c.key],
      c.title,
      c.allowance ? 'the table can apply' : 'nil',
      'any',
    );
  const schools = new LineWriter(lines, ['choices'], 'Where schools differ');
  for (const c of p.choices) {
    const others = c.options.filter((o) => o.key !== c.default).map((o) => o.label);
    const own = c.options.find((o) => o.key === c.default)?.label ?? c.default;
    schools.add([c.key], c.question, `${own} (default); others: ${others.join('; ')}`, 'any', c.reason);
  }
  for (const [key, stage] of Object.entries(p.stages)) stageLines(p, key, stage, lines);
  const cautions = new LineWriter(lines, ['cautions'], 'Cautions');
  for (const [key, text] of Object.entries(p.cautions)) cautions.add([key], key, text, 'removed');
  const debts = new LineWriter(lines, ['debts'], 'To put back');
  for (const [key, debt] of Object.entries(p.debts)) {
    const rings = debt.urgent ? ` (rings every ${debt.urgent} min until confirmed)` : '';
    debts.add([key], key, `${debt.text}${rings}`, 'removed');
  }
  const inventory = new LineWriter(lines, ['inventory'], 'Inventory');
  for (const kind of p.inventory ?? []) {
    const owed = kind.required ? 'required' : 'if there is time';
    inventory.add([kind.kind], kind.title, `${owed}: ${kind.points.map((x) => x.text).join('; ')}`, 'any');
  }
  return lines;
}

/** Lines of a procedure by the heading they stand under, in reading order. */
export function sections(lines: readonly RuleLine[]): { where: string; stage: string; lines: RuleLine[] }[] {
  const out: { where: string; stage: string; lines: RuleLine[]; key: string }[] = [];
  for (const line of lines) {
    const key = line.at[0] === 'stages' ? `stage ${line.at[1]}` : line.where;
    let section = out.find((s) => s.key === key);
    if (!section) out.push((section = { key, where: line.where, stage: line.stage ?? '', lines: [] }));
    section.lines.push(line);
  }
  return out;
}
/** What somebody learns by heart of a procedure: its stages in their order, each with its figures. */
export const shortOf = (
  p: Procedure,
): {
  readonly title: string;
  /** Its key, where it is a stage. */ readonly stage: string | null;
  readonly figures: readonly { readonly label: string; readonly value: string }[];
}[] =>
  sections(ruleLines(p)).flatMap(({ where, lines }) => {
    const stage = lines[0]!.at[0] === 'stages' ? String(lines[0]!.at[1]) : null;
    const seen = new Set<string>();
    const figures = lines
      .filter((l) => l.edit === 'figure' || l.edit === 'number')
      .map(({ label, value }) => ({ label, value }))
      .filter((f) => !seen.has(`${f.label} ${f.value}`) && seen.add(`${f.label} ${f.value}`));
    return stage !== null || figures.length ? [{ title: where, stage, figures }] : [];
  });

function wholeLines(p: Procedure, whole: LineWriter): void {
  whole.add(['pressure'], 'Test pressure', pressureWords(p.pressure), 'any');
  whole.add(['fills'], 'What fills it', fillingNamed(p.fills).line, 'any');
  whole.add(['applied'], 'What is applied', p.applied, 'none');
  for (const [key, title] of Object.entries(p.certificate.byChoice?.titles ?? {}))
    whole.add(['certificate', 'byChoice', 'titles', key], 'Title that may be printed', title, 'any');
  const live = (p.boundary ?? 'live') === 'live';
  whole.add(['boundary'], 'Boundary', live ? 'a live valve: its let-by is proved' : 'cut or capped', 'any');
  whole.limits(['perceptible'], 'Smallest movement that counts', p.perceptible);
  whole.add(
    ['zeroTolerance', 'steps'],
    'Zero open to air, at most so many display steps',
    p.zeroTolerance.steps,
    'greater',
    p.zeroTolerance.source,
    'number',
  );
  const { binding, leakThatMatters, source } = p.adequacy;
  whole.add(
    ['adequacy', 'leakThatMatters'],
    'Leak that matters',
    leakThatMatters,
    'greater',
    source,
    'figure',
  );
  whole.add(
    ['adequacy', 'binding'],
    'A hold that could not have seen it',
    binding ? 'is Inconclusive' : 'is Tight by rule, printed beside',
    binding ? 'any' : 'none',
    source,
  );
  whole.add(
    ['gauge', 'dialScaleMost'],
    'Full scale of a dial, at most so many times the test pressure',
    p.gauge?.dialScaleMost,
    'greater',
    p.gauge?.source,
    'number',
  );
  for (const [key, label] of [
    ['largestSize', 'Largest pipe'],
    ['largestVolume', 'Largest volume'],
    ['largestWorking', 'Highest working pressure'],
  ] as const)
    whole.add(['domain', key], label, p.domain[key], 'greater', p.domain.source, 'figure');
  whole.add(
    ['domain', 'meters'],
    'Meters',
    p.domain.meters?.map((m) => m.label).join('; '),
    'any',
    p.domain.source,
  );
  for (const [i, c] of (p.classes ?? []).entries())
    whole.add(['classes', i, 'below'], `Class ${c.title}, below`, c.below, 'greater', c.source, 'figure');
}

function dropLines(p: Procedure, drop: LineWriter): void {
  const table = p.allowance;
  if (!table) return drop.add(['nilSource'], 'Permitted drop', 'nil', 'any', p.nilSource);
  table.rows.forEach((row, r) => {
    const meter = p.domain.meters?.find((m) => m.kind === row.meter)?.label ?? row.meter;
    row.drops.forEach((figure, b) =>
      drop.add(
        ['allowance', 'rows', r, 'drops', b],
        `${meter}, ${table.bands[b]!.label}`,
        figure,
        'greater',
        table.source,
        'figure',
      ),
    );
  });
  drop.add(
    ['allowance', 'conditions'],
    'Only when all hold',
    table.conditions.map((c) => c.text).join('; '),
    'any',
    table.source,
  );
}

function stageLines(p: Procedure, key: string, stage: Stage, lines: RuleLine[]): void {
  const write = new LineWriter(lines, ['stages', key], stage.title, stage.kind);
  const kind = kindOf(stage);
  const titleOf = (other: string) => p.stages[other]?.title;
  const name = kind.named?.(stage) ?? stage.kind;
  write.add(['kind'], 'Stage', `${name}${stage.optional ? ', may be left out' : ''}`, 'any');
  write.add(['instruction'], 'Instruction', stage.instruction, 'none');
  if (stage.cautions?.length)
    write.add(['cautions'], 'Cautions before it', stage.cautions.map((c) => p.cautions[c]).join(' '), 'any');
  if ('band' in stage && stage.band) write.band(stage.band, kind.bandSource?.(stage) ?? '');
  kind.lines?.(stage, write, titleOf);
  for (const [outcome, on] of Object.entries(stage.on))
    write.add(
      ['on', outcome],
      `If ${outcome.replaceAll('-', ' ')}`,
      edgesOf(on)
        .map((e) => edgeWords(e, (to) => titleOf(to) ?? to))
        .join('; otherwise '),
      'any',
    );
}

const pressureWords = (pressure: Procedure['pressure']): string =>
  typeof pressure === 'string'
    ? pressure
    : isCall(pressure)
      ? callWords(pressure)
      : [
          pressureWords(pressure.value),
          ...pressure.unless.map((u) => `under ${conditionWords(u.when)}: ${pressureWords(u.value)}`),
        ].join('; ');

/** One difference between two procedures. */
export interface RuleChange {
  readonly at: readonly (string | number)[];
  readonly where: string;
  readonly label: string;
  readonly from: string | null;
  readonly to: string | null;
  /** Whether the second permits more than the first there. */
  readonly permitsMore: boolean;
}
/** The number behind a figure or a plain number, in SI, for telling which is greater. */
function sizeOf(text: string): number | null {
  if (/^-?\d+(\.\d+)?$/.test(text)) return Number(text);
  try {
    const figure = parseWithUnit(text);
    return toNumber(figure) * UNITS[figure.unit].si;
  } catch {
    return null;
  }
}
function permitsMore(permits: Permits, from: string | null, to: string | null): boolean {
  if (from === null) return permits === 'added';
  if (to === null) return permits !== 'none' && permits !== 'added';
  if (permits === 'none' || permits === 'added') return false;
  if (permits === 'any' || permits === 'removed') return true;
  const [a, b] = [sizeOf(from), sizeOf(to)];
  if (a === null || b === null) return true; // what cannot be compared is taken as permitting more
  return permits === 'greater' ? b > a : b < a;
}
/** Differences of two procedures, line by line; `permitsMore` by the direction the first one's line declares. */
export function compareProcedures(first: Procedure, second: Procedure): RuleChange[] {
  const [a, b] = [ruleLines(first), ruleLines(second)].map(
    (lines) => new Map(lines.map((l) => [lineKey(l), l])),
  );
  const keys = [...new Set([...a!.keys(), ...b!.keys()])];
  const said = keys.flatMap((key): RuleChange[] => {
    const [x, y] = [a!.get(key), b!.get(key)];
    if (x?.value === y?.value) return [];
    const line = (x ?? y)!;
    const [from, to] = [x?.value ?? null, y?.value ?? null];
    return [
      {
        at: line.at,
        where: line.where,
        label: line.label,
        from,
        to,
        permitsMore: permitsMore(line.permits, from, to),
      },
    ];
  });
  return [...said, ...unsaid(first, second, new Set(said.map(lineKey)))];
}

/** Words for people: they explain a rule and are none. What a person is asked or told to do has a line of its own. */
const WORDS = new Set([
  'title',
  'summary',
  'instruction',
  'text',
  'hint',
  'source',
  'minutesSource',
  'confirms',
  'because',
  'label',
  'question',
  'reason',
  'cannotProve',
]);
/** Lists whose entries go by their own name: one taken away moves none of the others. */
const NAMED = new Set<string | number>([
  'items',
  'cases',
  'choices',
  'options',
  'inventory',
  'points',
  'parts',
]);
/** Everything below a value that is no word for people, as way and written value. */
function* valuesOf(value: unknown, at: RuleLine['at']): Generator<readonly [RuleLine['at'], string]> {
  if (value && typeof value === 'object')
    for (const [key, below] of Object.entries(value as Record<string, unknown>)) {
      const entry = below as { readonly key?: string; readonly kind?: string };
      const named = NAMED.has(at[at.length - 1]!) ? (entry.key ?? entry.kind) : undefined;
      if (!WORDS.has(key))
        yield* valuesOf(below, [...at, named ?? (Array.isArray(value) ? Number(key) : key)]);
    }
  else if (value !== undefined) yield [at, String(value as string | number | boolean | null)];
}
/** Check lists whose lines stand in another order: what is ordered is a caution too. */
function reordered(first: Procedure, second: Procedure): RuleChange[] {
  return Object.keys(first.stages).flatMap((key): RuleChange[] => {
    const [one, two] = [first, second].map((p) => {
      const stage = p.stages[key];
      return stage?.kind === 'checks' ? stage.items.map((i) => i.key) : [];
    });
    const [from, to] = [one!.filter((k) => two!.includes(k)), two!.filter((k) => one!.includes(k))];
    const label = 'Order of the lines';
    return from.join() === to.join()
      ? []
      : [
          {
            at: ['stages', key, 'items'],
            where: first.stages[key]!.title,
            label,
            from: from.join(', '),
            to: to.join(', '),
            permitsMore: true,
          },
        ];
  });
}
/**
 * What differs and stands in no line: marks and figures that a reader of the lines would not miss. Nothing says in which
 * direction such a change goes, so that it counts as permitting more.
 * @param said keys of the lines that differ: what stands below one of them was said there
 */
function unsaid(first: Procedure, second: Procedure, said: ReadonlySet<string>): RuleChange[] {
  const [a, b] = [first, second].map(
    (p) => new Map([...valuesOf(p, [])].map(([at, value]) => [at.join('/'), { at, value }])),
  );
  const values = [...new Set([...a!.keys(), ...b!.keys()])].flatMap((key): RuleChange[] => {
    const [x, y] = [a!.get(key), b!.get(key)];
    const { at } = (x ?? y)!;
    const above = at.map((_, i) => at.slice(0, i + 1).join('/'));
    if (x?.value === y?.value || above.some((k) => said.has(k))) return [];
    const stage = at[0] === 'stages' ? (first.stages[at[1]!] ?? second.stages[at[1]!]) : undefined;
    return [
      {
        at,
        where: stage?.title ?? 'The whole procedure',
        label: at.slice(stage ? 2 : 0).join(', '),
        from: x?.value ?? null,
        to: y?.value ?? null,
        permitsMore: true,
      },
    ];
  });
  return [...reordered(first, second), ...values];
}
/** A change with the procedure it stands in. */
export interface PackChange extends RuleChange {
  readonly procedure: string;
  readonly path: string;
}
/** Differences of two packs: procedures matched by id; one that is only in the second permits nothing more by itself. */
export function comparePacks(base: Pack, edited: Pack): PackChange[] {
  return edited.procedures.flatMap((p) => {
    const own = base.procedures.find((x) => x.id === p.id);
    if (!own) return [];
    return compareProcedures(own, p).map((c) => ({
      ...c,
      procedure: p.id,
      path: `${p.id}/${c.at.join('/')}`,
    }));
  });
}
