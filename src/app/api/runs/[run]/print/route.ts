import { answer, signedIn } from '@/server/handle';
import { printTicket } from '@/server/records/handing-over';

export const POST = signedIn<{ run: string }>('share', async (session, request, { run }) =>
  answer(await printTicket(session, run, process.env.VAST_URL ?? new URL(request.url).origin), 201),
);
