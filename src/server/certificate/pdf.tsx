import { METRIC, type Usage } from '@/core/quantity/usage';
import { type Face, faceOf } from '@/core/record/face';
import { type Extra, isPaperKind, type PaperKind, papersOf } from '@/core/record/papers';
import type { SealedRecord } from '@/core/record/seal';
import { unitsJudgedIn } from '@/core/run/read';
import { TroubleError } from '@/server/trouble';
import { Document, renderToBuffer } from '@react-pdf/renderer';
import 'server-only';
import { FacePage } from './face-page';
import { FollowingPages } from './following-pages';
import { metadata, registerFonts } from './kit';
import { toldSo } from './telling';
import { PaperDocument, TicketDocument } from './paper';

/** So large the section may stand on the face, the largest that fits. */
const SIZES = [4.6, 3.6];
/** How many pages a PDF made here has. */
const pagesOf = (bytes: Buffer): number => bytes.toString('latin1').match(/\/Type \/Page\b/g)?.length ?? 0;

/** What a printed form needs beside the sealed text. */
export interface Printed extends SealedRecord {
  readonly link?: string | null;
  readonly markWords?: readonly string[];
  /** Photos by their hash, for the pages that gather them. */
  readonly photos?: ReadonlyMap<string, Buffer>;
  /** What papers say beyond the sealed text. */
  readonly extra?: Extra;
  /** What the house is used to. */
  readonly usage?: Usage;
  /** Every figure with its twin beside. */
  readonly both?: boolean;
}
/** `face`: the first page alone, which is all that the public sees. */
export type Form = PaperKind | 'face';

/**
 * A printed form of a record as PDF bytes.
 * @param origin address under which the public page is found
 * @throws TroubleError when the record does not call for that paper
 */
export async function certificatePdf(
  record: Printed,
  origin: string,
  form: Form = 'certificate',
): Promise<Buffer> {
  registerFonts();
  const face = faceOf(record.body);
  const telling = {
    usage: record.usage ?? METRIC,
    both: record.both ?? false,
    keep: unitsJudgedIn(face.plan, face.state),
  };
  return toldSo(telling, () => made(record, face, origin, form));
}
async function made(record: Printed, face: Face, origin: string, form: Form): Promise<Buffer> {
  const url = record.link ? `${origin}/verify/${record.link}` : null;
  const marks = record.markWords ?? [];
  if (form === 'certificate' || form === 'face') {
    const paper = (drawn: number, following: boolean) =>
      renderToBuffer(
        <Document {...metadata(face, record, face.title)}>
          <FacePage face={face} record={record} url={url} marks={marks} drawn={drawn} />
          {following ? (
            <FollowingPages
              face={face}
              record={record}
              marks={marks}
              photos={record.photos ?? new Map()}
              drawn={!drawn}
            />
          ) : null}
        </Document>,
      );
    // the section stands on the face where all of it still fits one page: only the page itself can tell
    for (const size of SIZES) {
      const front = await paper(size, false);
      if (pagesOf(front) === 1) return form === 'face' ? front : paper(size, true);
    }
    return paper(0, form === 'certificate');
  }
  if (!papersOf(face).some((p) => p.kind === form))
    throw new TroubleError(404, 'no-paper', 'This record does not call for that paper.');
  if (form === 'ticket')
    return renderToBuffer(<TicketDocument face={face} record={record} url={url} marks={marks} />);
  return renderToBuffer(
    <PaperDocument
      face={face}
      record={record}
      url={url}
      marks={marks}
      kind={form}
      extra={record.extra ?? {}}
    />,
  );
}

/** The form asked for in an address; the certificate where none is. @throws TroubleError */
export function formOf(url: URL): PaperKind {
  const asked = url.searchParams.get('form') ?? 'certificate';
  if (!isPaperKind(asked))
    throw new TroubleError(404, 'no-paper', 'There is no such paper. Choose one on the page of the record.');
  return asked;
}
export function pdfResponse(bytes: Buffer, name: string): Response {
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${name}.pdf"`,
      'cache-control': 'no-store',
    },
  });
}
