import type { Instrumentation } from 'next';

/** Runs once when the server starts: what must not be, is refused before the first request; then its timers begin. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  if (process.env.VAST_TEST_CLOCK) {
    // a clock that can be shifted belongs to a database that only tests use, and to no other
    const database = new URL(process.env.DATABASE_URL ?? 'postgres://none').pathname.slice(1);
    if (process.env.VAST_TEST_CLOCK !== '1' || !database.startsWith('vast_check_')) {
      console.error(
        `VAST_TEST_CLOCK is set, but ${database || 'this database'} is not one of the tests (vast_check...): the server does not start. Unset VAST_TEST_CLOCK.`,
      );
      process.exit(1);
    }
  }
  const { startRinging } = await import('@/server/alarms/ring');
  startRinging();
  const { startWorking } = await import('@/server/jobs/runner');
  startWorking();
  const { answerDirectly } = await import('@/server/direct');
  answerDirectly('/api/gauge/readings', (await import('@/server/gauge/door')).postReadings);
}

/** A page that could not be made stands in the log under the number that its reader is shown. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { log } = await import('@/server/log');
  const { digest } = error as { digest?: string };
  log.error({ err: error, number: digest, method: request.method, path: context.routePath }, 'page');
};
