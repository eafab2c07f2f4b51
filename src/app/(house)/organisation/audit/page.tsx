import type { Metadata } from 'next';
import Link from 'next/link';
import { readAudit } from '@/server/people/people';
import { requireSession } from '@/server/session/session';
import { buttonClass } from '@/ui/kit/button-class';
import { Moment } from '@/ui/frame/zone';

export const metadata: Metadata = { title: 'Audit log' };
const PAGE = 200;
export default async function Audit({ searchParams }: { searchParams: Promise<{ before?: string }> }) {
  const session = await requireSession();
  const { before } = await searchParams;
  if (session.role !== 'owner')
    return (
      <>
        <h1 className="text-2xl font-bold">Audit log</h1>
        <p className="mt-2">Only the owner of the organisation reads who did what. Ask the owner.</p>
      </>
    );
  const lines = await readAudit(session, before, PAGE);
  return (
    <>
      <h1 className="text-2xl font-bold">Audit log</h1>
      <p className="mt-1 max-w-2xl text-quiet">
        Who did what to which thing, newest first. Nothing here is ever changed or removed.
      </p>
      <div className="mt-3 overflow-x-auto" role="region" aria-label="Audit log" tabIndex={0}>
        <table className="w-full min-w-[640px] text-sm">
          <thead>
            <tr className="text-left text-quiet [&>th]:py-1 [&>th]:pr-4 [&>th]:font-normal">
              <th>When</th>
              <th>Who</th>
              <th>What</th>
              <th>Which</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.id} className="border-t border-seam align-top [&>td]:py-1.5 [&>td]:pr-4">
                <td className="figure-narrow whitespace-nowrap">
                  <Moment at={l.at} />
                </td>
                <td className="whitespace-nowrap">{l.who}</td>
                <td>
                  {l.what}
                  {l.broughtIn && (
                    <span className="block text-quiet">
                      brought in <Moment at={l.broughtIn} />, not witnessed here
                    </span>
                  )}
                </td>
                <td className="wrap-anywhere">{l.subject}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {lines.length === PAGE && (
        <Link
          prefetch={false}
          className={buttonClass('plain', 'mt-3')}
          href={`/organisation/audit?before=${lines[lines.length - 1]!.id}`}
        >
          Older lines
        </Link>
      )}
    </>
  );
}
