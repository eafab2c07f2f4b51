import type { Metadata } from 'next';
import { faceOf } from '@/core/record/face';
import { papersOf } from '@/core/record/papers';
import { cache } from 'react';
import { found } from '@/app/(house)/found';
import { linksOf } from '@/server/records/handing-over';
import { recordOf } from '@/server/records/records';
import { checkSeal } from '@/server/sealing/seal';
import { requireSession } from '@/server/session/session';
import { readWatches } from '@/server/watches/watches';
import { CertificateView } from '@/ui/ledger/certificate';
import { RecordTools } from '@/ui/ledger/record-tools';
import { may } from '@/wire/role';

/** Read once for the page and its title. */
const load = cache(async (run: string) => found(recordOf(await requireSession(), run)));
export const generateMetadata = async ({
  params,
}: {
  params: Promise<{ run: string }>;
}): Promise<Metadata> => {
  const { run } = await params;
  return { title: `Record ${(await load(run)).seal.number}` };
};
export default async function RecordPage({ params }: { params: Promise<{ run: string }> }) {
  const session = await requireSession();
  const { run } = await params;
  const record = await load(run);
  const face = faceOf(record.body);
  const { plan } = face;
  const [check, [watch], links] = await Promise.all([
    checkSeal(session, run),
    readWatches(session, undefined, plan.supersedes?.run ?? run),
    linksOf(session, run),
  ]);
  return (
    <CertificateView body={record.body} seal={record.seal} marks={record.markWords} log check={check}>
      <RecordTools
        run={run}
        number={record.seal.number}
        certificateTitle={face.title}
        customer={plan.site.customer}
        papers={papersOf(face)}
        links={links}
        watch={watch?.id ?? null}
        mayShare={may(session.role, 'share')}
        mayMark={may(session.role, 'seal')}
        marked={record.marks.length > 0}
        site={{ name: plan.site.name, address: plan.site.address, customer: plan.site.customer }}
        permit={plan.attendance?.permit ?? ''}
        present={plan.attendance?.present ?? ''}
      />
    </CertificateView>
  );
}
