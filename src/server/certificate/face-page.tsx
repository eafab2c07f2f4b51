import { boundedWords, mustBeSeen } from '@/core/record/face-words';
import { notCoveredIn } from '@/core/plan/not-covered';
import { type Face, inZone } from '@/core/record/face';
import { familyFacts } from '@/core/record/family';
import { supersedesWords } from '@/core/record/marks';
import type { SealedRecord } from '@/core/record/seal';
import { signatureLines } from '@/core/record/signatures';
import { Page, Path, Svg, Text, View } from '@react-pdf/renderer';
import 'server-only';
import { Qr, SectionSketch, SmallWall, TraceDrawing } from './drawings';
import { printable } from './glyphs';
import { COLOUR, INK, P, s, StatusLine } from './kit';
import { PageFoot } from './paper';

/** Signatures as they were drawn, or why there is none; whose test it was stands under them. */
function Signatures({ face }: { face: Face }) {
  return (
    <View style={{ flex: 1, flexDirection: 'row', gap: 10 }}>
      {signatureLines(face).map((line, i) => (
        <View key={i} style={{ flex: 1 }}>
          <Text style={s.h}>{printable(line.role)}</Text>
          {line.strokes ? (
            <Svg width={110} height={32} viewBox="0 0 300 100">
              <Path d={line.strokes} stroke={INK} strokeWidth={2.5} fill="none" />
            </Svg>
          ) : (
            <View style={{ height: 32, justifyContent: 'center' }}>
              <P>{line.instead}</P>
            </View>
          )}
          <Text style={{ fontSize: 7.4 }}>{printable(line.text)}</Text>
        </View>
      ))}
    </View>
  );
}
/** So many lines of a section stand on the face. */
const MOST_LINES = 3;
const clip = (text: string, most: number): string =>
  text.length <= most
    ? text
    : `${text.slice(0, text.lastIndexOf(' ', most))} … (whole on the following page)`;

/** By whose clock the judged hold was timed. */
function judgedTimes(face: Face): string {
  const judged = face.holds.find((h) => h.startedAt === face.deciding?.hold.startedAt);
  return judged ? ` Judged hold ${judged.times}.` : '';
}
/** What was tested, by what, and what was not. */
function Scope({ face }: { face: Face }) {
  const { plan } = face;
  const facts = familyFacts(face);
  return (
    <View style={{ flexDirection: 'row', gap: 14, marginTop: 4 }}>
      <View style={{ flex: 1 }}>
        <Text style={s.h}>Site and customer</Text>
        <P>{`${plan.site.name}, ${plan.site.address}. ${plan.site.customer}`}</P>
        <Text style={s.h}>System and section</Text>
        <P>{`${plan.system.name}: ${face.tested}. ${boundedWords(plan)}`}</P>
        <P>{clip(`Inside: ${plan.system.inScope.join('; ')}.`, 260)}</P>
        <Text style={s.h}>NOT covered</Text>
        <Text style={{ fontWeight: 700 }}>
          {printable(
            clip(
              `${notCoveredIn(plan).join('; ')}.${face.skipped.length ? ` ${face.skipped.join('. ')}.` : ''}`,
              420,
            ),
          )}
        </Text>
      </View>
      <View style={{ flex: 1 }}>
        <Text style={s.h}>Gauge that judged</Text>
        <P>{clip(`${face.gauge}. Zero open to air: ${face.zeros}.`, 360)}</P>
        {facts.map((f) => (
          <Text key={f.name}>
            <Text style={s.quiet}>{`${f.name}: `}</Text>
            {printable(clip(f.value, 150))}
          </Text>
        ))}
        <Text style={s.h}>Times</Text>
        <P>{`Begun ${face.started}, ended ${face.ended}.${judgedTimes(face)}`}</P>
      </View>
    </View>
  );
}

/** Limits with their sources, the trace, and what was read. */
function Judged({ face, low }: { face: Face; /** Its trace makes room. */ low: boolean }) {
  const { plan } = face;
  const v = face.body.verdict;
  return (
    <>
      <View style={s.seam}>
        <Text style={s.h}>Limits and their source</Text>
        {face.limits.slice(0, 7).map((l, i) => (
          <P key={i}>{`${l.name}: ${l.value} (${l.source})`}</P>
        ))}
        {face.limits.length > 7 ? <P>More limits on the following page.</P> : null}
        <P>{`Row: ${face.row}. ${plan.pack.title}, ${plan.pack.school}, ${plan.pack.edition}, pack ${plan.pack.id} ${plan.pack.version}${plan.engine ? `, judgement ${plan.engine}` : ''}. Check the edition in force.`}</P>
      </View>
      <View style={[s.seam, { flexDirection: 'row', gap: 12 }]}>
        <View>
          <Text style={s.h}>Trace of the judged hold</Text>
          <TraceDrawing face={face} height={low || face.holds.length > 4 ? 90 : 120} />
          {face.deciding ? null : <P>No judged hold.</P>}
        </View>
        <View style={{ flex: 1 }}>
          <Text style={s.h}>Beside the rule: what it could have seen</Text>
          <P>{v.adequacy?.text ?? (face.deciding ? 'Not worked out for this hold.' : 'No judged hold.')}</P>
          {v.leakRate ? (
            <P>{`As measured: ${v.leakRate.value} (${v.leakRate.formula}${v.leakRate.note ? `; ${v.leakRate.note}` : ''})`}</P>
          ) : null}
        </View>
      </View>
      {/* an unpressed test has no holds, and no heading over nothing */}
      <View style={face.holds.length ? s.seam : { display: 'none' }}>
        <Text style={s.h}>What was read</Text>
        {face.holds.slice(-6).map((h, i) => (
          <P
            key={i}
          >{`${h.title}, ${h.clock}: ${h.start} to ${h.end || 'not read'}${h.change ? `, ${h.change}` : ''}${h.elapsed ? ` in ${h.elapsed}` : ''}: ${h.word}`}</P>
        ))}
        {face.holds.length > 6 ? (
          <P>{`The last 6 of ${face.holds.length} holds; all stand on the following page.`}</P>
        ) : null}
      </View>
    </>
  );
}

/** Where the section is drawn smaller than this, points a unit, the page is full. */
const ROOMY = 4;

/** The face: everything a reader must know on one page. What is longer goes on behind it. */
export function FacePage({
  face,
  record,
  url,
  marks,
  drawn,
}: {
  face: Face;
  record: SealedRecord;
  url: string | null;
  marks: readonly string[];
  /** With the section drawn, so many points a unit of its grid; 0: without. */
  drawn: number;
}) {
  const { plan, body } = face;
  const v = body.verdict;
  const colour = COLOUR[v.word] ?? INK;
  return (
    <Page size="A4" style={s.page}>
      <StatusLine face={face} marks={marks} />
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
          {plan.supersedes ? <P>{`in place of ${supersedesWords(plan.supersedes)}`}</P> : null}
        </View>
      </View>
      <View style={{ flexDirection: 'row', gap: 12, marginTop: 8 }}>
        <View style={{ width: 60 }}>
          <SmallWall face={face} />
          <Text style={{ ...s.quiet, fontSize: 6, marginTop: 2 }}>
            {printable('One course a stage, newest on top. Off plumb: movement against the limit.')}
          </Text>
        </View>
        <View style={{ flex: 1 }}>
          <View style={{ borderWidth: 1.6, borderColor: colour, padding: 7 }}>
            <Text style={{ fontSize: 15, fontWeight: 700, color: colour, lineHeight: 1.25 }}>
              {printable(v.label)}
            </Text>
            <Text style={{ fontSize: 9, lineHeight: 1.25 }}>{printable(v.sentence)}</Text>
            <Text style={{ marginTop: 2 }}>{printable(v.plain)}</Text>
          </View>
          <Scope face={face} />
        </View>
      </View>
      <Judged face={face} low={drawn > 0 && drawn < ROOMY} />
      {face.sections.filter(mustBeSeen).map((x) => (
        <View key={x.title} style={s.seam}>
          <Text style={s.h}>{printable(x.title)}</Text>
          {x.lines.slice(0, MOST_LINES).map((l, i) => (
            <P key={i}>{clip(l, 240)}</P>
          ))}
          {x.lines.length > MOST_LINES && (
            <P>{`… and ${x.lines.length - MOST_LINES} more, on the following page`}</P>
          )}
        </View>
      ))}
      {drawn ? (
        <View style={s.seam}>
          <Text style={s.h}>Section as it stood in the test</Text>
          <SectionSketch face={face} most={drawn} />
        </View>
      ) : null}
      <View style={{ flexGrow: 1 }} />
      <View style={[s.seam, { flexDirection: 'row', gap: 12, alignItems: 'flex-end' }]} wrap={false}>
        <Signatures face={face} />
        <View style={{ width: 176, flexDirection: 'row', gap: 6, alignItems: 'flex-end' }}>
          {url ? <Qr text={url} /> : null}
          <View style={{ flex: 1 }}>
            <Text style={s.h}>Fingerprint</Text>
            <Text style={{ fontFamily: 'Figures', fontSize: 5 }}>{record.seal.hash.slice(0, 32)}</Text>
            <Text style={{ fontFamily: 'Figures', fontSize: 5 }}>{record.seal.hash.slice(32)}</Text>
            {url ? <Text style={{ fontSize: 6 }}>Check it: scan the code</Text> : null}
          </View>
        </View>
      </View>
      <Text style={{ fontSize: 6.6, marginTop: 3 }}>
        {printable(`${plan.pack.notice} Later changes to the installation are outside this record.`)}
      </Text>
      <PageFoot number={record.seal.number} />
    </Page>
  );
}
