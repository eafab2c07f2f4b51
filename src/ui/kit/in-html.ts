import type {
  FieldValues,
  Path,
  RegisterOptions,
  UseFormRegisterReturn,
  UseFormReturn,
} from 'react-hook-form';

/**
 * `register` with each value in the HTML that the server sends: a field is never empty until the scripts run. A box that is
 * ticked is ticked, a choice is chosen. What is typed until then is kept by frame/before-scripts.
 */
export const inHtml =
  <T extends FieldValues>({ register, getValues }: Pick<UseFormReturn<T>, 'register' | 'getValues'>) =>
  <N extends Path<T>>(
    name: N,
    options?: RegisterOptions<T, N>,
  ): UseFormRegisterReturn<N> & { readonly defaultValue?: string; readonly defaultChecked?: boolean } => {
    const value: unknown = getValues(name);
    return {
      ...register(name, options),
      ...(typeof value === 'boolean'
        ? { defaultChecked: value }
        : { defaultValue: value === undefined || value === null ? '' : String(value as string) }),
    };
  };
