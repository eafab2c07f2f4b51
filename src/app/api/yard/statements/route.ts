import { answer, bodyOf, signedIn } from '@/server/handle';
import { makeStatement } from '@/server/yard/statements';
import { statementSchema } from '@/wire/yard';

export const POST = signedIn('run', async (session, request) =>
  answer(await makeStatement(session, await bodyOf(request, statementSchema)), 201),
);
