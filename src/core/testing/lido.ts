/** The lido with its plunge tub, as tests take it: what is drawn, what is seen of it, and a line of it under test. */
import poolJson from '@packs/pool.json';
import type { System } from '@/core/installation/section';
import type { Procedure } from '@/core/pack/schema';
import { makePlan, type Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { pipeFigures } from '@/core/installation/pipes';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import { firstSection } from '@/core/trades/first';
import type { Look } from '@/core/trades/pool/joins';
import { withinSection } from '@/core/trades/sections';
import { verdictOf } from '@/core/verdict/verdict';
import { asShipped } from './as-shipped';
import { gauge, scribe, uuid } from './bakery';

export const poolPack = asShipped(poolJson);
const TWO_INCH = pipeFigures('pvc-sch40', '2 in');
export const poolGauge = gauge({
  id: uuid(61, 9),
  name: 'P-30',
  serial: 'S61',
  least: q('0 psi'),
  greatest: q('30 psi'),
  resolution: q('0.02 psi'),
});
/** Seven outlets of the pool and the tub, three connections. */
export function lido(over: Partial<System> = {}): System {
  const made = firstSection({
    id: uuid(60, 1),
    name: 'Lido',
    medium: 'pool water',
    workingPressure: q('22 psi'),
    meter: { kind: 'none', name: 'none', volume: q('0 l') },
    pipe: {
      id: 'main',
      name: 'Return run',
      material: 'PVC',
      table: 'pvc-sch40',
      nominal: '2 in',
      size: TWO_INCH.nominal,
      bore: TWO_INCH.bore,
      length: q('14 m'),
    },
    counted: [
      { word: 'return', count: 2, volume: q('0 l') },
      { word: 'skimmer', count: 1, volume: q('0 l') },
      { word: 'main drain', count: 1, volume: q('0 l') },
      { word: 'spa jet, upper', count: 2, volume: q('0 l') },
      { word: 'spa jet, lower', count: 1, volume: q('0 l') },
    ],
  });
  return { ...made, surface: q('96 m2'), ...over };
}
/** Every end of it, by the lines as they are. */
export const LIDO_LINES = {
  suction: ['at-pump', 'skimmer-1', 'drain-1'],
  returns: ['at-heater', 'return-1', 'return-2', 'jet-lower-1'],
  air: ['at-blower', 'jet-upper-1', 'jet-upper-2'],
} as const;
const others = (line: keyof typeof LIDO_LINES) =>
  Object.entries(LIDO_LINES).flatMap(([k, ends]) => (k === line ? [] : [...ends]));
/** What makes every line known. */
export const LIDO_LOOKS: readonly Look[] = (['suction', 'returns', 'air'] as const).map((line, i) => ({
  id: uuid(700 + i, 4),
  kind: 'closed',
  at: LIDO_LINES[line][0],
  quiet: LIDO_LINES[line].slice(1),
  flowing: others(line),
}));

/** The lido as a procedure wants it: whole, or its line of returns. */
export const lidoFor = (procedure: Pick<Procedure, 'oneSection'>): System => {
  const whole = lido({ looks: LIDO_LOOKS });
  return procedure.oneSection ? withinSection(whole, [...LIDO_LINES.returns].sort().join('+'))! : whole;
};

const base = {
  run: uuid(62, 3),
  practice: false,
  organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
  site: { id: uuid(2, 1), name: 'Lido', address: 'Millrace Quarter', customer: 'Friends of the Lido' },
  packHash: 'x',
  gauges: [poolGauge],
  made: { at: '2026-06-01T08:00:00.000Z', zone: 'UTC', by: 'Imre' },
};
/** A plan of a procedure on the whole pool, or on one of its lines. */
export function poolPlan(
  procedureId: string,
  line?: keyof typeof LIDO_LINES,
  over: Partial<System> = {},
  asked: { readonly case?: string; readonly choices?: Readonly<Record<string, string>> } = {},
): Plan {
  const whole = lido({ looks: LIDO_LOOKS, ...over });
  const system = line ? withinSection(whole, [...LIDO_LINES[line]].sort().join('+'))! : whole;
  return makePlan({
    ...base,
    system,
    pack: poolPack,
    procedureId,
    case: poolPack.procedures.find((p) => p.id === procedureId)!.cases[0]!.key,
    ...asked,
  });
}
/** A run of it by a script: its state and its verdict. */
export function playPool(plan: Plan, lines: readonly ScriptLine[]) {
  const events = playScript(plan, lines, scribe({ began: Date.parse(plan.made.at) }));
  const state = reduce(plan, events);
  return { events, state, verdict: verdictOf(plan, state) };
}
