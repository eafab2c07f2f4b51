import { health } from '@/server/health';

export const dynamic = 'force-dynamic';
/** Whether this server and its database can work: asked by whoever keeps them up, and by what stands before several servers. */
export async function GET(): Promise<Response> {
  const found = await health();
  return Response.json(found, {
    status: found.state === 'well' ? 200 : 503,
    headers: { 'cache-control': 'no-store' },
  });
}
