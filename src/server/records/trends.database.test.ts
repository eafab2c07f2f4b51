// @further the certificates of a whole house as one file
/** What a house's records say together, and how many of them are taken away at once. */
import { closePool } from '@/database/client';
import { askJob, jobFile } from '@/server/jobs/jobs';
import { worked } from '@/server/moving/testing';
import type { Session } from '@/server/session/session';
import { FILE_COLUMNS, type FileColumn } from '@/wire/ledger';
import { cellOf } from '@/wire/ledger-cells';
import { ledgerCsv } from '@/wire/ledger-csv';
import { standingDemo } from '../../../scripts/demo';
import { membersOf, signedIn } from '../../../scripts/members';
import { searchLedger } from './ledger';
import { readTrends } from './trends';

let mill: { org: string };
let tester: Session;
let stranger: Session;
beforeAll(async () => {
  stranger = (await membersOf(['owner'])).get('owner')!;
  mill = await standingDemo();
  tester = await signedIn('imre', 'hollin-tarrow.example');
}, 400_000);
afterAll(closePool);

test('a file has what the test was by: customer, times, pressure, limits, serials; lists do without', async () => {
  const [line] = await searchLedger(
    mill,
    { find: 'bakery', word: 'tight', source: 'own' },
    1,
    undefined,
    true,
  );
  const cells = Object.fromEntries(
    (Object.keys(FILE_COLUMNS) as FileColumn[]).map((c) => [c, cellOf(line!, c, new Map())]),
  );
  expect(cells.customer).toMatch(/Quispe/);
  expect(cells.address).toMatch(/Fulling Yard/);
  expect(cells.begun).toMatch(/^20\d\d-\d\d-\d\d \d\d:\d\d$/);
  expect(Date.parse(`${cells.begun}Z`)).toBeLessThan(Date.parse(`${cells.ended}Z`));
  expect(cells.pressure).toMatch(/^\d+\.\d+ mbar$/);
  expect(cells.limits).toMatch(/let-by rise: .*permitted drop: /);
  expect(cells.leak).toMatch(/ l\/h$/);
  expect(cells.serials).toMatch(/MQ-4471/);
  expect(ledgerCsv([line!], ['number', 'pressure'], new Map())).toBe(
    `Number,Test pressure\r\n${line!.number},${cells.pressure}\r\n`,
  );
  expect((await searchLedger(mill, {}, 1))[0]).not.toHaveProperty('facts');
});
test('trends count every own record once, and say what was repeated, what steps took, what gauges showed', async () => {
  const t = await readTrends(mill);
  const sum = (counts: readonly { n: number }[]) => counts.reduce((n, c) => n + c.n, 0);
  const own = (await searchLedger(mill, { source: 'own', from: t.from }, 2000)).filter(
    (l) => l.status !== 'practice' && l.voided === null,
  );
  expect(t.records).toBe(own.length);
  expect(t.months.reduce((n, m) => n + sum(m.counts), 0)).toBe(own.length);
  expect(t.procedures.reduce((n, p) => n + sum(p.counts), 0)).toBe(own.length);
  for (const p of t.procedures) {
    const mine = own.filter((l) => l.procedure === p.id);
    for (const c of p.counts)
      expect([p.id, c.word, c.n]).toEqual([p.id, c.word, mine.filter((l) => l.word === c.word).length]);
    const again = mine.filter((a) =>
      mine.some((b) => {
        const days = (Date.parse(b.sealedAt) - Date.parse(a.sealedAt)) / 86_400_000;
        return a.system !== null && a.system === b.system && days > 0 && days < t.againDays;
      }),
    );
    expect([p.id, p.again]).toEqual([p.id, again.length]);
  }
  expect(t.steps!.procedure).toBe(t.procedures[0]!.id);
  expect(t.steps!.steps.length).toBeGreaterThan(3);
  for (const s of t.steps!.steps)
    expect([s.title, s.low <= s.middle && s.middle <= s.high]).toEqual([s.title, true]);
  expect(t.zeros.length).toBeGreaterThan(0);
  for (const z of t.zeros) expect(z.points).toEqual(z.points.toSorted((a, b) => a.at - b.at));
  expect(await readTrends(stranger)).toMatchObject({
    records: 0,
    procedures: [],
    steps: null,
    zeros: [],
  });
});
test('certificates of all that match come as one file, each a PDF', async () => {
  const { id } = await askJob(
    tester,
    { kind: 'papers', links: false, query: 'find=bakery' },
    'https://x.test',
  );
  const { result, bytes } = await worked(tester, id);
  const own = await searchLedger(mill, { find: 'bakery', source: 'own' }, 100);
  expect(result).toMatchObject({ file: 'certificates.zip', records: own.length });
  const pieces: Buffer[] = [];
  for await (const p of (await jobFile(tester, id)).pieces) pieces.push(p);
  const file = Buffer.concat(pieces);
  expect(file).toHaveLength(bytes);
  for (const { number } of own) expect(file.includes(`${number}.pdf`)).toBe(true);
  expect(file.toString('latin1').split('%PDF-').length - 1).toBe(own.length);
}, 240_000);
