/**
 * Checks every seal in a database: that each record is as it was sealed, by a key of its house, and that numbers and links of each
 * chain have no gap. Given VAST_SUPERUSER_URL, as a restore does. Reads one record at a time, whatever the ledger holds.
 */
import pg from 'pg';
import { CHAIN_START, type PublishedKey, verifySeal } from '../src/core/record/seal';

interface Row {
  org: string;
  run: string;
  number: string;
  previous: string;
  hash: string;
  signature: string;
  key: string;
  body: string;
  parts: string | null;
  parts_signature: string | null;
}
const AT_ONCE = 200;
export interface Checked {
  readonly seals: number;
  readonly faults: readonly string[];
}
export async function checkSeals(url: string): Promise<Checked> {
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  const faults: string[] = [];
  let count = 0;
  try {
    const keys = new Map<string, PublishedKey[]>();
    for (const k of (
      await db.query<{ org: string; public_key: string }>('select org, public_key from signing_keys')
    ).rows)
      keys.set(k.org, [...(keys.get(k.org) ?? []), { key: k.public_key, retired: null }]);
    // what each links to is looked for once all are known: in which order they were sealed no clock is asked
    const hashes = new Set<string>();
    const links: { number: string; to: string }[] = [];
    await db.query('begin isolation level repeatable read read only');
    await db.query(
      'declare sealed no scroll cursor for select org, run, number, previous, hash, signature, key, body, parts, parts_signature from seals',
    );
    for (;;) {
      const { rows } = await db.query<Row>(`fetch forward ${AT_ONCE} from sealed`);
      for (const r of rows) {
        count += 1;
        const found = verifySeal(
          {
            body: r.body,
            seal: {
              number: r.number,
              previous: r.previous,
              hash: r.hash,
              signature: r.signature,
              key: r.key,
              ...(r.parts && r.parts_signature ? { parts: r.parts, partsSignature: r.parts_signature } : {}),
            },
          },
          keys.get(r.org) ?? [],
        );
        for (const f of found) faults.push(`${r.number}: ${f.text}`);
        hashes.add(`${r.org} ${r.hash}`);
        if (r.previous !== CHAIN_START) links.push({ number: r.number, to: `${r.org} ${r.previous}` });
      }
      if (rows.length < AT_ONCE) break;
    }
    await db.query('rollback');
    for (const l of links)
      if (!hashes.has(l.to)) faults.push(`${l.number}: the record before it in its chain is missing.`);
  } finally {
    await db.end();
  }
  return { seals: count, faults };
}

async function asked(): Promise<void> {
  const url = process.env.VAST_SUPERUSER_URL;
  if (!url) throw new Error('Say in VAST_SUPERUSER_URL which database is checked.');
  const { seals, faults } = await checkSeals(url);
  for (const f of faults.slice(0, 50)) console.log(`  ${f}`);
  console.log(`${seals} seals checked, ${faults.length} faults`);
  process.exitCode = faults.length ? 1 : 0;
}
if (process.argv[1]?.endsWith('seals.mjs')) void asked();
