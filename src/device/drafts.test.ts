import { dropDraft, keepDraft, readDraft, sweepDrafts } from './drafts';
import { forgetIdentity, keepIdentity } from './identity';

let room = true;
const kept: Record<string, string> = {};
const storage = new Proxy(kept, {
  get: (all, key: string) =>
    ({
      getItem: (k: string) => all[k] ?? null,
      setItem: (k: string, v: string) => {
        if (!room) throw new DOMException('full', 'QuotaExceededError');
        all[k] = v;
      },
      removeItem: (k: string) => delete all[k],
    })[key] ?? all[key],
});
Object.assign(globalThis, { localStorage: storage });
const who = (person: string) =>
  keepIdentity({ org: 'o', person, name: person, role: 'tester', organisation: 'O' });
const DAY = 86_400_000;
let time = Date.parse('2026-11-20T08:00:00Z');

beforeEach(() => {
  room = true;
  for (const key of Object.keys(kept)) delete kept[key];
  jest.spyOn(Date, 'now').mockImplementation(() => time);
  who('imre');
});
afterAll(() => jest.restoreAllMocks());

test('what was typed is there again with its time, until it is dropped', () => {
  expect(keepDraft('system/1', { name: 'Kiln' })).toBe(true);
  expect(readDraft('system/1')).toEqual({ value: { name: 'Kiln' }, at: time });
  expect(readDraft('system/2')).toBeNull();
  dropDraft('system/1');
  expect(readDraft('system/1')).toBeNull();
});
test('one person’s typing is never offered to another, nor to nobody', () => {
  keepDraft('note', 'mine');
  who('ngaire');
  expect(readDraft('note')).toBeNull();
  forgetIdentity();
  expect([keepDraft('note', 'x'), readDraft('note')]).toEqual([false, null]);
  who('imre');
  expect(readDraft('note')?.value).toBe('mine');
});
test('no room, or a broken entry: typing goes on and nothing is offered', () => {
  room = false;
  expect(keepDraft('note', 'x')).toBe(false);
  room = true;
  keepDraft('note', 'x');
  for (const key of Object.keys(kept)) if (key.includes('draft')) kept[key] = '{"val';
  expect(readDraft('note')).toBeNull();
});
test('after a month it is swept away, a day before it is not', () => {
  keepDraft('note', 'old');
  time += 29 * DAY;
  sweepDrafts();
  expect(readDraft('note')?.value).toBe('old');
  time += DAY;
  expect(readDraft('note')).toBeNull();
  sweepDrafts();
  expect(Object.keys(kept).filter((k) => k.includes('draft'))).toEqual([]);
  time -= 30 * DAY;
});
