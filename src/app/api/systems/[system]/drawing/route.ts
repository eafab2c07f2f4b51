import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveSchematic } from '@/server/places/places';
import { schematicSchema } from '@/wire/places';

export const PUT = signedIn<{ system: string }>(async (session, request, { system }) =>
  answer(await saveSchematic(session, system, await bodyOf(request, schematicSchema))),
);
