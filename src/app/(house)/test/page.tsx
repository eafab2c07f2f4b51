import type { Metadata } from 'next';
import { testNowFor } from '@/server/places/test-now';
import { requireSession } from '@/server/session/session';
import { TestNow } from '@/ui/places/test-now';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Test now' };
export default async function TestSomething() {
  const session = await requireSession();
  return (
    <>
      <h1 className="text-2xl font-bold">What stands before you?</h1>
      {may(session.role, 'plan') && may(session.role, 'run') ? (
        <TestNow {...await testNowFor(session)} />
      ) : (
        <p className="mt-3">
          A new place is entered by a tester or the office; after that everybody tests there.{' '}
          <a className="text-lake underline" href="/places">
            Places
          </a>
        </p>
      )}
    </>
  );
}
