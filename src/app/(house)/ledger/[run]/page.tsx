import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { faceOf } from '@/core/record/face';
import { noticesOf } from '@/core/record/notices';
import { recordOf } from '@/server/records/records';
import { checkSeal } from '@/server/sealing/seal';
import { readWatches } from '@/server/watches/watches';
import { requireSession } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { buttonClass } from '@/ui/kit/button-class';
import { CertificateView } from '@/ui/ledger/certificate';

export const metadata: Metadata = { title: 'Record' };
export default async function RecordPage({ params }: { params: Promise<{ run: string }> }) {
  const session = await requireSession();
  const { run } = await params;
  const record = await recordOf(session, run).catch((e: unknown) => {
    if (e instanceof TroubleError) notFound();
    throw e;
  });
  const [check, [watch]] = await Promise.all([checkSeal(session, run), readWatches(session, undefined, run)]);
  return (
    <>
      <nav className="no-print mb-5 flex flex-wrap gap-3" aria-label="This record">
        <a className={buttonClass('act')} href={`/api/runs/${run}/pdf`} target="_blank" rel="noreferrer">
          PDF
        </a>
        {noticesOf(faceOf(record.body)).map((n) => (
          <a
            key={n.kind}
            className={buttonClass('plain')}
            href={`/api/runs/${run}/pdf?form=${n.kind}`}
            target="_blank"
            rel="noreferrer"
          >
            {n.title}
            {n.kind === 'report' ? ` to the ${n.to}` : ''}
          </a>
        ))}
        <a className={buttonClass('plain')} href={`/api/runs/${run}/file`}>
          Record file (JSON)
        </a>
        {watch && (
          <a className={buttonClass('plain')} href={`/watches/${watch.id}`}>
            Its watch
          </a>
        )}
        {record.link && (
          <a className={buttonClass('plain')} href={`/verify/${record.link}`}>
            Public page
          </a>
        )}
      </nav>
      <CertificateView body={record.body} seal={record.seal} log check={check} />
    </>
  );
}
