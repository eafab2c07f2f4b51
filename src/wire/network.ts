/** A network as it is entered and sent: figures are text with their unit. The same on both sides. */
import { CATALOGUE, type Fact, type FactRule, PART_KINDS, ruleOfPart } from '@/core/network/catalogue';
import { GRID, type Network, type Part } from '@/core/network/network';
import { parseWithUnit, showUnit } from '@/core/quantity/exact';
import * as yup from 'yup';
import { figureTrouble, free, list, shape, text } from './figure';
import { formOfPipe, pipeFromForm, pipeSchema } from './pipe';

/** What is wrong with a fact as it was entered; '' when it is right or not known. */
export function factTrouble(rule: FactRule, value: unknown): string {
  if (value === '' || value === undefined) return '';
  switch (rule.kind) {
    case 'words':
      if (typeof value !== 'string') return 'must be words';
      return value.length > rule.most ? `must not be longer than ${rule.most} letters` : '';
    case 'yes-no':
      return typeof value === 'boolean' ? '' : 'must be yes or no';
    case 'count':
      return typeof value === 'string' && /^[1-9]\d?$/.test(value)
        ? ''
        : 'is how many there are, from 1 to 99';
    case 'one-of':
      return typeof value === 'string' && Object.hasOwn(rule.options, value) ? '' : 'is none of the answers';
    case 'figure':
      return typeof value === 'string'
        ? figureTrouble(value, rule.dimension, rule.least)
        : 'must be a figure';
  }
}
const grid = (most: number) => yup.number().strict(true).integer().min(0).max(most).required();
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
type Sent = yup.InferType<typeof networkSchema>;
export type PartForm = Omit<Part, 'facts'> & { readonly facts: Readonly<Record<string, string | boolean>> };
export interface NetworkForm {
  readonly parts: readonly PartForm[];
  readonly links: readonly (Omit<Network['links'][number], 'pipe'> & {
    readonly pipe?: ReturnType<typeof formOfPipe>;
  })[];
}

function factFrom(rule: FactRule, value: string | boolean): Fact | null {
  if (value === '') return null;
  if (rule.kind === 'figure') return parseWithUnit(value as string);
  return rule.kind === 'count' ? Number(value) : value;
}
/** The network that was sent. What was left empty is not known and absent. */
export function networkFromForm(form: Sent | NetworkForm): Network {
  return {
    parts: form.parts.map((p) => {
      const rule = ruleOfPart(p.kind);
      const facts = Object.entries(p.facts as Record<string, string | boolean>).flatMap(([key, value]) => {
        const found = factFrom(rule.facts[key]!, value);
        return found === null ? [] : [[key, found] as const];
      });
      const { position, ...rest } = p;
      return {
        ...rest,
        kind: p.kind,
        facts: Object.fromEntries(facts),
        ...(position ? { position } : {}),
      };
    }),
    links: form.links.map(({ pipe, ...l }) => ({ ...l, ...(pipe ? { pipe: pipeFromForm(pipe) } : {}) })),
  };
}
/** A network as a drawing shows and changes it. */
export const formOfNetwork = (network: Network): NetworkForm => ({
  parts: network.parts.map((p) => ({
    ...p,
    facts: Object.fromEntries(
      Object.entries(p.facts).map(([key, value]) => [
        key,
        typeof value === 'object' ? showUnit(value) : typeof value === 'number' ? String(value) : value,
      ]),
    ),
  })),
  links: network.links.map(({ pipe, ...l }) => ({ ...l, ...(pipe ? { pipe: formOfPipe(pipe) } : {}) })),
});
