import { answer, bodyOf, signedIn } from '@/server/handle';
import { beginJob, stopJob } from '@/server/jobs/jobs';
import { jobActSchema } from '@/wire/jobs';

export const POST = signedIn<{ job: string }>('share', async (session, request, { job }) => {
  const { act } = await bodyOf(request, jobActSchema);
  await (act === 'begin' ? beginJob : stopJob)(session, job);
  return answer({ ok: true });
});
