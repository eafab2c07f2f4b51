import { writeLog } from '@/server/cabinet/cabinet';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { logSchema } from '@/wire/cabinet';

export const POST = signedIn<{ item: string }>('note', async (session, request, { item }) =>
  answer(await writeLog(session, item, await bodyOf(request, logSchema)), 201),
);
