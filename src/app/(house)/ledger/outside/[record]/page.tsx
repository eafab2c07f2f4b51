import type { Metadata } from 'next';
import { found } from '@/app/(house)/found';
import { outsideRecord } from '@/server/records/outside';
import { requireSession } from '@/server/session/session';
import { CertificateView } from '@/ui/ledger/certificate';
import { Moment } from '@/ui/frame/zone';

export const metadata: Metadata = { title: 'Record from outside' };
export default async function OutsidePage({ params }: { params: Promise<{ record: string }> }) {
  const session = await requireSession();
  const { record: id } = await params;
  const record = await found(outsideRecord(session, id));
  const verified = record.faults.length === 0;
  return (
    <>
      <section
        className={`mb-6 border-2 p-4 ${verified ? 'border-edge' : 'border-rust'}`}
        aria-labelledby="from"
      >
        <h2 id="from" className="font-semibold">
          {verified ? 'From outside, verified' : 'From outside, unverified: do not rely on it'}
        </h2>
        <p>
          Sealed by {record.organisation}, brought in <Moment at={record.imported} /> by {record.by}.{' '}
          {record.ownKey
            ? 'It was signed with a key of your own organisation.'
            : 'It was signed with a key that is not yours, first seen here then: ask them by another way whether it is theirs.'}{' '}
          <span className="figure-narrow text-sm break-all">{record.seal.key.slice(0, 16)}</span>
        </p>
        {record.faults.length > 0 && (
          <ul className="list-inside list-disc text-rust">
            {record.faults.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </ul>
        )}
      </section>
      <CertificateView
        body={record.body}
        seal={record.seal}
        marks={record.markWords}
        photos={false}
        log
        check={{ good: verified, faults: record.faults }}
      />
    </>
  );
}
