import { AskWorker, READY, type Asked } from './ask-worker';

/** A worker in the hand of the test. */
class Hand {
  onmessage: ((e: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  readonly got: Asked<string>[] = [];
  ended = false;
  postMessage(m: Asked<string>) {
    this.got.push(m);
  }
  terminate() {
    this.ended = true;
  }
  say(data: unknown) {
    this.onmessage!({ data });
  }
}
const asker = (hand: Hand, here = (q: string) => `here ${q}`) =>
  new AskWorker<string, string>(() => hand as unknown as Worker, here);

test('nothing is sent before the worker stands; then only the newest question is answered', () => {
  const hand = new Hand();
  const a = asker(hand);
  const got: string[] = [];
  a.ask('1', (x) => got.push(x));
  a.ask('2', (x) => got.push(x));
  expect(hand.got).toEqual([]);
  hand.say(READY);
  expect(hand.got.map((m) => m.question)).toEqual(['2']);
  a.ask('3', (x) => got.push(x));
  hand.say({ id: hand.got[0]!.id, answer: 'two' }); // overtaken
  hand.say({ id: hand.got[1]!.id, answer: 'three' });
  hand.say({ id: hand.got[1]!.id, answer: 'three again' });
  expect(got).toEqual(['three']);
});
test('a worker that fails, at its start or later, leaves no question open: the page answers this one and every one after', async () => {
  const hand = new Hand();
  const a = asker(hand);
  const got: string[] = [];
  a.ask('1', (x) => got.push(x));
  hand.onerror!();
  await Promise.resolve();
  a.ask('2', (x) => got.push(x));
  await Promise.resolve();
  expect([got, hand.ended, hand.got]).toEqual([['here 1', 'here 2'], true, []]);
  const none = new AskWorker<string, string>(
    () => {
      throw new Error('no workers');
    },
    (q) => `here ${q}`,
  );
  none.ask('3', (x) => got.push(x));
  await Promise.resolve();
  expect(got.at(-1)).toBe('here 3');
});
