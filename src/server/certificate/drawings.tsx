import 'server-only';
import { Line, Path, Rect, Svg, Text, View } from '@react-pdf/renderer';
import QRCode from 'qrcode';
import { holdTrace } from '@/chart/run-trace';
import { traceGeometry } from '@/chart/trace';
import { plumbShift, wallCourses } from '@/chart/wall';
import type { Face } from '@/core/record/face';
import { printable } from './glyphs';
import { BLOCK, INK, QUIET, RUST, SEAM } from './kit';

/** The margin wall: a block per course, off plumb by movement over limit, beside its own sentence. */
export function Courses({ face }: { face: Face }) {
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
              {[3, 57].map((limit) => (
                <Line
                  key={limit}
                  x1={limit}
                  x2={limit}
                  y1={0}
                  y2={12.5}
                  stroke={QUIET}
                  strokeWidth={0.5}
                  strokeDasharray="1.5 1.5"
                />
              ))}
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

/** The judged hold drawn against its permitted band. */
export function TraceDrawing({ face }: { face: Face }) {
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
        {printable(`${face.unit} against minutes`)}
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

/** A QR code as paths. */
export function Qr({ text }: { text: string }) {
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
