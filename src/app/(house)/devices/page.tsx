import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { listMembers } from '@/server/people/people';
import { passkeysOf } from '@/server/session/passkeys';
import { requireSession, sessionsOf } from '@/server/session/session';
import { DevicesView } from '@/ui/people/devices-view';

export const metadata: Metadata = { title: 'Devices' };
/** Where somebody is signed in, and their passkeys; the owner looks at anybody's. */
export default async function Devices({ searchParams }: { searchParams: Promise<{ person?: string }> }) {
  const session = await requireSession();
  await cookies();
  const { person: asked } = await searchParams;
  const person = session.role === 'owner' && asked ? asked : session.person;
  const [open, keys, members] = await Promise.all([
    sessionsOf(session, person),
    passkeysOf(session, person),
    listMembers(session),
  ]);
  return (
    <DevicesView
      sessions={open}
      passkeys={keys}
      here={session.session}
      name={person === session.person ? null : (members.find((m) => m.id === person)?.name ?? 'Nobody')}
    />
  );
}
