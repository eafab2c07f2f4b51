'use client';
import { useController, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import type { Unit } from '@/core/quantity/unit';
import { Field, FigureInput } from './field';

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
