import 'fake-indexeddb/auto';
import { BEGAN, gauge, plan, uuid } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import type { Payload, PlacedEvent, RunEvent } from '@/core/run/events';
import type { Identity } from '@/wire/role';
import { BenchEngine } from './bench';
import { eventsOfRun, openStore, unsent } from './store';

/** An office of one run, with the same promises as the server: idempotent by id, positions without gaps. */
class Office {
  log: PlacedEvent[] = [];
  mode: 'well' | 'away' | 'answer lost' | 'sealed' | 'signed out' = 'well';
  posts = 0;
  /** What it will not have, and whether it says which of a batch that was. */
  refuses: { text: string; said: 'place' | 'nothing' } | null = null;
  answer = async (url: string, init?: RequestInit): Promise<Response> => {
    const json = (value: unknown, status = 200) =>
      new Response(JSON.stringify(value), { status, headers: { 'x-server-time': String(BEGAN) } });
    if (this.mode === 'away') throw new TypeError('network');
    if (this.mode === 'signed out') return json({ error: { code: 'signed-out', text: 'out' } }, 401);
    if (init?.method === 'POST') {
      this.posts += 1;
      if (this.mode === 'sealed')
        return json({ error: { code: 'sealed', text: 'This run is sealed.' } }, 409);
      const { events } = JSON.parse(init.body as string) as { events: RunEvent[] };
      const { refuses } = this;
      const bad = refuses ? events.findIndex((e) => e.kind === 'note' && e.text.endsWith(refuses.text)) : -1;
      if (bad >= 0)
        return json(
          {
            error: {
              code: 'invalid',
              text: 'bad',
              ...(refuses!.said === 'place' ? { path: `events[${bad}].text` } : {}),
            },
          },
          422,
        );
      for (const e of events)
        if (!this.log.some((x) => x.id === e.id))
          this.log.push({ ...e, position: this.log.length + 1, received: BEGAN });
      if (this.mode === 'answer lost') throw new TypeError('network');
      return json({
        placed: this.log
          .filter((x) => events.some((e) => e.id === x.id))
          .map(({ id, position, received }) => ({ id, position, received })),
        now: BEGAN,
      });
    }
    const after = new URL(url, 'http://x').searchParams.get('after');
    return json({
      plan: plan(),
      events: this.log.filter((e) => e.position! > Number(after ?? 0)),
      sealed: null,
      now: BEGAN,
    });
  };
}

let office: Office;
let engine: BenchEngine;
let person = 0;
let who: Identity;
const run = plan().run;
const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  },
});

beforeEach(async () => {
  office = new Office();
  globalThis.fetch = ((url: string, init?: RequestInit) => office.answer(url, init)) as typeof fetch;
  who = { org: uuid(1, 1), person: uuid(++person, 2), name: 'Imre', role: 'tester', organisation: 'x' };
  engine = await BenchEngine.open(run, who);
});
afterEach(async () => {
  office.mode = 'away';
  await engine.sync(); // nothing of this test is still under way in the next
  engine.close();
});
const note = (text: string): Payload => ({ kind: 'note', text });
const view = () => engine.snapshot()!;

test('an entry is on disk when it is said to be saved, numbered without gaps, also after the page is opened again', async () => {
  office.mode = 'away';
  for (const t of ['a', 'b', 'c']) expect(await engine.append(note(t))).toMatchObject({ accepted: true });
  const store = await openStore(who);
  expect((await eventsOfRun(store, run)).map((e) => e.deviceSeq).sort()).toEqual([1, 2, 3]);
  engine.close();
  engine = await BenchEngine.open(run, who);
  expect(view().here).toBe(3);
  await engine.append(note('d'));
  expect((await unsent(store, run)).map((e) => e.deviceSeq)).toEqual([1, 2, 3, 4]);
});
test('without the office entries wait, and are sent in order when it is back', async () => {
  office.mode = 'away';
  for (const t of ['a', 'b', 'c']) await engine.append(note(t));
  await engine.sync();
  expect([view().waiting, view().contact]).toEqual([3, 'no-signal']);
  office.mode = 'well';
  await engine.sync();
  expect([view().waiting, view().contact]).toEqual([0, 'with-office']);
  expect(office.log.map((e) => (e.kind === 'note' ? e.text : ''))).toEqual(['a', 'b', 'c']);
});
test('an answer that is lost on the way doubles nothing', async () => {
  office.mode = 'answer lost';
  await engine.append(note('a'));
  await engine.sync();
  expect([view().waiting, office.log.length]).toEqual([1, 1]);
  office.mode = 'well';
  await engine.sync();
  expect([view().waiting, office.log.length, view().here]).toEqual([0, 1, 1]);
});
test('a final refusal stays on the device with its reason and is not sent again and again', async () => {
  office.mode = 'sealed';
  await engine.append(note('too late'));
  await engine.sync();
  const posts = office.posts;
  await engine.sync();
  expect(office.posts).toBe(posts);
  expect(view().refused.map((r) => [r.event.kind, r.reason])).toEqual([['note', 'This run is sealed.']]);
});
test('a bad entry is set aside by its place, or by being sent alone, and never takes the good ones along', async () => {
  for (const said of ['place', 'nothing'] as const) {
    office.refuses = { text: 'bad', said };
    office.mode = 'away';
    for (const t of ['a', 'bad', 'c']) await engine.append(note(`${said} ${t}`));
    office.mode = 'well';
    await engine.sync();
    expect(view().waiting).toBe(0);
    expect(view().refused.map((r) => (r.event.kind === 'note' ? r.event.text : ''))).toContain(`${said} bad`);
    expect(office.log.map((e) => (e.kind === 'note' ? e.text : ''))).toEqual(
      expect.arrayContaining([`${said} a`, `${said} c`]),
    );
  }
  expect(view().refused.length).toBe(2);
});
test('a store that breaks is opened anew: what is entered afterwards is kept and sent', async () => {
  office.mode = 'away';
  await engine.append(note('before'));
  await engine.sync();
  (await openStore(who)).close(); // as a browser does under pressure
  expect(await engine.append(note('after'))).toMatchObject({ accepted: true });
  (await openStore(who)).close();
  await engine.sync();
  expect(view().contact).toBe('store-away');
  office.mode = 'well';
  await engine.sync();
  expect([view().contact, view().waiting]).toEqual(['with-office', 0]);
  expect(office.log.map((e) => (e.kind === 'note' ? e.text : ''))).toEqual(['before', 'after']);
});
test('signed out: the queue stays and says so', async () => {
  office.mode = 'signed out';
  await engine.append(note('a'));
  await engine.sync();
  expect([view().contact, view().waiting]).toEqual(['signed-out', 1]);
});
test('what would have no effect is refused with its reason and not kept; an out-of-band pressure was read and is kept', async () => {
  expect(await engine.append({ kind: 'proceed' })).toMatchObject({ accepted: false, code: 'unanswered' });
  expect(view().here).toBe(0);
  const answers: Payload[] = [
    ...(['smell-now', 'smell-reported'] as const).map((item): Payload => ({
      kind: 'check',
      item,
      answer: 'no',
    })),
    { kind: 'check', item: 'prove-1', answer: 'done' },
    { kind: 'check', item: 'voltage', answer: 'no' },
    { kind: 'check', item: 'prove-2', answer: 'done' },
    ...['oven', 'hob'].flatMap((subject) =>
      ['off', 'restart', 'open'].map((item): Payload => ({ kind: 'check', item, subject, answer: 'done' })),
    ),
    { kind: 'check', item: 'pilot', subject: 'oven', answer: 'done' },
    { kind: 'check', item: 'lid', subject: 'hob', answer: 'done' },
    { kind: 'check', item: 'supply', subject: 'supply', answer: 'done' },
    { kind: 'check', item: 'screw', answer: 'done' },
    { kind: 'check', item: 'instrument', answer: 'no' },
    { kind: 'proceed' },
    { kind: 'gauge', gauge: gauge().id },
    { kind: 'zero', figure: q('0.00 mbar'), openToAir: true },
  ];
  for (const a of answers) expect(await engine.append(a)).toMatchObject({ accepted: true });
  const before = view().here;
  expect(
    await engine.append({ kind: 'fill', figure: q('12.00 mbar'), readAt: Date.now(), confirmed: true }),
  ).toMatchObject({ accepted: false, code: 'over-band' });
  expect(view().here).toBe(before + 1);
});
test('what others sent is taken in from the first gap on, and a second page of this device sees what the first entered', async () => {
  const base = {
    run,
    device: uuid(5, 6),
    zone: 'UTC',
    offset: 0,
    mono: 0,
    pageLoad: uuid(5, 7),
    by: uuid(99, 2),
    byName: 'Ngaire',
    expects: '',
  };
  for (let i = 1; i <= 3; i++)
    office.log.push({
      ...base,
      kind: 'note',
      text: `n${i}`,
      id: uuid(i, 44),
      deviceSeq: i,
      at: BEGAN + i,
      position: i,
      received: BEGAN,
    });
  await engine.sync();
  expect(view().state.notes.map((n) => n.text)).toEqual(['n1', 'n2', 'n3']);
  const second = await BenchEngine.open(run, who);
  await second.append(note('from the second page'));
  await second.sync();
  await engine.sync();
  expect(view().state.notes.map((n) => n.text)).toEqual(['n1', 'n2', 'n3', 'from the second page']);
  second.close();
});
test('one person’s entries are never in another’s store', async () => {
  office.mode = 'away';
  await engine.append(note('mine'));
  const other = await openStore({ org: who.org, person: uuid(++person, 2) });
  expect(await unsent(other)).toEqual([]);
});
