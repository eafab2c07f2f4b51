import { known } from '@/core/formula';
import { psOf } from '@/core/formula/refrigerant';
import type { System } from '@/core/installation/section';
import { inZone } from '@/core/quantity/in-zone';
import { showExact } from '@/core/quantity/exact';
import { tradeOf } from '@/core/trades';
import { type SideRecord, sideStandings } from '@/core/trades/circuit/standing';
import { withinSection } from '@/core/trades/sections';
import { isGood, type VerdictWord, WORDS } from '@/core/verdict/words';
import { Why } from '@/ui/kit/why';
import Link from 'next/link';

/** Each side of a circuit with its PS and what it was found to be, then the whole. */
export function SidesOf({
  section,
  records,
  zone,
}: {
  section: System;
  records: readonly SideRecord[];
  zone: string;
}) {
  if (tradeOf(section).parted !== 'sides') return null;
  return (
    <section aria-labelledby="sides" className="mt-4">
      <h2 id="sides" className="text-lg font-semibold">
        Sides
      </h2>
      <ul className="mt-1 grid gap-x-8 border-t border-seam md:grid-cols-3">
        {sideStandings(section, records).map((side) => (
          <li key={side.key} className="border-b border-seam py-2">
            <span className="font-semibold">{side.title}</span>
            {side.key && <Ps section={withinSection(section, side.key)} />}
            {side.records.length === 0 && <span className="block text-sm text-quiet">not tested</span>}
            {side.records.map((r) => (
              <span key={r.run} className="block text-sm">
                <span className={isGood(r.word) ? 'text-moss' : 'text-rust'}>
                  {r.label ?? WORDS[r.word as VerdictWord]}
                </span>
                , {inZone(Date.parse(r.sealedAt), zone).split(',')[0]},{' '}
                <Link prefetch={false} className="text-lake underline" href={`/ledger/${r.run}`}>
                  {r.number}
                </Link>
              </span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
/** PS of a side with how it is known; what is missing, where it is not. */
function Ps({ section }: { section: System | null }) {
  const found = section && known(() => psOf(section));
  if (!found) return null;
  if ('missing' in found) return <span className="block text-sm text-ochre">{found.missing}</span>;
  const { value, inputs, text, estimate } = found.value;
  return (
    <span className="block">
      PS{' '}
      <Why
        guide="ps"
        facts={{
          title: 'PS of this side',
          text,
          inputs,
          source: 'Nameplate first; else the bubble point at the design temperature',
        }}
      >
        <span className="figure">{showExact(value)}</span>
      </Why>
      {estimate && <span className="text-sm text-ochre"> estimate</span>}
    </span>
  );
}
