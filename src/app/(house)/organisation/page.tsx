import type { Metadata } from 'next';
import { readPeople } from '@/server/people/people';
import { readAnchors } from '@/server/sealing/anchors';
import { readKeys } from '@/server/sealing/keys';
import { requireSession } from '@/server/session/session';
import { OrganisationRoom } from '@/ui/people/organisation-room';

export const metadata: Metadata = { title: 'Organisation' };
export default async function Organisation() {
  const session = await requireSession();
  const [all, keys, anchors] = await Promise.all([
    readPeople(session),
    readKeys(session),
    readAnchors(session, 1),
  ]);
  return (
    <OrganisationRoom
      {...all}
      keys={keys}
      anchors={anchors}
      owner={session.role === 'owner'}
      exports={session.role === 'owner'}
      self={session.person}
    />
  );
}
