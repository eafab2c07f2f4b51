import type * as yup from 'yup';
import { FORMULAS } from '@/core/formula';
import { edgesOf } from '@/core/grammar/edges';
import type { BandSpec } from '@/core/grammar/rule';
import { isCall } from '@/core/grammar/schema';
import { kindOf, type Stage } from '@/core/kinds';
import type { Surroundings } from '@/core/kinds/kind';
import { outcomesOf, waysOn } from '@/core/kinds/outcomes';
import { composeSequence } from '@/core/plan/sequence';
import { PackError } from './error';
import { expandPack } from './expand';
import { packSchema, type Pack, type Procedure } from './schema';

/**
 * Checks a parsed JSON value as a rule pack: shape, figures, and the graph (every outcome has an edge, every edge
 * leads to a stage, every stage is reachable, Tight is claimed only by a judged hold).
 * @throws PackError naming the path.
 */
export function loadPack(value: unknown): Pack {
  const whole = expandPack(value);
  try {
    packSchema.validateSync(whole, { strict: true, abortEarly: true });
  } catch (error) {
    const e = error as yup.ValidationError;
    throw new PackError(e.path ?? '', e.message);
  }
  const loaded = whole as Pack;
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
  if (typeof call.formula === 'string') {
    if (!Object.hasOwn(FORMULAS, call.formula))
      throw new PackError(
        `${path}.formula`,
        `${path}.formula: there is no formula "${call.formula}". Known: ${Object.keys(FORMULAS).join(', ')}.`,
      );
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

/** One procedure while it is checked. */
interface Graph {
  readonly p: Procedure;
  readonly format: 1 | 2;
  readonly classes: readonly string[];
  readonly around: Surroundings;
}

function checkGraph(p: Procedure, path: string, format: 1 | 2): void {
  const fail = (where: string, message: string): never => {
    throw new PackError(`${path}.${where}`, message);
  };
  const has = (key: string) => Object.hasOwn(p.stages, key);
  const graph: Graph = {
    p,
    format,
    classes: (p.classes ?? []).map((c) => c.key),
    around: {
      has,
      fail,
      kept: new Set(
        Object.values(p.stages).flatMap((s) => (kindOf(s).keeps?.(s) ?? []).filter((k) => k !== undefined)),
      ),
      classed: Boolean(p.classes || p.parts?.some((x) => x.rule?.classes)),
      hasAllowance: Boolean(p.allowance || p.parts?.some((x) => x.rule?.allowance)),
      hasChoice: (key) => p.choices.some((c) => c.key === key),
    },
  };
  if (!has(p.first)) fail('first', `There is no stage "${p.first}".`);
  for (const [i, part] of (p.parts ?? []).entries())
    if (!has(part.first)) fail(`parts[${i}].first`, `There is no stage "${part.first}".`);
  const reached = new Set([p.first, ...(p.parts ?? []).map((x) => x.first)]);
  // a set is walked in the order of insertion, what is added while walking included
  for (const key of reached) for (const next of checkStage(graph, key)) reached.add(next);
  for (const key of Object.keys(p.stages))
    if (!reached.has(key)) fail(`stages.${key}`, 'No outcome leads to this stage.');
  checkRest(p, fail);
}

/** @returns the stages it leads to */
function checkStage({ p, format, classes, around }: Graph, key: string): string[] {
  const { has, fail, kept } = around;
  const stage = p.stages[key]!;
  const kind = kindOf(stage);
  const part = p.parts?.find((x) => x.key === stage.part);
  if (stage.part !== undefined && !part) fail(`stages.${key}.part`, `There is no part "${stage.part}".`);
  const own = part?.rule?.classes?.map((c) => c.key) ?? classes;
  const outcomes = outcomesOf(stage, own);
  const unheld = waysOn(stage);
  for (const name of Object.keys(stage.on))
    if (![...outcomes, ...unheld.must, ...unheld.may].includes(name))
      fail(`stages.${key}.on.${name}`, `A ${stage.kind} stage never has the outcome "${name}".`);
  const next: string[] = [];
  const beyond = kind.goesTo?.(stage);
  if (beyond && has(beyond)) next.push(beyond);
  const claims = kind.claims?.(stage, own) ?? {};
  const said = [
    ...unheld.must.filter((n) => format > 1 || stage.on[n]),
    ...unheld.may.filter((n) => stage.on[n]),
  ];
  for (const outcome of [...outcomes, ...said]) {
    const where = `stages.${key}.on.${outcome}`;
    const follow = edgesOf(stage.on[outcome]);
    if (!follow.length) fail(where, `Nothing follows "${outcome}".`);
    const last = follow[follow.length - 1]!;
    if ([last.upTo, last.whileRepeats, last.when, last.mayHide].some((x) => x !== undefined))
      fail(where, 'The last edge must hold unconditionally, or the run would stand still.');
    for (const e of follow) {
      if ((e.to === undefined) === (e.close === undefined))
        fail(where, 'An edge leads to a stage or closes the run, one of the two.');
      if (e.finds === 'tight' && claims.tight !== outcome && !(p.called?.tight && claims.named === outcome))
        fail(
          where,
          'Only a hold without movement (plastic pipe: within the limits of its school), or a dial that stood still, can claim Tight.',
        );
      if (e.finds === 'within-allowance' && claims.within !== outcome)
        fail(
          where,
          'Only pipework shown nil, the best class of a measured leak rate, make-up within its limit, or stretch that slows within its limit, can claim Tight within allowance.',
        );
      if (e.to !== undefined && !has(e.to)) fail(where, `There is no stage "${e.to}".`);
      if (e.to !== undefined) next.push(e.to);
    }
  }
  for (const caution of stage.cautions ?? [])
    if (!Object.hasOwn(p.cautions, caution))
      fail(`stages.${key}.cautions`, `There is no caution "${caution}".`);
  for (const debt of [...(stage.opens ?? []), ...(kind.debts?.(stage) ?? [])])
    if (!Object.hasOwn(p.debts, debt)) fail(`stages.${key}`, `There is no put-back debt "${debt}".`);
  if ('band' in stage && stage.band)
    for (const name of readingsOfBand(stage.band))
      if (!kept.has(name)) fail(`stages.${key}.band`, `No stage keeps a reading named "${name}".`);
  kind.check?.(stage, {
    ...around,
    fail: (where, message) => fail(where ? `stages.${key}.${where}` : `stages.${key}`, message),
  });
  return next;
}

/** What is left once every stage holds together. */
function checkRest(p: Procedure, fail: (where: string, message: string) => never): void {
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
  const stages = Object.values(p.stages);
  const good = stages.some((s) =>
    Object.values(s.on).some((on) =>
      edgesOf(on).some((e) => e.finds === 'tight' || e.finds === 'within-allowance'),
    ),
  );
  const proved = stages.some((s) => kindOf(s).provesBoundary?.(s));
  if ((p.boundary ?? 'live') === 'live' && good && !proved && !p.parts?.some((x) => x.rule))
    fail(
      'boundary',
      'A live valve bounds the scope: add a let-by stage, or say that the section is separated.',
    );
  for (const row of p.allowance?.rows ?? [])
    if (row.drops.length !== p.allowance!.bands.length)
      fail('allowance.rows', `The row for "${row.meter}" must have one drop per pipe band.`);
}

/** Names of earlier readings that a band, or an alternative of it, refers to. */
const readingsOfBand = (spec: BandSpec): string[] =>
  [spec, ...(spec.unless ?? []).map((u) => u.band)].flatMap((b) =>
    isCall(b) && b.args?.of ? [b.args.of] : [],
  );
