/**
 * Sealing, checking, searching and reading in, each beside a plain baseline of the same work. The ledger is measured on a
 * database of its own with 100 000 lines; PDFs are measured at a running server (they need its build).
 */
import { randomBytes } from 'node:crypto';
import { sql } from 'drizzle-orm';
import Papa from 'papaparse';
import pg from 'pg';
import type { Report } from './run';
import { startCluster } from '../scripts/cluster.mjs';
import { migrateDatabase } from '../scripts/migrate';
import { hold, plan as bakeryPlan, play, SIGNED, upTo } from '@/core/testing/bakery';
import { place } from '@/core/run/script';
import { makeBody } from '@/core/record/record';
import { CHAIN_START, seal, verifySeal } from '@/core/record/seal';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { writeBundle, readBundle } from '@/wire/bundle';
import { writeRecordFile } from '@/wire/record-file';
import { answerLog } from '@/worker/gauge-log';

const median = (work: () => unknown, times = 9): number => {
  const ms: number[] = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    work();
    ms.push(performance.now() - began);
  }
  return ms.sort((a, b) => a - b)[Math.floor(times / 2)]!;
};
const LINES = 100_000;

/** Core: sealing and checking, beside one hash and one signature of the same text. */
export function sealing(report: Report): void {
  const p = bakeryPlan();
  const log = place(
    play(p, [
      ...upTo(['9.10', '9.10']),
      ...hold(200, '20.50', '20.48'),
      [450, 'zero', '0.00'],
      ...SIGNED(500),
    ]),
  );
  const sealer = { id: log[0]!.by, name: 'Imre', role: 'tester', licence: null };
  const who = { sealer, signer: sealer };
  const { body } = makeBody(p, log, who, '2026-11-20T09:00:00.000Z');
  const secret = '11'.repeat(32);
  report(
    'seal a record, body made anew',
    median(() => seal(makeBody(p, log, who, '2026-11-20T09:00:00.000Z').body, 'VS-1', CHAIN_START, secret)),
    'ms',
  );
  const record = { body, seal: seal(body, 'VS-1', CHAIN_START, secret) };
  report(
    'check a record',
    median(() => verifySeal(record)),
    'ms',
  );
  report(
    '  beside: hash and canonical form alone',
    median(() => sha256Hex(canonical(JSON.parse(body)))),
    'ms',
  );
  const photo = { name: `photos/${'0'.repeat(64)}.jpg`, bytes: new Uint8Array(randomBytes(1_000_000)) };
  const file = { name: 'record.json', bytes: new TextEncoder().encode(writeRecordFile(record)) };
  const bundle = writeBundle(record.seal, [file, photo], secret);
  report(
    'check a bundle with a photo of 1 MB',
    median(() => readBundle(bundle), 5),
    'ms',
  );
}

/** A day at one reading a second, decimal comma, day first; beside the bare split into cells. */
export function dayOfLog(report: Report): void {
  const rows = ['time;druck mbar;temp'];
  for (let i = 0; i < 86_400; i++) {
    const d = new Date(Date.UTC(2026, 10, 24) + i * 1000).toISOString();
    const [y, m, day] = [d.slice(0, 4), d.slice(5, 7), d.slice(8, 10)];
    rows.push(
      `${day}.${m}.${y} ${d.slice(11, 19)};${(20 + Math.sin(i / 900)).toFixed(2).replace('.', ',')};18,${i % 10}`,
    );
  }
  const text = rows.join('\n');
  let k = 0;
  report(
    'read in 86 400 rows of a gauge log',
    median(
      () =>
        answerLog({
          text: text + ' '.repeat(k++),
          mapping: null,
          zone: 'Europe/London',
          unit: 'mbar',
        }),
      5,
    ),
    'ms',
  );
  report(
    '  beside: the bare split into cells',
    median(() => Papa.parse(text, { delimiter: ';' }), 5),
    'ms',
  );
}

/** The ledger with 100 000 lines, asked as the application's role; beside raw SQL as a superuser with the right index. */
export async function ledgerSearch(report: Report): Promise<void> {
  const cluster = await startCluster('bench', 54900, () => {});
  try {
    const d = await cluster.database('vast_bench', true);
    await migrateDatabase(d.owner);
    process.env.DATABASE_URL = d.app;
    process.env.VAST_SECRET = randomBytes(32).toString('hex');
    const { inOrganisation, closePool } = await import('@/database/client');
    const { makeOrganisation } = await import('@/server/people/organisation');
    const { searchLedger } = await import('@/server/records/ledger');
    const { org } = await makeOrganisation('Bench House', '', [
      {
        name: 'Bench',
        email: 'bench@bench.example',
        role: 'owner',
        password: randomBytes(12).toString('hex'),
      },
    ]);
    const mark = org.slice(-6);
    await inOrganisation({ org }, (tx) =>
      tx.execute(sql`
        insert into ledger (org, id, source, number, word, status, at, site, system, procedure, tester, gauges, words, glyph, summary, figures)
        select ${org}::uuid, gen_random_uuid(), 'own', 'VS-' || lpad(i::text, 6, '0'),
          (array['tight', 'within-allowance', 'not-tight', 'void', 'inconclusive', 'refer'])[1 + (i * 7919) % 6], 'certificate',
          timestamptz '2010-01-01' + i * interval '80 minutes', 's' || i % 4000, null, 'p' || i % 20, 'Tester ' || i % 30, array['g' || i % 50],
          array_to_tsvector(array[${mark} || 'vs' || i, ${mark} || i::text, ${mark} || 'place' || i % 4000, ${mark} || 'tester', ${mark} || 'gas',
            ${mark} || 'sh' || (i * 104729) % 1000003, ${mark} || 'street' || i % 700]),
          '[]', jsonb_build_object('site', 'Place ' || i % 4000, 'system', 'Gas', 'procedure', 'Test', 'by', 'Tester', 'label', 'Tight'), '[]'
        from generate_series(1::bigint, ${LINES}::bigint) i`),
    );
    const superuser = new pg.Pool({ connectionString: d.superuser, max: 1 });
    superuser.on('error', () => undefined); // the cluster may end before it
    await superuser.query('analyze ledger');
    const timed = async (work: () => Promise<{ length: number }>, least: number): Promise<number> => {
      const ms: number[] = [];
      for (let i = 0; i < 11; i++) {
        const began = performance.now();
        const found = await work();
        ms.push(performance.now() - began);
        if (found.length < least) throw new Error(`The search found ${found.length}, not ${least}.`);
      }
      return ms.sort((a, b) => a - b)[5]!;
    };
    const raw = (text: string, values: unknown[]) => async () =>
      (await superuser.query<object>(text, values)).rows;
    for (const [name, query, least] of [
      ['newest 60 of 100 000 records', {}, 60],
      ['a word that all have', { find: 'gas' }, 60],
      ['a rare serial from its beginning', { find: 'sh104729' }, 1],
      ['a place and a word', { find: 'place 17 gas' }, 0],
      ['one number', { find: 'vs-4711' }, 1],
      [
        'not tight, by one tester, since 2020',
        { word: 'not-tight', tester: 'Tester 10', from: '2020-01-01' },
        1,
      ],
    ] as const)
      report(`ledger: ${name}`, await timed(() => searchLedger({ org }, query, 60), least), 'ms');
    report(
      '  beside: raw SQL, one word through its index',
      await timed(
        raw(`select * from ledger where org = $1 and words @@ $2::tsquery order by at desc limit 60`, [
          org,
          `'${mark}sh104729':*`,
        ]),
        1,
      ),
      'ms',
    );
    report(
      '  beside: raw SQL, newest 60',
      await timed(
        raw('select * from ledger where org = $1 order by at desc nulls last, id desc nulls last limit 60', [
          org,
        ]),
        60,
      ),
      'ms',
    );
    await superuser.end();
    await closePool();
  } finally {
    await cluster.stop();
  }
}

interface BarePdf {
  on(event: 'data' | 'end', hear: () => void): void;
  addPage(): void;
  fontSize(size: number): { text(text: string, x: number, y: number): void };
  end(): void;
}
/** PDFs as the server makes them, a page; beside a bare PDF with the same text. */
export async function papers(report: Report, url: string): Promise<void> {
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ email: 'imre@hollin-tarrow.example', password: 'millrace-imre' }),
  });
  const cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? '';
  const get = async (path: string) =>
    Buffer.from(await (await fetch(url + path, { headers: { cookie } })).arrayBuffer());
  const { lines } = JSON.parse((await get('/api/ledger?status=certificate')).toString()) as {
    lines: { run: string }[];
  };
  const ms: number[] = [];
  let text = '';
  let bare = 0;
  const { readPdf } = await import('../e2e/read-pdf');
  for (const { run } of lines.slice(0, 6)) {
    const began = performance.now();
    const bytes = await get(`/api/runs/${run}/pdf`);
    const took = performance.now() - began;
    const { pages } = await readPdf(bytes);
    ms.push(took / pages.length);
    text = pages.join('\n');
    bare = pages.length;
  }
  report('certificate as PDF, a page', ms.sort((a, b) => a - b)[Math.floor(ms.length / 2)]!, 'ms');
  const { default: PDFDocument } = (await import('pdfkit')) as {
    default: new (o: object) => BarePdf;
  };
  const began = performance.now();
  await new Promise<void>((resolve) => {
    const doc = new PDFDocument({ size: 'A4' });
    doc.on('data', () => undefined);
    doc.on('end', () => resolve());
    for (let i = 0; i < bare; i++) {
      if (i) doc.addPage();
      doc.fontSize(8).text(text.slice((i * text.length) / bare, ((i + 1) * text.length) / bare), 30, 30);
    }
    doc.end();
  });
  report('  beside: the same text as a bare PDF, a page', (performance.now() - began) / bare, 'ms');
}
