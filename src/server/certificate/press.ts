import 'server-only';
import { ofProcess } from '@/database/process';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { inTurn } from '@/server/limits';
import { certificatePdf, type Form, type Printed } from './pdf';

/** What is kept of papers made, by what they were made from; the least used go first. Bytes. */
const MOST_KEPT = 64_000_000;
interface Kept {
  readonly papers: Map<string, Buffer>;
  bytes: number;
}
const kept = ofProcess<Kept>('papers', () => ({ papers: new Map(), bytes: 0 }));

/** Everything a paper is made from, as one fingerprint: the same gives the same paper, anything else another. */
const keyOf = (record: Printed, origin: string, form: Form): string =>
  sha256Hex(
    canonical({
      form,
      origin,
      hash: record.seal.hash,
      body: sha256Hex(record.body),
      link: record.link ?? '',
      marks: record.markWords ?? [],
      extra: record.extra ?? {},
      usage: record.usage ?? {},
      both: record.both ?? false,
      photos: [...(record.photos?.keys() ?? [])].sort(),
    }),
  );
/** A printed form, made once and kept; papers are made one after the other. @throws TroubleError as certificatePdf, 503 */
export async function printed(record: Printed, origin: string, form: Form = 'certificate'): Promise<Buffer> {
  const key = keyOf(record, origin, form);
  const found = () => {
    const paper = kept.papers.get(key);
    if (!paper) return null;
    kept.papers.delete(key);
    kept.papers.set(key, paper);
    return paper;
  };
  return (
    found() ??
    inTurn('papers', { atOnce: 1, waiting: 40 }, async () => {
      // whoever waited beside us may have made it
      const already = found();
      if (already) return already;
      const paper = await certificatePdf(record, origin, form);
      kept.papers.set(key, paper);
      kept.bytes += paper.length;
      for (const [old, bytes] of kept.papers) {
        if (kept.bytes <= MOST_KEPT || old === key) break;
        kept.papers.delete(old);
        kept.bytes -= bytes.length;
      }
      return paper;
    })
  );
}
