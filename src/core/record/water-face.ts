/** The parts of a record that only work with water has: what was applied, pumped, lost, seen at a second place, left. */
import { metres } from '@/core/installation/section';
import { LEVEL_MARK } from '@/core/instrument/gauge';
import { SEEN_WORDS } from '@/core/kinds/hold/fold';
import { headPressure } from '@/core/medium/water';
import { fillingOf } from '@/core/plan/filling';
import type { Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { breachWords, showExact } from '@/core/quantity/exact';
import { type Figure, figureNumber, showFigure } from '@/core/quantity/figure';
import { inZone } from '@/core/quantity/in-zone';
import { unitLabel } from '@/core/quantity/unit';
import type { RunState } from '@/core/run/state';
import type { Face } from './face';

/** Limits of holds that are not judged by perceptible movement: each with its source, and the figure it came to. */
export function waterLimits(plan: Plan, state: RunState): Face['limits'][number][] {
  return state.visits.flatMap((v) =>
    v.holds.flatMap((h) => {
      const j = h.judgement;
      if (!j) return [];
      if (h.role === 'stretch' && j.limit)
        return [
          {
            name: `${v.title}, fall permitted`,
            value: `${breachWords(j.limit)} is too much`,
            source: j.limit.source,
          },
        ];
      if (!j.makeUp) return [];
      return [
        {
          name: 'make-up permitted',
          value: j.makeUp.limit ? showExact(j.makeUp.limit.value) : 'no limit given: for the engineer',
          source: j.makeUp.limit
            ? `${j.makeUp.limit.source}; ${j.makeUp.limit.working.formula}`
            : plan.procedure.title,
        },
      ];
    }),
  );
}

/** Top-ups under the name of what was let in: only a section full of water gets water. */
export const addedTitle = (plan: Plan): string => fillingOf(plan).added;
/** What was applied, pumped, lost and left: the parts of a record that only water has. */
export function waterSections(plan: Plan, state: RunState): Face['sections'][number][] {
  const { system } = plan;
  const zone = plan.made.zone;
  const heights = system.heights;
  const loss = (figure: Figure, laminar: number, orifice: number) =>
    `${showFigure(figure)} over the fall; at the test pressure ${figureNumber({ value: laminar, decimals: figure.decimals })} (laminar) to ${figureNumber({ value: orifice, decimals: figure.decimals })} ${unitLabel(figure.unit)} (orifice)`;
  return [
    {
      key: 'applied',
      title: 'What was applied',
      lines: plan.procedure.applied ? [plan.procedure.applied.replace(/\.$/, '')] : [],
    },
    { key: 'findings', title: 'Findings', lines: state.findings },
    {
      key: 'level',
      title: 'Level',
      lines: heights?.slab
        ? [
            `Heights over ${heights.datum}: slab ${showExact(heights.slab)}${heights.lowest ? `, lowest point ${showExact(heights.lowest)}` : ''}`,
            ...headLines(plan, state),
            ...state.visits.flatMap((v) =>
              v.holds.flatMap((h) =>
                (['start', 'end'] as const).flatMap((when) => {
                  const w = h.witness[when];
                  return w
                    ? [
                        `Second place at the ${when} (${inZone(w.at, zone)}): ${SEEN_WORDS[w.seen]}${w.text ? `, ${w.text}` : ''}`,
                      ]
                    : [];
                }),
              ),
            ),
          ]
        : [],
    },
    {
      key: 'raised',
      title: 'Raised in stages',
      lines: state.visits.flatMap((v) =>
        v.pumped.map((p, i) => {
          const { looks } = fillingOf(plan, plan.procedure.stages[v.stage]?.part);
          const pump = [
            p.strokes === undefined ? '' : `${p.strokes} strokes`,
            p.added ? showExact(p.added) : '',
          ]
            .filter(Boolean)
            .join(', ');
          const air = p.air
            ? `; trapped air ${p.air.litres.toFixed(2)} l at atmospheric pressure (${p.air.percent.toFixed(1)} % of the volume)`
            : '';
          const look = p.look
            ? `; ${showExact(p.look.reading.figure)} after the pause, joints ${p.look.joints === 'dry' ? looks.none : `${looks.some === 'drips' ? 'drip' : looks.some}: ${p.look.where}`}`
            : '';
          return `${v.title} ${i + 1}: ${showExact(p.reached.figure)}${pump ? ` (${pump})` : ''}${look}${air}${p.fast ? `; ${p.fast}` : ''}`;
        }),
      ),
    },
    {
      key: 'added',
      title: addedTitle(plan),
      lines: state.visits.flatMap((v) =>
        v.holds.flatMap((h) =>
          h.topUps.map(
            (t) =>
              `${v.title}, ${inZone(t.at, zone)}: ${showExact(t.before)} to ${showExact(t.after)}${t.added ? `, ${showExact(t.added)}` : ''}`,
          ),
        ),
      ),
    },
    {
      key: 'losses',
      title: 'Two loss figures, kept apart',
      lines: state.visits.flatMap((v) => [
        ...(v.drawn
          ? [
              `Decay loss: ${showExact(v.drawn.volume)} drained from ${showExact(v.drawn.from)} to ${showExact(v.drawn.to)}, which it fell in ${v.drawn.minutes.toFixed(0)} min: ${loss(v.drawn.rate, v.drawn.scaled.laminar, v.drawn.scaled.orifice)}`,
            ]
          : []),
        ...v.holds.flatMap((h) =>
          h.judgement?.makeUp
            ? [
                `Make-up at test pressure: ${showExact(h.judgement.makeUp.added)} in ${duration(h.judgement.elapsedMs)}; lowest reading ${showExact(h.judgement.makeUp.lowest)}; only this is compared with a limit`,
              ]
            : [],
        ),
      ]),
    },
    {
      key: 'loops',
      title: 'Loops of the manifold',
      lines: (system.loops ?? []).map(
        (l) => `${l.name}: ${l.valve}${l.flowMeter ? `, flow meter ${l.flowMeter}` : ''}`,
      ),
    },
    {
      key: 'watch',
      title: 'Left under watch',
      lines: state.watch
        ? [
            `${showExact(state.watch.figure)} on ${plan.gauges.find((g) => g.id === state.watch!.gauge)?.name ?? 'the gauge'} at ${inZone(state.watch.at, zone)}; a later fall dates the damage between two readings`,
          ]
        : [],
    },
    {
      title: 'Photos taken',
      lines: state.photos.map(
        (p) => `${p.caption}: ${inZone(p.at, zone)}, ${p.byName} (${p.hash.slice(0, 12)})`,
      ),
    },
  ];
}
/** Head at the lowest point from the level as it was read. */
function headLines(plan: Plan, state: RunState): string[] {
  const { slab, lowest } = plan.system.heights ?? {};
  const level = state.visits.flatMap((v) => v.holds).filter((h) => h.gauge === LEVEL_MARK.id)[0]
    ?.start.figure;
  if (!slab || !lowest || !level) return [];
  // a level counted from the lowest part is the head itself
  const height = plan.procedure.levelOver ? metres(level) : metres(slab) + metres(level) - metres(lowest);
  return [
    `Head at the lowest point: ${(headPressure(height) / 100).toFixed(0)} mbar (${height.toFixed(2)} m of water above it)`,
  ];
}
