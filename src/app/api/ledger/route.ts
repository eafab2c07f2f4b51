import { signedIn } from '@/server/handle';
import { searchLedger } from '@/server/records/ledger';
import { LEDGER_PAGE } from '@/wire/ledger';
import { queryFrom } from '@/wire/ledger-schema';

export const GET = signedIn('read', async (session, request) => {
  const { searchParams } = new URL(request.url);
  const query = queryFrom(searchParams);
  const at = searchParams.get('at');
  const id = searchParams.get('id');
  const after =
    at && id && !Number.isNaN(Date.parse(at)) && /^[0-9a-f-]{36}$/.test(id) ? { at, id } : undefined;
  const lines = await searchLedger(session, query, LEDGER_PAGE + 1, after);
  return Response.json({ lines: lines.slice(0, LEDGER_PAGE), more: lines.length > LEDGER_PAGE });
});
