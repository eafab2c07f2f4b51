import 'server-only';
import { printed } from '@/server/certificate/press';
import { inOrganisation } from '@/database/client';
import { signingSecret } from '@/server/sealing/keys';
import { writeBundle, type BundleFile } from '@/wire/bundle';
import { readingsCsv } from '@/wire/readings-csv';
import { writeRecordFile } from '@/wire/record-file';
import { printedRecord } from './records';

/** A record with its readings, photos and certificate as one signed archive. @param origin of the public page */
export async function bundleOf(
  scope: { org: string },
  run: string,
  origin: string,
): Promise<{ number: string; bytes: Uint8Array }> {
  const record = await printedRecord(scope, run);
  const secret = await inOrganisation(scope, signingSecret);
  const text = (name: string, content: string): BundleFile => ({
    name,
    bytes: new TextEncoder().encode(content),
  });
  const files: BundleFile[] = [
    text('record.json', writeRecordFile(record)),
    text('readings.csv', readingsCsv(record.body)),
    { name: 'certificate.pdf', bytes: await printed(record, origin) },
    ...[...record.photos]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([hash, bytes]) => ({ name: `photos/${hash}.jpg`, bytes })),
  ];
  return { number: record.seal.number, bytes: writeBundle(record.seal, files, secret) };
}
