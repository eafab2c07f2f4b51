import { jsonSchema, type JsonSchema } from '@/core/grammar/one-of';
import { procedureSchema } from '@/core/pack/schema';
import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent } from '@/core/run/events';
import { isTree, type Tree } from './parts';
import type { RecordBody } from './record';

/** What follows from a schema alone, found once for each. */
function ofSchema<T>(find: (schema: JsonSchema) => T): (schema: JsonSchema) => T {
  const found = new WeakMap<JsonSchema, T>();
  return (schema) => {
    if (!found.has(schema)) found.set(schema, find(schema));
    return found.get(schema)!;
  };
}
/** The shapes a schema allows, unions taken apart. */
const shapes: (schema: JsonSchema) => readonly JsonSchema[] = ofSchema(
  (schema) =>
    ((schema.oneOf ?? schema.anyOf) as readonly JsonSchema[] | undefined)?.flatMap(shapes) ?? [schema],
);
/** Its fields with one possible word ("kind": "hold"). */
const wordsOf = ofSchema((shape) =>
  Object.entries((shape.properties ?? {}) as Record<string, JsonSchema>).flatMap(
    ([key, { enum: words }]): [string, unknown][] =>
      Array.isArray(words) && words.length === 1 ? [[key, words[0]]] : [],
  ),
);
/** A shape whose one possible words do not contradict the value. */
const fits = (shape: JsonSchema, value: Tree): boolean =>
  wordsOf(shape).every(([key, word]) => value[key] === undefined || value[key] === word);
function below(shape: JsonSchema, key: string): readonly JsonSchema[] {
  const field = (shape.properties as Record<string, JsonSchema> | undefined)?.[key];
  if (field) return [field];
  return typeof shape.additionalProperties === 'object' ? [shape.additionalProperties as JsonSchema] : [];
}
const isNumber = (s: JsonSchema): boolean => s.type === 'number' || s.type === 'integer';

/** The value with every decimal string made a number where the schemas want a number and take no text. */
function withNumbers(value: unknown, schemas: readonly JsonSchema[]): unknown {
  const all = schemas.flatMap(shapes);
  if (typeof value === 'string')
    return all.some(isNumber) && !all.some((s) => s.type === 'string') && /^-?\d+(\.\d+)?$/.test(value)
      ? Number(value)
      : value;
  if (Array.isArray(value)) {
    const items = all.flatMap((s) => (s.items ? [s.items as JsonSchema] : []));
    return value.map((entry: unknown) => withNumbers(entry, items));
  }
  if (!isTree(value)) return value;
  const own = all.filter((s) => fits(s, value));
  return Object.fromEntries(
    Object.entries(value).map(([key, entry]) => [
      key,
      withNumbers(
        entry,
        own.flatMap((s) => below(s, key)),
      ),
    ]),
  );
}

let known: JsonSchema | undefined;
/** A procedure out of a sealed body; the parts of a sequence carry the rules of theirs. */
function procedureOf(value: unknown): unknown {
  const procedure = withNumbers(value, [(known ??= jsonSchema(procedureSchema))]);
  if (!isTree(procedure) || !Array.isArray(procedure.parts)) return procedure;
  const parts = procedure.parts.map((part: unknown) =>
    isTree(part) && part.rule !== undefined ? { ...part, rule: withNumbers(part.rule, [known!]) } : part,
  );
  return { ...procedure, parts };
}

/**
 * Brings a parsed sealed body back to the shapes the core works on: sealed bodies hold no fractional numbers, so the
 * rule's few (0.05 K per minute) come back from their decimal strings, there where the schema of procedures has numbers.
 */
export function restoreBody(
  text: string,
): Omit<RecordBody, 'plan' | 'events'> & { readonly plan: Plan; readonly events: readonly PlacedEvent[] } {
  const body = JSON.parse(text) as Tree & { readonly plan: Tree };
  return {
    ...body,
    plan: { ...body.plan, procedure: procedureOf(body.plan.procedure) },
  } as unknown as ReturnType<typeof restoreBody>;
}
