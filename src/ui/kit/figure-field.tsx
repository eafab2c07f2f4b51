'use client';
import type { Unit } from '@/core/quantity/unit';
import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';
import { Field, FigureInput, TextField } from './field';

/** A labelled figure of a form, with its unit. @param spoken the label where several of the same stand on a page */
export function FigureField<T extends FieldValues>({
  control,
  name,
  label,
  spoken = label,
  hint,
  units,
  className,
}: {
  control: Control<T>;
  name: FieldPath<T>;
  label: string;
  spoken?: string;
  hint?: string;
  units: readonly Unit[];
  className?: string;
}) {
  const { field, fieldState } = useController({ control, name });
  return (
    <Field
      label={label}
      {...(hint ? { hint } : {})}
      {...(className ? { className } : {})}
      wrong={fieldState.error?.message}
    >
      {(ids) => (
        <FigureInput {...ids} label={spoken} units={units} value={field.value} onChange={field.onChange} />
      )}
    </Field>
  );
}

/** A labelled line of words, or a day, of a form. */
export function WordsField<T extends FieldValues>({
  control,
  name,
  label,
  hint,
  className,
  ...rest
}: {
  control: Control<T>;
  name: FieldPath<T>;
  label: string;
  hint?: string;
  className?: string;
  type?: 'text' | 'date' | 'time' | 'email' | 'password';
  maxLength?: number;
  autoComplete?: string;
  placeholder?: string;
}) {
  const { field, fieldState } = useController({ control, name });
  return (
    <TextField
      {...rest}
      {...field}
      label={label}
      {...(hint ? { hint } : {})}
      {...(className ? { className } : {})}
      {...(fieldState.error?.message ? { wrong: fieldState.error.message } : {})}
    />
  );
}
