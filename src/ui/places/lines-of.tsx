import type { System } from '@/core/installation/section';
import { poolMap, type PoolLine } from '@/core/trades/pool/ends';
import { tradeOf } from '@/core/trades';
import { inZone } from '@/core/quantity/in-zone';
import { type VerdictWord, WORDS } from '@/core/verdict/words';
import Link from 'next/link';

/** A record as the lines of a place show it. */
export interface LineRecord {
  readonly section: string;
  readonly run: string;
  readonly number: string;
  readonly word: string;
  readonly procedure: string;
  readonly sealedAt: string;
}
/** The newest of a line's records: what it was found to be. */
export const newestOf = (line: Pick<PoolLine, 'key'>, records: readonly LineRecord[]): LineRecord | null =>
  records
    // a map or a place found says nothing of tightness
    .filter((r) => r.section === line.key && r.word !== 'refer')
    .reduce<LineRecord | null>((a, b) => (a && a.sealedAt >= b.sealedAt ? a : b), null);
export const lineWord = (record: LineRecord | null): string =>
  record ? (WORDS[record.word as VerdictWord] ?? record.word).toLowerCase() : 'not tested';

/** Every line of a pool with what it was found to be; what is not known of it. */
export function LinesOf({
  section,
  records,
  zone,
}: {
  section: System;
  records: readonly LineRecord[];
  zone: string;
}) {
  if (!tradeOf(section).lines) return null;
  const { lines, joins, lost, ends } = poolMap(section, section.looks ?? []);
  const name = (id: string) => ends.find((e) => e.id === id)?.name ?? id;
  return (
    <section aria-labelledby="lines" className="mt-4">
      <h2 id="lines" className="text-lg font-semibold">
        Lines
      </h2>
      {!section.looks?.length && (
        <p className="border-l-4 border-ochre pl-3">
          Nobody has mapped them yet: which outlets and connections belong together is not known.
        </p>
      )}
      {joins.clashes.length > 0 && (
        <p className="border-l-4 border-rust pl-3">
          What was seen contradicts itself. Map again before a line is pressed.
        </p>
      )}
      {lost.length > 0 && (
        <p className="border-l-4 border-ochre pl-3">
          {lost.map((e) => e.name).join(', ')}: joined to no connection that is listed.
        </p>
      )}
      <ul className="mt-1 grid gap-x-8 border-t border-seam md:grid-cols-2">
        {lines
          .filter((l) => l.ends.length > 1 || section.looks?.length)
          .map((l) => {
            const record = newestOf(l, records);
            return (
              <li key={l.key} className="border-b border-seam py-2">
                <span className="font-semibold">{l.title}</span>
                <span className="block text-sm">
                  {record ? (
                    <>
                      {lineWord(record)}, {inZone(Date.parse(record.sealedAt), zone).split(',')[0]},{' '}
                      <Link prefetch={false} className="text-lake underline" href={`/ledger/${record.run}`}>
                        {record.number}
                      </Link>
                    </>
                  ) : (
                    'not tested'
                  )}
                  {l.perhaps.length > 0 && (
                    <span className="text-quiet">
                      ; not known whether with{' '}
                      {l.perhaps.length > 4 ? `${l.perhaps.length} others` : l.perhaps.map(name).join(', ')}
                    </span>
                  )}
                </span>
              </li>
            );
          })}
      </ul>
    </section>
  );
}
