import { signedIn } from '@/server/handle';
import { rateLimit } from '@/server/limits';
import { ledgerChoices, searchLedger } from '@/server/records/ledger';
import { USUAL_COLUMNS } from '@/wire/ledger';
import { queryFrom } from '@/wire/ledger-schema';
import { columnsFrom, ledgerCsv } from '@/wire/ledger-csv';

/** Everything that matches as one file, not just the page that is shown. */
const MOST = 200_000;
export const GET = signedIn('share', async (session, request) => {
  await rateLimit(`csv ${session.person}`, 30, 60_000);
  const { searchParams } = new URL(request.url);
  const [lines, { gauges }] = await Promise.all([
    searchLedger(session, queryFrom(searchParams), MOST),
    ledgerChoices(session),
  ]);
  const columns = columnsFrom(searchParams.get('columns'), USUAL_COLUMNS);
  return new Response(ledgerCsv(lines, columns, new Map(gauges.map((g) => [g.id, g.title]))), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="ledger.csv"',
      'cache-control': 'no-store',
    },
  });
});
