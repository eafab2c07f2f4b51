/** What a record of a refrigerant circuit says beside its readings: the plate, the joints, the warmth, the hours nobody saw, and its logbook line. */
import { sectionVolume } from '@/core/installation/section';
import { AMBIENT_WORDS, COOLED_WORDS } from '@/core/installation/parts';
import { cylinderWords } from '@/core/kinds/cylinder/fold';
import type { Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { parseWithUnit, showExact } from '@/core/quantity/exact';
import { inZone } from '@/core/quantity/in-zone';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { tradeOf } from '@/core/trades';
import { leakChecks } from '@/core/trades/circuit/checks';
import { decidingHold } from '@/core/verdict/holds';
import { verdictOf } from '@/core/verdict/verdict';
import type { Face } from './face';

type Sections = Face['sections'];
/** Without a reading for so long a hold is marked unwitnessed, ms. House figure. */
const UNSEEN_MS = 2 * 3_600_000;

/** The longest time in a hold without any reading; null where somebody, or a display, looked often enough. */
export function unwitnessed(visit: Visit, hold: Hold): { readonly from: number; readonly to: number } | null {
  if (!hold.end) return null;
  const moments = [
    hold.start.readMoment,
    ...visit.readings.filter((r) => !r.late).map((r) => r.readMoment),
    ...visit.trace.map(([at]) => at),
    ...(hold.places ?? []).map((p) => p.at),
    hold.end.readMoment,
  ]
    .filter((m) => m >= hold.start.readMoment && m <= hold.end!.readMoment)
    .sort((a, b) => a - b);
  const gaps = moments.slice(1).map((to, i) => ({ from: moments[i]!, to }));
  const longest = gaps.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a), { from: 0, to: 0 });
  return longest.to - longest.from >= UNSEEN_MS ? longest : null;
}
/** What a standing vacuum was judged by. */
export function vacuumLimits(plan: Plan, state: RunState): Face['limits'][number][] {
  const stage = [...state.visits]
    .reverse()
    .map((v) => plan.procedure.stages[v.stage])
    .find((s) => s?.kind === 'hold' && s.vacuum);
  if (stage?.kind !== 'hold' || !stage.vacuum) return [];
  const { most, leakRise, source } = stage.vacuum;
  return [
    { name: 'vacuum holds up to', value: showExact(parseWithUnit(most)), source },
    { name: 'an even rise that is a leak', value: `${showExact(parseWithUnit(leakRise))} or more`, source },
  ];
}
/** Sections of a circuit; none for any other installation. */
export function circuitSections(plan: Plan, state: RunState): Sections {
  if (tradeOf(plan.system).parted !== 'sides') return [];
  const { zone } = plan.made;
  const holds = state.visits.flatMap((v) => v.holds.map((hold) => ({ visit: v, hold })));
  return [
    { key: 'circuit', title: 'Circuit', lines: plateLines(plan) },
    { title: 'Cylinder', lines: state.rooms.cylinders.map(cylinderWords) },
    {
      title: 'Temperatures',
      lines: holds.flatMap(({ hold }) =>
        (hold.places ?? []).map(
          (p) =>
            `${p.place}, ${p.when === 'between' ? 'in between' : `at the ${p.when}`}, ${inZone(p.at, zone)}: ${showExact(p.figure)}`,
        ),
      ),
    },
    {
      title: 'Unwitnessed',
      lines: holds.flatMap(({ visit, hold }) => {
        const gap = unwitnessed(visit, hold);
        return gap
          ? [
              `${visit.title}: nobody read it from ${inZone(gap.from, zone)} to ${inZone(gap.to, zone)}, ${duration(gap.to - gap.from)}`,
            ]
          : [];
      }),
    },
    ...(plan.procedure.leakChecks
      ? [{ title: 'Leak checks once charged', lines: [leakChecks(plan.system.condensing?.[0]).text] }]
      : []),
    { title: 'For the logbook of the circuit', lines: logbook(plan, state) },
  ];
}
function plateLines({ system }: Plan): string[] {
  const [unit] = system.condensing ?? [];
  if (!unit) return [];
  const { refrigerant, charge, psHigh, psLow, cooled, ambient } = unit;
  const joints = (system.joints ?? []).reduce((sum, j) => sum + (j.count ?? 1), 0);
  return [
    [
      unit.name,
      refrigerant ?? 'refrigerant not entered',
      charge ? `charge ${showExact(charge)}` : '',
      unit.serial ? `serial ${unit.serial}` : '',
    ]
      .filter(Boolean)
      .join(', '),
    psHigh || psLow
      ? `PS by the plate: high side ${psHigh ? showExact(psHigh) : 'not read'}, low side ${psLow ? showExact(psLow) : 'not read'}`
      : `PS not on a plate: estimated, cooled ${cooled ? COOLED_WORDS[cooled] : '?'}, ${ambient ? AMBIENT_WORDS[ambient] : '?'} outside`,
    `Volume under test ${(sectionVolume(system).value * 1000).toFixed(1)} l`,
    ...(joints ? [`Joints made on site in it: ${joints}`] : []),
  ];
}
/** One line that can be written over into the book that stays with the plant. */
function logbook(plan: Plan, state: RunState): string[] {
  const verdict = verdictOf(plan, state);
  if (!verdict || !state.ending) return [];
  const [unit] = plan.system.condensing ?? [];
  const deciding = decidingHold(plan, state)?.hold;
  return [
    [
      inZone(state.ending.at, plan.made.zone).split(',')[0],
      plan.system.name,
      [unit?.refrigerant, unit?.charge ? showExact(unit.charge) : ''].filter(Boolean).join(' '),
      plan.procedure.title,
      deciding ? `${showExact(deciding.start.figure)}, ${duration(deciding.judgement?.elapsedMs ?? 0)}` : '',
      verdict.label,
      plan.made.by,
    ]
      .filter(Boolean)
      .join('; '),
  ];
}
