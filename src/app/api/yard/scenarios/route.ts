import { answer, bodyOf, signedIn } from '@/server/handle';
import { importScenario } from '@/server/yard/own-scenarios';
import { importScenarioSchema } from '@/wire/yard';

export const POST = signedIn('seal', async (session, request) =>
  answer(await importScenario(session, (await bodyOf(request, importScenarioSchema)).text), 201),
);
