'use client';
import { useState } from 'react';
import { keepIdentity } from '@/device/identity';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { TextField } from '@/ui/kit/field';
import type { Identity } from '@/wire/role';

const EMPTY = { organisation: '', contact: '', name: '', email: '', password: '' };
/** The first organisation of an installation and its owner. */
export function BeginForm() {
  const [form, setForm] = useState(EMPTY);
  const [trouble, setTrouble] = useState<{ path?: string | undefined; text: string }>({ text: '' });
  const set = (name: keyof typeof form) => (value: string) => setForm({ ...form, [name]: value });
  const wrong = (name: keyof typeof form) =>
    trouble.path === name ? { wrong: trouble.text.replace(/^\w+: /, '') } : {};
  const begin = async () => {
    setTrouble({ text: '' });
    try {
      await office('/api/organisation', { body: form });
      keepIdentity(
        await office<Identity>('/api/session', { body: { email: form.email, password: form.password } }),
      );
      location.assign('/organisation');
    } catch (error) {
      const e = error as OfficeError;
      setTrouble({ path: e.path, text: e.message });
    }
  };
  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void begin();
      }}
    >
      <h1 className="text-2xl font-bold">Begin here</h1>
      <p>
        Nobody works with this installation yet. Whoever fills this in becomes its owner; everybody else is
        invited.
      </p>
      <TextField
        label="Organisation"
        value={form.organisation}
        onChange={set('organisation')}
        {...wrong('organisation')}
      />
      <TextField
        label="How customers reach you"
        hint="stands on papers; may stay empty"
        value={form.contact}
        onChange={set('contact')}
        {...wrong('contact')}
      />
      <TextField
        label="Your name"
        autoComplete="name"
        value={form.name}
        onChange={set('name')}
        {...wrong('name')}
      />
      <TextField
        label="Your e-mail address"
        type="email"
        autoComplete="username"
        value={form.email}
        onChange={set('email')}
        {...wrong('email')}
      />
      <TextField
        label="Password"
        hint="at least 10 characters; a few words are good"
        type="password"
        autoComplete="new-password"
        value={form.password}
        onChange={set('password')}
        {...wrong('password')}
      />
      <p role="alert" className="min-h-6 text-rust">
        {trouble.path && trouble.path in form ? 'Something above is not right yet.' : trouble.text}
      </p>
      <Button type="submit" tone="act" className="min-h-14 text-lg">
        Make the organisation
      </Button>
    </form>
  );
}
