import 'server-only';
import { cookies } from 'next/headers';
import { localDate } from '@/core/quantity/local-date';
import { now } from '@/server/now';

/** The time zone that the browser said it stands in; days and times on a page are read by it. UTC until it has said so. */
export async function viewerZone(): Promise<string> {
  try {
    // outside a request (a script, a test) nobody has said where they stand
    const said = (await cookies()).get('vast_zone')?.value ?? '';
    return new Intl.DateTimeFormat('en-GB', { timeZone: decodeURIComponent(said) }).resolvedOptions()
      .timeZone;
  } catch {
    return 'UTC';
  }
}
/** The day it is where the viewer stands, YYYY-MM-DD. */
export const viewerDay = async (ms = now()): Promise<string> => localDate(ms, await viewerZone());
