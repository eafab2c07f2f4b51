import { signedIn } from '@/server/handle';
import { followUpCalendar } from '@/server/records/follow-up-calendar';

export const GET = signedIn('read', async (session, request) => {
  const mine = new URL(request.url).searchParams.get('mine') === '1';
  return new Response(await followUpCalendar(session, mine), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="due${mine ? '-mine' : ''}.ics"`,
      'cache-control': 'no-store',
    },
  });
});
