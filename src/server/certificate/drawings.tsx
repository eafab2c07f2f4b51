import { outlinePath } from '@/chart/outline';
import { qrPath } from '@/chart/qr';
import { holdTrace } from '@/chart/run-trace';
import { traceGeometry } from '@/chart/trace';
import { wallCourses } from '@/chart/wall';
import { plumbShift } from '@/chart/courses';
import { mapNow } from '@/core/kinds/map/fold';
import { linesDrawn, otherParts, withFound } from '@/core/trades/pool/ends';
import { tradeOf } from '@/core/trades';
import { networkOf } from '@/core/network/enter';
import { reachOf } from '@/core/network/flood';
import { notCoveredIn } from '@/core/plan/not-covered';
import type { Face } from '@/core/record/face';
import { Line, Path, Rect, Svg, Text, View } from '@react-pdf/renderer';
import 'server-only';
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
        {notCoveredIn(plan).length ? (
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

/** The small wall at the margin of the face: blocks alone, newest on top; the words stand on the following page. */
export function SmallWall({ face }: { face: Face }) {
  const { plan, state } = face;
  const courses = wallCourses(plan, state, state.lastAt).filter((c) => c.visit !== null);
  const height = Math.min(13, 300 / Math.max(1, courses.length));
  const h = courses.length * height + 5;
  return (
    <Svg width={58} height={h} viewBox={`0 0 58 ${h}`}>
      {[3, 55].map((x) => (
        <Line
          key={x}
          x1={x}
          x2={x}
          y1={0}
          y2={h - 4}
          stroke={QUIET}
          strokeWidth={0.5}
          strokeDasharray="1.5 1.5"
        />
      ))}
      {[...courses].reverse().map((c, i) => {
        const x = 8 + plumbShift(c.plumb, 4.5);
        const y = i * height;
        return (
          <Rect
            key={c.key}
            x={x}
            y={y + 0.7}
            width={42}
            height={height - 1.2}
            fill={c.state === 'skipped' ? '#ffffff' : BLOCK}
            stroke={c.out ? RUST : INK}
            strokeWidth={c.out ? 1.4 : 0.6}
          />
        );
      })}
      {[...courses]
        .reverse()
        .map((c, i) =>
          c.state === 'split' ? (
            <Path
              key={c.key}
              d={`M 31 ${i * height} l -3 ${height * 0.4} l 4 ${height * 0.2} l -3 ${height * 0.4}`}
              stroke={INK}
              strokeWidth={1}
              fill="none"
            />
          ) : null,
        )}
      <Line x1={0} x2={58} y1={h - 2} y2={h - 2} stroke={INK} strokeWidth={1.5} />
      {notCoveredIn(plan).length ? (
        <Rect
          x={22}
          y={h - 4.4}
          width={12}
          height={4.4}
          fill="#ffffff"
          stroke={QUIET}
          strokeWidth={0.6}
          strokeDasharray="1.5 1.5"
        />
      ) : null}
    </Svg>
  );
}

/** The judged hold drawn against its permitted band. */
export function TraceDrawing({
  face,
  width = 345,
  height = 80,
}: {
  face: Face;
  width?: number;
  height?: number;
}) {
  const { plan, state, deciding } = face;
  if (!deciding) return null;
  const visit = state.visits[deciding.visit - 1]!;
  const request = holdTrace(plan, state, visit, deciding.hold, 0);
  if (!request) return null;
  const g = traceGeometry({
    ...request,
    width,
    height,
    margin: { left: 40, right: 12, top: 6, bottom: 20 },
    label: { wide: 28, high: 12 },
  });
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
      {g.unread.map((u) => (
        <Rect
          key={u.x}
          x={u.x}
          y={g.plot.top}
          width={u.width}
          height={g.plot.bottom - g.plot.top}
          fill="#ececec"
        />
      ))}
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
        {printable(`${face.unit} against ${g.time}`)}
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
  const { size, path } = qrPath(text);
  return (
    <Svg width={56} height={56} viewBox={`-1 -1 ${size + 2} ${size + 2}`}>
      <Path d={path} fill={INK} />
    </Svg>
  );
}

/** What is drawn: the section; of a pool its lines as they were known, the line under test bold among the others. */
function sketched({ plan, state }: Face) {
  const network = networkOf(plan.system);
  const { section } = plan.system;
  if (tradeOf(plan.system).parted !== 'lines') return { network, reach: reachOf(network), joins: [] };
  const parts = [...network.parts, ...otherParts(plan.system)];
  const whole = withFound({ ...network, parts }, state.rooms.map.found);
  const { reach, joins } = linesDrawn(whole, mapNow(plan, state));
  const own = (id: string) => !section || network.parts.some((p) => p.id === id);
  return {
    network: whole,
    reach: { ...reach, parts: new Set([...reach.parts].filter(own)) },
    joins: joins.filter((j) => own(j.from) && own(j.to)),
  };
}
/** The drawn section: what the test reached is thick and full, what it did not is thin and broken. */
/** @param most points of one unit of the grid downwards at most */
export function SectionSketch({ face, most = 4.6 }: { face: Face; most?: number }) {
  const { network, reach, joins } = sketched(face);
  const byId = new Map(network.parts.map((n) => [n.id, n]));
  const edge = network.outline;
  const corners = edge ? [edge, { x: edge.x + edge.width, y: edge.y + edge.height }] : [];
  const drawn = [...network.parts, ...corners];
  const left = Math.min(...drawn.map((n) => n.x));
  const wide = Math.max(...drawn.map((n) => n.x)) - left;
  // a long line is drawn closer, as far as its names can still be told apart
  const unit = Math.min(4.6, 460 / Math.max(1, wide));
  const low = Math.min(most, unit);
  const top = Math.min(...drawn.map((n) => n.y));
  const down = (Math.max(...drawn.map((n) => n.y)) - top + 10) * low;
  const x = (n: { x: number }) => (n.x - left) * unit + 30;
  const y = (n: { y: number }) => (n.y - top + 5) * low;
  return (
    <View style={{ width: 520, height: down }} wrap={false}>
      <Svg width={520} height={down} viewBox={`0 0 520 ${down}`}>
        {edge ? (
          <Path
            d={outlinePath({
              ...edge,
              x: x(edge),
              y: y(edge),
              width: edge.width * unit,
              height: edge.height * low,
              ...(edge.points
                ? { points: edge.points.map(([px, py]) => [x({ x: px }), y({ y: py })] as const) }
                : {}),
            })}
            fill="none"
            stroke={QUIET}
            strokeWidth={0.5}
          />
        ) : null}
        {joins.map((j) => {
          const [a, b] = [byId.get(j.from), byId.get(j.to)];
          return a && b ? (
            <Path
              key={`${j.from}-${j.to}`}
              d={`M ${x(a)} ${y(a)} H ${x(b)} V ${y(b)}`}
              fill="none"
              stroke={j.sure ? INK : QUIET}
              strokeWidth={j.sure ? 1 : 0.5}
              strokeDasharray={j.sure ? '6 2' : '1 3'}
            />
          ) : null;
        })}
        {network.links.map((l) => {
          const a = byId.get(l.from);
          const b = byId.get(l.to);
          if (!a || !b) return null;
          const inside = reach.links.has(l.id) && (reach.parts.has(a.id) || reach.parts.has(b.id));
          return (
            <Path
              key={l.id}
              d={`M ${x(a)} ${y(a)} H ${x(b)} V ${y(b)}`}
              fill="none"
              stroke={inside ? INK : QUIET}
              strokeWidth={inside ? 2.2 : 0.8}
              {...(inside ? {} : { strokeDasharray: '3 2.5' })}
            />
          );
        })}
        {network.parts
          .filter((n) => n.kind !== 'tee')
          .map((n) =>
            n.kind === 'valve' ? (
              <Path
                key={n.id}
                d={`M ${x(n) - 5} ${y(n) - 4} L ${x(n) + 5} ${y(n) + 4} L ${x(n) + 5} ${y(n) - 4} L ${x(n) - 5} ${y(n) + 4} Z`}
                fill={n.position === 'closed' ? INK : '#ffffff'}
                stroke={INK}
                strokeWidth={0.8}
              />
            ) : (
              <Rect
                key={n.id}
                x={x(n) - 6}
                y={y(n) - 4.5}
                width={12}
                height={9}
                fill={reach.parts.has(n.id) ? BLOCK : '#ffffff'}
                stroke={INK}
                strokeWidth={n.kind === 'appliance' ? 1.4 : 0.8}
              />
            ),
          )}
      </Svg>
      {network.parts
        .filter((n) => n.kind !== 'tee')
        .map((n, i) => (
          <Text
            key={n.id}
            style={{
              position: 'absolute',
              left: Math.max(0, x(n) - 30),
              // neighbours on one pipe have their names above and below in turn
              top: i % 2 ? y(n) - 19 : y(n) + 6,
              width: 60,
              fontSize: unit < 3 ? 4.6 : 5.6,
              textAlign: 'center',
              lineHeight: 1.1,
            }}
          >
            {printable(n.kind === 'valve' ? `${n.name}, ${n.position ?? 'open'}` : n.name)}
          </Text>
        ))}
    </View>
  );
}
