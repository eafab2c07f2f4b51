import 'server-only';
import { createRequire } from 'node:module';
import path from 'node:path';
import {
  Document,
  Font,
  Page,
  Path,
  Rect,
  renderToBuffer,
  StyleSheet,
  Svg,
  Text,
  View,
  Line,
} from '@react-pdf/renderer';
import QRCode from 'qrcode';
import { holdTrace } from '@/chart/run-trace';
import { traceGeometry } from '@/chart/trace';
import { plumbShift, wallCourses } from '@/chart/wall';
import { faceOf, inZone, type Face } from '@/core/record/face';
import type { SealedRecord } from '@/core/record/record';
import { printable } from './glyphs';

const require = createRequire(path.join(process.cwd(), 'package.json'));
const file = (name: string, weight: number, subset = 'latin') =>
  require.resolve(`@fontsource/${name}/files/${name}-${subset}-${weight}-normal.woff`);
let registered = false;
function registerFonts(): void {
  if (registered) return;
  for (const [family, name, subset] of [
    ['Words', 'atkinson-hyperlegible-next', 'latin'],
    ['WordsExt', 'atkinson-hyperlegible-next', 'latin-ext'],
    ['Figures', 'martian-mono', 'latin'],
  ] as const)
    Font.register({
      family,
      fonts: [
        { src: file(name, 400, subset), fontWeight: 400 },
        { src: file(name, 700, subset), fontWeight: 700 },
      ],
    });
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}

const INK = '#16201d';
const QUIET = '#55635e';
const SEAM = '#c5cdc8';
const BLOCK = '#d6dcd8';
const RUST = '#a8321c';
const COLOUR: Record<string, string> = {
  tight: '#2b7447',
  'within-allowance': '#666b12',
  'not-tight': RUST,
  void: '#55597a',
  inconclusive: '#9a5b00',
  refer: '#74468a',
};
const s = StyleSheet.create({
  page: {
    fontFamily: ['Words', 'WordsExt'] as unknown as string,
    fontSize: 8.2,
    color: INK,
    paddingTop: 22,
    paddingBottom: 16,
    paddingHorizontal: 30,
    lineHeight: 1.28,
  },
  quiet: { color: QUIET },
  h: { color: QUIET, fontSize: 7.4, marginTop: 3, marginBottom: 1 },
  fig: { fontFamily: 'Figures', fontSize: 7 },
  seam: { borderTopWidth: 0.7, borderTopColor: SEAM, marginTop: 4, paddingTop: 2 },
});
const P = ({ children }: { children: string }) => <Text>{printable(children)}</Text>;

/** The margin wall: a block per course, off plumb by movement over limit, beside its own sentence. */
function Courses({ face }: { face: Face }) {
  const { plan, state } = face;
  const courses = wallCourses(plan, state, state.lastAt).filter((c) => c.visit !== null);
  const lines = face.body.verdict.stages;
  return (
    <View>
      {[...courses].reverse().map((c) => {
        const line = lines[c.visit! - 1];
        const x = 9 + plumbShift(c.plumb, 5);
        return (
          <View
            key={c.key}
            style={{ flexDirection: 'row', alignItems: 'center', minHeight: 12.5 }}
            wrap={false}
          >
            <Svg width={62} height={12.5} viewBox="0 0 62 12.5">
              <Line
                x1={3}
                x2={3}
                y1={0}
                y2={12.5}
                stroke={QUIET}
                strokeWidth={0.5}
                strokeDasharray="1.5 1.5"
              />
              <Line
                x1={57}
                x2={57}
                y1={0}
                y2={12.5}
                stroke={QUIET}
                strokeWidth={0.5}
                strokeDasharray="1.5 1.5"
              />
              <Rect
                x={x}
                y={1}
                width={42}
                height={10.5}
                fill={c.state === 'skipped' ? '#ffffff' : BLOCK}
                stroke={c.out ? RUST : INK}
                strokeWidth={c.out ? 1.2 : 0.6}
              />
              {c.repeated ? (
                <Rect
                  x={x + 1.5}
                  y={2.5}
                  width={39}
                  height={7.5}
                  fill="none"
                  stroke={INK}
                  strokeWidth={0.4}
                />
              ) : null}
              {c.state === 'split' ? (
                <Path d={`M ${x + 26} 0 l -3 5 l 4 2 l -3 6`} stroke={INK} strokeWidth={1} fill="none" />
              ) : null}
            </Svg>
            <Text style={{ flex: 1, paddingLeft: 6 }}>
              <Text style={{ fontWeight: 700 }}>{printable(c.title)}</Text>
              {printable(line ? `: ${line.word}${line.text ? `. ${line.text}` : ''}` : '')}
            </Text>
          </View>
        );
      })}
      <Svg width={62} height={6}>
        <Line x1={0} x2={62} y1={3} y2={3} stroke={INK} strokeWidth={1.5} />
        {plan.system.notCovered.length ? (
          <Rect
            x={24}
            y={0.6}
            width={12}
            height={4.8}
            fill="#ffffff"
            stroke={QUIET}
            strokeWidth={0.6}
            strokeDasharray="1.5 1.5"
          />
        ) : null}
      </Svg>
    </View>
  );
}

function TraceDrawing({ face }: { face: Face }) {
  const { plan, state, deciding } = face;
  if (!deciding) return null;
  const visit = state.visits[deciding.visit - 1]!;
  const request = holdTrace(plan, state, visit, deciding.hold, 0);
  if (!request) return null;
  const width = 345;
  // a long story leaves the trace less height, so that the certificate stays one page
  const height = state.visits.length > 12 ? 60 : 80;
  const g = traceGeometry({ ...request, width, height, margin: { left: 40, right: 12, top: 6, bottom: 20 } });
  return (
    <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`}>
      {g.permitted ? (
        <Rect
          x={g.plot.left}
          y={g.permitted.y}
          width={g.plot.right - g.plot.left}
          height={g.permitted.height}
          fill="#e3efe6"
        />
      ) : null}
      {g.yTicks.map((t) => (
        <Line
          key={t.label}
          x1={g.plot.left}
          x2={g.plot.right}
          y1={t.y}
          y2={t.y}
          stroke={SEAM}
          strokeWidth={0.5}
        />
      ))}
      {g.yTicks.map((t) => (
        <Text
          key={`t${t.label}`}
          x={g.plot.left - 32}
          y={t.y + 2.5}
          style={{ fontFamily: 'Figures', fontSize: 6 }}
        >
          {printable(t.label)}
        </Text>
      ))}
      {g.xTicks.map((t) => (
        <Text key={t.x} x={t.x - 6} y={g.plot.bottom + 9} style={{ fontFamily: 'Figures', fontSize: 6 }}>
          {t.label}
        </Text>
      ))}
      <Text x={g.plot.right - 74} y={g.plot.bottom + 18} style={{ fontFamily: 'Words', fontSize: 6.5 }}>
        mbar against minutes
      </Text>
      <Line
        x1={g.plot.left}
        x2={g.plot.right}
        y1={g.plot.bottom}
        y2={g.plot.bottom}
        stroke={INK}
        strokeWidth={0.7}
      />
      {g.path ? <Path d={g.path} stroke="#0b5c74" strokeWidth={1.1} fill="none" /> : null}
      {g.marks.map((m) => (
        <Rect
          key={`${m.kind}${m.t}`}
          x={m.x - 2}
          y={m.y - 2}
          width={4}
          height={4}
          fill={m.kind === 'late' ? '#ffffff' : INK}
          stroke={INK}
          strokeWidth={0.6}
        />
      ))}
    </Svg>
  );
}

function Qr({ text }: { text: string }) {
  const code = QRCode.create(text, { errorCorrectionLevel: 'M' }).modules;
  const size = code.size;
  let d = '';
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) if (code.get(x, y)) d += `M${x} ${y}h1v1h-1z`;
  return (
    <Svg width={56} height={56} viewBox={`-1 -1 ${size + 2} ${size + 2}`}>
      <Path d={d} fill={INK} />
    </Svg>
  );
}

function Sign({ who: role, face }: { who: 'tester' | 'customer'; face: Face }) {
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
            <P>{`${plan.system.name}: ${plan.procedure.cases.find((c) => c.key === plan.case)?.title ?? ''}. Bounded by ${plan.system.supplyValve} (owner: ${plan.system.supplyValveOwner}); test point: ${plan.system.testPoint}.`}</P>
            <P>{`Inside: ${plan.system.inScope.join('; ')}. Appliances that day: ${plan.system.appliances.map((a) => a.name).join(', ')}.`}</P>
            <P>{`NOT covered: ${plan.system.notCovered.join('; ')}.${face.skipped.length ? ` ${face.skipped.join('. ')}.` : ''}`}</P>
          </View>
          <View style={{ flex: 1 }}>
            <Text style={s.h}>Gauge that judged</Text>
            <P>{`${face.gauge}. Zero open to air: ${face.zeros}.`}</P>
            <Text style={s.h}>Limits and their source</Text>
            {face.limits.map((l) => (
              <P key={l.name}>{`${l.name}: ${l.value} (${l.source})`}</P>
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
            {v.adequacy ? <P>{v.adequacy.text}</P> : <P>No judged hold.</P>}
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
      </Page>
    </Document>
  );
}

/** The certificate as PDF bytes. @param link public link token, for the QR */
export async function certificatePdf(
  record: SealedRecord & { link?: string | null },
  origin: string,
): Promise<Buffer> {
  registerFonts();
  const face = faceOf(record.body);
  return renderToBuffer(
    <Certificate face={face} record={record} url={record.link ? `${origin}/verify/${record.link}` : null} />,
  );
}

export async function pdfAnswer(
  record: SealedRecord & { link?: string | null },
  url: URL,
): Promise<Response> {
  const bytes = await certificatePdf(record, process.env.VAST_URL ?? url.origin);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${record.seal.number}.pdf"`,
      'cache-control': 'no-store',
    },
  });
}
