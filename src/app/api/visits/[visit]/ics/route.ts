import { signedIn } from '@/server/handle';
import { visitCalendar } from '@/server/visits/calendar';

/** The visit as a calendar file: one entry for the whole, one with an alarm for each hold. */
export const GET = signedIn<{ visit: string }>('read', async (session, _request, { visit }) => {
  const { name, text } = await visitCalendar(session, visit);
  return new Response(text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
