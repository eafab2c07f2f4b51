/** Runs once when the server starts: what must not be, is refused before the first request. */
export function register(): void {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.VAST_TEST_CLOCK) return;
  // a clock that can be shifted belongs to a database that only tests use, and to no other
  const database = new URL(process.env.DATABASE_URL ?? 'postgres://none').pathname.slice(1);
  if (process.env.VAST_TEST_CLOCK === '1' && database.startsWith('vast_check_')) return;
  console.error(
    `VAST_TEST_CLOCK is set, but ${database || 'this database'} is not one of the tests (vast_check...): the server does not start. Unset VAST_TEST_CLOCK.`,
  );
  process.exit(1);
}
