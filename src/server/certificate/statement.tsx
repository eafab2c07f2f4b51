import { inZone } from '@/core/quantity/in-zone';
import { IS, IS_NOT, statementLines } from '@/core/yard/statement';
import type { Stated } from '@/server/yard/statements';
import { Document, Page, renderToBuffer, Text, View } from '@react-pdf/renderer';
import 'server-only';
import { printable } from './glyphs';
import { INK, P, registerFonts, s } from './kit';

const HEATHER = '#74468a';
/** A statement of practice on paper: in its own colour and broken line, so that nobody takes it for a certificate. */
export async function statementPdf(stated: Stated, zone: string): Promise<Buffer> {
  registerFonts();
  const { body, number } = stated;
  const day = (ms: number) => inZone(ms, zone).split(',')[0]!;
  const blocks = statementLines(body, day);
  return renderToBuffer(
    <Document
      title={`${number} Statement of practice`}
      author={body.organisation}
      creator="Vast Stone"
      producer="Vast Stone"
      language="en"
    >
      <Page size="A4" style={[s.page, { padding: 42, paddingBottom: 60, fontSize: 10 }]}>
        <View fixed style={{ borderWidth: 1.6, borderStyle: 'dashed', borderColor: HEATHER, padding: 5 }}>
          <Text style={{ textAlign: 'center', fontWeight: 700 }}>PRACTICE ONLY: NOT A CERTIFICATE</Text>
        </View>
        <Text style={{ fontSize: 22, fontWeight: 700, marginTop: 14, lineHeight: 1.2 }}>
          Statement of practice
        </Text>
        <Text style={{ fontSize: 13, marginTop: 4 }}>{printable(body.name)}</Text>
        <Text style={s.quiet}>
          {printable(
            `${body.organisation}; ${number}; made by ${body.by} on ${day(stated.made)}${body.from === null ? '' : `; practice from ${day(body.from)} to ${day(body.until)}`}`,
          )}
        </Text>
        <View style={{ marginTop: 10, borderLeftWidth: 3, borderLeftColor: INK, paddingLeft: 8 }}>
          <P>{IS}</P>
          <Text style={{ fontWeight: 700, marginTop: 3 }}>{printable(IS_NOT)}</Text>
        </View>
        {blocks.length === 0 ? <P>Nothing was practised so far.</P> : null}
        {blocks.map((b) => (
          <View key={b.heading} style={{ marginTop: 12 }}>
            <Text style={{ fontWeight: 700, fontSize: 11 }} minPresenceAhead={30}>
              {b.heading}
            </Text>
            {b.lines.map((l) => (
              <P key={l}>{l}</P>
            ))}
          </View>
        ))}
        <Text
          fixed
          style={[s.quiet, { position: 'absolute', bottom: 28, left: 42, right: 42, fontSize: 8 }]}
          render={({ pageNumber, totalPages }) =>
            `${number}, page ${pageNumber} of ${totalPages}. Practice only: not a certificate.`
          }
        />
      </Page>
    </Document>,
  );
}
