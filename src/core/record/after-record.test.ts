import fc from 'fast-check';
import { hold, plan, play, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { place } from '@/core/run/script';
import type { PlacedEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { canonical } from './canonical';
import { faceOf } from './face';
import { familyFacts } from './family';
import { signMark, verifyMark } from './marks';
import { paperOf, papersOf, PAPERS, type PaperKind } from './papers';
import { changedParts, partsText, readParts } from './parts';
import { gapsOf, provenanceLines, provenanceOf } from './provenance';
import { readingRows } from './readings';
import { makeBody } from './record';
import { publicKeyOf } from './seal';
import { signatureLines } from './signatures';
import { TICKET_COLUMNS, ticketLines, wrap } from './ticket';
import { trendsOf } from './trend';

const sealer = {
  id: uuid(1, 2),
  name: 'Imre',
  role: 'tester',
  licence: { number: 'GT-1', until: '2027-01-01' },
};
const sealed = (lines: Parameters<typeof play>[1], p = plan()) => {
  const log = place(play(p, lines));
  return {
    body: makeBody(p, log, { sealer, signer: sealer }, '2026-11-20T09:00:00.000Z').body,
    log,
    state: reduce(p, log),
    p,
  };
};
const good = sealed([
  ...upTo(['9.10', '9.10']),
  ...hold(200, '20.50', '20.48'),
  [450, 'zero', '0.00'],
  ...SIGNED(500),
]);

test('the canonical form of any value is one text, whatever the order of its keys, and reads back to itself', () => {
  const value = fc.letrec((tie) => ({
    any: fc.oneof(
      { depthSize: 'small' },
      fc.string(),
      fc.maxSafeInteger(),
      fc.boolean(),
      fc.constant(null),
      fc.array(tie('any'), { maxLength: 4 }),
      fc.dictionary(fc.string({ maxLength: 6 }), tie('any'), { maxKeys: 4 }),
    ),
  })).any;
  const turned = (v: unknown): unknown =>
    Array.isArray(v)
      ? v.map(turned)
      : v && typeof v === 'object'
        ? Object.fromEntries(
            Object.entries(v)
              .reverse()
              .map(([k, x]) => [k, turned(x)]),
          )
        : v;
  fc.assert(
    fc.property(value, (v) => {
      const text = canonical(v);
      expect(canonical(turned(v))).toBe(text);
      expect(canonical(JSON.parse(text))).toBe(text);
    }),
  );
});
test('any one changed leaf of a record is named by the part it stands in, and by no other', () => {
  const parts = readParts(partsText(good.body));
  const paths = parts.map(([path]) => path);
  expect(new Set(paths).size).toBe(paths.length);
  fc.assert(
    fc.property(fc.constantFrom(...paths), (path) => {
      const body = JSON.parse(good.body) as Record<string, unknown>;
      const steps = path.startsWith('events.') ? [] : path.split('.');
      if (path.startsWith('events.')) {
        const e = (body.events as { id: string; byName: string }[]).find((x) => x.id === path.slice(7))!;
        e.byName += '!';
      } else {
        let at = body;
        for (const s of steps.slice(0, -1)) at = at[s] as Record<string, unknown>;
        at[steps.at(-1)!] = { other: true };
      }
      expect(changedParts(canonical(body), parts).map((c) => c.path)).toEqual([path]);
    }),
    { numRuns: 60 },
  );
});
test('a mark belongs to its record and to a published key', () => {
  const secret = '44'.repeat(32);
  const record = { number: 'VS-1', hash: 'a'.repeat(64) };
  const mark = signMark(
    { format: 1, kind: 'void', ...record, reason: 'x', person: 'y', at: '2026-01-01T00:00:00Z' },
    secret,
  );
  const keys = [{ key: publicKeyOf(secret), retired: null }];
  expect(verifyMark(mark, record, keys)).toEqual([]);
  expect(verifyMark(mark, { ...record, number: 'VS-2' }, keys).join()).toMatch(/another record/);
  expect(verifyMark(mark, record, []).join()).toMatch(/not one of the organisation/);
});
test('how readings came: typed, corrected, late, streamed, and where a hold was not read for more than a minute', () => {
  const { p, state, log } = good;
  const said = provenanceOf(state);
  expect(said.typed).toBeGreaterThan(4);
  expect([said.taken, said.streamed, said.imported]).toEqual([0, 0, 0]);
  const gaps = gapsOf(state);
  expect(gaps.length).toBeGreaterThan(0);
  for (const g of gaps) expect(g.to - g.from).toBeGreaterThan(60_000);
  expect(provenanceLines(p, state).join('\n')).toMatch(/typed by hand.*not read from/s);
  const rows = readingRows(p, state, log);
  expect(rows.map((r) => r.read)).toEqual([...rows.map((r) => r.read)].sort((a, b) => a - b));
  expect(rows).toHaveLength(said.typed);
});
test('a reading counts as taken from the display only where the gauge’s own values of that moment bear it out', () => {
  const { p, log, state } = good;
  const claims = log.map((e) => (e.kind === 'hold-end' ? { ...e, streamed: true } : e));
  const ends = claims.filter((e) => e.kind === 'hold-end');
  const told = (extra: (end: (typeof ends)[number]) => readonly [number, number][]) => {
    const events = claims.flatMap((e, i): PlacedEvent[] => {
      const points = e.kind === 'hold-end' ? extra(e) : [];
      if (!points.length) return [e];
      const { figure: _f, readAt: _r, ...rest } = e as (typeof ends)[number];
      const stream = { ...rest, id: uuid(i, 77), kind: 'stream', gauge: state.gauge, simulated: false };
      return [{ ...stream, unit: 'mbar', scale: 2, points } as unknown as PlacedEvent, e];
    });
    const read = place(events);
    const after = reduce(p, read);
    expect(after.withoutEffect).toEqual([]);
    return [
      provenanceOf(after).taken,
      readingRows(p, after, read).filter((r) => r.source === 'display').length,
    ];
  };
  expect(ends.length).toBe(3);
  expect(told(() => [])).toEqual([0, 0]);
  expect(told((e) => [[e.readAt - 5_000, e.figure.digits]])).toEqual([3, 3]);
  expect(told((e) => [[e.readAt - 5_001, e.figure.digits]])).toEqual([0, 0]);
  expect(told((e) => [[e.readAt, e.figure.digits + 1]])).toEqual([0, 0]);
});
test('papers: a good record calls for no notice; a failed one for notice and label; a practice record for none', () => {
  const face = faceOf(good.body);
  const kinds = (f: typeof face) => papersOf(f).map((o) => o.kind);
  expect(kinds(face)).toEqual(['note', 'inspector', 'utility', 'buyer', 'ticket']);
  expect(() => paperOf(face, 'label')).toThrow(/does not call for/);
  const failed = faceOf(
    sealed([
      ...upTo(['9.10', '9.10']),
      [300, 'stop'],
      [305, 'reason', 'smell', 'in the hall'],
      [306, 'unsafe', 'immediate-danger', 'disconnected', 'Smell in the hall', 'The tenant'],
      ...SIGNED(500),
    ]).body,
  );
  expect(kinds(failed)).toEqual(expect.arrayContaining(['fail', 'label']));
  for (const kind of kinds(failed)) {
    const paper = paperOf(failed, kind, { contact: '0100', history: ['before'] });
    const text = paper.blocks.flatMap((b) => b.lines).join(' ');
    if (kind === 'note' || kind === 'buyer') expect(text).toMatch(/anything upstream|not/i);
    expect(text).not.toMatch(/undefined|null|NaN/);
  }
  expect(papersOf({ ...face, body: { ...face.body, status: 'practice' } })).toEqual([]);
  expect(Object.keys(PAPERS) as PaperKind[]).toContain('loss');
});
test('the ticket is never wider than the strip, and says first what it is not', () => {
  const face = faceOf(good.body);
  const lines = ticketLines(
    face,
    { number: 'VS-00001', hash: 'a'.repeat(64) },
    'https://vast.example/verify/x',
  );
  expect(Math.max(...lines.map((l) => l.length))).toBeLessThanOrEqual(TICKET_COLUMNS);
  expect(lines.join('\n')).toMatch(/NOT covered/);
  const owner = ticketLines(
    { ...face, body: { ...face.body, status: 'not-a-certificate' } },
    { number: 'VS-1', hash: 'a'.repeat(64) },
    null,
  );
  expect(owner[0]).toBe('NOT A CERTIFICATE');
  fc.assert(
    fc.property(fc.string({ maxLength: 300 }), fc.integer({ min: 1, max: 42 }), (text, columns) => {
      const broken = wrap(text, columns);
      expect(broken.every((l) => l.length <= columns)).toBe(true);
      expect(broken.join('').replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
    }),
  );
});
test('own and witnessed tests are told apart; the face names facts of its trade', () => {
  const face = faceOf(good.body);
  expect(signatureLines(face)[0]!.role).toBe('Tester (own test, no witness)');
  expect(familyFacts(face).map((f) => f.name)).toEqual(
    expect.arrayContaining(['Gas', 'Working pressure', 'Volume', 'Pipes']),
  );
});
test('a trend needs two records and says no more than what was measured', () => {
  const at = (year: number, value: number) => ({
    at: Date.UTC(year, 5),
    number: `VS-${year}`,
    run: '',
    figures: [{ key: 'leak' as const, value, unit: 'l/h' as const }],
  });
  expect(trendsOf([at(2024, 1)])).toEqual([]);
  const [trend] = trendsOf([at(2026, 2.5), at(2024, 1)]);
  expect(trend!.points.map((p) => p.value)).toEqual([1, 2.5]);
  expect(trend!.words).toBe('up by 1.5 l/h over 2.0 years (2 records)');
  expect(trendsOf([at(2024, 0), at(2025, 3.1), at(2026, 0)])[0]!.words).toBe(
    'ends where it began over 2.0 years (3 records); between 0 and 3.1 l/h',
  );
});
