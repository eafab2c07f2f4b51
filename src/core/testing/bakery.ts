import type { Payload, RunEvent } from '@/core/run/events';
import packJson from '@packs/gas-metric.json';
import type { Gauge } from '@/core/instrument/gauge';
import type { System } from '@/core/installation/section';
import { makePlan, type Plan } from '@/core/plan/plan';
import { exact, parseWithUnit } from '@/core/quantity/exact';
import { playScript, type ScriptLine, type Scribe } from '@/core/run/script';
import { asShipped } from './as-shipped';

/** Fixtures of the unit tests: a bakery much like the demo's, and a scribe with predictable ids. */
export const pack = asShipped(packJson);
const q = parseWithUnit;
export const uuid = (n: number, group = 1): string =>
  `00000000-0000-4000-8000-${String(group).padStart(4, '0')}${n.toString(16).padStart(8, '0')}`;

export const gauge = (over: Partial<Gauge> = {}): Gauge => ({
  id: uuid(1, 9),
  name: 'G-02',
  serial: 'S2',
  kind: 'digital',
  least: q('-100 mbar'),
  greatest: q('200 mbar'),
  resolution: q('0.01 mbar'),
  calibrated: '2026-02-01',
  calibrationDue: '2027-02-01',
  simulated: false,
  ...over,
});
export const coarse = gauge({ id: uuid(2, 9), name: 'G-01', resolution: q('0.1 mbar') });

export const bakery = (over: Partial<System> = {}): System => ({
  id: uuid(1, 5),
  name: 'Bakery gas',
  medium: 'natural gas',
  workingPressure: q('21 mbar'),
  supplyPressure: q('21 mbar'),
  supplyValve: 'Supply valve at the meter',
  supplyValveOwner: 'network',
  testPoint: 'Meter outlet',
  emergencyContact: '555-0100',
  meter: { kind: 'diaphragm-U6-G4', name: 'G4', volume: q('8 l') },
  pipes: [
    {
      id: 'p1',
      name: 'Carcass',
      material: 'copper',
      size: q('28 mm'),
      bore: q('26.2 mm'),
      length: q('14 m'),
    },
    {
      id: 'p2',
      name: 'Branches',
      material: 'copper',
      size: q('22 mm'),
      bore: q('20.2 mm'),
      length: q('9 m'),
    },
  ],
  appliances: [
    {
      id: 'oven',
      name: 'Deck oven',
      place: 'bakehouse',
      kind: 'oven',
      valve: 'lever',
      hasPilot: true,
      hasLid: false,
      volume: q('0.4 l'),
    },
    {
      id: 'hob',
      name: 'Hob',
      place: 'shop',
      kind: 'hob',
      valve: 'lever',
      hasPilot: false,
      hasLid: true,
      volume: q('0.2 l'),
    },
  ],
  inScope: ['meter outlet to appliance valves'],
  noValves: ['drop', 'selector', 'container', 'hidden'],
  notCovered: ['supply upstream of the meter valve'],
  ...over,
});
export function plan(
  over: {
    system?: Partial<System>;
    case?: string;
    choices?: Record<string, string>;
    practice?: boolean;
    gauges?: Gauge[];
  } = {},
): Plan {
  return makePlan({
    run: uuid(1, 3),
    practice: over.practice ?? false,
    organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
    site: { id: uuid(1, 4), name: 'Bakery', address: 'Millrace Quarter', customer: 'A. Baker' },
    system: bakery(over.system),
    pack,
    packHash: 'test',
    procedureId: pack.procedures[0]!.id,
    case: over.case ?? 'existing',
    choices: over.choices ?? {},
    gauges: over.gauges ?? [gauge(), coarse],
    made: { at: '2026-11-20T08:00:00.000Z', zone: 'Europe/London', by: 'T' },
  });
}
export const BEGAN = Date.parse('2026-11-20T08:00:00.000Z');
export const scribe = (over: Partial<Scribe> = {}): Scribe => ({
  device: uuid(1, 6),
  zone: 'Europe/London',
  pageLoad: uuid(1, 7),
  by: uuid(1, 2),
  byName: 'Imre',
  began: BEGAN,
  id: (n) => uuid(n, 8),
  ...over,
});
/** Preparation to a proved let-by. */
export const upTo = (letBy: [string, string], g = 'G-02', checks: string[] = []): ScriptLine[] => [
  [10, 'checks', ...checks],
  [20, 'gauge', g],
  [30, 'zero', '0'],
  [60, 'fill', letBy[0]],
  [70, 'start', letBy[0]],
  [131, 'end', letBy[1]],
];
/** Raise, settle, hold: one tightness attempt beginning `from` seconds. */
export const hold = (from: number, start: string, end: string, elapsed = 121): ScriptLine[] => [
  [from, 'fill', start],
  [from + 5, 'start', start],
  [from + 66, 'end', start],
  [from + 70, 'start', start],
  [from + 70 + elapsed, 'end', end],
];
export const play = (
  p: Plan,
  lines: ScriptLine[],
  over: Partial<Scribe> = {},
  options: { allowRefused?: boolean } = {},
) => playScript(p, lines, scribe(over), options);
export const SIGNED = (at: number): ScriptLine[] => [
  [at, 'putback'],
  [at + 10, 'sign', 'Imre'],
  [at + 20, 'customer', 'A. Baker'],
];
export { exact };

/** One entry of a run, with what every entry carries. */
export const entryOf = (plan: Plan, payload: Payload, over: Partial<RunEvent> = {}): RunEvent =>
  ({
    id: uuid(1),
    run: plan.run,
    device: uuid(2),
    deviceSeq: 1,
    at: BEGAN,
    zone: 'UTC',
    offset: 0,
    mono: 0,
    pageLoad: uuid(3),
    by: uuid(4),
    byName: 'I',
    expects: '',
    ...over,
    ...payload,
  }) as RunEvent;
