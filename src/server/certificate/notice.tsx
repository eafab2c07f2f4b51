import 'server-only';
import { Document, Page, Text, View } from '@react-pdf/renderer';
import { inZone, type Face } from '@/core/record/face';
import { noticesOf, type NoticeKind } from '@/core/record/notices';
import type { SealedRecord } from '@/core/record/record';
import { DANGER_WORDS } from '@/core/record/words';
import { Qr } from './drawings';
import { printable } from './glyphs';
import { INK, P, registerFonts, s } from './kit';

export { noticesOf, type NoticeKind };
const TITLES: Record<NoticeKind, string> = {
  fail: 'Notice: not shown fit for use',
  label: 'Do not use',
  report: 'Report of a fault that is not the customer’s',
};
const big = { fontSize: 11, lineHeight: 1.35, marginTop: 6 } as const;

const DONE = {
  disconnected: 'It was disconnected and capped.',
  labelled: 'It was shut off and labelled.',
  refused: 'The user refused to have it shut off and was told in writing.',
} as const;
const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What is handed to a user, tied to a valve, or sent to whoever owns an upstream fault: with the care of a certificate. */
export function Notice({
  face,
  record,
  url,
  kind,
}: {
  face: Face;
  record: SealedRecord;
  url: string | null;
  kind: NoticeKind;
}) {
  registerFonts();
  const { plan, state, body } = face;
  const { verdict: v } = body;
  const limited = v.use === 'limited';
  const title = kind === 'fail' && limited ? 'Notice: limited use until repaired' : TITLES[kind];
  const where = `${plan.site.name}, ${plan.site.address}: ${plan.system.name}`;
  const unsafe = state.unsafe;
  const reporter = `${plan.organisation.name}, ${state.signatures.find((x) => x.role === 'tester')?.name ?? body.sealer.name}`;
  const label = kind === 'label';
  return (
    <Document title={`${record.seal.number} ${title}`} author={plan.organisation.name} language="en">
      <Page
        size={label ? 'A6' : 'A4'}
        orientation={label ? 'landscape' : 'portrait'}
        style={[s.page, label ? { padding: 16 } : { padding: 42 }]}
      >
        <View
          style={{
            borderWidth: label ? 4 : 2,
            borderColor: INK,
            padding: label ? 10 : 14,
            flexGrow: label ? 1 : 0,
          }}
        >
          <Text style={{ fontSize: label ? 30 : 22, fontWeight: 700, lineHeight: 1.15 }}>
            {printable(title)}
          </Text>
          <Text style={big}>{printable(where)}</Text>
          {label ? (
            <>
              <Text style={{ ...big, fontSize: 13, fontWeight: 700 }}>
                {printable(
                  unsafe
                    ? `${sentence(DANGER_WORDS[unsafe.danger])}: ${unsafe.text}`
                    : 'Not shown tight. It stays shut off until it is repaired and tested again.',
                )}
              </Text>
              <Text style={big}>
                {printable(
                  `${unsafe ? `${DONE[unsafe.action]} ` : ''}Do not open, light or connect it. This label is taken off only by whoever tests it tight.`,
                )}
              </Text>
            </>
          ) : null}
        </View>
        {kind === 'fail' ? (
          <>
            <Text style={big}>{printable(`To the user: ${plan.site.customer}`)}</Text>
            <Text style={big}>{printable(v.plain)}</Text>
            <Text style={big}>{printable(`Result: ${v.label}. ${v.sentence}`)}</Text>
            {unsafe ? (
              <Text style={{ ...big, fontWeight: 700 }}>
                {printable(
                  `This was classed as ${DANGER_WORDS[unsafe.danger]}: ${unsafe.text}. ${DONE[unsafe.action]} Told: ${unsafe.told}.`,
                )}
              </Text>
            ) : null}
            <Text style={big}>
              {printable(
                limited
                  ? 'It may be used only until the date below and must be repaired and tested again before it.'
                  : 'Do not use it, and let nobody open, light or connect it, until a competent person has repaired it and it was tested again.',
              )}
            </Text>
            <Text style={big}>
              {printable(
                `If you smell gas: touch no switch, leave, and call ${plan.system.emergencyContact} from outside.`,
              )}
            </Text>
          </>
        ) : null}
        {kind === 'report' ? (
          <>
            <Text style={big}>
              {printable(`To the ${[...new Set(state.reports.map((r) => r.to))].join(' and the ')}`)}
            </Text>
            {state.reports.map((r) => (
              <Text key={r.text} style={{ ...big, fontWeight: 700 }}>
                {printable(r.text)}
              </Text>
            ))}
            <Text style={big}>
              {printable(
                `What was read: ${v.stages
                  .filter((x) => x.text)
                  .map((x) => `${x.title}: ${x.word} (${x.text})`)
                  .join('; ')}.`,
              )}
            </Text>
            <Text style={big}>{printable(`Gauge: ${face.gauge}. Zero open to air: ${face.zeros}.`)}</Text>
            <Text style={big}>
              {printable(
                `Bounded by ${plan.system.supplyValve} (owner: ${plan.system.supplyValveOwner}). The tester did not repair it.`,
              )}
            </Text>
          </>
        ) : null}
        {!label && face.sections.length > 0 ? (
          <View style={{ marginTop: 10 }}>
            {face.sections
              .filter(
                (x) =>
                  ['Due', 'Reported to others', 'Present that day', 'Joints touched today'].includes(
                    x.title,
                  ) && !(kind === 'report' && x.title === 'Reported to others'),
              )
              .map((x) => (
                <View key={x.title}>
                  <Text style={{ ...s.h, fontSize: 9 }}>{printable(x.title)}</Text>
                  {x.lines.map((l) => (
                    <Text key={l} style={{ fontSize: 10 }}>
                      {printable(l)}
                    </Text>
                  ))}
                </View>
              ))}
          </View>
        ) : null}
        <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-end', marginTop: label ? 6 : 24 }}>
          {url ? <Qr text={url} /> : null}
          <View style={{ flex: 1 }}>
            <P>{`Record ${record.seal.number}, ${inZone(Date.parse(body.sealedAt), plan.made.zone)}`}</P>
            <P>{reporter}</P>
            {label ? null : <P>{plan.pack.notice}</P>}
          </View>
        </View>
      </Page>
    </Document>
  );
}
