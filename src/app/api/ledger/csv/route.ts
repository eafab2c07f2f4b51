import { signedIn } from '@/server/handle';
import { ledgerChoices, searchLedger } from '@/server/records/ledger';
import { queryFrom, USUAL_COLUMNS } from '@/wire/ledger';
import { columnsFrom, ledgerCsv } from '@/wire/ledger-csv';

/** Everything that matches as one file, not just the page that is shown. */
const MOST = 200_000;
export const GET = signedIn(async (session, request) => {
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
