import { answer, signedIn } from '@/server/handle';
import { importOrganisation } from '@/server/people/moving';

export const POST = signedIn(async (session, request) =>
  answer(await importOrganisation(session, new Uint8Array(await request.arrayBuffer())), 201),
);
