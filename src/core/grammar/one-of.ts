import * as yup from 'yup';

/** JSON Schema (draft 2020-12) as far as the product writes it. */
export type JsonSchema = { [key: string]: unknown };

const STRINGS: Record<string, (v: unknown) => JsonSchema> = {
  min: (v) => ({ minLength: v }),
  max: (v) => ({ maxLength: v }),
  matches: (v) => ({ pattern: (v as RegExp).source }),
};
const NUMBERS: Record<string, (v: unknown) => JsonSchema> = {
  min: (v) => ({ minimum: v }),
  max: (v) => ({ maximum: v }),
};

/** Goes with a schema whose own description says too little: how its JSON Schema is written, when that is asked for. */
export const written = (schema: () => JsonSchema): object => ({ written: schema });

/** The JSON Schema of a Yup schema, so that what is checked and what is published are one. */
export function jsonSchema(schema: yup.AnySchema): JsonSchema {
  const written = (schema.spec.meta as { written?: () => JsonSchema } | undefined)?.written;
  if (written) return written();
  const described = schema.describe();
  const extra = described.oneOf?.length ? { enum: described.oneOf.filter((v) => v !== undefined) } : {};
  const tests = (table: Record<string, (v: unknown) => JsonSchema>) =>
    Object.fromEntries(
      described.tests.flatMap(({ name, params }) =>
        name && table[name] && params ? Object.entries(table[name](params[name] ?? params.regex)) : [],
      ),
    );
  switch (schema.type) {
    case 'object': {
      const fields = (schema as yup.AnyObjectSchema).fields as Record<string, yup.AnySchema>;
      const properties = Object.fromEntries(Object.entries(fields).map(([k, f]) => [k, jsonSchema(f)]));
      const required = Object.entries(fields)
        .filter(([, f]) => !f.spec.optional)
        .map(([k]) => k);
      return { type: 'object', properties, required, additionalProperties: false };
    }
    case 'array':
      return {
        type: 'array',
        items: (schema as yup.ArraySchema<unknown[], yup.AnyObject>).innerType
          ? jsonSchema((schema as unknown as { innerType: yup.AnySchema }).innerType)
          : {},
      };
    case 'string':
      return { type: 'string', ...tests(STRINGS), ...extra };
    case 'number': {
      const integer = described.tests.some((t) => t.name === 'integer');
      return { type: integer ? 'integer' : 'number', ...tests(NUMBERS), ...extra };
    }
    case 'boolean':
      return { type: 'boolean', ...extra };
    default:
      return {};
  }
}

/** The value of one variant, with the field that names it. */
type Variant<F extends string, V extends Record<string, yup.AnyObjectSchema>> = {
  [K in keyof V]: yup.InferType<V[K]> & Record<F, K>;
}[keyof V] &
  object;

/**
 * A union told apart by one field: `oneOf('kind', { a: object({...}), b: object({...}) })`. Validates the variant
 * the field names, refuses any other with the list of known ones, and carries the JSON Schema of the union.
 */
export function oneOf<F extends string, V extends Record<string, yup.AnyObjectSchema>>(
  field: F,
  variants: V,
): yup.MixedSchema<Variant<F, V>> {
  const known = Object.keys(variants);
  const closed = Object.fromEntries(
    known.map((k) => [
      k,
      variants[k]!.shape({ [field]: yup.string().oneOf([k]).required() })
        .noUnknown()
        .strict(true),
    ]),
  );
  return yup
    .mixed<Variant<F, V>>()
    .required()
    .meta(written(() => ({ oneOf: known.map((k) => jsonSchema(closed[k]!)) })))
    .test('variant', '', function (value) {
      const name = (value as Record<string, unknown> | undefined)?.[field];
      const schema = typeof name === 'string' && Object.hasOwn(closed, name) ? closed[name] : undefined;
      if (!schema)
        return this.createError({
          message: `${this.path || 'value'}.${field} must be one of: ${known.join(', ')}.`,
        });
      try {
        schema.validateSync(value, { strict: true, abortEarly: true });
        return true;
      } catch (error) {
        const e = error as yup.ValidationError;
        return this.createError({ path: [this.path, e.path].filter(Boolean).join('.'), message: e.message });
      }
    });
}

/**
 * One of several schemas, told apart by the value itself (a figure or a formula, one edge or a list of them). Carries
 * the JSON Schema of all of them. `pick` returns null for an absent value that may be absent.
 */
export function either<V extends readonly yup.AnySchema[]>(
  pick: (value: unknown) => yup.AnySchema | null,
  variants: V,
): yup.MixedSchema<NonNullable<yup.InferType<V[number]>>>;
export function either<V extends readonly yup.AnySchema[]>(
  pick: (value: unknown) => yup.AnySchema | null,
  variants: V,
  optional: true,
): yup.MixedSchema<NonNullable<yup.InferType<V[number]>> | undefined>;
export function either(
  pick: (value: unknown) => yup.AnySchema | null,
  variants: readonly yup.AnySchema[],
  optional = false,
): yup.AnySchema {
  const schema = yup
    .mixed<yup.AnyObject>()
    .meta(written(() => ({ anyOf: variants.map(jsonSchema) })))
    .test('either', '', function (value) {
      const chosen = value === undefined ? null : pick(value);
      if (!chosen)
        return optional || this.createError({ message: `${this.path || 'value'} is a required field` });
      try {
        chosen.validateSync(value, { strict: true, abortEarly: true });
        return true;
      } catch (error) {
        const e = error as yup.ValidationError;
        return this.createError({
          path: [this.path, e.path].filter(Boolean).join(e.path?.startsWith('[') ? '' : '.'),
          message: e.message,
        });
      }
    });
  return optional ? schema.optional() : schema.required();
}
