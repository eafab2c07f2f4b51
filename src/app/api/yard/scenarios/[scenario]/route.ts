import { signedIn } from '@/server/handle';
import { scenarioNamed } from '@/server/yard/scenarios';

/** A scenario as a file, with all it hides: for whoever trains. */
export const GET = signedIn<{ scenario: string }>('seal', async (session, _request, { scenario }) =>
  Response.json(await scenarioNamed(session, scenario), {
    headers: {
      'content-disposition': `attachment; filename="${scenario.replace(/[^a-z0-9-]/g, '')}.json"`,
      'cache-control': 'no-store',
    },
  }),
);
