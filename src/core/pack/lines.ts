/** A procedure as lines a person can read, compare and edit; and which edits permit more. */
import { FORMULAS } from '@/core/plan/formulas';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import {
  edgesOf,
  type AcceptLimit,
  type BandSpec,
  type Edge,
  type FormulaCall,
  type HoldStage,
  type MinutesSpec,
  type Pack,
  type PackLimit,
  type Procedure,
  type Stage,
} from './types';

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

const isCall = (v: unknown): v is FormulaCall => typeof v === 'object' && v !== null && 'formula' in v;
/** A formula as a person reads it: what it says, with its arguments. */
const callWords = (call: FormulaCall): string =>
  FORMULAS[call.formula]?.says(call.args ?? {}) ?? call.formula;
const bandWords = (band: BandSpec): string =>
  isCall(band) ? callWords(band) : `${band.low} to ${band.high}`;

const GAUGE_WORDS: Record<string, string> = {
  liquid: 'water gauge',
  'two-decimal': 'two-decimal gauge',
  'one-decimal': 'one-decimal gauge',
  dial: 'dial',
  whole: 'whole-number gauge',
};

/** Everything in a procedure that a rule says in figures, checks and ways on, in reading order. */
export function ruleLines(p: Procedure): RuleLine[] {
  const lines: RuleLine[] = [];
  const add = (
    at: RuleLine['at'],
    where: string,
    label: string,
    value: unknown,
    permits: Permits,
    source = '',
    more: Partial<RuleLine> = {},
  ) => {
    if (value === undefined || value === null) return;
    lines.push({ at, where, label, value: String(value), source, permits, ...more });
  };
  const limits = (
    table: Partial<Record<string, PackLimit>> | undefined,
    at: RuleLine['at'],
    where: string,
    label: string,
    stage?: string,
  ) => {
    for (const [gauge, limit] of Object.entries(table ?? {})) {
      if (!limit) continue;
      const name = `${label}, ${GAUGE_WORDS[gauge] ?? gauge}`;
      const more = stage ? { stage } : {};
      add([...at, gauge, 'value'], where, name, limit.value, 'greater', limit.source, {
        edit: 'figure',
        ...more,
      });
      add(
        [...at, gauge, 'broken'],
        where,
        `${name}, exactly the limit`,
        limit.broken === 'at' ? 'counts' : 'is met',
        limit.broken === 'at' ? 'any' : 'none',
        limit.source,
        more,
      );
    }
  };
  const whole = 'The whole procedure';
  add(['pressure'], whole, 'Test pressure', pressureWords(p.pressure), 'any');
  add(
    ['fills'],
    whole,
    'What fills it',
    p.fills && { liquid: 'water, pumped or by the mains', level: 'water, standing' }[p.fills],
    'any',
  );
  add(['applied'], whole, 'What is applied', p.applied, 'none');
  for (const [key, title] of Object.entries(p.certificate.byChoice?.titles ?? {}))
    add(['certificate', 'byChoice', 'titles', key], whole, 'Title that may be printed', title, 'any');
  add(
    ['boundary'],
    whole,
    'Boundary',
    (p.boundary ?? 'live') === 'live' ? 'a live valve: its let-by is proved' : 'cut or capped',
    'any',
  );
  limits(p.perceptible, ['perceptible'], whole, 'Smallest movement that counts');
  add(
    ['zeroTolerance', 'steps'],
    whole,
    'Zero open to air, at most so many display steps',
    p.zeroTolerance.steps,
    'greater',
    p.zeroTolerance.source,
    { edit: 'number' },
  );
  add(
    ['adequacy', 'leakThatMatters'],
    whole,
    'Leak that matters',
    p.adequacy.leakThatMatters,
    'greater',
    p.adequacy.source,
    { edit: 'figure' },
  );
  add(
    ['adequacy', 'binding'],
    whole,
    'A hold that could not have seen it',
    p.adequacy.binding ? 'is Inconclusive' : 'is Tight by rule, printed beside',
    p.adequacy.binding ? 'any' : 'none',
    p.adequacy.source,
  );
  add(
    ['gauge', 'dialScaleMost'],
    whole,
    'Full scale of a dial, at most so many times the test pressure',
    p.gauge?.dialScaleMost,
    'greater',
    p.gauge?.source,
    { edit: 'number' },
  );
  for (const [key, label] of [
    ['largestSize', 'Largest pipe'],
    ['largestVolume', 'Largest volume'],
    ['largestWorking', 'Highest working pressure'],
  ] as const)
    add(['domain', key], whole, label, p.domain[key], 'greater', p.domain.source, { edit: 'figure' });
  add(
    ['domain', 'meters'],
    whole,
    'Meters',
    p.domain.meters?.map((m) => m.label).join('; '),
    'any',
    p.domain.source,
  );
  for (const [i, c] of (p.classes ?? []).entries())
    add(['classes', i, 'below'], whole, `Class ${c.title}, below`, c.below, 'greater', c.source, {
      edit: 'figure',
    });
  p.allowance?.rows.forEach((row, r) =>
    row.drops.forEach((drop, b) =>
      add(
        ['allowance', 'rows', r, 'drops', b],
        'Permitted drop',
        `${p.domain.meters?.find((m) => m.kind === row.meter)?.label ?? row.meter}, ${p.allowance!.bands[b]!.label}`,
        drop,
        'greater',
        p.allowance!.source,
        { edit: 'figure' },
      ),
    ),
  );
  if (p.allowance)
    add(
      ['allowance', 'conditions'],
      'Permitted drop',
      'Only when all hold',
      p.allowance.conditions.map((c) => c.text).join('; '),
      'any',
      p.allowance.source,
    );
  else add(['nilSource'], 'Permitted drop', 'Permitted drop', 'nil', 'any', p.nilSource ?? '');
  for (const c of p.cases)
    add(['cases', c.key], 'What is tested', c.title, c.allowance ? 'the table can apply' : 'nil', 'any', '');
  for (const c of p.choices)
    add(
      ['choices', c.key],
      'Where schools differ',
      c.question,
      `${c.options.find((o) => o.key === c.default)?.label ?? c.default} (default); others: ${c.options
        .filter((o) => o.key !== c.default)
        .map((o) => o.label)
        .join('; ')}`,
      'any',
      c.reason,
    );
  for (const [key, stage] of Object.entries(p.stages)) stageLines(key, stage);
  for (const [key, text] of Object.entries(p.cautions))
    add(['cautions', key], 'Cautions', key, text, 'removed');
  for (const [key, debt] of Object.entries(p.debts))
    add(
      ['debts', key],
      'To put back',
      key,
      `${debt.text}${debt.urgent ? ` (rings every ${debt.urgent} min until confirmed)` : ''}`,
      'removed',
    );
  for (const kind of p.inventory ?? [])
    add(
      ['inventory', kind.kind],
      'Inventory',
      kind.title,
      `${kind.required ? 'required' : 'if there is time'}: ${kind.points.map((x) => x.text).join('; ')}`,
      'any',
    );
  return lines;

  function stageLines(key: string, stage: Stage): void {
    const at = ['stages', key];
    const where = stage.title;
    const more = { stage: stage.kind };
    add(
      [...at, 'kind'],
      where,
      'Stage',
      `${stage.kind}${stage.kind === 'hold' ? `, ${stage.role}` : ''}${stage.optional ? ', may be left out' : ''}`,
      'any',
      '',
      more,
    );
    add([...at, 'instruction'], where, 'Instruction', stage.instruction, 'none', '', more);
    if (stage.cautions?.length)
      add(
        [...at, 'cautions'],
        where,
        'Cautions before it',
        stage.cautions.map((c) => p.cautions[c]).join(' '),
        'any',
        '',
        more,
      );
    if ('band' in stage && stage.band) {
      const source = 'source' in stage ? stage.source : stage.minutesSource;
      if (isCall(stage.band)) add([...at, 'band'], where, 'Band', bandWords(stage.band), 'any', source, more);
      else {
        add([...at, 'band', 'low'], where, 'Band from', stage.band.low, 'smaller', source, {
          edit: 'figure',
          ...more,
        });
        add([...at, 'band', 'high'], where, 'Band to', stage.band.high, 'greater', source, {
          edit: 'figure',
          ...more,
        });
      }
      for (const [i, u] of (stage.band.unless ?? []).entries())
        add(
          [...at, 'band', 'unless', i],
          where,
          `Band, under ${conditionWords(u.when)}`,
          bandWords(u.band as BandSpec),
          'any',
          source,
          more,
        );
    }
    if (stage.kind === 'hold') hold(at, where, stage);
    if (stage.kind === 'pump') {
      const source = stage.source;
      add(
        [...at, 'steps'],
        where,
        'Steps',
        stage.steps.map((s) => `${s.percent} %, pause ${s.minutes} min`).join('; '),
        'any',
        source,
        more,
      );
      add(
        [...at, 'fastest', 'value'],
        where,
        'Fastest rise a minute',
        stage.fastest?.value,
        'greater',
        stage.fastest?.source,
        {
          edit: 'figure',
          ...more,
        },
      );
      add(
        [...at, 'airMost', 'percent'],
        where,
        'Trapped air at most, percent',
        stage.airMost?.percent,
        'greater',
        stage.airMost?.source,
        {
          edit: 'number',
          ...more,
        },
      );
      add(
        [...at, 'airMost', 'times'],
        where,
        'Water taken at most, times stiffness',
        stage.airMost?.times,
        'any',
        stage.airMost?.source,
        more,
      );
    }
    if (stage.kind === 'draw-down')
      add(
        [...at, 'from'],
        where,
        'Drained',
        `from "${stage.from}" to "${stage.to}"`,
        'any',
        stage.source,
        more,
      );
    if (stage.kind === 'fill') {
      add(
        [...at, 'within', 'minutes'],
        where,
        'Reached within, min',
        stage.within?.minutes,
        'greater',
        stage.within?.source,
        {
          edit: 'number',
          ...more,
        },
      );
      add(
        [...at, 'leaves'],
        where,
        'Left',
        stage.leaves && 'under watch at this pressure',
        'removed',
        '',
        more,
      );
      add(
        [...at, 'finding'],
        where,
        'A finding above',
        stage.finding && `${stage.finding.above}: ${stage.finding.text}`,
        'removed',
        '',
        more,
      );
    }
    if (stage.kind === 'dial')
      minutes([...at, 'minutes'], where, stage.minutes, stage.minutesSource, stage.kind);
    if (stage.kind === 'isolate-and-repeat') {
      add(
        [...at, 'settleMinutes'],
        where,
        'Settle, min',
        stage.settleMinutes,
        'smaller',
        stage.minutesSource,
        { edit: 'number', ...more },
      );
      add([...at, 'minutes'], where, 'Hold, min', stage.minutes, 'smaller', stage.minutesSource, {
        edit: 'number',
        ...more,
      });
    }
    if (stage.kind === 'checks')
      stage.items.forEach((item) =>
        add(
          [...at, 'items', item.key],
          where,
          item.position ? `Valve position` : 'Check',
          `${item.text}${item.each ? ` (each ${item.valves?.join(', ') ?? item.each})` : ''}${item.must ? ` (must be ${item.must.answer})` : ''}`,
          'removed',
          '',
          { edit: 'remove', ...more },
        ),
      );
    if (stage.kind === 'joints' || stage.kind === 'inventory')
      add(
        [...at, 'gate'],
        where,
        'Gate',
        stage.kind === 'joints'
          ? 'every joint touched cleared with leak fluid'
          : 'everything required written down',
        'removed',
        '',
        more,
      );
    for (const [outcome, on] of Object.entries(stage.on))
      add(
        [...at, 'on', outcome],
        where,
        `If ${outcome.replaceAll('-', ' ')}`,
        edgesOf(on)
          .map((e) => edgeWords(p, e))
          .join('; otherwise '),
        'any',
        '',
        more,
      );
  }
  function minutes(
    at: RuleLine['at'],
    where: string,
    spec: MinutesSpec,
    source: string,
    stage: string,
  ): void {
    if (typeof spec === 'number')
      return add(at, where, 'Minutes', spec, 'smaller', source, { edit: 'number', stage });
    if (isCall(spec.rule))
      add([...at, 'rule'], where, 'Minutes of the rule', callWords(spec.rule), 'any', source, { stage });
    else
      add([...at, 'rule'], where, 'Minutes of the rule', spec.rule, 'smaller', source, {
        edit: 'number',
        stage,
      });
    add(
      [...at, 'house'],
      where,
      'House standard, min',
      spec.house,
      'smaller',
      spec.houseSource ?? 'House standard',
      { edit: 'number', stage },
    );
    add(
      [...at, 'plans'],
      where,
      'Planned',
      spec.plans === 'longest' ? 'the longest of rule, house and need' : 'the rule’s own minutes',
      spec.plans === 'longest' ? 'any' : 'none',
      source,
      { stage },
    );
    for (const [i, u] of (spec.unless ?? []).entries())
      add(
        [...at, 'unless', i],
        where,
        `Minutes, under ${conditionWords(u.when)}`,
        typeof u.rule === 'number' ? `${u.rule} min` : callWords(u.rule),
        'any',
        source,
        { stage },
      );
  }
  function hold(at: RuleLine['at'], where: string, stage: HoldStage): void {
    const more = { stage: stage.kind };
    minutes([...at, 'minutes'], where, stage.minutes, stage.minutesSource, stage.kind);
    limits(stage.limit, [...at, 'limit'], where, 'Limit', stage.kind);
    if (stage.until)
      add(
        [...at, 'until'],
        where,
        'Ends only when',
        'steady, no re-adjustment in the last window',
        'removed',
        '',
        more,
      );
    const bound = (side: 'low' | 'high' | 'vent', label: string, permits: Permits) => {
      const b: AcceptLimit | undefined = stage.accept?.[side];
      if (!b) return;
      const figure = typeof b.value === 'string';
      add(
        [...at, 'accept', side, 'value'],
        where,
        label,
        figure ? b.value : callWords(b.value as FormulaCall),
        figure ? permits : 'any',
        b.source,
        { ...(figure ? { edit: 'figure' as const } : {}), ...more },
      );
      for (const [i, u] of (b.unless ?? []).entries())
        add(
          [...at, 'accept', side, 'unless', i],
          where,
          `${label}, under ${conditionWords(u.when)}`,
          typeof u.value === 'string' ? u.value : callWords(u.value),
          'any',
          b.source,
          more,
        );
    };
    bound('low', 'Holds from', 'smaller');
    bound('high', 'Holds up to', 'greater');
    bound('vent', 'Vent', 'any');
    if (stage.fall) {
      add([...at, 'fall', 'value'], where, 'Fall permitted', stage.fall.value, 'greater', stage.fall.source, {
        edit: 'figure',
        ...more,
      });
      add(
        [...at, 'fall', 'broken'],
        where,
        'Fall permitted, exactly that much',
        stage.fall.broken === 'at' ? 'is too much' : 'is met',
        stage.fall.broken === 'at' ? 'any' : 'none',
        stage.fall.source,
        more,
      );
    }
    for (const [i, p] of (stage.permitted ?? []).entries())
      add(
        [...at, 'permitted', i],
        where,
        p.when ? `Water that may be added, under ${conditionWords(p.when)}` : 'Water that may be added',
        callWords(p.volume),
        'any',
        p.source,
        more,
      );
    add([...at, 'since'], where, 'Runs from the reading', stage.since, 'any', '', more);
    add([...at, 'witness'], where, 'Second place', stage.witness, 'removed', '', more);
    add([...at, 'by'], where, 'Read against', stage.by && 'a level mark', 'any', '', more);
    add(
      [...at, 'restart'],
      where,
      'When it is broken',
      stage.restart && p.stages[stage.restart]?.title,
      'any',
      '',
      more,
    );
    add(
      [...at, 'lateAfter'],
      where,
      'A permitted drop may be read so many seconds late',
      stage.lateAfter,
      'greater',
      '',
      { edit: 'number', ...more },
    );
    add([...at, 'confirmPasses'], where, 'Passes in a row after a fail', stage.confirmPasses, 'smaller', '', {
      edit: 'number',
      ...more,
    });
    add(
      [...at, 'barometerOver'],
      where,
      'Barometer logged for holds over, min',
      stage.barometerOver,
      'greater',
      '',
      { edit: 'number', ...more },
    );
    add([...at, 'rhythm'], where, 'A reading every, min', stage.rhythm, 'greater', '', {
      edit: 'number',
      ...more,
    });
    if (stage.allowance)
      add([...at, 'allowance'], where, 'Permitted drop', 'the table can apply', 'added', '', more);
    if (stage.skip)
      add(
        [...at, 'skip'],
        where,
        'May be skipped when',
        stage.skip.reasons.map((r) => `${r.text}${r.sound ? '' : ' (cannot end Tight)'}`).join('; '),
        'any',
        '',
        more,
      );
  }
}

const conditionWords = (when: {
  case?: readonly string[];
  choice?: Readonly<Record<string, readonly string[]>>;
}): string =>
  [
    ...(when.case ? [`case ${when.case.join(' or ')}`] : []),
    ...Object.entries(when.choice ?? {}).map(([k, v]) => `${k} = ${v.join(' or ')}`),
  ].join(', ');
const pressureWords = (pressure: Procedure['pressure']): string =>
  typeof pressure === 'string'
    ? pressure
    : isCall(pressure)
      ? callWords(pressure)
      : [
          pressureWords(pressure.value),
          ...pressure.unless.map((u) => `under ${conditionWords(u.when)}: ${pressureWords(u.value)}`),
        ].join('; ');
const FINDS: Record<string, string> = {
  tight: 'claims Tight',
  'within-allowance': 'claims Tight within allowance',
  'not-tight': 'Not tight',
  void: 'Void',
  inconclusive: 'Inconclusive',
  refer: 'Refer',
  pending: 'undecided',
};
/** What follows an outcome, as a sentence. */
function edgeWords(p: Procedure, e: Edge): string {
  const limits = [
    e.upTo ? `at most ${e.upTo} times` : '',
    e.whileRepeats ? `while fewer than ${e.whileRepeats} repeats` : '',
    e.when ? `under ${conditionWords(e.when)}` : '',
  ].filter(Boolean);
  return [
    e.finds ? FINDS[e.finds] : '',
    e.because ?? '',
    e.to ? `then ${p.stages[e.to]?.title ?? e.to}` : 'then the part or the run ends',
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
  return keys.flatMap((key): RuleChange[] => {
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
