/** What is checked of a network that is sent. */
import { CATALOGUE, PART_KINDS, ruleOfPart } from '@/core/network/catalogue';
import { GRID, OUTLINE_SHAPES } from '@/core/network/network';
import * as yup from 'yup';
import { free, list, shape, text } from './figure';
import { factTrouble } from './network';
import { pipeSchema } from './pipe-schema';

const grid = (most: number) => yup.number().strict(true).integer().min(0).max(most).required();
/** A corner on the sheet: along, down. */
const corner = yup
  .mixed<readonly [number, number]>(
    (v): v is readonly [number, number] =>
      Array.isArray(v) &&
      v.length === 2 &&
      grid(GRID.width).isValidSync(v[0]) &&
      grid(GRID.height).isValidSync(v[1]),
  )
  .required();
const fact = yup.mixed<string | boolean>((v): v is string | boolean =>
  ['string', 'boolean'].includes(typeof v),
);
const partSchema = shape({
  id: text(80),
  kind: text(20).oneOf(PART_KINDS),
  name: free(120),
  place: free(80),
  x: grid(GRID.width),
  y: grid(GRID.height),
  position: yup
    .string()
    .strict(true)
    .oneOf(['open', 'closed'] as const)
    .optional(),
  facts: yup
    .object()
    .strict(true)
    .required()
    .test('record', 'is a table of facts', (v) => Object.values(v).every((x) => fact.isValidSync(x))),
})
  .test('named', (value, context) =>
    !Object.hasOwn(CATALOGUE, value.kind) || value.name || ruleOfPart(value.kind).nameless
      ? true
      : context.createError({
          path: `${context.path}.name`,
          message: `Give every ${CATALOGUE[value.kind].word} a name.`,
        }),
  )
  .test('facts', (value, context) => {
    if (!Object.hasOwn(CATALOGUE, value.kind)) return true; // said by the kind
    const rule = ruleOfPart(value.kind);
    for (const [key, said] of Object.entries(value.facts)) {
      const own = rule.facts[key];
      const trouble = own ? factTrouble(own, said) : 'is no fact of it';
      if (trouble)
        return context.createError({
          path: `${context.path}.facts.${key}`,
          message: `${value.name || rule.word}, ${(own?.label ?? key).toLowerCase()}: ${trouble}.`,
        });
    }
    return value.position && !rule.closes
      ? context.createError({ path: `${context.path}.position`, message: `A ${rule.word} does not close.` })
      : true;
  });
export const networkSchema = shape({
  parts: list(partSchema, 400),
  links: list(
    shape({ id: text(140), from: text(80), to: text(80), pipe: pipeSchema.optional().default(undefined) }),
    600,
  ),
  /** The edge of a pool: a shape in its frame, or corners that were sketched. */
  outline: shape({
    shape: yup
      .string()
      .strict(true)
      .required()
      .oneOf([...OUTLINE_SHAPES]),
    x: grid(GRID.width),
    y: grid(GRID.height),
    width: grid(GRID.width),
    height: grid(GRID.height),
    points: yup.array().of(corner).strict(true).min(3).max(80).optional(),
  })
    .test(
      'corners',
      'A sketched edge has three corners or more.',
      (v) => !v || v.shape !== 'sketched' || !!v.points,
    )
    .optional()
    .default(undefined),
}).test('joined', (value, context) => {
  const ids = new Set(value.parts.map((p) => p.id));
  const pipes = value.links.flatMap((l) => (l.pipe ? [l.pipe.id] : []));
  const whole =
    value.links.every((l) => ids.has(l.from) && ids.has(l.to) && l.from !== l.to) &&
    ids.size === value.parts.length &&
    new Set(value.links.map((l) => l.id)).size === value.links.length &&
    new Set(pipes).size === pipes.length;
  return whole
    ? true
    : context.createError({
        message:
          'A line of the drawing ends nowhere, or two parts have one id. Undo the last step, or draw it again.',
      });
});
export type SentNetwork = yup.InferType<typeof networkSchema>;
