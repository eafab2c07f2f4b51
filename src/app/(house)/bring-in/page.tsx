import type { Metadata } from 'next';
import Link from 'next/link';
import { meterKinds } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { buttonClass } from '@/ui/kit/button-class';
import { BringTable } from '@/ui/tables/bring-table';
import { MoveOrganisation } from '@/ui/people/move-organisation';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Bring in what you have' };
export default async function BringIn() {
  const session = await requireSession();
  return (
    <>
      <h1 className="text-2xl font-bold">Bring in what you have</h1>
      {may(session.role, 'plan') && (
        <section aria-labelledby="tables" className="mt-4 max-w-6xl">
          <h2 id="tables" className="text-lg font-semibold">
            A table of places, appliances or gauges
          </h2>
          <p className="max-w-2xl text-sm text-quiet">
            From a spreadsheet, whatever its columns are called. Every row is looked at first; nothing is
            entered before you say so, and what is here already is left as it is.
          </p>
          <BringTable meters={await meterKinds(session)} mayCalibrate={may(session.role, 'calibrate')} />
        </section>
      )}
      <div className="mt-8 grid max-w-4xl gap-8 sm:grid-cols-2">
        {may(session.role, 'govern') && <MoveOrganisation />}
        <section aria-labelledby="records" className="grid content-start gap-3">
          <h2 id="records" className="text-lg font-semibold">
            Records of others
          </h2>
          <p className="text-sm text-quiet">
            A sealed record in a file is checked and kept in the ledger beside your own, marked as somebody
            else’s.
          </p>
          <Link prefetch={false} href="/ledger/import" className={buttonClass('plain')}>
            Bring in a record
          </Link>
          <h2 className="mt-4 text-lg font-semibold">Places and gauges, one by one</h2>
          <Link prefetch={false} href="/places/new" className={buttonClass('plain')}>
            Enter a place
          </Link>
          <Link prefetch={false} href="/cabinet" className={buttonClass('plain')}>
            Enter a gauge
          </Link>
        </section>
      </div>
    </>
  );
}
