import * as yup from 'yup';
import { parseWithUnit } from '@/core/quantity/exact';
import { oneOf } from './one-of';
import { edgesOf, outcomesOf, type HoldStage, type Pack, type Procedure } from './types';

const text = (most = 1000) => yup.string().strict(true).required().min(1).max(most);
const figure = () =>
  text(40).test(
    'figure',
    ({ path }) => `${path} must be a figure with its unit, like "0.25 mbar".`,
    (v) => {
      if (v === undefined) return true; // absence is said by required() or optional()
      try {
        parseWithUnit(v);
        return true;
      } catch {
        return false;
      }
    },
  );
const list = <T extends yup.AnySchema>(of: T) => yup.array().of(of).strict(true).required();
const object = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().strict(true);
const only = (v: true) => yup.boolean().oneOf([v]).optional();
const record = (of: yup.AnySchema, name: string) =>
  yup
    .mixed<Record<string, unknown>>()
    .required()
    .test(name, '', function (value) {
      if (value === undefined) return true; // whether it may be absent is said by required() or optional()
      if (typeof value !== 'object' || value === null || Array.isArray(value))
        return this.createError({ message: `${this.path} must be an object.` });
      for (const [key, entry] of Object.entries(value)) {
        try {
          of.validateSync(entry, { strict: true });
        } catch (error) {
          const e = error as yup.ValidationError;
          return this.createError({
            path: `${this.path}.${key}${e.path ? '.' + e.path : ''}`,
            message: e.message,
          });
        }
      }
      return true;
    });

const limit = object({ value: figure(), broken: text().oneOf(['at', 'above']), source: text() });
const edge = object({
  to: yup.string().strict(true).optional(),
  close: only(true),
  finds: yup
    .string()
    .strict(true)
    .oneOf(['tight', 'within-allowance', 'not-tight', 'void', 'inconclusive', 'pending'])
    .optional(),
  because: yup.string().strict(true).optional(),
  upTo: yup.number().strict(true).integer().min(1).optional(),
  whileRepeats: yup.number().strict(true).integer().min(1).optional(),
  resets: only(true),
  repeat: only(true),
});
const edges = yup.lazy((v) => (Array.isArray(v) ? list(edge) : edge)) as unknown as yup.AnySchema;
const band = object({ low: figure(), high: figure() });
const base = {
  title: text(80),
  instruction: text(300),
  cautions: yup.array().of(text(60)).optional(),
  opens: yup.array().of(text(60)).optional(),
  why: yup.string().strict(true).optional(),
  on: record(edges, 'edges'),
};
const minutes = yup.number().strict(true).required().min(0.5).max(10080);
const item = object({
  key: text(40),
  text: text(300),
  hint: yup.string().strict(true).optional(),
  ask: only(true),
  yes: yup.string().strict(true).optional(),
  each: yup.string().strict(true).oneOf(['appliance', 'pilot', 'lid']).optional(),
  ordered: only(true),
  opens: yup.array().of(text(60)).optional(),
  settles: yup.array().of(text(60)).optional(),
  denies: yup.string().strict(true).optional(),
});
export const stageSchema = oneOf('kind', {
  checks: object({ ...base, items: list(item).min(1) }),
  zero: object({ ...base, when: text().oneOf(['before', 'after']) }),
  fill: object({
    ...base,
    band,
    source: text(),
    over: yup.string().strict(true).optional(),
    confirms: text(),
  }),
  hold: object({
    ...base,
    role: text().oneOf(['let-by', 'settle', 'tightness']),
    band,
    minutes,
    minutesSource: text(),
    limit: record(limit, 'limits').optional() as yup.AnySchema,
    comparatorChoice: yup.string().strict(true).optional(),
    allowance: only(true),
    lateAfter: yup.number().strict(true).min(0).optional(),
    confirmPasses: yup.number().strict(true).integer().min(1).optional(),
    skip: object({
      reasons: list(object({ key: text(), text: text(), sound: yup.boolean().strict(true).required() })),
      to: text(),
    })
      .optional()
      .default(undefined),
  }),
  observe: object({
    ...base,
    question: text(),
    results: list(object({ key: text(), text: text(), note: yup.string().strict(true).optional() })).min(1),
  }),
  'isolate-and-repeat': object({
    ...base,
    subjects: text().oneOf(['pipework', 'each-appliance']),
    band,
    settleMinutes: minutes,
    minutes,
    minutesSource: text(),
    optional: only(true),
  }),
});

const procedure = object({
  id: text(60),
  title: text(120),
  summary: text(),
  trade: text(40),
  duty: text(40),
  testMedium: text(80),
  proves: list(text()),
  cannotProve: list(text()),
  certificate: object({ title: text(), licence: yup.boolean().strict(true).required() }),
  pressure: figure(),
  adequacy: object({
    binding: yup.boolean().strict(true).required(),
    leakThatMatters: figure(),
    source: text(),
  }),
  temperatureDefault: object({
    perMinute: yup.number().strict(true).required().min(0),
    shortHoldMinutes: yup.number().strict(true).required(),
    shortHoldMost: yup.number().strict(true).required(),
    most: yup.number().strict(true).required(),
    source: text(),
  }),
  domain: object({
    meters: list(object({ kind: text(40), label: text(120) })).min(1),
    largestSize: figure(),
    largestVolume: figure(),
    source: text(),
    outside: text(),
  }),
  perceptible: record(limit, 'limits'),
  zeroTolerance: object({ steps: yup.number().strict(true).integer().required().min(0), source: text() }),
  choices: list(
    object({
      key: text(),
      question: text(),
      default: text(),
      reason: text(),
      options: list(object({ key: text(), label: text() })).min(2),
    }),
  ),
  cases: list(
    object({
      key: text(),
      title: text(),
      hint: text(),
      allowance: yup.boolean().strict(true).required(),
      appliances: yup.boolean().strict(true).required(),
      leakThatMatters: figure().optional(),
    }),
  ).min(1),
  allowance: object({
    source: text(),
    bands: list(object({ label: text(), upTo: figure() })),
    rows: list(
      object({
        meter: text(),
        drops: list(figure()),
        byChoice: object({ choice: text(), option: text(), drops: list(figure()) })
          .optional()
          .default(undefined),
      }),
    ),
    conditions: list(object({ key: text(), text: text() })),
  }),
  first: text(40),
  stages: record(stageSchema, 'stages'),
  cautions: record(text(2000), 'cautions'),
  debts: record(
    object({
      text: text(),
      proof: yup.array().of(text(120)).strict(true).min(1).optional(),
      unsafe: yup.string().strict(true).optional(),
    }),
    'debts',
  ),
});

export const packSchema = object({
  format: yup.number().strict(true).oneOf([1]).required(),
  id: text(60),
  version: text(20),
  title: text(),
  school: text(),
  edition: text(),
  author: text(),
  dated: text(10),
  notice: text(),
  sources: list(object({ key: text(), title: text(), clause: yup.string().strict(true).optional() })).min(1),
  procedures: list(procedure).min(1),
});

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
  loaded.procedures.forEach((p, i) => checkGraph(p, `procedures[${i}]`));
  return loaded;
}

function checkGraph(p: Procedure, path: string): void {
  const fail = (where: string, message: string): never => {
    throw new PackError(`${path}.${where}`, message);
  };
  const has = (key: string) => Object.hasOwn(p.stages, key);
  if (!has(p.first)) fail('first', `There is no stage "${p.first}".`);
  const reached = new Set([p.first]);
  const queue = [p.first];
  while (queue.length) {
    const key = queue.pop()!;
    const stage = p.stages[key]!;
    const outcomes = outcomesOf(stage);
    for (const name of Object.keys(stage.on))
      if (!outcomes.includes(name))
        fail(`stages.${key}.on.${name}`, `A ${stage.kind} stage never has the outcome "${name}".`);
    for (const outcome of outcomes) {
      const where = `stages.${key}.on.${outcome}`;
      const follow = edgesOf(stage.on[outcome]);
      if (!follow.length) fail(where, `Nothing follows "${outcome}".`);
      const last = follow[follow.length - 1]!;
      if (last.upTo !== undefined || last.whileRepeats !== undefined)
        fail(where, 'The last edge must hold unconditionally, or the run would stand still.');
      for (const e of follow) {
        if ((e.to === undefined) === (e.close === undefined))
          fail(where, 'An edge leads to a stage or closes the run, one of the two.');
        if (
          e.finds === 'tight' &&
          !(stage.kind === 'hold' && stage.role === 'tightness' && outcome === 'nil')
        )
          fail(where, 'Only a tightness hold without movement can claim Tight.');
        if (
          e.finds === 'within-allowance' &&
          !(stage.kind === 'isolate-and-repeat' && stage.subjects === 'pipework' && outcome === 'nil')
        )
          fail(where, 'Only pipework shown nil can claim Tight within allowance.');
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
    if (stage.kind === 'hold')
      checkHold(stage, p, (where, message) => fail(`stages.${key}.${where}`, message));
  }
  for (const key of Object.keys(p.stages))
    if (!reached.has(key)) fail(`stages.${key}`, 'No outcome leads to this stage.');
  for (const row of p.allowance.rows)
    if (row.drops.length !== p.allowance.bands.length)
      fail('allowance.rows', `The row for "${row.meter}" must have one drop per pipe band.`);
}

function checkHold(stage: HoldStage, p: Procedure, fail: (where: string, message: string) => never): void {
  if (stage.role === 'let-by' && !stage.limit) fail('limit', 'A let-by hold needs its limit.');
  if (stage.comparatorChoice && !p.choices.some((c) => c.key === stage.comparatorChoice))
    fail('comparatorChoice', `There is no choice "${stage.comparatorChoice}".`);
}
