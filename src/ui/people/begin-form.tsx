'use client';
import { keepIdentity } from '@/device/identity';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { Begin } from '@/wire/people';
import type { Identity } from '@/wire/role';

/** The first organisation of an installation and its owner. */
export function BeginForm() {
  const { control, submit, trouble, formState } = useOfficeForm<Begin>({
    schema: () => import('@/wire/people').then((m) => m.beginSchema),
    values: { organisation: '', contact: '', name: '', email: '', password: '' },
    send: async (form) => {
      await office('/api/organisation', { body: form });
      keepIdentity(
        await office<Identity>('/api/session', { body: { email: form.email, password: form.password } }),
      );
      location.assign('/today');
    },
  });
  return (
    <form method="post" noValidate className="grid gap-4" onSubmit={submit}>
      <h1 className="text-2xl font-bold">Begin here</h1>
      <p>
        Nobody works with this installation yet. Whoever fills this in becomes its owner; everybody else is
        invited.
      </p>
      <WordsField control={control} name="organisation" label="Organisation" />
      <WordsField
        control={control}
        name="contact"
        label="How customers reach you"
        hint="stands on papers; may stay empty"
      />
      <WordsField control={control} name="name" label="Your name" autoComplete="name" />
      <WordsField
        control={control}
        name="email"
        label="Your e-mail address"
        type="email"
        autoComplete="username"
      />
      <WordsField
        control={control}
        name="password"
        label="Password"
        hint="at least 12 characters; some words that do not belong together are good"
        type="password"
        autoComplete="new-password"
      />
      <p role="alert" className="min-h-6 text-rust">
        {Object.keys(formState.errors).length > 0 ? 'Something above is not right yet.' : trouble}
      </p>
      <Button type="submit" tone="act" className="min-h-14 text-lg">
        Make the organisation
      </Button>
    </form>
  );
}
