import { notCoveredIn } from '@/core/plan/not-covered';
import { showExact } from '@/core/quantity/exact';
import { clockInZone } from '@/core/quantity/in-zone';
import { type Face, inZone } from '@/core/record/face';
import { picturesOf } from '@/core/record/pictures';
import { provenanceLines } from '@/core/record/provenance';
import { readingRows, SOURCE_WORDS } from '@/core/record/readings';
import type { SealedRecord } from '@/core/record/seal';
import { Image, Page, Text, View } from '@react-pdf/renderer';
import 'server-only';
import { Courses, SectionSketch } from './drawings';
import { printable } from './glyphs';
import { P, s, StatusLine } from './kit';
import { PageFoot } from './paper';

const cell = { paddingRight: 4, fontSize: 7 } as const;
type Row = readonly string[];
function Table({
  head,
  rows,
  widths,
  figures,
}: {
  head: Row;
  rows: readonly Row[];
  widths: readonly number[];
  figures: readonly number[];
}) {
  const line = (cells: Row, strong: boolean, key: number | string) => (
    <View key={key} style={{ flexDirection: 'row', paddingVertical: 0.8 }} wrap={false}>
      {cells.map((text, i) => (
        <Text
          key={i}
          style={{
            ...cell,
            flex: widths[i],
            ...(strong ? s.quiet : figures.includes(i) ? { fontFamily: 'Figures', fontSize: 6.2 } : {}),
          }}
        >
          {printable(text)}
        </Text>
      ))}
    </View>
  );
  return (
    <View>
      {line(head, true, 'head')}
      {rows.map((r, i) => line(r, false, i))}
    </View>
  );
}
function Heading({ children }: { children: string }) {
  return (
    <Text style={{ fontSize: 10, fontWeight: 700, marginTop: 8, marginBottom: 2 }} minPresenceAhead={40}>
      {printable(children)}
    </Text>
  );
}
const MOST_ROWS = 120;

/** What was put back, and of what was warned, beside each other. */
const AtTheEnd = ({ face }: { face: Face }) => (
  <View style={{ flexDirection: 'row', gap: 14 }}>
    <View style={{ flex: 1 }}>
      <Heading>Put back</Heading>
      {face.putBack.length ? face.putBack.map((l, i) => <P key={i}>{l}</P>) : <P>Nothing was owed.</P>}
    </View>
    <View style={{ flex: 1 }}>
      <Heading>Cautions given</Heading>
      {face.cautions.map((l, i) => (
        <P key={i}>{l}</P>
      ))}
    </View>
  </View>
);
/** What stands behind the face: every stage in words, every reading with its source, the section, the story, the photos. */
export function FollowingPages({
  face,
  record,
  marks,
  photos,
  drawn,
}: {
  face: Face;
  record: SealedRecord;
  marks: readonly string[];
  photos: ReadonlyMap<string, Buffer>;
  /** With the section drawn: where the face has no room for it. */
  drawn: boolean;
}) {
  const { plan, state } = face;
  const zone = plan.made.zone;
  const clock = (ms: number) => clockInZone(ms, zone);
  const rows = readingRows(plan, state, face.body.events);
  const pictures = picturesOf(state).filter((p) => photos.has(p.hash));
  return (
    <>
      <Page size="A4" style={[s.page, { paddingBottom: 28 }]}>
        <StatusLine face={face} marks={marks} />
        <P>{`${record.seal.number}: ${plan.site.name}, ${plan.system.name}`}</P>
        <Heading>Courses, newest on top</Heading>
        <Courses face={face} />
        {face.holds.length ? (
          <>
            <Heading>Holds</Heading>
            <Table
              head={['Stage', 'Begun', 'Start', 'End', 'Change', 'Elapsed', 'Result']}
              widths={[3, 2, 2, 2, 2, 2, 3]}
              figures={[1, 2, 3, 4, 5]}
              rows={face.holds.map((h) => [h.title, h.clock, h.start, h.end, h.change, h.elapsed, h.word])}
            />
          </>
        ) : null}
        {face.holds.map((h, i) => (
          <P key={i}>{`${h.title}, ${h.clock}: ${h.times}`}</P>
        ))}
        {rows.length ? (
          <>
            <Heading>Readings, and how each came</Heading>
            <Table
              head={['Stage', 'What', 'Read', 'Figure', 'Came here', 'Source', 'By']}
              widths={[3, 2, 2, 2, 2, 3.4, 2.4]}
              figures={[2, 3, 4]}
              rows={rows
                .slice(0, MOST_ROWS)
                .map((r) => [
                  r.stage,
                  r.what,
                  clock(r.read),
                  showExact(r.figure),
                  r.received === null ? '' : clock(r.received),
                  `${SOURCE_WORDS[r.source]}${r.late ? ', late' : ''}${r.corrected ? `, corrected to ${showExact(r.corrected)}: ${r.reason}` : ''}`,
                  r.by,
                ])}
            />
          </>
        ) : null}
        {rows.length > MOST_ROWS ? (
          <P>{`The first ${MOST_ROWS} of ${rows.length} readings; all stand in the CSV and in the record file.`}</P>
        ) : null}
        {provenanceLines(plan, state).map((l) => (
          <P key={l}>{l}</P>
        ))}
        <P>{face.clock}</P>
        <Heading>What was tested</Heading>
        {drawn ? <SectionSketch face={face} /> : null}
        <P>{`Inside: ${plan.system.inScope.join('; ')}.`}</P>
        <P>{`NOT covered: ${notCoveredIn(plan).join('; ')}.${face.skipped.length ? ` ${face.skipped.join('. ')}.` : ''}`}</P>
        <Heading>Limits and their source</Heading>
        {face.limits.map((l, i) => (
          <P key={i}>{`${l.name}: ${l.value} (${l.source}). Check the edition in force.`}</P>
        ))}
        <P>{`Gauge: ${face.gauge}. Zero open to air: ${face.zeros}.`}</P>
        {face.sections.map((x) => (
          <View key={x.title}>
            <Heading>{x.title}</Heading>
            {x.lines.map((l, i) => (
              <P key={i}>{l}</P>
            ))}
          </View>
        ))}
        <AtTheEnd face={face} />
        <PageFoot number={record.seal.number} />
      </Page>
      {pictures.length > 0 ? (
        <Page size="A4" style={[s.page, { paddingBottom: 28 }]}>
          <StatusLine face={face} marks={marks} />
          <Text style={{ fontSize: 12, fontWeight: 700 }}>
            {printable(`Photos of ${record.seal.number}`)}
          </Text>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, marginTop: 6 }}>
            {pictures.map((p, i) => (
              <View key={i} style={{ width: 255 }} wrap={false}>
                <Image src={photos.get(p.hash)} style={{ width: 255, height: 190, objectFit: 'contain' }} />
                <Text style={{ fontWeight: 700 }}>
                  {printable(`${p.title}: ${[p.caption, p.place].filter(Boolean).join(', ')}`)}
                </Text>
                {p.beside ? <P>{p.beside}</P> : null}
                <Text style={{ ...s.quiet, fontSize: 7 }}>
                  {printable(
                    [
                      p.taken?.stage,
                      p.taken && `${inZone(p.taken.at, zone)}, ${p.taken.by}`,
                      p.hash.slice(0, 12),
                    ]
                      .filter(Boolean)
                      .join('; '),
                  )}
                </Text>
              </View>
            ))}
          </View>
          <PageFoot number={record.seal.number} />
        </Page>
      ) : null}
    </>
  );
}
