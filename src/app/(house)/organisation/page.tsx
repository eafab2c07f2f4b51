import type { Metadata } from 'next';
import { readPeople } from '@/server/people/people';
import { readKeys } from '@/server/sealing/keys';
import { requireSession } from '@/server/session/session';
import { OrganisationView } from '@/ui/people/organisation-view';

export const metadata: Metadata = { title: 'Organisation' };
export default async function Organisation() {
  const session = await requireSession();
  const [all, keys] = await Promise.all([readPeople(session), readKeys(session)]);
  return (
    <OrganisationView
      {...all}
      keys={keys}
      owner={session.role === 'owner'}
      exports={session.role === 'owner'}
      self={session.person}
    />
  );
}
