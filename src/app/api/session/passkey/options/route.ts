import { answer, open } from '@/server/handle';
import { beginSignIn } from '@/server/session/passkeys';

export const POST = open(async (request) => answer(await beginSignIn(request)));
