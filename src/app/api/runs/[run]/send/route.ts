import { answer, bodyOf, signedIn } from '@/server/handle';
import { sendPapers } from '@/server/records/handing-over';
import { sendPapersSchema } from '@/wire/records';

export const POST = signedIn<{ run: string }>('share', async (session, request, { run }) =>
  answer(await sendPapers(session, run, await bodyOf(request, sendPapersSchema)), 201),
);
