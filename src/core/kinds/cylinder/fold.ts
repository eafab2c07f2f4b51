/** A cylinder before it is opened. What does not fit is refused with what to take instead; it can always be said that nothing fits. */
import { known, pressureOf, wanted } from '@/core/formula';
import type { Stage } from '@/core/kinds';
import { testPressureOf } from '@/core/plan/limits';
import { applies, formulaContext, type Plan } from '@/core/plan/plan';
import { compare, type Exact, parseWithUnit, showExact } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import { follow, no, type Refusal } from '@/core/run/transition';
import { LABELS, type Label } from './entries';
import type { Cylinder } from './state';

/** Why another gas than nitrogen is put away. */
export const WRONG: Readonly<Record<Exclude<Label, 'nitrogen'>, string>> = {
  air: 'Compressed air brings oxygen and water into a circuit: with oil it can explode.',
  oxygen: 'OXYGEN AND OIL EXPLODE. Close it, take it out of the room.',
  acetylene: 'A fuel gas under pressure burns and explodes. Close it, take it out of the room.',
  refrigerant:
    'A refrigerant is no test gas: a leak would lose it, and a cylinder cannot reach the pressure safely.',
  other: 'Read the label itself, never the colour.',
};

export interface CylinderNeeds {
  /** The highest the gauge will stand. */
  readonly test: Exact;
  /** The most a regulator may be able to give. */
  readonly regulator: Exact;
}
/** What is asked of regulator and hose here; or what is still missing. */
export function cylinderNeeds(
  plan: Plan,
  stage: Extract<Stage, { kind: 'cylinder' }>,
): { readonly value: CylinderNeeds } | { readonly missing: string } {
  return known(() => {
    const spec = stage.regulatorMost;
    const own =
      typeof spec === 'object' && 'value' in spec
        ? (spec.unless.find((u) => applies(plan, stage.part, u.when))?.value ?? spec.value)
        : spec;
    const test = stage.reaches ? parseWithUnit(stage.reaches) : testPressureOf(plan, stage.part).value;
    const regulator =
      typeof own === 'string' ? parseWithUnit(own) : pressureOf(own, formulaContext(plan, stage.part)).high;
    return { test, regulator };
  });
}

export const cylinderFold: Fold<'cylinder' | 'no-cylinder'> = {
  cylinder: {
    transition: true,
    misfit: (event) =>
      [event.regulatorMost, event.hoseMost].some((f) => UNITS[f.unit].dimension !== 'pressure')
        ? no('unit', 'What regulator and hose are made for is a pressure, like 60 bar.')
        : null,
    apply: (event, on) => ready(on, event),
    words: (event) =>
      `cylinder: ${LABELS[event.label]}; regulator to ${showExact(event.regulatorMost)}, wound out; hose to ${showExact(event.hoseMost)}`,
  },
  'no-cylinder': {
    transition: true,
    apply: ({ ...event }, { plan, state, stage, at }) => {
      if (stage.kind !== 'cylinder') return no('wrong-step', 'No cylinder is opened in this step.');
      state.notes.push({
        at,
        byName: event.byName,
        text: 'No fitting cylinder, regulator or hose at hand',
        kind: 'note',
      });
      follow(plan, state, 'none', at);
      return null;
    },
    words: () => 'no fitting cylinder, regulator or hose at hand',
  },
};

/** Of the cabinet what its entry says counts, whatever was sent. */
const fromCabinet = (plan: Plan, id: string | undefined, said: Exact): { name: string; most: Exact } => {
  const item = plan.ownKit?.find((k) => k.id === id);
  return {
    name: item ? `${item.name}${item.serial ? `, ${item.serial}` : ''}` : 'as stamped',
    most: item?.rating ?? said,
  };
};
function ready({ plan, state, stage, visit, at }: OnStage, event: EventOf<'cylinder'>): Refusal | null {
  if (stage.kind !== 'cylinder') return no('wrong-step', 'No cylinder is opened in this step.');
  if (event.label !== 'nitrogen')
    return no(
      'gas',
      `${WRONG[event.label]} Oxygen-free dry nitrogen and nothing else: take another cylinder.`,
    );
  const found = cylinderNeeds(plan, stage);
  if ('missing' in found) return no('missing', found.missing);
  const { test, regulator } = found.value;
  const [own, hose] = [
    fromCabinet(plan, event.regulator, event.regulatorMost),
    fromCabinet(plan, event.hose, event.hoseMost),
  ];
  const over = (a: Exact, b: Exact) => compare(wanted(a, b.unit, 'up'), b) > 0;
  const under = (a: Exact, b: Exact) => compare(wanted(a, b.unit, 'down'), b) < 0;
  if (over(own.most, regulator))
    return no(
      'regulator',
      `This regulator can give ${showExact(own.most)}; no more than ${showExact(regulator)} is used here (${stage.source}). Take one that ends lower.`,
    );
  if (under(own.most, test))
    return no(
      'regulator',
      `This regulator ends at ${showExact(own.most)} and cannot give ${showExact(test)}. Take another.`,
    );
  if (under(hose.most, test))
    return no(
      'hose',
      `This hose is made for ${showExact(hose.most)}; the test stands at ${showExact(test)}. Take a stronger one.`,
    );
  state.rooms.cylinders.push({
    visit: visit.ordinal,
    regulator: own.name,
    regulatorMost: own.most,
    hose: hose.name,
    hoseMost: hose.most,
    tied: event.tied === true,
    at,
  });
  follow(plan, state, 'ready', at);
  return null;
}
/** What it was raised with, in a sentence. */
export const cylinderWords = (c: Cylinder): string =>
  `Dry nitrogen by its label; regulator ${c.regulator}, to ${showExact(c.regulatorMost)}, wound out before it was opened; hose ${c.hose}, made for ${showExact(c.hoseMost)}${c.tied ? ', tied' : ''}`;
export const cylinderCourse: Course = (visit) => ({
  word: visit.outcome === 'ready' ? 'nitrogen, fits' : visit.outcome === 'none' ? 'none that fits' : 'open',
  text: '',
});
