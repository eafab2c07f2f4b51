/** The words packs are written in: text, figures with their unit, lists, tables, conditions. Each is checked as it is read. */
import { parseWithUnit } from '@/core/quantity/exact';
import * as yup from 'yup';
import { either, jsonSchema, written } from './one-of';

/** What a schema describes, as it is read: nothing in a pack is ever changed. */
export type Read<T> = T extends (...args: never[]) => unknown
  ? T
  : T extends object
    ? { readonly [K in keyof T]: Read<T[K]> }
    : T;
export type Of<S extends yup.AnySchema> = Read<yup.InferType<S>>;

export const text = (most = 1000) => yup.string().strict(true).required().min(1).max(most);
/** A name in addresses, files and tables: small letters, figures and dashes, and no word that every object knows. */
export const plainName = (most = 60) =>
  text(most)
    .matches(
      /^[a-z][a-z0-9-]*$/,
      '${path} must be a plain name: small letters, figures and dashes, like house-gas.',
    )
    .notOneOf(['constructor'], '${path} must be another name than that.');
/** Text that may be absent. */
export const maybe = () => yup.string().strict(true).optional();
export const among = <const T extends string>(known: readonly T[]) => text().oneOf([...known]);
export const maybeAmong = <const T extends string>(known: readonly T[]) => maybe().oneOf([...known]);
/** A figure as text, exact, like "0.25 mbar". */
export const figure = () =>
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
export const number = () => yup.number().strict(true).required();
export const maybeNumber = () => yup.number().strict(true).optional();
export const optionalFigure = () =>
  either((v) => (v === undefined ? null : figure()), [figure()] as const, true);
type Items<T extends yup.AnySchema> = NonNullable<yup.InferType<T>>[];
export const list = <T extends yup.AnySchema>(of: T) =>
  yup.array().of(of).strict(true).required() as unknown as yup.ArraySchema<
    Items<T>,
    yup.AnyObject,
    undefined
  >;
export const maybeList = <T extends yup.AnySchema>(of: T) =>
  yup.array().of(of).strict(true).optional() as unknown as yup.ArraySchema<
    Items<T> | undefined,
    yup.AnyObject,
    undefined
  >;
export const object = <const S extends yup.ObjectShape>(shape: S) =>
  yup.object(shape).noUnknown().strict(true);
/** An object that may be absent; Yup would make an empty one of it. */
export const maybeObject = <const S extends yup.ObjectShape>(shape: S) =>
  object(shape).optional().default(undefined);
/** A mark: there, or not. */
export const mark = () => yup.boolean().oneOf([true]).optional() as yup.BooleanSchema<true | undefined>;
export const yesNo = () => yup.boolean().strict(true).required();
export const words = (most = 60) => yup.array().of(text(most)).strict(true).optional();
/** A table: names to entries of one shape. */
export const record = <T extends yup.AnySchema>(of: T, name: string) =>
  yup
    .mixed<Record<string, NonNullable<yup.InferType<T>>>>()
    .required()
    .meta(written(() => ({ type: 'object', additionalProperties: jsonSchema(of) })))
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
export const textMap = () =>
  yup
    .mixed<Record<string, string>>()
    .optional()
    .meta(written(() => ({ type: 'object', additionalProperties: { type: 'string' } })))
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

/** A named formula of the core with its arguments, all as text ("3 psi", "1.5"). The loader knows which there are. */
export const formulaCall = object({ formula: text(60), args: textMap() });
export type FormulaCall = Of<typeof formulaCall>;
export const hasFormula = (v: unknown): boolean => typeof v === 'object' && v !== null && 'formula' in v;
export const isCall = (v: unknown): v is FormulaCall => hasFormula(v);
/** When a line, an edge or an alternative applies: every part that is given must hold. */
export const condition = maybeObject({
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
});
export type Condition = NonNullable<Of<typeof condition>>;
/** A figure as text, or a named formula. */
export const figureOrFormula = either((v) => (hasFormula(v) ? formulaCall : figure()), [
  figure(),
  formulaCall,
] as const);
