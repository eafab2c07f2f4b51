import { answer, bodyOf, signedIn } from '@/server/handle';
import { askJob, readJobs } from '@/server/jobs/jobs';
import { rateLimit } from '@/server/limits';
import { jobAskedSchema } from '@/wire/jobs';

export const GET = signedIn('share', async (session) => answer({ jobs: await readJobs(session) }));
export const POST = signedIn('share', async (session, request) => {
  const form = await bodyOf(request, jobAskedSchema);
  await rateLimit(`jobs ${session.org}`, 12, 10 * 60_000);
  return answer(await askJob(session, form, process.env.VAST_URL ?? new URL(request.url).origin), 201);
});
