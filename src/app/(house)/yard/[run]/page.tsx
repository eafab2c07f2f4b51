import { found } from '@/app/(house)/found';
import { networkOf } from '@/core/network/enter';
import { partName } from '@/core/network/network';
import { requireSession } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { yardDebrief } from '@/server/yard/runs';
import { DebriefView } from '@/ui/yard/debrief';
import { may } from '@/wire/role';
import type { Metadata } from 'next';
import Link from 'next/link';

export const metadata: Metadata = { title: 'What it was' };
export default async function DebriefPage({ params }: { params: Promise<{ run: string }> }) {
  const session = await requireSession();
  const { run } = await params;
  const told = await found(yardDebrief(session, run)).catch((error: unknown) => {
    if (error instanceof TroubleError && error.status === 409) return error;
    throw error;
  });
  if (told instanceof TroubleError)
    return (
      <>
        <h1 className="text-2xl font-bold">Not yet</h1>
        <p className="mt-2 max-w-prose">{told.message}</p>
        <Link prefetch={false} href="/yard" className="mt-3 inline-block text-lake underline">
          Back to the Yard
        </Link>
      </>
    );
  const { debrief, kept } = told;
  const { scenario, plan, acts } = kept.session;
  const network = networkOf(plan.system);
  const signed = acts.find((a) => a.kind === 'signed');
  const said = [...acts].reverse().find((a) => a.kind === 'concluded');
  return (
    <>
      <p className="text-sm text-quiet">
        <Link prefetch={false} href="/yard" className="text-lake underline">
          Yard
        </Link>
      </p>
      <h1 className="text-2xl font-bold">{scenario.title}</h1>
      <DebriefView
        told={debrief}
        title={scenario.title}
        said={
          said?.kind === 'concluded' ? { cause: said.cause, place: said.place, because: said.because } : null
        }
        placeNames={{
          ...Object.fromEntries(network.parts.map((p) => [p.id, partName(p)])),
          ...Object.fromEntries(network.links.flatMap((l) => (l.pipe ? [[l.pipe.id, l.pipe.name]] : []))),
        }}
        signed={signed?.kind === 'signed' ? { by: signed.by, text: signed.text } : null}
        again="/yard"
        replay={
          kept.person === session.person && debrief.grade.wentWrong !== null && may(session.role, 'run')
            ? plan.run
            : ''
        }
      />
    </>
  );
}
