import type { System } from '@/core/installation/section';
import { poolMap, type PoolLine } from '@/core/trades/pool/ends';
import { tradeOf } from '@/core/trades';
import { inZone } from '@/core/quantity/in-zone';
import { pressOrder, type Standing } from '@/core/trades/pool/order';
import { isGood, type VerdictWord, WORDS } from '@/core/verdict/words';
import Link from 'next/link';
import { Fragment } from 'react';

/** A record as the lines of a place show it. */
export interface LineRecord {
  readonly section: string;
  readonly run: string;
  readonly number: string;
  readonly word: string;
  /** As its procedure calls it. */
  readonly label?: string;
  readonly procedure: string;
  readonly sealedAt: string;
}
/** The newest of a line's records: what it was found to be. */
export const newestOf = (line: Pick<PoolLine, 'key'>, records: readonly LineRecord[]): LineRecord | null =>
  records
    // a map or a place found says nothing of tightness
    .filter((r) => r.section === line.key && r.word !== 'refer')
    .reduce<LineRecord | null>((a, b) => (a && a.sealedAt >= b.sealedAt ? a : b), null);
/** What was done at it besides, oldest first, up to the record that stands: dye, pressure, a place found. */
const earlierOf = (line: Pick<PoolLine, 'key'>, records: readonly LineRecord[]): LineRecord[] => {
  const stands = newestOf(line, records);
  return records
    .filter((r) => r.section === line.key && r.run !== stands?.run)
    .sort((a, b) => (a.sealedAt < b.sealedAt ? -1 : 1))
    .slice(-4);
};
const standingOf = (record: LineRecord | null): Standing =>
  !record ? 'untested' : isGood(record.word) ? 'good' : record.word === 'not-tight' ? 'loses' : 'open';
export const lineWord = (record: LineRecord | null): string =>
  record ? (record.label ?? WORDS[record.word as VerdictWord] ?? record.word).toLowerCase() : 'not tested';

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
  if (tradeOf(section).parted !== 'lines') return null;
  const { lines, joins, lost, ends } = poolMap(section, section.looks ?? []);
  const name = (id: string) => ends.find((e) => e.id === id)?.name ?? id;
  const order = pressOrder(
    lines,
    (key) => standingOf(newestOf({ key }, records)),
    (id) => ends.some((e) => e.id === id && e.dry),
  );
  const next = joins.clashes.length ? undefined : order[0];
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
      {next && (
        <p className="border-l-4 border-lake pl-3">
          Press next: <strong>{next.line.title}</strong> ({next.why}).
        </p>
      )}
      <ul className="mt-1 grid gap-x-8 border-t border-seam md:grid-cols-2">
        {lines
          .filter((l) => l.ends.length > 1 || section.looks?.length)
          .map((l) => {
            const record = newestOf(l, records);
            const before = earlierOf(l, records);
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
                  {before.length > 0 && (
                    <span className="text-quiet">
                      {' '}
                      · before:{' '}
                      {before.map((r, i) => (
                        <Fragment key={r.run}>
                          {i > 0 && ', '}
                          <Link prefetch={false} className="underline" href={`/ledger/${r.run}`}>
                            {lineWord(r)} {inZone(Date.parse(r.sealedAt), zone).split(',')[0]}
                          </Link>
                        </Fragment>
                      ))}
                    </span>
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
