import { elapsedBetween } from '@/core/run/clock';
import { aheadNow, serverNow, setAhead } from './clock';
import { pointNow } from './point';

jest.mock('./identity', () => ({ deviceId: () => 'd', pageLoad: () => 'p' }));
beforeEach(() => {
  jest.useFakeTimers({ now: 1_000_000 });
  setAhead('r', 0);
});
afterEach(() => jest.useRealTimers());

test('time that was passed at once counts in what has gone by, on every clock alike', () => {
  const from = pointNow();
  jest.advanceTimersByTime(2_000);
  setAhead('r', 50_000);
  expect(elapsedBetween(from, pointNow())).toEqual({ ms: 52_000, apart: 0 });
  expect(serverNow()).toBe(1_052_000);
});
test('while it is stopped nothing goes by; let go, it goes on from there', () => {
  const from = pointNow();
  jest.advanceTimersByTime(3_000);
  setAhead('r', 0, serverNow());
  jest.advanceTimersByTime(60_000);
  expect(elapsedBetween(from, pointNow()).ms).toBe(3_000);
  setAhead('r', -60_000);
  jest.advanceTimersByTime(1_000);
  expect(elapsedBetween(from, pointNow()).ms).toBe(4_000);
  expect(aheadNow()).toBe(-60_000);
});
