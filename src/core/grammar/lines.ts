/** A rule as lines a person can read, compare and edit; each says which change of it permits more. */
import { FORMULAS } from '@/core/formula';
import type { AcceptLimit, BandSpec, Edge, MinutesSpec, PackLimit } from './rule';
import { isCall, type Condition, type FormulaCall } from './schema';

/**
 * Which change of a line permits more: a greater value, a smaller one, taking it away, adding it, any change at all,
 * or none. This is the direction each limit declares; docs/rule-packs.md lists it by field.
 */
export type Permits = 'greater' | 'smaller' | 'removed' | 'added' | 'any' | 'none';
export interface RuleLine {
  /** Keys from the procedure down to the value: where an edit is made. */
  readonly at: readonly (string | number)[];
  /** The stage or heading it stands under. */
  readonly where: string;
  readonly label: string;
  readonly value: string;
  readonly source: string;
  readonly permits: Permits;
  /** How it can be edited in a house pack. */
  readonly edit?: 'figure' | 'number' | 'remove';
  /** The kind of stage it belongs to, for reading. */
  readonly stage?: string;
}
export const lineKey = (line: Pick<RuleLine, 'at'>): string => line.at.join('/');

/** A formula as a person reads it: what it says, with its arguments. */
export const callWords = (call: FormulaCall): string =>
  FORMULAS[call.formula]?.says(call.args ?? {}) ?? call.formula;
const bandWords = (band: BandSpec): string =>
  isCall(band) ? callWords(band) : `${band.low} to ${band.high}`;
export const conditionWords = (when: Condition): string =>
  [
    ...(when.case ? [`case ${when.case.join(' or ')}`] : []),
    ...Object.entries(when.choice ?? {}).map(([k, v]) => `${k} = ${v.join(' or ')}`),
  ].join(', ');

const GAUGE_WORDS: Record<string, string> = {
  liquid: 'water gauge',
  'two-decimal': 'two-decimal gauge',
  'one-decimal': 'one-decimal gauge',
  dial: 'dial',
  whole: 'whole-number gauge',
};

type Edit = NonNullable<RuleLine['edit']>;
/** Writes the lines under one heading. `at` of each line is relative to where the writer stands. */
export class LineWriter {
  constructor(
    private readonly lines: RuleLine[],
    private readonly at: RuleLine['at'],
    private readonly where: string,
    private readonly stage?: string,
  ) {}
  /** One line, unless there is no value. */
  add(
    at: RuleLine['at'],
    label: string,
    value: string | number | boolean | null | undefined,
    permits: Permits,
    source: string | undefined = '',
    edit?: Edit,
  ): void {
    if (value === undefined || value === null || value === false) return;
    this.lines.push({
      at: [...this.at, ...at],
      where: this.where,
      label,
      value: String(value),
      source: source ?? '',
      permits,
      ...(edit ? { edit } : {}),
      ...(this.stage ? { stage: this.stage } : {}),
    });
  }
  /** A limit and which side of it counts. */
  limit(
    at: RuleLine['at'],
    label: string,
    limit: PackLimit,
    exactly: { readonly label: string; readonly at: string },
  ): void {
    this.add([...at, 'value'], label, limit.value, 'greater', limit.source, 'figure');
    this.add(
      [...at, 'broken'],
      `${label}, ${exactly.label}`,
      limit.broken === 'at' ? exactly.at : 'is met',
      limit.broken === 'at' ? 'any' : 'none',
      limit.source,
    );
  }
  /** A limit for each class of gauge. */
  limits(at: RuleLine['at'], label: string, table: Partial<Record<string, PackLimit>> | undefined): void {
    for (const [gauge, limit] of Object.entries(table ?? {}))
      if (limit)
        this.limit([...at, gauge], `${label}, ${GAUGE_WORDS[gauge] ?? gauge}`, limit, {
          label: 'exactly the limit',
          at: 'counts',
        });
  }
  band(band: BandSpec, source: string): void {
    if (isCall(band)) this.add(['band'], 'Band', bandWords(band), 'any', source);
    else {
      this.add(['band', 'low'], 'Band from', band.low, 'smaller', source, 'figure');
      this.add(['band', 'high'], 'Band to', band.high, 'greater', source, 'figure');
    }
    for (const [i, u] of (band.unless ?? []).entries())
      this.add(
        ['band', 'unless', i],
        `Band, under ${conditionWords(u.when)}`,
        bandWords(u.band),
        'any',
        source,
      );
  }
  minutes(spec: MinutesSpec, source: string): void {
    if (typeof spec === 'number') return this.add(['minutes'], 'Minutes', spec, 'smaller', source, 'number');
    const at = (key: string) => ['minutes', key];
    if (isCall(spec.rule)) this.add(at('rule'), 'Minutes of the rule', callWords(spec.rule), 'any', source);
    else this.add(at('rule'), 'Minutes of the rule', spec.rule, 'smaller', source, 'number');
    this.add(
      at('house'),
      'House standard, min',
      spec.house,
      'smaller',
      spec.houseSource ?? 'House standard',
      'number',
    );
    this.add(at('plans'), 'Planned', PLANNED[spec.plans], spec.plans === 'rule' ? 'none' : 'any', source);
    for (const [i, u] of (spec.unless ?? []).entries())
      this.add(
        [...at('unless'), i],
        `Minutes, under ${conditionWords(u.when)}`,
        typeof u.rule === 'number' ? `${u.rule} min` : callWords(u.rule),
        'any',
        source,
      );
  }
  bound(at: RuleLine['at'], label: string, bound: AcceptLimit | undefined, permits: Permits): void {
    if (!bound) return;
    const says = (value: AcceptLimit['value']) => (typeof value === 'string' ? value : callWords(value));
    const figure = typeof bound.value === 'string';
    this.add(
      [...at, 'value'],
      label,
      says(bound.value),
      figure ? permits : 'any',
      bound.source,
      figure ? 'figure' : undefined,
    );
    for (const [i, u] of (bound.unless ?? []).entries())
      this.add(
        [...at, 'unless', i],
        `${label}, under ${conditionWords(u.when)}`,
        says(u.value),
        'any',
        bound.source,
      );
  }
}

const PLANNED: Record<Exclude<MinutesSpec, number>['plans'], string> = {
  longest: 'the longest of rule, house and need',
  rule: 'the rule’s own minutes',
  apart: 'as long as two slopes need to tell valve and leak apart',
};
const FINDS: Record<NonNullable<Edge['finds']>, string> = {
  tight: 'claims Tight',
  'within-allowance': 'claims Tight within allowance',
  'not-tight': 'Not tight',
  void: 'Void',
  inconclusive: 'Inconclusive',
  refer: 'Refer',
  pending: 'undecided',
};
/** What follows an outcome, as a sentence. @param title the title of the stage an edge leads to */
export function edgeWords(e: Edge, title: (key: string) => string): string {
  const limits = [
    e.upTo ? `at most ${e.upTo} times` : '',
    e.whileRepeats ? `while fewer than ${e.whileRepeats} repeats` : '',
    e.mayHide ? 'where a valve that passes could hide a leak' : '',
    e.when ? `under ${conditionWords(e.when)}` : '',
  ].filter(Boolean);
  return [
    e.finds ? FINDS[e.finds] : '',
    e.because ?? '',
    e.to ? `then ${title(e.to)}` : 'then the part or the run ends',
    limits.length ? `(${limits.join(', ')})` : '',
    e.repeat ? 'counted as a repeat' : '',
    e.resets ? 'repeats counted anew' : '',
    e.use ? `left: ${e.use.replace('-', ' ')}` : '',
    e.report ? `report to the ${e.report.to}` : '',
    e.followUp ? `due in ${e.followUp.days} days: ${e.followUp.text}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
