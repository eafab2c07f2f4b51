import 'server-only';
import { Document, Page, Path, renderToBuffer, Svg, Text, View } from '@react-pdf/renderer';
import { faceOf, inZone, type Face } from '@/core/record/face';
import type { SealedRecord } from '@/core/record/record';
import { TroubleError } from '@/server/trouble';
import { Courses, Qr, TraceDrawing } from './drawings';
import { Notice, noticesOf, type NoticeKind } from './notice';
import { printable } from './glyphs';
import { COLOUR, INK, P, registerFonts, s } from './kit';

/** A signature as it was drawn, or why there is none. */
export function Sign({ who: role, face }: { who: 'tester' | 'customer'; face: Face }) {
  const sig = face.state.signatures.find((x) => x.role === role);
  return (
    <View style={{ flex: 1 }}>
      <Text style={s.h}>{role === 'tester' ? 'Tester' : 'Customer or witness'}</Text>
      {sig?.strokes ? (
        <Svg width={120} height={34} viewBox="0 0 300 100">
          <Path d={sig.strokes} stroke={INK} strokeWidth={2.5} fill="none" />
        </Svg>
      ) : (
        <View style={{ height: 34, justifyContent: 'center' }}>
          <P>{sig?.refused ? `not signed: ${sig.refused}` : 'not signed'}</P>
        </View>
      )}
      <P>{sig ? `${sig.name}, ${inZone(sig.at, face.plan.made.zone)}` : ''}</P>
    </View>
  );
}

function Certificate({ face, record, url }: { face: Face; record: SealedRecord; url: string | null }) {
  const { plan, body } = face;
  const v = body.verdict;
  const colour = COLOUR[v.word] ?? INK;
  return (
    <Document title={`${record.seal.number} ${face.title}`} author={plan.organisation.name} language="en">
      <Page size="A4" style={s.page}>
        {body.status !== 'certificate' && (
          <View fixed style={{ position: 'absolute', top: 10, left: 30, right: 30 }}>
            <Text
              style={{
                textAlign: 'center',
                fontSize: 8,
                fontWeight: 700,
                color: colour === INK ? INK : '#74468a',
              }}
            >
              {body.status === 'practice'
                ? 'PRACTICE RECORD ON A SIMULATED INSTALLATION: NOT A CERTIFICATE'
                : 'NOT A CERTIFICATE'}
            </Text>
          </View>
        )}
        <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
          <View style={{ flex: 1 }}>
            <Text style={{ fontSize: 17, fontWeight: 700, lineHeight: 1.15 }}>{printable(face.title)}</Text>
            <P>{`${plan.procedure.title}. ${plan.organisation.name}`}</P>
            <Text style={s.quiet}>{printable(face.statusLine)}</Text>
          </View>
          <View style={{ alignItems: 'flex-end' }}>
            <Text style={{ fontFamily: 'Figures', fontSize: 12, fontWeight: 700, lineHeight: 1.3 }}>
              {record.seal.number}
            </Text>
            <P>{`sealed ${inZone(Date.parse(body.sealedAt), plan.made.zone)}`}</P>
          </View>
        </View>
        <View style={{ borderWidth: 1.6, borderColor: colour, padding: 6, marginTop: 6 }}>
          <Text style={{ fontSize: 15, fontWeight: 700, color: colour, lineHeight: 1.25 }}>
            {printable(v.label)}
          </Text>
          <Text style={{ fontSize: 9, lineHeight: 1.25 }}>{printable(v.sentence)}</Text>
          <Text style={{ marginTop: 2 }}>{printable(v.plain)}</Text>
        </View>
        <View style={{ flexDirection: 'row', gap: 14 }}>
          <View style={{ flex: 1 }}>
            <Text style={s.h}>Site and customer</Text>
            <P>{`${plan.site.name}, ${plan.site.address}. ${plan.site.customer}`}</P>
            <Text style={s.h}>System and section</Text>
            <P>{`${plan.system.name}: ${face.tested}. Bounded by ${plan.system.supplyValve} (owner: ${plan.system.supplyValveOwner}); test point: ${plan.system.testPoint}.`}</P>
            <P>{`Inside: ${plan.system.inScope.join('; ')}.${plan.system.appliances.length ? ` Appliances that day: ${plan.system.appliances.map((a) => a.name).join(', ')}.` : ''}`}</P>
            <P>{`NOT covered: ${plan.system.notCovered.join('; ')}.${face.skipped.length ? ` ${face.skipped.join('. ')}.` : ''}`}</P>
          </View>
          <View style={{ flex: 1 }}>
            <Text style={s.h}>Gauge that judged</Text>
            <P>{`${face.gauge}. Zero open to air: ${face.zeros}.`}</P>
            <Text style={s.h}>Limits and their source</Text>
            {face.limits.map((l, i) => (
              <P key={i}>{`${l.name}: ${l.value} (${l.source})`}</P>
            ))}
            <P>{`Row: ${face.row}. ${plan.pack.title}, ${plan.pack.school}, ${plan.pack.edition}, pack ${plan.pack.id} ${plan.pack.version}. Check the edition in force.`}</P>
          </View>
        </View>
        <View style={s.seam}>
          <Text style={s.h}>
            Courses, newest on top. Plumb: movement against limit, dashed. Open base: what is not covered
          </Text>
          <Courses face={face} />
        </View>
        <View style={[s.seam, { flexDirection: 'row', gap: 12 }]}>
          <View>
            <Text style={s.h}>Trace of the judged hold</Text>
            <TraceDrawing face={face} />
          </View>
          <View style={{ flex: 1 }}>
            <Text style={s.h}>Beside the rule: what it could have seen</Text>
            <P>{v.adequacy?.text ?? (face.deciding ? 'Not worked out for this hold.' : 'No judged hold.')}</P>
            {v.leakRate ? (
              <P>{`As measured: ${v.leakRate.value} (${v.leakRate.formula}${v.leakRate.note ? `; ${v.leakRate.note}` : ''})`}</P>
            ) : null}
          </View>
        </View>
        <View style={s.seam}>
          <Text style={s.h}>Put back</Text>
          <Text style={{ fontSize: 7.2 }}>
            {printable(face.putBack.length ? `${face.putBack.join('; ')}.` : 'Nothing was owed.')}
          </Text>
          <Text style={s.h}>Cautions given</Text>
          <Text style={{ fontSize: 7.2 }}>{printable(face.cautions.join(' '))}</Text>
          <Text style={{ fontSize: 7.2 }}>
            {printable(
              `${plan.pack.notice} Times: begun ${face.started}, ended ${face.ended}. ${face.clock} Later changes to the installation are outside this record.`,
            )}
          </Text>
        </View>
        <View style={[s.seam, { flexDirection: 'row', gap: 12, alignItems: 'flex-end' }]} wrap={false}>
          <Sign who="tester" face={face} />
          <Sign who="customer" face={face} />
          <View style={{ width: 190, flexDirection: 'row', gap: 6, alignItems: 'flex-end' }}>
            {url ? <Qr text={url} /> : null}
            <View style={{ flex: 1 }}>
              <Text style={s.h}>Fingerprint</Text>
              <Text style={{ fontFamily: 'Figures', fontSize: 5 }}>{record.seal.hash.slice(0, 32)}</Text>
              <Text style={{ fontFamily: 'Figures', fontSize: 5 }}>{record.seal.hash.slice(32)}</Text>
              {url ? <Text style={{ fontSize: 6 }}>Check it: scan the code</Text> : null}
            </View>
          </View>
        </View>
        {face.sections.length > 0 && (
          <View style={s.seam}>
            {face.sections.map((x) => (
              <View key={x.title}>
                <Text style={s.h}>{printable(x.title)}</Text>
                <Text style={{ fontSize: 7.2 }}>{printable(`${x.lines.join('. ')}.`)}</Text>
              </View>
            ))}
          </View>
        )}
        <Text
          fixed
          style={{ position: 'absolute', bottom: 6, right: 30, fontSize: 6.5, color: INK }}
          render={({ pageNumber, totalPages }) =>
            totalPages > 1 ? `${record.seal.number}, page ${pageNumber} of ${totalPages}` : ''
          }
        />
      </Page>
    </Document>
  );
}

/**
 * A printed form of a record as PDF bytes: the certificate, or one of the notices it calls for.
 * @param link public link token, for the QR  @throws TroubleError when the record does not call for that notice
 */
export async function certificatePdf(
  record: SealedRecord & { link?: string | null },
  origin: string,
  form: 'certificate' | NoticeKind = 'certificate',
): Promise<Buffer> {
  registerFonts();
  const face = faceOf(record.body);
  const url = record.link ? `${origin}/verify/${record.link}` : null;
  if (form === 'certificate') return renderToBuffer(<Certificate face={face} record={record} url={url} />);
  if (!noticesOf(face).some((n) => n.kind === form))
    throw new TroubleError(404, 'no-notice', 'This record does not call for that notice.');
  return renderToBuffer(<Notice face={face} record={record} url={url} kind={form} />);
}

export async function pdfAnswer(
  record: SealedRecord & { link?: string | null },
  url: URL,
): Promise<Response> {
  const asked = url.searchParams.get('form');
  const form = asked === 'fail' || asked === 'label' || asked === 'report' ? asked : 'certificate';
  const bytes = await certificatePdf(record, process.env.VAST_URL ?? url.origin, form);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${record.seal.number}${form === 'certificate' ? '' : `-${form}`}.pdf"`,
      'cache-control': 'no-store',
    },
  });
}
