import * as yup from 'yup';
import { parseWithUnit } from '@/core/quantity/exact';
import { FORMULAS } from '@/core/plan/formulas';
import { either, oneOf } from './one-of';

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
const hasFormula = (v: unknown): boolean => typeof v === 'object' && v !== null && 'formula' in v;
const optionalFigure = () => either((v) => (v === undefined ? null : figure()), [figure()], true);
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

const words = (most = 60) => yup.array().of(text(most)).strict(true).optional();
const textMap = () =>
  yup
    .mixed<Record<string, string>>()
    .optional()
    .test(
      'texts',
      ({ path }) => `${path} must map names to text.`,
      (v) =>
        v === undefined ||
        (typeof v === 'object' &&
          v !== null &&
          !Array.isArray(v) &&
          Object.values(v).every((x) => typeof x === 'string')),
    );
const formulaCall = object({
  formula: text(60).test(
    'formula',
    ({ path, value }) =>
      `${path}: there is no formula "${value}". Known: ${Object.keys(FORMULAS).join(', ')}.`,
    (v) => v === undefined || Object.hasOwn(FORMULAS, v),
  ),
  args: textMap(),
});
const condition = object({
  case: words(40),
  choice: yup
    .mixed<Record<string, string[]>>()
    .optional()
    .test(
      'choice',
      ({ path }) => `${path} must map a choice to the answers it applies to.`,
      (v) =>
        v === undefined ||
        (typeof v === 'object' &&
          v !== null &&
          Object.values(v).every((x) => Array.isArray(x) && x.every((y) => typeof y === 'string'))),
    ),
})
  .optional()
  .default(undefined);
/** A figure as text, or a named formula. */
const figureOrFormula = either((v) => (hasFormula(v) ? formulaCall : figure()), [figure(), formulaCall]);

const limit = object({ value: figure(), broken: text().oneOf(['at', 'above']), source: text() });
const edge = object({
  to: yup.string().strict(true).optional(),
  close: only(true),
  finds: yup
    .string()
    .strict(true)
    .oneOf(['tight', 'within-allowance', 'not-tight', 'void', 'inconclusive', 'refer', 'pending'])
    .optional(),
  because: yup.string().strict(true).optional(),
  upTo: yup.number().strict(true).integer().min(1).optional(),
  whileRepeats: yup.number().strict(true).integer().min(1).optional(),
  resets: only(true),
  repeat: only(true),
  when: condition,
  use: yup.string().strict(true).oneOf(['in-use', 'limited', 'shut-off']).optional(),
  spoils: yup.string().strict(true).max(400).optional(),
  plain: yup.string().strict(true).max(400).optional(),
  danger: only(true),
  report: object({ to: text(80), text: text() })
    .optional()
    .default(undefined),
  followUp: object({ days: yup.number().strict(true).required().integer().min(0).max(3660), text: text() })
    .optional()
    .default(undefined),
});
const edges = either((v) => (Array.isArray(v) ? list(edge) : edge), [edge, list(edge)]);
const plainBand = object({ low: figure(), high: figure() });
const bandAlternatives = yup
  .array()
  .of(
    object({
      when: condition.required(),
      band: either((v) => (hasFormula(v) ? formulaCall : plainBand), [plainBand, formulaCall]),
    }),
  )
  .strict(true)
  .optional();
const bandWith = object({ low: figure(), high: figure(), unless: bandAlternatives });
const bandFormula = formulaCall.shape({ unless: bandAlternatives }).noUnknown().strict(true);
const band = either((v) => (hasFormula(v) ? bandFormula : bandWith), [bandWith, bandFormula]);
const optionalBand = either(
  (v) => (v === undefined ? null : hasFormula(v) ? bandFormula : bandWith),
  [bandWith, bandFormula],
  true,
);
const base = {
  title: text(80),
  part: yup.string().strict(true).optional(),
  kit: words(120),
  optional: only(true),
  instruction: text(300),
  cautions: yup.array().of(text(60)).optional(),
  opens: yup.array().of(text(60)).optional(),
  why: yup.string().strict(true).optional(),
  on: record(edges, 'edges'),
};
const plainMinutes = yup.number().strict(true).required().min(0.5).max(10080);
const rule = either((v) => (hasFormula(v) ? formulaCall : plainMinutes), [plainMinutes, formulaCall]);
const minutesSpec = object({
  rule,
  unless: yup
    .array()
    .of(object({ when: condition.required(), rule }))
    .strict(true)
    .optional(),
  house: yup.number().strict(true).min(0.5).max(10080).optional(),
  houseSource: yup.string().strict(true).optional(),
  plans: text().oneOf(['rule', 'longest']),
});
const minutes = either(
  (v) => (typeof v === 'object' && v !== null ? minutesSpec : plainMinutes),
  [plainMinutes, minutesSpec],
);
const pressureByCase = object({
  value: figureOrFormula,
  unless: list(object({ when: condition.required(), value: figureOrFormula })),
});
const pressureSpec = either(
  (v) => (typeof v === 'string' ? figure() : hasFormula(v) ? formulaCall : pressureByCase),
  [figure(), formulaCall],
);
const accept = object({
  value: figureOrFormula,
  unless: yup
    .array()
    .of(object({ when: condition.required(), value: figureOrFormula }))
    .strict(true)
    .optional(),
  source: text(),
})
  .optional()
  .default(undefined);
const item = object({
  key: text(40),
  text: text(300),
  hint: yup.string().strict(true).optional(),
  ask: only(true),
  yes: yup.string().strict(true).optional(),
  each: yup.string().strict(true).oneOf(['appliance', 'pilot', 'lid', 'valve', 'loop']).optional(),
  valves: yup
    .array()
    .of(text().oneOf(['supply', 'meter', 'appliance', 'drop', 'selector', 'container', 'hidden']))
    .strict(true)
    .optional(),
  position: yup.string().strict(true).oneOf(['open', 'closed']).optional(),
  when: condition,
  must: object({ answer: text().oneOf(['yes', 'no']), text: text() })
    .optional()
    .default(undefined),
  ordered: only(true),
  opens: yup.array().of(text(60)).optional(),
  settles: yup.array().of(text(60)).optional(),
  denies: yup.string().strict(true).optional(),
});
const by = yup.string().strict(true).oneOf(['level']).optional();
export const stageSchema = oneOf('kind', {
  checks: object({ ...base, items: list(item).min(1) }),
  zero: object({ ...base, when: text().oneOf(['before', 'after']) }),
  fill: object({
    ...base,
    band,
    keeps: yup.string().strict(true).optional(),
    source: text(),
    over: yup.string().strict(true).optional(),
    under: yup.string().strict(true).optional(),
    confirms: text(),
    by,
    within: object({ minutes: plainMinutes, source: text() }).optional().default(undefined),
    finding: object({ above: figure(), text: text() }).optional().default(undefined),
    live: only(true),
    falling: only(true),
    leaves: yup.string().strict(true).oneOf(['watch']).optional(),
  }),
  pump: object({
    ...base,
    band,
    steps: list(
      object({
        percent: yup.number().strict(true).required().integer().min(1).max(100),
        minutes: yup.number().strict(true).required().min(0).max(1440),
      }),
    ).min(1),
    keeps: yup.string().strict(true).optional(),
    source: text(),
    confirms: text(),
    fastest: object({ value: figure(), source: text() }).optional().default(undefined),
    airMost: object({
      percent: yup.number().strict(true).integer().min(0).max(100).optional(),
      times: yup
        .string()
        .strict(true)
        .matches(/^\d+(\.\d+)?$/, 'must be a factor as text, like "1.5"')
        .optional(),
      source: text(),
    })
      .optional()
      .default(undefined),
  }),
  'draw-down': object({
    ...base,
    from: text(40),
    to: text(40),
    source: text(),
    permitted: yup
      .array()
      .of(object({ when: condition, volume: formulaCall, source: text() }))
      .strict(true)
      .optional(),
  }),
  hold: object({
    ...base,
    role: text().oneOf([
      'let-by',
      'settle',
      'tightness',
      'strength',
      'lock-up',
      'flow',
      'leak-rate',
      'floor',
      'stretch',
      'make-up',
      'decay',
    ]),
    band: optionalBand,
    explained: object({ minutes: yup.number().strict(true).required().min(0).max(10080), source: text() })
      .optional()
      .default(undefined),
    slowing: object({ source: text() }).optional().default(undefined),
    until: yup.string().strict(true).oneOf(['steady']).optional(),
    accept: object({ low: accept, high: accept, vent: accept }).optional().default(undefined),
    keeps: yup.string().strict(true).optional(),
    rhythm: yup.number().strict(true).min(0.5).optional(),
    barometerOver: yup.number().strict(true).min(0).optional(),
    minutes,
    minutesSource: text(),
    limit: record(limit, 'limits').optional() as yup.AnySchema,
    comparatorChoice: yup.string().strict(true).optional(),
    allowance: only(true),
    lateAfter: yup.number().strict(true).min(0).optional(),
    by,
    witness: yup.string().strict(true).max(120).optional(),
    since: yup.string().strict(true).optional(),
    keepsStart: yup.string().strict(true).optional(),
    restart: yup.string().strict(true).optional(),
    fall: limit.optional().default(undefined),
    permitted: yup
      .array()
      .of(object({ when: condition, volume: formulaCall, source: text() }))
      .strict(true)
      .optional(),
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
    results: list(
      object({
        key: text(),
        text: text(),
        note: yup.string().strict(true).optional(),
        reasonBefore: yup.number().strict(true).integer().min(1).max(10).optional(),
      }),
    ).min(1),
  }),
  'isolate-and-repeat': object({
    ...base,
    subjects: text().oneOf(['pipework', 'each-appliance']),
    band,
    settleMinutes: plainMinutes,
    minutes: plainMinutes,
    minutesSource: text(),
  }),
  dial: object({
    ...base,
    role: text().oneOf(['leak', 'input']),
    minutes,
    minutesSource: text(),
    visible: text(10).matches(/^0\.\d+$/, 'must be a part of a turn, like "0.02"'),
    visibleSource: text(),
  }),
  joints: object({ ...base, always: words(120) }),
  inventory: object(base),
  volume: object({ ...base, source: text() }),
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
  certificate: object({
    title: text(),
    licence: yup.boolean().strict(true).required(),
    byChoice: object({ choice: text(40), titles: textMap().required() })
      .optional()
      .default(undefined),
  }),
  applied: yup.string().strict(true).max(300).optional(),
  levelOver: yup.string().strict(true).max(40).optional(),
  fills: yup.string().strict(true).oneOf(['liquid', 'level']).optional(),
  pressure: pressureSpec,
  partOnly: only(true),
  media: words(40),
  suits: words(40),
  boundary: yup.string().strict(true).oneOf(['live', 'separated']).optional(),
  needs: yup
    .array()
    .of(
      object({
        fact: text().oneOf(['setPressure', 'designPressure', 'testDial', 'rimHeight']),
        when: condition,
        text: text(),
      }),
    )
    .strict(true)
    .optional(),
  after: object({ procedures: list(text(60)).min(1), text: text() })
    .optional()
    .default(undefined),
  parts: yup
    .array()
    .of(
      object({
        key: text(40),
        title: text(120),
        first: text(60),
        case: yup.string().strict(true).optional(),
        noWorseThan: yup.string().strict(true).optional(),
        rule: yup.mixed().optional(),
      }),
    )
    .strict(true)
    .optional(),
  gauge: object({ dialScaleMost: yup.number().strict(true).required().integer().min(1), source: text() })
    .optional()
    .default(undefined),
  inventory: yup
    .array()
    .of(
      object({
        kind: text().oneOf(['meter', 'appliance', 'regulator', 'tank', 'connector', 'other']),
        title: text(80),
        required: only(true),
        points: list(object({ key: text(40), text: text(200), hint: yup.string().strict(true).optional() })),
      }),
    )
    .strict(true)
    .optional(),
  unsafe: only(true),
  plain: textMap(),
  practice: only(true),
  classes: yup
    .array()
    .of(object({ key: text(40), title: text(80), below: optionalFigure(), source: text() }))
    .strict(true)
    .min(2)
    .optional(),
  adequacy: object({
    binding: yup.boolean().strict(true).required(),
    leakThatMatters: figure(),
    at: yup.string().strict(true).oneOf(['working', 'test']).optional(),
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
    meters: yup
      .array()
      .of(object({ kind: text(40), label: text(120) }))
      .strict(true)
      .min(1)
      .optional(),
    largestSize: optionalFigure(),
    largestVolume: optionalFigure(),
    largestWorking: optionalFigure(),
    leastWorking: optionalFigure(),
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
      options: list(
        object({
          key: text(),
          label: text(),
          onlyWith: object({ choice: text(40), option: text(40), text: text() })
            .optional()
            .default(undefined),
          unlessAccess: object({ access: text(40), text: text() })
            .optional()
            .default(undefined),
        }),
      ).min(2),
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
  })
    .optional()
    .default(undefined),
  nilSource: yup.string().strict(true).optional(),
  first: text(40),
  stages: record(stageSchema, 'stages'),
  cautions: record(text(2000), 'cautions'),
  debts: record(
    object({
      text: text(),
      urgent: yup.number().strict(true).integer().min(1).max(60).optional(),
      proof: yup.array().of(text(120)).strict(true).min(1).optional(),
      unsafe: yup.string().strict(true).optional(),
      after: yup.array().of(text(60)).strict(true).optional(),
      each: yup.string().strict(true).oneOf(['appliance']).optional(),
      answers: yup
        .array()
        .of(object({ key: text(40), text: text(120), poor: only(true) }))
        .strict(true)
        .min(1)
        .optional(),
    }),
    'debts',
  ),
});

export const packSchema = object({
  format: yup.number().strict(true).oneOf([1, 2]).required(),
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
  sequences: yup
    .array()
    .of(
      object({
        id: text(60),
        title: text(120),
        summary: text(),
        cases: list(object({ key: text(40), title: text(), hint: text() })).min(1),
        parts: list(
          object({
            procedure: text(60),
            title: text(80),
            case: textMap().required(),
            noWorseThan: yup.number().strict(true).integer().min(1).optional(),
          }),
        ).min(2),
      }),
    )
    .strict(true)
    .optional(),
  besides: yup
    .array()
    .of(
      object({
        id: text(60),
        title: text(120),
        summary: text(),
        runs: list(object({ procedure: text(60), title: text(80) })).length(2),
        couplings: list(
          object({
            procedure: text(60),
            stage: text(60),
            waitsFor: text(60),
            past: text(60),
            text: text(300),
          }),
        ),
      }),
    )
    .strict(true)
    .optional(),
  basedOn: object({ id: text(60), version: text(20), title: text() })
    .optional()
    .default(undefined),
  loosened: yup
    .array()
    .of(object({ path: text(300), what: text(300), from: text(300), to: text(300), reason: text(500) }))
    .strict(true)
    .optional(),
});
