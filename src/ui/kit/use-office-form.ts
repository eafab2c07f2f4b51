'use client';
import type { OfficeError } from '@/device/office';
import { type FormEvent, useState } from 'react';
import { type DefaultValues, type FieldValues, type Path, useForm } from 'react-hook-form';
import type { Schema } from 'yup';
import { lateResolver } from './late-resolver';

/**
 * A form that is checked by the schema of what it sends and then sent. What the office refuses stands at its field, or
 * above the button where it belongs to none; what was typed stays.
 */
export function useOfficeForm<T extends FieldValues>({
  schema,
  values,
  send,
}: {
  /** The schema that the server checks it by, fetched when the form is first sent. */
  schema: () => Promise<Schema>;
  values: DefaultValues<T>;
  send: (values: T) => Promise<unknown>;
}) {
  const form = useForm<T>({ resolver: lateResolver<T>(schema), defaultValues: values });
  const [trouble, setTrouble] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setTrouble('');
    void form.handleSubmit(async (valid) => {
      try {
        await send(valid);
      } catch (error) {
        const { path, message } = error as OfficeError;
        if (path && path in values)
          form.setError(path as Path<T>, { message: message.replace(/^\w+: /, '') });
        else setTrouble(message);
      }
    })(event as never);
  };
  return { ...form, submit, trouble, busy: form.formState.isSubmitting };
}
