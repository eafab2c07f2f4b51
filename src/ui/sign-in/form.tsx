'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { keepIdentity } from '@/device/identity';
import { office, OfficeError } from '@/device/office';
import { signInSchema } from '@/wire/requests';
import type { Identity } from '@/wire/role';
import { Button } from '@/ui/kit/button';

interface Demo {
  readonly name: string;
  readonly role: string;
  readonly email: string;
  readonly password: string;
}
export function SignInForm({ demo }: { demo: readonly Demo[] }) {
  const { register, handleSubmit, setValue, formState } = useForm({
    resolver: yupResolver(signInSchema),
    defaultValues: { email: '', password: '' },
  });
  const [trouble, setTrouble] = useState('');
  const into = (who: Identity) => {
    keepIdentity(who);
    const next = new URLSearchParams(location.search).get('next') ?? '';
    location.assign(/^\/[a-z]/.test(next) ? next : '/today');
  };
  const [passkeys, setPasskeys] = useState(false);
  useEffect(() => setPasskeys('PublicKeyCredential' in globalThis), []);
  const byPasskey = async () => {
    setTrouble('');
    try {
      const { startAuthentication } = await import('@simplewebauthn/browser');
      type Options = Parameters<typeof startAuthentication>[0]['optionsJSON'];
      const optionsJSON = await office<Options>('/api/session/passkey/options', { method: 'POST' });
      const response = await startAuthentication({ optionsJSON });
      into(await office<Identity>('/api/session/passkey', { body: { response } }));
    } catch (error) {
      setTrouble(
        error instanceof OfficeError
          ? error.message
          : 'The device gave no passkey: it was cancelled, took too long, or there is none here. Sign in by e-mail and password.',
      );
    }
  };
  const submit = handleSubmit(async (values) => {
    setTrouble('');
    try {
      into(await office<Identity>('/api/session', { body: values }));
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  });
  const field = 'mt-1 w-full min-h-14 border border-edge bg-panel px-3 text-lg';
  return (
    <form
      method="post"
      onSubmit={(e) => void submit(e)}
      noValidate
      className="border border-seam bg-panel p-6"
    >
      <h2 className="text-xl font-semibold">Sign in</h2>
      <label className="mt-4 block">
        E-mail
        <input
          type="email"
          autoComplete="username"
          className={field}
          aria-invalid={!!formState.errors.email}
          {...register('email')}
        />
      </label>
      {formState.errors.email && (
        <p className="mt-1 text-rust">
          {formState.errors.email.message === 'is needed'
            ? 'Type your e-mail address.'
            : formState.errors.email.message}
        </p>
      )}
      <label className="mt-3 block">
        Password
        <input
          type="password"
          autoComplete="current-password"
          className={field}
          aria-invalid={!!formState.errors.password}
          {...register('password')}
        />
      </label>
      {formState.errors.password && <p className="mt-1 text-rust">Type your password.</p>}
      <p role="alert" className="mt-3 min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        type="submit"
        tone="act"
        className="mt-1 w-full min-h-14 text-lg"
        disabled={formState.isSubmitting}
      >
        {formState.isSubmitting ? 'Signing in …' : 'Sign in'}
      </Button>
      {passkeys && (
        <Button className="mt-3 w-full min-h-14" onClick={() => void byPasskey()}>
          Use a passkey
        </Button>
      )}
      {demo.length > 0 && (
        <fieldset className="mt-5">
          <legend className="text-sm text-quiet">Demo people: tap one to fill the form</legend>
          <div className="mt-2 grid grid-cols-2 gap-2">
            {demo.map((d) => (
              <Button
                key={d.email}
                className="justify-start! text-left text-sm"
                onClick={() => {
                  setValue('email', d.email);
                  setValue('password', d.password);
                }}
              >
                <span>
                  {d.name}
                  <span className="block font-normal text-quiet">{d.role}</span>
                </span>
              </Button>
            ))}
          </div>
        </fieldset>
      )}
    </form>
  );
}
