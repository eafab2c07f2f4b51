/** A practice run of a scenario as far as it has come: its plan, its world, and what in it comes next. */
import { figures } from '@/core/installation/written';
import type { System } from '@/core/installation/section';
import { withNetwork } from '@/core/network/enter';
import type { Gauge } from '@/core/instrument/gauge';
import type { Pack } from '@/core/pack/schema';
import { makePlan, type Plan } from '@/core/plan/plan';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { PlacedEvent } from '@/core/run/events';
import { type Action, type AnyWorld, asked, type Simulation } from '@/core/simulation/simulation';
import { withinSection } from '@/core/trades/sections';
import { accountOf, type Account } from './account';
import type { YardAct } from './acts';
import { changeOf, type Hidden, withHidden } from './hidden';
import type { Happening, Scenario } from './scenario';
import { simulationOf, withStandIns } from './setup';

/** Installations that scenarios name, as they are written. */
export type Installations = Readonly<Record<string, Readonly<Record<string, unknown>>>>;
export interface Session {
  readonly scenario: Scenario;
  readonly plan: Plan;
  readonly world: Simulation;
  readonly events: readonly PlacedEvent[];
  readonly acts: readonly YardAct[];
}
/** The installation of a scenario. @throws RangeError for a name nobody knows */
export function installationOf(
  scenario: Pick<Scenario, 'installation' | 'section'>,
  known: Installations,
  id: string,
): System {
  const { installation, section } = scenario;
  const name = typeof installation === 'string' ? installation : installation.like;
  const base = typeof name === 'string' ? known[name] : {};
  if (!base) throw new RangeError(`No installation is called ${String(name)}.`);
  const { like: _like, ...own } = typeof installation === 'string' ? {} : installation;
  const written = { ...base, ...own };
  const system = figures({
    appliances: [],
    pipes: [],
    inScope: [],
    notCovered: [],
    ...written,
    id,
  }) as System;
  const whole = system.network ? withNetwork(system, system.network) : system;
  return section ? (withinSection(whole, section) ?? whole) : whole;
}
/** Who practises, and when: all of a plan that no scenario says. */
export interface Occasion {
  readonly run: string;
  readonly system: string;
  readonly gauge: string;
  readonly fan: string;
  readonly organisation: Plan['organisation'];
  readonly site: Plan['site'];
  readonly made: Plan['made'];
  readonly packHash: string;
}
/** The plan of a scenario. @throws PlanError, RangeError */
export function planOfScenario(
  scenario: Scenario,
  pack: Pack,
  installations: Installations,
  on: Occasion,
): Plan {
  const plan = makePlan({
    run: on.run,
    practice: true,
    organisation: on.organisation,
    site: on.site,
    system: installationOf(scenario, installations, on.system),
    pack,
    packHash: on.packHash,
    procedureId: scenario.procedure,
    case: scenario.case,
    choices: scenario.choices ?? {},
    gauges: [],
    made: on.made,
  });
  const own = withStandIns(plan, { gauge: on.gauge, fan: on.fan });
  return scenario.gauge ? { ...own, gauges: [gaugeOf(scenario.gauge, on.gauge)] } : own;
}
const gaugeOf = (g: NonNullable<Scenario['gauge']>, id: string): Gauge => ({
  id,
  name: g.name,
  serial: 'SIM',
  kind: g.kind as Gauge['kind'],
  least: parseWithUnit(g.least),
  greatest: parseWithUnit(g.greatest),
  resolution: parseWithUnit(g.resolution),
  calibrated: '2000-01-01',
  calibrationDue: g.calibrationDue ?? '2999-12-31',
  simulated: true,
});
/** Its world, with what it hides. @param seed of the chances in it, where the scenario names none */
export const worldOfScenario = (scenario: Scenario, plan: Plan, seed: number): Simulation => {
  const began = Date.parse(plan.made.at);
  const as = (scenario.hidden as { as?: string }).as ?? 'none';
  const made = simulationOf(plan, { seed: scenario.seed ?? seed, began, fault: as });
  return withHidden(made, scenario.hidden);
};
/** What was done to the world so far: by hand, by what came in between, by the one who trains. */
export const actionsOf = (s: Pick<Session, 'scenario' | 'plan' | 'world' | 'acts'>): Action[] =>
  s.acts.flatMap((a): Action[] => {
    const at = a.at;
    switch (a.kind) {
      case 'hand':
        return [{ ...a.action, at } as Action];
      case 'happened': {
        const { changes } = happeningOf(s.scenario, a.happening) ?? {};
        return changes ? [{ at, act: 'truth', change: changeOf(changes as Hidden, s.world) } as Action] : [];
      }
      case 'hidden':
        return [{ at, act: 'truth', change: hiddenChange(s, a.change as Hidden) } as Action];
      default:
        return [];
    }
  });
/** A change by hand; a fault named in it takes the place of all that was hidden. */
function hiddenChange({ plan, world }: Pick<Session, 'plan' | 'world'>, change: Hidden): object {
  const { as } = change as { as?: string };
  const whole = as ? simulationOf(plan, { seed: world.seed, began: world.began, fault: as }).truth : {};
  return { ...whole, ...changeOf(change, world) };
}
/** How a practice is read: a drain by its level in mm, everything else by its gauge. */
export function readingOf({ plan, world }: Pick<Session, 'plan' | 'world'>) {
  const level = world.kind === 'liquid' && world.surface > 0;
  const { resolution } = plan.gauges[0]!;
  const scale = level ? 1 : 10 ** -resolution.scale;
  return {
    unit: level ? ('mm' as const) : resolution.unit,
    decimals: level ? 0 : resolution.scale,
    /** What a perfect gauge shows and what is shown, in that unit; and what leaves, l/h. */
    of(w: AnyWorld) {
      const { steps, warmth, leaking } = w.truth();
      return {
        perfect: steps * scale,
        shown: (level ? steps : w.display()) * scale,
        warmth,
        leaking: leaking === null ? null : leaking * 3.6e6,
      };
    },
  };
}
export const happeningOf = (scenario: Scenario, id: string): Happening | undefined =>
  scenario.happenings?.find((h) => h.id === id);
export const accountOfSession = (s: Session, until: number): Account => {
  const account = accountOf(s.plan, s.events, s.acts, until);
  // how the installation stood at each moment: what was said at the bench is held against it
  const seen = asked(
    s.world,
    actionsOf(s),
    account.told.map((t) => t.at),
    (w) => w.view(),
  );
  return { ...account, told: account.told.map((t, i) => ({ ...t, seen: seen[i]! })) };
};

const milliseconds = (words: string): number => {
  const e = parseWithUnit(words);
  return convert(toNumber(e), e.unit, 's') * 1000;
};
/** What has come about by a moment and stands in no act yet, in its order. @param at ms @param shown steps of the display, where they are known */
export function due(
  s: Session,
  account: Account,
  at: number,
  shown?: number,
): { readonly id: string; readonly at: number }[] {
  const stands = new Set(s.acts.flatMap((a) => (a.kind === 'happened' ? [a.happening] : [])));
  return (s.scenario.happenings ?? [])
    .filter((h) => !stands.has(h.id))
    .flatMap((h) => {
      const from = begins(s, account, h);
      const moment = from === null ? null : from + (h.when.after ? milliseconds(h.when.after) : 0);
      if (moment === null || moment > at) return [];
      if (!h.when.over) return [{ id: h.id, at: moment }];
      return (shown ?? shows(s, at)) >= inSteps(s, h.when.over) ? [{ id: h.id, at }] : [];
    })
    .sort((a, b) => a.at - b.at);
}
/** The moments at which what is to come by the clock alone will come, ms. */
export const momentsOf = (s: Session, account: Account): number[] => {
  const stands = new Set(s.acts.flatMap((a) => (a.kind === 'happened' ? [a.happening] : [])));
  return (s.scenario.happenings ?? []).flatMap((h) => {
    const from = stands.has(h.id) ? null : begins(s, account, h);
    return from === null ? [] : [from + (h.when.after ? milliseconds(h.when.after) : 0)];
  });
};
/** The moment from which its time counts; null: not come to yet. */
function begins(s: Session, account: Account, { when }: Happening): number | null {
  if (when.answered) {
    const { happening, is } = when.answered;
    const said = s.acts.find((a) => a.kind === 'answered' && a.happening === happening && a.answer === is);
    if (!said) return null;
    if (!when.stage) return said.at;
  }
  if (!when.stage) return Date.parse(s.plan.made.at);
  if (when.holding) return account.holds.find((h) => h.stage === when.stage)?.from ?? null;
  return account.told.find((t) => t.reached === when.stage)?.at ?? null;
}
const shows = (s: Session, at: number): number => asked(s.world, actionsOf(s), [at], (w) => w.display())[0]!;
function inSteps(s: Session, words: string): number {
  const e = parseWithUnit(words);
  const si = UNITS[e.unit].dimension === 'absolute' ? 'Pa(abs)' : 'Pa';
  return convert(toNumber(e), e.unit, si) / s.world.step;
}
