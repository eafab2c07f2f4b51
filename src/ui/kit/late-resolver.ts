import type { FieldValues, Resolver } from 'react-hook-form';
import type { Schema } from 'yup';

/**
 * Checks a form by a schema that is fetched when the form is first checked, so that the form stands without it. Without a
 * signal the check waits for one, like the sending that it stands before.
 */
export const lateResolver =
  <T extends FieldValues>(load: () => Promise<Schema>): Resolver<T> =>
  async (values, context, options) => {
    const [{ yupResolver }, schema] = await Promise.all([import('@hookform/resolvers/yup'), load()]);
    const check = yupResolver(schema as never) as unknown as Resolver<T>;
    return check(values, context, options);
  };
