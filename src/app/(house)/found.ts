import { notFound } from 'next/navigation';
import { TroubleError } from '@/server/trouble';

/**
 * What a page is about, or the page that says that there is no such thing: for whoever may not see it there is none. Other errors are
 * faults and pass through.
 */
export const found = <T>(work: Promise<T>): Promise<T> =>
  work.catch((error: unknown) => {
    if (error instanceof TroubleError && (error.status === 404 || error.status === 403)) notFound();
    throw error;
  });
