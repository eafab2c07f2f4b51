import { answer, bodyOf, signedIn } from '@/server/handle';
import { tryScenario } from '@/server/yard/own-scenarios';
import { importScenarioSchema } from '@/wire/yard';

export const POST = signedIn('seal', async (session, request) =>
  answer({ tried: await tryScenario(session, (await bodyOf(request, importScenarioSchema)).text) }),
);
