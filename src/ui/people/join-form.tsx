'use client';
import { keepIdentity } from '@/device/identity';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { Identity, Role } from '@/wire/role';

/** Somebody invited chooses a password and is in. */
export function JoinForm({
  token,
  invitation,
}: {
  token: string;
  invitation: { name: string; email: string; role: Role; organisation: string; again: boolean };
}) {
  const { control, submit, trouble } = useOfficeForm<{ password: string }>({
    schema: () => import('@/wire/people').then((m) => m.joinSchema),
    values: { password: '' },
    send: async ({ password }) => {
      const { email } = await office<{ email: string }>(`/api/join/${token}`, { body: { password } });
      keepIdentity(await office<Identity>('/api/session', { body: { email, password } }));
      location.assign('/today');
    },
  });
  return (
    <form method="post" noValidate onSubmit={submit}>
      <h1 className="text-2xl font-bold">
        {invitation.again ? 'A new password' : `Join ${invitation.organisation}`}
      </h1>
      <p className="mt-2">
        {invitation.name}, you sign in with <strong>{invitation.email}</strong>
        {invitation.again ? '.' : ` and work as ${invitation.role}.`}
      </p>
      <WordsField
        control={control}
        name="password"
        className="mt-5"
        label="Password"
        hint="at least 12 characters; some words that do not belong together are good"
        type="password"
        autoComplete="new-password"
        maxLength={200}
      />
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      <Button type="submit" tone="act" className="mt-2 w-full min-h-14 text-lg">
        {invitation.again ? 'Use this password' : 'Join'}
      </Button>
    </form>
  );
}
