import { answer, bodyOf, signedIn } from '@/server/handle';
import { setTask } from '@/server/yard/training';
import { setTaskSchema } from '@/wire/yard';

export const POST = signedIn('seal', async (session, request) =>
  answer(await setTask(session, await bodyOf(request, setTaskSchema)), 201),
);
