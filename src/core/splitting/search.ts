/**
 * The search for the part that leaks, as far as it has come: what each isolation said beside the whole, where it then can be, and
 * which isolation comes next. Advice; the verdict stands by itself. Source: Bayes; optimal search by subsets
 */
import { questioned } from '@/core/analysis/in-question';
import { holdFacts } from '@/core/analysis/of-hold';
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { visibleChange } from '@/core/adequacy/change';
import { networkOf } from '@/core/network/enter';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { perUnit } from '@/core/analysis/section';
import { type Isolated, smelt } from '@/core/run/isolations';
import { gaugeOfHold, stageOf } from '@/core/run/read';
import type { Hold, RunState } from '@/core/run/state';
import { type Order, orderOf } from './order';
import { found, type Found, type Measured, type Result } from './results';
import { type NetworkSplitting, splittingOf } from './sections';

export interface Searching {
  readonly splitting: NetworkSplitting;
  /** How long a part is held, min: as long as the rule holds the whole. */
  readonly minutes: number;
  /** What the whole section loses, l/h; null: it is not known, and holds say only whether a part moves. */
  readonly whole: number | null;
  /** Each isolation that was read, with what it lost: l/h, or whether it moved at all where volumes are not known. */
  readonly results: readonly (Result & { readonly of: Isolated; readonly moved: boolean })[];
  readonly found: Found | null;
  /** What comes next, over the parts that it can still be. */
  readonly order: Order;
}
/** Below this probability a part is left out of what is looked for next. House figure. */
const OUT = 0.05;
/** Where nobody can name a loss it is any, and as uncertain as this part of it. House figure. */
const UNNAMED = 0.3;
const ANY: Measured = { rate: 1, error: UNNAMED };

/** l/h from a fall in a share of the section, with what readings and temperature leave open. */
function lost(
  plan: Plan,
  facts: NonNullable<ReturnType<typeof holdFacts>>,
  unit: Hold['start']['figure']['unit'],
  fall: number,
  ms: number,
  share: number,
  step: number,
): Measured {
  const per = perUnit(unit);
  const hours = ms / 3.6e6;
  const temperature = defaultTemperatureUncertainty(ms / 60_000, ruleOf(plan).temperatureDefault);
  const give = facts.give * share * 1000;
  const blur = visibleChange(0, { resolution: step, perKelvin: facts.perKelvin, temperature }) / 1.65;
  return { rate: (give * fall * per) / hours, error: (give * blur) / hours };
}

/**
 * @returns null where nothing is in question, or no valve inside the section parts anything; never after a smell
 * Where volumes are not known, what is left is whether a part moves at all.
 */
export function searchOf(plan: Plan, state: RunState): Searching | null {
  const question = questioned(plan, state);
  if (!question || smelt(state)) return null;
  const { visit, hold, flow } = question;
  const minutes = hold ? hold.rule + 1 : FLOW_MINUTES;
  const workedOn = new Set(state.search.workedOn ?? []);
  const splitting = splittingOf(networkOf(plan.system), state.valves, minutes, workedOn);
  if (!splitting) return null;
  const { part } = stageOf(plan, visit);
  const gauge = hold && gaugeOfHold(plan, hold);
  const facts = hold && gauge && holdFacts(plan, state, hold, gauge, hold.endedAt ?? hold.startedAt, part);
  const step = gauge ? toNumber(gauge.resolution) * perUnit(gauge.resolution.unit) : 0;
  const loss = (start: Hold['start']['figure'], end: typeof start, ms: number, share: number | null) =>
    facts && share !== null && start.unit === end.unit && (share === 1 || facts.filling !== 'level')
      ? lost(plan, facts, start.unit, toNumber(start) - toNumber(end), ms, share, step)
      : null;
  const whole =
    flow !== null
      ? blown(convert(flow, 'm3/s', 'l/h'))
      : hold?.end && hold.judgement
        ? loss(hold.start.figure, hold.end.figure, hold.judgement.elapsedMs, 1)
        : null;
  const known = whole && whole.rate > whole.error ? whole : null;
  const base = known ?? ANY;
  const results = state.search.results.flatMap((of) => {
    const isolation = splitting.isolations.find((i) => same(splitting.shuts[i.key]!, of.closed));
    if (!isolation) return [];
    const own = of.flow
      ? flowOf(of)
      : loss(of.held!.start, of.held!.end, of.held!.ms, splitting.share[isolation.key] ?? null);
    const moved = own
      ? own.rate > 2 * own.error
      : toNumber(of.held!.start) - toNumber(of.held!.end) > 2 * (gauge ? toNumber(gauge.resolution) : 0);
    // what cannot be named in litres is all of the whole, or nothing
    const plain = { rate: moved ? base.rate : 0, error: UNNAMED * base.rate };
    return [{ isolation, of, moved, ...(known && own ? own : plain) }];
  });
  const names = splitting.sections.map((s) => s.name);
  const said = results.length ? found(splitting.suspicion, base, results, names) : null;
  const suspicion = said ? said.probability.map((p) => Math.max(p, 1e-9)) : splitting.suspicion;
  const among = said
    ? said.probability.reduce((mask, p, i) => (p >= OUT ? mask | (1 << i) : mask), 0)
    : 2 ** suspicion.length - 1;
  return {
    splitting,
    minutes: hold ? hold.rule : FLOW_MINUTES,
    whole: known?.rate ?? null,
    results,
    found: said,
    order: orderOf({ suspicion, isolations: splitting.isolations }, among),
  };
}
/** A fan set up again and read at the reference pressure, min. House figure. */
const FLOW_MINUTES = 5;
/** A flow is read to so much, 95 % halved. House figure: what is usual where the sheet does not say it. */
const FLOW_PART = 0.05;
const blown = (rate: number): Measured => ({ rate, error: FLOW_PART * rate });
const flowOf = ({ flow }: Isolated): Measured => {
  const rate = convert(toNumber(flow!), flow!.unit, 'l/h');
  return { rate, error: Math.max(FLOW_PART * rate, convert(1, flow!.unit, 'l/h') * 10 ** -flow!.scale) };
};
const same = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((x) => b.includes(x));
