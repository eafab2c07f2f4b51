import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { hasOrganisation } from '@/server/people/organisation';
import { BeginForm } from '@/ui/people/begin-form';

export const metadata: Metadata = { title: 'Begin here' };
/** Shown once: on an installation in which nobody can sign in yet. */
export default async function Begin() {
  await headers();
  if (await hasOrganisation()) redirect('/sign-in');
  return (
    <main className="mx-auto max-w-md px-5 py-10">
      <BeginForm />
    </main>
  );
}
