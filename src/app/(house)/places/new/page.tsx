import type { Metadata } from 'next';
import { requireSession } from '@/server/session/session';
import { SiteFormView } from '@/ui/places/site-form';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'New place' };
export default async function NewPlace() {
  const session = await requireSession();
  return (
    <>
      <h1 className="text-2xl font-bold">New place</h1>
      {may(session.role, 'plan') ? (
        <SiteFormView />
      ) : (
        <p className="mt-4">An apprentice does not enter places. Ask a tester or the office.</p>
      )}
    </>
  );
}
