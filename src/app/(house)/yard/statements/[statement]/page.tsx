import { found } from '@/app/(house)/found';
import { IS, IS_NOT, statementLines } from '@/core/yard/statement';
import { inZone } from '@/core/quantity/in-zone';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { statement } from '@/server/yard/statements';
import { buttonClass } from '@/ui/kit/button-class';
import type { Metadata } from 'next';
import Link from 'next/link';

export const metadata: Metadata = { title: 'Statement of practice' };
export default async function StatementPage({ params }: { params: Promise<{ statement: string }> }) {
  const session = await requireSession();
  const { statement: id } = await params;
  const [{ body, number, made, person }, zone] = await Promise.all([
    found(statement(session, id)),
    viewerZone(),
  ]);
  const day = (ms: number) => inZone(ms, zone).split(',')[0]!;
  const blocks = statementLines(body, day);
  return (
    <article className="max-w-3xl">
      <p className="text-sm text-quiet">
        <Link prefetch={false} href={`/yard/statements/of/${person}`} className="text-lake underline">
          Statements of {body.name}
        </Link>
      </p>
      <p className="mt-2 border-2 border-dashed border-heather p-2 text-center font-semibold text-heather">
        Practice only: not a certificate
      </p>
      <h1 className="mt-3 text-2xl font-bold">Statement of practice: {body.name}</h1>
      <p className="text-quiet">
        {body.organisation}; {number}; made by {body.by} on {day(made)}
        {body.from !== null && `; practice from ${day(body.from)} to ${day(body.until)}`}
      </p>
      <div className="mt-3 grid gap-1 border-l-4 border-heather pl-3">
        <p>{IS}</p>
        <p className="font-semibold">{IS_NOT}</p>
      </div>
      {!blocks.length && <p className="mt-4">Nothing was practised so far.</p>}
      {blocks.map((b) => (
        <section key={b.heading} className="mt-5">
          <h2 className="text-lg font-semibold">{b.heading}</h2>
          <ul>
            {b.lines.map((l) => (
              <li key={l} className="border-b border-seam py-1.5">
                {l}
              </li>
            ))}
          </ul>
        </section>
      ))}
      <a className={buttonClass('act', 'mt-5')} href={`/api/yard/statements/${id}/pdf`}>
        On paper (PDF)
      </a>
    </article>
  );
}
