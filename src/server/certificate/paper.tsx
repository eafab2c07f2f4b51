import type { Face } from '@/core/record/face';
import { type Block, type Extra, paperFoot, type PaperKind, paperOf } from '@/core/record/papers';
import type { SealedRecord } from '@/core/record/seal';
import { TICKET_COLUMNS, ticketLines } from '@/core/record/ticket';
import { Document, Page, Text, View } from '@react-pdf/renderer';
import 'server-only';
import { Qr } from './drawings';
import { printable } from './glyphs';
import { INK, metadata, P, registerFonts, s, SEAM, StatusLine } from './kit';

interface Props {
  readonly face: Face;
  readonly record: SealedRecord;
  readonly url: string | null;
  readonly marks: readonly string[];
}
const MM = 72 / 25.4;

function BlockView({ block, size }: { block: Block; size: number }) {
  return (
    <View style={{ marginTop: 7 }} wrap={block.lines.length > 6}>
      {block.heading ? (
        <Text style={{ ...s.h, fontSize: 8.5, marginTop: 0 }} minPresenceAhead={24}>
          {printable(block.heading)}
        </Text>
      ) : null}
      {block.lines.map((line, i) => (
        <Text
          key={i}
          style={{ fontSize: size, lineHeight: 1.35, ...(block.strong ? { fontWeight: 700 } : {}) }}
        >
          {printable(line)}
        </Text>
      ))}
      {block.blank?.map((b) => (
        <View
          key={b}
          style={{
            flexDirection: 'row',
            alignItems: 'flex-end',
            height: 26,
            borderBottomWidth: 0.7,
            borderBottomColor: SEAM,
          }}
        >
          <Text style={{ fontSize: 9 }}>{printable(b)}</Text>
        </View>
      ))}
    </View>
  );
}

/** What is handed to a user, tied to a valve, or sent on: with the care of a certificate, and its number under it. */
export function PaperDocument({ kind, extra, ...props }: Props & { kind: PaperKind; extra: Extra }) {
  registerFonts();
  const { face, record, url, marks } = props;
  const paper = paperOf(face, kind, extra);
  const label = kind === 'label';
  const size = label ? 13 : kind === 'fail' || kind === 'note' ? 11 : 9.5;
  return (
    <Document {...metadata(face, record, paper.title)}>
      <Page
        size={label ? 'A6' : 'A4'}
        orientation={label ? 'landscape' : 'portrait'}
        style={[s.page, label ? { padding: 16 } : { padding: 42, paddingBottom: 64 }]}
      >
        {label ? null : <StatusLine face={face} marks={marks} />}
        <View
          style={{
            borderWidth: label ? 4 : 2,
            borderColor: INK,
            padding: label ? 10 : 14,
            flexGrow: label ? 1 : 0,
            flexDirection: 'row',
            gap: 12,
          }}
        >
          <View style={{ flex: 1 }}>
            <Text style={{ fontSize: label ? 30 : 22, fontWeight: 700, lineHeight: 1.15 }}>
              {printable(paper.title)}
            </Text>
            <Text style={{ fontSize: 11, lineHeight: 1.35, marginTop: 6 }}>{printable(paper.where)}</Text>
            {label ? paper.blocks.map((b, i) => <BlockView key={i} block={b} size={size} />) : null}
          </View>
          {url ? <Qr text={url} /> : null}
        </View>
        {label ? null : paper.blocks.map((b, i) => <BlockView key={i} block={b} size={size} />)}
        {label ? (
          <View style={{ marginTop: 6 }}>
            {paperFoot(face, record.seal.number).map((line) => (
              <P key={line}>{line}</P>
            ))}
          </View>
        ) : (
          <>
            <View fixed style={{ position: 'absolute', left: 42, right: 42, bottom: 20 }}>
              <Text style={{ fontSize: 7.2 }}>
                {printable(paperFoot(face, record.seal.number).join('; '))}
              </Text>
              <Text style={{ fontSize: 7.2 }}>{printable(face.plan.pack.notice)}</Text>
            </View>
            <PageFoot number={record.seal.number} />
          </>
        )}
      </Page>
    </Document>
  );
}
/** Number and page, where there is more than one. */
export function PageFoot({ number }: { number: string }) {
  return (
    <Text
      fixed
      style={{ position: 'absolute', bottom: 10, right: 30, fontSize: 6.5, color: INK }}
      render={({ pageNumber, totalPages }) =>
        totalPages > 1 ? `${number}, page ${pageNumber} of ${totalPages}` : ''
      }
    />
  );
}

/** The narrow ticket as a page of its own length: 80 mm wide, as the strip comes from a site printer. */
export function TicketDocument({ face, record, url }: Props) {
  registerFonts();
  const lines = ticketLines(face, record.seal, url);
  const size = 6.2;
  const line = size * 1.35;
  return (
    <Document {...metadata(face, record, 'ticket')}>
      <Page
        size={[80 * MM, lines.length * line + 44 + (url ? 66 : 0)]}
        style={{ padding: 14, fontFamily: 'Figures', fontSize: size, lineHeight: 1.35, color: INK }}
      >
        {lines.map((text, i) => (
          <Text key={i}>{printable(text).slice(0, TICKET_COLUMNS)}</Text>
        ))}
        {url ? (
          <View style={{ marginTop: 6, alignItems: 'center' }}>
            <Qr text={url} />
          </View>
        ) : null}
      </Page>
    </Document>
  );
}
