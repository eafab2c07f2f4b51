import type * as yup from 'yup';
import { packSchema } from './schema';
import { FORMULAS } from '@/core/plan/formulas';
import { composeSequence } from '@/core/plan/sequence';
import {
  edgesOf,
  outcomesOf,
  waysOn,
  type BandSpec,
  type HoldStage,
  type Pack,
  type Procedure,
  type Stage,
} from './types';

/** Why a pack was refused, with the path of the offending place. */
export class PackError extends Error {
  constructor(
    readonly path: string,
    text: string,
  ) {
    super(text);
    this.name = 'PackError';
  }
}

/**
 * Checks a parsed JSON value as a rule pack: shape, figures, and the graph (every outcome has an edge, every edge
 * leads to a stage, every stage is reachable, Tight is claimed only by a judged hold).
 * @throws PackError naming the path.
 */
export function loadPack(value: unknown): Pack {
  try {
    packSchema.validateSync(value, { strict: true, abortEarly: true });
  } catch (error) {
    const e = error as yup.ValidationError;
    throw new PackError(e.path ?? '', e.message);
  }
  const loaded = value as Pack;
  checkCalls(loaded, '');
  loaded.procedures.forEach((p, i) => checkGraph(p, `procedures[${i}]`, loaded.format));
  loaded.besides?.forEach((b, i) => checkBeside(loaded, b, `besides[${i}]`));
  loaded.sequences?.forEach((s, i) => {
    checkSequence(loaded, s, `sequences[${i}]`);
    // what is conducted is the composed procedure: it must hold together as every other
    for (const c of s.cases) checkGraph(composeSequence(loaded, s, c.key), `sequences[${i}]`, loaded.format);
  });
  return loaded;
}

/** Every call of a named formula has exactly the arguments it needs, wherever it stands. */
function checkCalls(value: unknown, path: string): void {
  if (typeof value !== 'object' || value === null) return;
  const call = value as { formula?: unknown; args?: Record<string, string> };
  if (typeof call.formula === 'string' && Object.hasOwn(FORMULAS, call.formula)) {
    const wants = FORMULAS[call.formula]!.args;
    const has = Object.keys(call.args ?? {});
    const missing = wants.filter((a) => !has.includes(a));
    const unknown = has.filter((a) => !wants.includes(a));
    if (missing.length)
      throw new PackError(`${path}.args`, `${call.formula} also needs: ${missing.join(', ')}.`);
    if (unknown.length)
      throw new PackError(`${path}.args`, `${call.formula} does not know: ${unknown.join(', ')}.`);
  }
  for (const [key, entry] of Object.entries(value))
    checkCalls(entry, Array.isArray(value) ? `${path}[${key}]` : path ? `${path}.${key}` : key);
}

/** Both procedures are there, and every coupling names stages that they have. */
function checkBeside(pack: Pack, beside: NonNullable<Pack['besides']>[number], path: string): void {
  const stagesOf = (id: string, where: string): Readonly<Record<string, Stage>> => {
    const found = beside.runs.some((r) => r.procedure === id) && pack.procedures.find((p) => p.id === id);
    if (!found) throw new PackError(`${path}.${where}`, `"${id}" is not one of the procedures side by side.`);
    return found.stages;
  };
  beside.runs.forEach((r, i) => stagesOf(r.procedure, `runs[${i}].procedure`));
  beside.couplings.forEach((c, i) => {
    for (const [id, stage, where] of [
      [c.procedure, c.stage, 'stage'],
      [c.waitsFor, c.past, 'past'],
    ] as const)
      if (!Object.hasOwn(stagesOf(id, `couplings[${i}].${where}`), stage))
        throw new PackError(`${path}.couplings[${i}].${where}`, `"${id}" has no stage "${stage}".`);
  });
}

function checkSequence(pack: Pack, sequence: NonNullable<Pack['sequences']>[number], path: string): void {
  const fail = (where: string, message: string): never => {
    throw new PackError(`${path}.${where}`, message);
  };
  const own = new Map(pack.procedures.map((p) => [p.id, p]));
  sequence.parts.forEach((part, i) => {
    const procedure = own.get(part.procedure);
    if (!procedure)
      return fail(`parts[${i}].procedure`, `There is no procedure "${part.procedure}" in this pack.`);
    if (procedure.parts)
      fail(
        `parts[${i}].procedure`,
        `"${part.procedure}" has parts of its own and cannot stand in a sequence.`,
      );
    for (const c of sequence.cases)
      if (!procedure.cases.some((x) => x.key === part.case[c.key]))
        fail(`parts[${i}].case.${c.key}`, `Say which case of "${part.procedure}" it means.`);
    if (part.noWorseThan !== undefined && part.noWorseThan > i)
      fail(`parts[${i}].noWorseThan`, 'Only an earlier part can bound it.');
  });
  const procedures = new Set(sequence.parts.map((p) => p.procedure));
  for (const kind of ['cautions', 'debts'] as const) {
    const seen = new Map<string, string>();
    for (const id of procedures)
      for (const [key, entry] of Object.entries(own.get(id)![kind])) {
        const text = JSON.stringify(entry);
        if (seen.has(key) && seen.get(key) !== text)
          fail('parts', `The ${kind} "${key}" differ between the procedures: name them apart.`);
        seen.set(key, text);
      }
  }
}

function checkGraph(p: Procedure, path: string, format: 1 | 2): void {
  const fail = (where: string, message: string): never => {
    throw new PackError(`${path}.${where}`, message);
  };
  const has = (key: string) => Object.hasOwn(p.stages, key);
  if (!has(p.first)) fail('first', `There is no stage "${p.first}".`);
  for (const [i, part] of (p.parts ?? []).entries())
    if (!has(part.first)) fail(`parts[${i}].first`, `There is no stage "${part.first}".`);
  const partKeys = new Set((p.parts ?? []).map((x) => x.key));
  const starts = [p.first, ...(p.parts ?? []).map((x) => x.first)];
  const classes = (p.classes ?? []).map((c) => c.key);
  const kept = new Set(
    Object.values(p.stages).flatMap((s) => [
      ...((s.kind === 'fill' || s.kind === 'hold' || s.kind === 'pump') && s.keeps ? [s.keeps] : []),
      ...(s.kind === 'hold' && s.keepsStart ? [s.keepsStart] : []),
    ]),
  );
  const reached = new Set(starts);
  const queue = [...reached];
  while (queue.length) {
    const key = queue.pop()!;
    const stage = p.stages[key]!;
    if (stage.part !== undefined && !partKeys.has(stage.part))
      fail(`stages.${key}.part`, `There is no part "${stage.part}".`);
    const outcomes = outcomesOf(
      stage,
      p.parts?.find((x) => x.key === stage.part)?.rule?.classes?.map((c) => c.key) ?? classes,
    );
    const unheld = waysOn(stage);
    for (const name of Object.keys(stage.on))
      if (![...outcomes, ...unheld.must, ...unheld.may].includes(name))
        fail(`stages.${key}.on.${name}`, `A ${stage.kind} stage never has the outcome "${name}".`);
    const said = [
      ...unheld.must.filter((n) => format > 1 || stage.on[n]),
      ...unheld.may.filter((n) => stage.on[n]),
    ];
    if (stage.kind === 'hold' && stage.restart && has(stage.restart) && !reached.has(stage.restart)) {
      reached.add(stage.restart);
      queue.push(stage.restart);
    }
    for (const outcome of [...outcomes, ...said]) {
      const where = `stages.${key}.on.${outcome}`;
      const follow = edgesOf(stage.on[outcome]);
      if (!follow.length) fail(where, `Nothing follows "${outcome}".`);
      const last = follow[follow.length - 1]!;
      if (last.upTo !== undefined || last.whileRepeats !== undefined || last.when !== undefined)
        fail(where, 'The last edge must hold unconditionally, or the run would stand still.');
      for (const e of follow) {
        if ((e.to === undefined) === (e.close === undefined))
          fail(where, 'An edge leads to a stage or closes the run, one of the two.');
        if (
          e.finds === 'tight' &&
          !(stage.kind === 'hold' && PROVES[stage.role] === outcome) &&
          !(stage.kind === 'dial' && stage.role === 'leak' && outcome === 'still')
        )
          fail(
            where,
            'Only a hold without movement (plastic pipe: within the limits of its school), or a dial that stood still, can claim Tight.',
          );
        if (
          e.finds === 'within-allowance' &&
          !(stage.kind === 'isolate-and-repeat' && stage.subjects === 'pipework' && outcome === 'nil') &&
          !(stage.kind === 'hold' && stage.role === 'leak-rate' && outcome === outcomes[0]) &&
          !(stage.kind === 'hold' && stage.role === 'make-up' && outcome === 'within') &&
          !(stage.kind === 'draw-down' && outcome === 'within') &&
          !(stage.kind === 'hold' && stage.role === 'stretch' && stage.slowing && outcome === 'within')
        )
          fail(
            where,
            'Only pipework shown nil, the best class of a measured leak rate, make-up within its limit, or stretch that slows within its limit, can claim Tight within allowance.',
          );
        if (e.to !== undefined) {
          if (!has(e.to)) fail(where, `There is no stage "${e.to}".`);
          if (!reached.has(e.to)) {
            reached.add(e.to);
            queue.push(e.to);
          }
        }
      }
    }
    for (const caution of stage.cautions ?? [])
      if (!Object.hasOwn(p.cautions, caution))
        fail(`stages.${key}.cautions`, `There is no caution "${caution}".`);
    const debts = [
      ...(stage.opens ?? []),
      ...(stage.kind === 'checks'
        ? stage.items.flatMap((i) => [...(i.opens ?? []), ...(i.settles ?? [])])
        : []),
    ];
    for (const debt of debts)
      if (!Object.hasOwn(p.debts, debt)) fail(`stages.${key}`, `There is no put-back debt "${debt}".`);
    if (stage.kind === 'draw-down')
      for (const name of [stage.from, stage.to])
        if (!kept.has(name)) fail(`stages.${key}`, `No stage keeps a reading named "${name}".`);
    if (stage.kind === 'pump' && stage.steps[stage.steps.length - 1]!.percent !== 100)
      fail(`stages.${key}.steps`, 'The last step must reach 100 percent.');
    for (const text of bandReadings(stage))
      if (!kept.has(text)) fail(`stages.${key}.band`, `No stage keeps a reading named "${text}".`);
    if (stage.kind === 'hold')
      checkHold(stage, p, (where, message) => fail(`stages.${key}.${where}`, message));
  }
  for (const key of Object.keys(p.stages))
    if (!reached.has(key)) fail(`stages.${key}`, 'No outcome leads to this stage.');
  for (const [key, debt] of Object.entries(p.debts))
    for (const before of debt.after ?? [])
      if (!Object.hasOwn(p.debts, before) || before === key)
        fail(`debts.${key}.after`, `There is no other put-back debt "${before}".`);
  for (const c of p.choices)
    for (const o of c.options)
      if (
        o.onlyWith &&
        !p.choices.some(
          (x) => x.key === o.onlyWith!.choice && x.options.some((y) => y.key === o.onlyWith!.option),
        )
      )
        fail(
          'choices',
          `"${c.key}" belongs to an answer that is not there: ${o.onlyWith.choice} ${o.onlyWith.option}.`,
        );
  const boundary = p.boundary ?? 'live';
  const tight = Object.values(p.stages).some((s) =>
    Object.values(s.on).some((on) =>
      edgesOf(on).some((e) => e.finds === 'tight' || e.finds === 'within-allowance'),
    ),
  );
  const letBy = Object.values(p.stages).some((s) => s.kind === 'hold' && s.role === 'let-by');
  if (boundary === 'live' && tight && !letBy && !p.parts?.some((x) => x.rule))
    fail(
      'boundary',
      'A live valve bounds the scope: add a let-by stage, or say that the section is separated.',
    );
  for (const row of p.allowance?.rows ?? [])
    if (row.drops.length !== p.allowance!.bands.length)
      fail('allowance.rows', `The row for "${row.meter}" must have one drop per pipe band.`);
}

/** Names of earlier readings that a stage's band, or an alternative of it, refers to. */
function bandReadings(stage: Stage): string[] {
  const since = stage.kind === 'hold' && stage.since ? [stage.since] : [];
  const spec = 'band' in stage ? stage.band : undefined;
  if (!spec) return since;
  return [...since, ...readingsOfBand(spec)];
}
const readingsOfBand = (spec: BandSpec): string[] =>
  [spec, ...(spec.unless ?? []).map((u) => u.band)].flatMap((b) =>
    'formula' in b && b.args?.of ? [b.args.of] : [],
  );

/** The outcome by which a hold of each role may prove tightness: from reading alone, never from advice. */
const PROVES: Partial<Record<HoldStage['role'], string>> = {
  tightness: 'nil',
  floor: 'kept',
  stretch: 'within',
  'make-up': 'nil',
};

function checkHold(stage: HoldStage, p: Procedure, fail: (where: string, message: string) => never): void {
  if (stage.role === 'let-by' && !stage.limit) fail('limit', 'A let-by hold needs its limit.');
  if (!stage.band && !stage.since && stage.role !== 'lock-up' && stage.role !== 'flow')
    fail('band', `A ${stage.role} hold needs the band it may start in.`);
  if ((stage.role === 'lock-up' || stage.role === 'flow') && !stage.accept?.low && !stage.accept?.high)
    fail('accept', 'Say between which pressures it may stand.');
  if (stage.role === 'leak-rate' && !p.classes && !p.parts?.some((x) => x.rule?.classes))
    fail('role', 'A leak-rate hold needs the classes of the procedure.');
  if (stage.role === 'floor' && !stage.accept?.low)
    fail('accept.low', 'Say below which pressure it may not fall.');
  if (stage.role === 'stretch' && !stage.fall) fail('fall', 'Say by how much stretched pipe may fall.');
  if (stage.role === 'make-up' && !stage.accept?.low)
    fail('accept.low', 'Say how far it may fall before the comparison is void.');
  if (stage.restart && !Object.hasOwn(p.stages, stage.restart))
    fail('restart', `There is no stage "${stage.restart}".`);
  if (stage.allowance && !p.allowance && !p.parts?.some((x) => x.rule?.allowance))
    fail('allowance', 'There is no allowance table in this procedure.');
  if (stage.comparatorChoice && !p.choices.some((c) => c.key === stage.comparatorChoice))
    fail('comparatorChoice', `There is no choice "${stage.comparatorChoice}".`);
}
