import { answer, bytesOf, signedIn } from '@/server/handle';
import { importOrganisation, MOST_EXPORT_BYTES } from '@/server/people/moving';

export const POST = signedIn('govern', async (session, request) =>
  answer(await importOrganisation(session, await bytesOf(request, MOST_EXPORT_BYTES)), 201),
);
