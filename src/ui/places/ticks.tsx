'use client';
import { Field, FIELD } from '@/ui/kit/field';
import type { SystemForm } from '@/wire/places';
import { Controller, useFormContext } from 'react-hook-form';

/** Several of a few known things, each with a tick. */
export function Ticks({
  name,
  legend,
  options,
}: {
  name: 'noValves' | 'access';
  legend: string;
  options: Readonly<Record<string, string>>;
}) {
  const { control } = useFormContext<SystemForm>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <fieldset className="flex flex-wrap gap-x-6">
          <legend className="text-sm text-quiet">{legend}</legend>
          {Object.entries(options).map(([key, words]) => (
            <label key={key} className="flex min-h-12 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-lake"
                checked={(field.value as string[]).includes(key)}
                onChange={(e) =>
                  field.onChange(
                    e.target.checked
                      ? [...field.value, key]
                      : (field.value as string[]).filter((k) => k !== key),
                  )
                }
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
    />
  );
}
/** Several lines of words, one entry each. */
export function LinesPart({ name, label }: { name: 'inScope' | 'notCovered'; label: string }) {
  const { control } = useFormContext<SystemForm>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Field label={label}>
          {(ids) => (
            <textarea
              {...ids}
              className={`${FIELD} min-h-28 py-2`}
              value={field.value.join('\n')}
              onChange={(e) => field.onChange(e.target.value.split('\n'))}
              onBlur={() => field.onChange(field.value.map((l) => l.trim()).filter(Boolean))}
            />
          )}
        </Field>
      )}
    />
  );
}
