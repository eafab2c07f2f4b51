import { localDate } from '@/core/quantity/local-date';
import { signedIn } from '@/server/handle';
import { recallSearch } from '@/server/places/inventory';
import { viewerZone } from '@/server/session/zone';
import { writeCsv } from '@/wire/csv';

export const GET = signedIn('share', async (session, request) => {
  const { searchParams } = new URL(request.url);
  const get = (name: string) => (searchParams.get(name) ?? '').slice(0, 120);
  const found = await recallSearch(session, {
    make: get('make'),
    model: get('model'),
    from: get('from'),
    to: get('to'),
  });
  const zone = await viewerZone();
  const csv = writeCsv([
    ['site', 'customer', 'system', 'part', 'place', 'make', 'model', 'serial', 'seen', 'replaced'],
    ...found.map((f) => [
      f.site,
      f.customer,
      f.systemName,
      f.name,
      f.place,
      f.make,
      f.model,
      f.serial,
      f.seen ? localDate(Date.parse(f.seen.at), zone) : '',
      f.replaced ? 'replaced since' : '',
    ]),
  ]);
  return new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="recall.csv"',
      'cache-control': 'no-store',
    },
  });
});
