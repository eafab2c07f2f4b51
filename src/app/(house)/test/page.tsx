import type { Metadata } from 'next';
import { testNowFor } from '@/server/places/test-now';
import { requireSession } from '@/server/session/session';
import { mayTestNew, TestNowRoom } from '@/ui/places/place-rooms';
import { TestNow } from '@/ui/places/test-now';

export const metadata: Metadata = { title: 'Test now' };
export default async function TestSomething() {
  const session = await requireSession();
  return (
    <TestNowRoom role={session.role}>
      {mayTestNew(session.role) && <TestNow {...await testNowFor(session)} />}
    </TestNowRoom>
  );
}
