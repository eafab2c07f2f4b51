import { spawnSync } from 'node:child_process';
import { startRinging } from '@/server/alarms/ring';
import { register } from './instrumentation';

jest.mock('@/server/alarms/ring', () => ({ startRinging: jest.fn() }));

const before = { ...process.env };
const exit = jest.spyOn(process, 'exit').mockImplementation((() => undefined) as never);
const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
afterEach(() => {
  process.env = { ...before };
  jest.clearAllMocks();
});
const starts = async (clock: string | undefined, database: string) => {
  process.env.NEXT_RUNTIME = 'nodejs';
  if (clock === undefined) delete process.env.VAST_TEST_CLOCK;
  else process.env.VAST_TEST_CLOCK = clock;
  process.env.DATABASE_URL = `postgres://vast_app:x@127.0.0.1:5432/${database}`;
  await register();
  return exit.mock.calls.length === 0;
};

test.each([
  [undefined, 'vast', true],
  ['1', 'vast', false],
  ['1', 'vast_checked_out', false],
  ['1', 'vast_check_browser_0', true],
  ['1', 'vast_checked_out', false],
  ['demo', 'vast', false],
  ['demo', 'vast_check_browser_0', false],
])('a server with the test clock %s over the database %s starts: %s', async (clock, database, may) => {
  expect(await starts(clock, database)).toBe(may);
  expect(said.mock.calls.length).toBe(may ? 0 : 1);
  // in life the process has ended where it may not
  if (may) expect(startRinging).toHaveBeenCalledTimes(1);
});
test('./start refuses a clock that can be shifted, before it does anything', () => {
  const { status, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], {
    encoding: 'utf8',
    env: { ...before, VAST_TEST_CLOCK: '1' },
    timeout: 20_000,
  });
  expect([status, stderr]).toEqual([1, expect.stringMatching(/VAST_TEST_CLOCK is set: .* for tests alone/)]);
});
