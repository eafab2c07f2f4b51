import type {
  FieldValues,
  Path,
  PathValue,
  RegisterOptions,
  UseFormRegisterReturn,
  UseFormReturn,
} from 'react-hook-form';

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
/** Fields the scripts have taken up: what stands in them from then on is the form's own. */
const taken = new WeakSet<Field>();
/** What a person typed, ticked or chose before the scripts ran; undefined where it stands as the server sent it. */
function typedBefore(field: Field): string | boolean | undefined {
  if (field instanceof HTMLSelectElement) {
    const sent = [...field.options].find((o) => o.defaultSelected)?.value;
    return sent === undefined || sent === field.value ? undefined : field.value;
  }
  if (field instanceof HTMLInputElement && field.type === 'checkbox')
    return field.checked === field.defaultChecked ? undefined : field.checked;
  return field.value === field.defaultValue ? undefined : field.value;
}

/**
 * `register` with each value in the HTML that the server sends: a field is never empty until the scripts run, and what was
 * typed into it until then stays (a text area excepted: React puts its own text back). A box that is ticked is ticked, a choice is chosen.
 */
export const inHtml =
  <T extends FieldValues>({
    register,
    getValues,
    setValue,
  }: Pick<UseFormReturn<T>, 'register' | 'getValues' | 'setValue'>) =>
  <N extends Path<T>>(
    name: N,
    options?: RegisterOptions<T, N>,
  ): UseFormRegisterReturn<N> & { readonly defaultValue?: string; readonly defaultChecked?: boolean } => {
    const value: unknown = getValues(name);
    const { ref, ...rest } = register(name, options);
    return {
      ...rest,
      ref: (field: Field | null) => {
        const typed = field && !taken.has(field) ? typedBefore(field) : undefined;
        if (field) taken.add(field);
        ref(field);
        if (typed !== undefined) setValue(name, typed as PathValue<T, N>, { shouldDirty: true });
      },
      ...(typeof value === 'boolean'
        ? { defaultChecked: value }
        : { defaultValue: value === undefined || value === null ? '' : String(value as string) }),
    };
  };
