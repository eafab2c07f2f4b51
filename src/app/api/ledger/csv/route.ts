import { signedIn } from '@/server/handle';
import { rateLimit } from '@/server/limits';
import { ledgerChoices, type LedgerLine, searchLedger } from '@/server/records/ledger';
import { USUAL_COLUMNS } from '@/wire/ledger';
import { columnsFrom, ledgerCsv, moreCsv } from '@/wire/ledger-csv';
import { queryFrom } from '@/wire/ledger-schema';

/** So many lines are in memory at a time, however many match. */
const AT_ONCE = 2_000;
/** Everything that matches as one file, not just the page that is shown; written as it is read. */
export const GET = signedIn('share', async (session, request) => {
  await rateLimit(`csv ${session.person}`, 30, 60_000);
  const { searchParams } = new URL(request.url);
  const query = queryFrom(searchParams);
  const columns = columnsFrom(searchParams.get('columns'), USUAL_COLUMNS);
  const gauges = new Map((await ledgerChoices(session)).gauges.map((g) => [g.id, g.title]));
  const page = (after?: LedgerLine) =>
    searchLedger(session, query, AT_ONCE, after && { at: after.sealedAt, id: after.run }, true);
  // the first page is read before anything is sent: what is wrong is still said in its own words
  let lines = await page();
  let first = true;
  const utf8 = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      controller.enqueue(utf8.encode((first ? ledgerCsv : moreCsv)(lines, columns, gauges)));
      first = false;
      if (lines.length < AT_ONCE) return controller.close();
      lines = await page(lines[lines.length - 1]);
      if (!lines.length) controller.close();
    },
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="ledger.csv"',
      'cache-control': 'no-store',
    },
  });
});
