import { signedIn } from '@/server/handle';
import { resultsCsv } from '@/server/yard/training';

export const GET = signedIn(
  'seal',
  async (session) =>
    new Response(await resultsCsv(session), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="practice.csv"',
        'cache-control': 'no-store',
      },
    }),
);
