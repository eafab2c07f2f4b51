/** What the state of a run says: where it stands, what it waits for, which limits hold. Nothing here changes it. */
import { lower } from '@/core/quantity/words';
import type { FormulaContext } from '@/core/formula';
import type { Use } from '@/core/grammar/rule';
import { VALVE_WORDS } from '@/core/installation/parts';
import { type System, unknownValves, valvesOf } from '@/core/installation/section';
import { type Gauge, gaugeClass, LEVEL_MARK, perceptibleMovement } from '@/core/instrument/gauge';
import type { ChecksStage, HoldStage, IsolateStage, Stage } from '@/core/kinds';
import { ruleOfKind } from '@/core/kinds';
import type { CheckItem } from '@/core/kinds/checks/rule';
import type { Step } from '@/core/kinds/kind';
import { partWord } from '@/core/network/catalogue';
import { partOf } from '@/core/network/network';
import { allowanceOf, limitsOf } from '@/core/plan/limits';
import { applies, caseOf, formulaContext, type Plan, ruleOf } from '@/core/plan/plan';
import { compare, inUnit, type Limit, magnitude } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import type { Cycle, FoundClaim, Hold, RunState, Visit } from './state';

export const currentVisit = (state: RunState): Visit | null =>
  state.phase === 'running' ? (state.visits[state.visits.length - 1] ?? null) : null;

export const stageOf = (plan: Plan, visit: Visit): Stage => plan.procedure.stages[visit.stage]!;

/** The gauge of the present stage: the level mark where the stage reads one, otherwise the one chosen. */
export const gaugeOf = (plan: Plan, state: RunState): Gauge | null => {
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  if (stage && 'by' in stage && stage.by === 'level') return LEVEL_MARK;
  return plan.gauges.find((g) => g.id === state.gauge) ?? null;
};

export const currentCycle = (visit: Visit): Cycle | null => visit.cycles[visit.cycles.length - 1] ?? null;

/** The gauge that judged a hold. */
export const gaugeOfHold = (plan: Plan, hold: Hold): Gauge | null =>
  hold.gauge === LEVEL_MARK.id ? LEVEL_MARK : (plan.gauges.find((g) => g.id === hold.gauge) ?? null);

/** The part the run stands in, or stood in last; null where the procedure has none. */
export const partNow = (plan: Plan, state: RunState): string | null => {
  for (const visit of [...state.visits].reverse()) {
    const part = plan.procedure.stages[visit.stage]?.part;
    if (part) return part;
  }
  return null;
};
/** The claim of a part; of the run as a whole where none is named. */
export const claimOf = (state: RunState, part: string | null = null): FoundClaim | null =>
  state.claims[part ?? ''] ?? null;

/** What the named formulas are given at this point of the run. */
export const contextOf = (plan: Plan, state: RunState, part: string | null | undefined): FormulaContext =>
  formulaContext(plan, part, {
    gauge: gaugeOf(plan, state),
    kept: state.kept,
    keptAt: Object.fromEntries(Object.entries(state.keptReadings).map(([k, r]) => [k, r.readMoment])),
    ...(state.volume ? { volume: state.volume.figure.value } : {}),
  });

export type { Step };
/** What the current stage waits for. */
export function stepOf(state: RunState): Step {
  const visit = currentVisit(state);
  return visit ? ruleOfKind(visit.kind).step(visit, runningHold(state) !== null) : 'over';
}

/** The hold that is being timed now, if one is. */
export function runningHold(state: RunState): Hold | null {
  const visit = currentVisit(state);
  if (!visit) return null;
  const open = (h?: Hold) => (h && !h.end && !h.broken ? h : null);
  if (visit.kind === 'isolate-and-repeat') {
    const cycle = currentCycle(visit);
    return open(cycle?.settle) ?? open(cycle?.hold);
  }
  return open(visit.holds[visit.holds.length - 1]);
}

/** Whether a judged hold still lacks the temperatures that the repeat after an unexplained rise, or a small fall, needs. */
export function temperatureNeeded(plan: Plan, state: RunState, hold: Hold): boolean {
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  const corrected = stage?.kind === 'hold' && stage.judge === 'corrected';
  if (corrected && hold.noThermometer) return false;
  if (!corrected && !state.rises && !state.smallFalls) return false;
  if (hold.gauge === LEVEL_MARK.id || (hold.temperature.start && hold.temperature.end)) return false;
  return hold.role === 'tightness' || (plan.format > 1 && hold.role === 'leak-rate' && !hold.since);
}

/** When the running hold may be read at its end, ms on the server's line. */
export const holdEnds = (hold: Hold): number => hold.startedAt + hold.minutes * 60000;

/** The name of the present step: what a transition event must carry in `expects`. */
export function expectation(state: RunState): string {
  const visit = currentVisit(state);
  if (!visit) return state.phase;
  const tries =
    visit.holds.length +
    visit.pumped.length +
    visit.cycles.reduce((n, c) => n + (c.settle ? 1 : 0) + (c.hold ? 1 : 0) + 1, 0);
  return `${visit.ordinal}:${visit.stage}:${stepOf(state)}:${tries}`;
}

/** The subject of a line that asks for what is not entered. */
export const UNKNOWN = 'not-entered';
export interface CheckLine {
  readonly id: string;
  readonly item: CheckItem;
  readonly subject?: { readonly id: string; readonly name: string; readonly place: string };
}
const about = (item: CheckItem, parts: readonly NonNullable<CheckLine['subject']>[]): CheckLine[] =>
  parts.map(({ id, name, place }) => ({ id: `${item.key}/${id}`, item, subject: { id, name, place } }));
/** A fact nobody has entered is asked, never taken for a no. */
const askedFor = (item: CheckItem, what: readonly string[]): CheckLine => {
  const [last, ...before] = [...what].reverse();
  const name = `Every ${before.length ? `${before.reverse().join(', ')} or ` : ''}${last} there is`;
  return about(item, [{ id: UNKNOWN, name, place: 'none is entered: look' }])[0]!;
};
const LISTS = { register: 'registers', intake: 'intakes', handler: 'handlers' } as const;
type Each = NonNullable<CheckItem['each']>;
const ofAppliances =
  (which: (a: System['appliances'][number]) => boolean) => (plan: Plan, item: CheckItem, part?: string) =>
    caseOf(plan, part).appliances ? about(item, plan.system.appliances.filter(which)) : [];
// registers and the handler are always there; of intakes nobody has said that there are none
const ofList = (list: keyof typeof LISTS) => (plan: Plan, item: CheckItem) => {
  const own = plan.system[LISTS[list]] ?? [];
  return own.length ? about(item, own) : [askedFor(item, [partWord(list)])];
};
const EACH: Record<Each, (plan: Plan, item: CheckItem, part?: string) => CheckLine[]> = {
  valve: (plan, item) => {
    const kinds = item.valves ?? [];
    const unknown = plan.format > 1 ? unknownValves(plan.system, kinds) : [];
    return [
      ...about(
        item,
        valvesOf(plan.system).filter((v) => kinds.includes(v.kind)),
      ),
      ...(unknown.length
        ? [
            askedFor(
              item,
              unknown.map((k) => VALVE_WORDS[k]),
            ),
          ]
        : []),
    ];
  },
  register: ofList('register'),
  intake: ofList('intake'),
  handler: ofList('handler'),
  loop: (plan, item) =>
    about(
      item,
      (plan.system.loops ?? []).map(({ id, name, flowMeter }) => ({ id, name, place: flowMeter })),
    ),
  appliance: ofAppliances(() => true),
  pilot: ofAppliances((a) => a.hasPilot),
  lid: ofAppliances((a) => a.hasLid),
};
/** The check lines of a stage for this plan, spread over the parts they ask about. */
export const checkLines = (plan: Plan, stage: ChecksStage): CheckLine[] =>
  stage.items.flatMap((item) =>
    !applies(plan, stage.part, item.when)
      ? []
      : item.each
        ? EACH[item.each](plan, item, stage.part)
        : [{ id: item.key, item }],
  );

/** Lines still open. */
export const openLines = (plan: Plan, visit: Visit) => {
  const stage = stageOf(plan, visit) as ChecksStage;
  return checkLines(plan, stage).filter(
    (l) => !visit.answers[l.id] || visit.answers[l.id]!.answer === 'undone',
  );
};

/** Lines of an isolate-and-repeat stage's valve positions for its present subject. */
export function positionLines(
  plan: Plan,
  stage: IsolateStage,
  cycle: Cycle,
): { id: string; text: string; name: string; position: 'open' | 'closed' }[] {
  const appliances = plan.system.appliances;
  return stage.subjects === 'pipework'
    ? appliances.map((a) => ({
        id: `closed/${a.id}`,
        text: 'Isolating valve CLOSED',
        name: a.name,
        position: 'closed' as const,
      }))
    : appliances
        .filter((a) => a.id === cycle.subject)
        .map((a) => ({
          id: `open/${a.id}`,
          text: 'Isolating valve OPEN, all others closed',
          name: a.name,
          position: 'open' as const,
        }));
}

/** Smallest perceptible movement of the judging gauge in this part. */
export function perceptibleOf(plan: Plan, gauge: Gauge, part?: string | null): Limit {
  return perceptibleMovement(gauge, limitsOf(ruleOf(plan, part).perceptible));
}

/** The limit of a let-by hold for this gauge, with the plan's answer to how equality counts. */
export function letByLimit(plan: Plan, stage: HoldStage, gauge: Gauge): Limit {
  const listed = limitsOf(stage.limit ?? {})[gaugeClass(gauge)];
  const own = listed
    ? { ...listed, value: inUnit(listed.value, gauge.resolution.unit, gauge.resolution.scale + 1, 'down') }
    : perceptibleOf(plan, gauge, stage.part);
  const answer = stage.comparatorChoice ? plan.choices[stage.comparatorChoice] : undefined;
  return answer === 'at' || answer === 'above' ? { ...own, broken: answer } : own;
}

/** The drop permitted in this run as far as its answers allow, in the gauge's unit: null = nil. */
export function permittedDrop(plan: Plan, state: RunState, part?: string | null): Limit | null {
  if (state.denied.length) return null;
  const limit = allowanceOf(plan, part).limit;
  const gauge = gaugeOf(plan, state);
  if (!limit || !gauge) return limit;
  const table = {
    ...limit,
    value: inUnit(limit.value, gauge.resolution.unit, gauge.resolution.scale + 1, 'down'),
  };
  const bound = plan.procedure.parts?.find((p) => p.key === part)?.noWorseThan;
  if (!bound) return table;
  // an extension: the whole no worse than before
  const before = state.visits
    .filter((v) => plan.procedure.stages[v.stage]?.part === bound)
    .flatMap((v) => v.holds.filter((h) => h.role === 'tightness' && h.judgement))
    .pop()?.judgement;
  if (!before || before.direction !== 'fall') return null;
  const value = magnitude(before.change);
  return compare(value, table.value) < 0
    ? { value, broken: 'above', source: 'No worse than before the extension was made' }
    : table;
}

/** Joints of the installation that were last seen with growing bubbles: neither mended since, nor own kit or a boundary. */
export const leakingJoints = (state: RunState) =>
  state.joints.filter((j) => !j.whose && j.looks[j.looks.length - 1]?.found === 'growing');
/** The same on the tester's own kit or on a valve or plug that bounds the section. */
export const leakingBounds = (state: RunState) =>
  state.joints.filter((j) => j.whose && j.looks[j.looks.length - 1]?.found === 'growing');
/** An outright escape of gas: smelt, blowing bubbles, or a line that would not stand at all. */
export const escapes = (state: RunState): boolean =>
  state.ending?.reason === 'smell' ||
  state.observations.some((o) => o.what === 'smell') ||
  state.visits.some((v) => v.outcome === 'smell') ||
  leakingJoints(state).some((j) => j.looks[j.looks.length - 1]!.size === 'larger') ||
  Object.values(state.claims).some(
    (c) => c.finding === 'not-tight' && state.visits[c.visit - 1]?.unheld?.way === 'falls',
  );
/** Where it was last seen to drip while it was raised, and nothing has been raised since; '' when nowhere. */
export function drips(state: RunState): string {
  const last = [...state.visits].reverse().find((v) => v.pumped.length);
  const look = last?.pumped[last.pumped.length - 1]?.look;
  return look?.joints === 'drips' ? look.where : '';
}

/** Joints that leak fluid has not cleared yet: not looked at, or last seen with anything but no bubbles. */
export const openJoints = (state: RunState) =>
  state.joints.filter((j) => j.looks[j.looks.length - 1]?.found !== 'none');

/** After the hold joints are still cleared with leak fluid, until somebody has put a name to the result. */
export const clearsJointsAfter = (state: RunState): boolean =>
  state.phase === 'put-back' || (state.phase === 'signing' && !state.signatures.length);

/** Whether what was found calls for a class of danger before anyone signs. */
export const unsafeOpen = (plan: Plan, state: RunState): boolean =>
  plan.procedure.unsafe === true &&
  !state.unsafe &&
  (Object.values(state.claims).some(
    (c) => c.danger || c.use === 'shut-off' || (c.finding === 'not-tight' && c.use !== 'limited'),
  ) ||
    leakingJoints(state).length > 0 ||
    state.ending?.reason === 'smell' ||
    state.ending?.reason === 'voltage' ||
    state.observations.some((o) => o.what === 'smell') ||
    state.debts.some((d) => d.cleared?.poor === true) ||
    state.inventory.some((i) => Object.values(i.points).includes('fault')));

/** The open put-back lines in the order in which they can be cleared. */
export function inDebtOrder(plan: Plan, state: RunState) {
  const left = state.debts.filter((d) => !d.cleared);
  const sorted: typeof left = [];
  while (left.length) {
    const next = left.findIndex(
      (d) => !left.some((o) => plan.procedure.debts[d.key]?.after?.includes(o.key)),
    );
    sorted.push(...left.splice(Math.max(0, next), 1));
  }
  return sorted;
}
/** The line that must be cleared before this one; null when it is open now. */
export const debtBefore = (plan: Plan, state: RunState, key: string) =>
  state.debts.find((d) => !d.cleared && plan.procedure.debts[key]?.after?.includes(d.key)) ?? null;

/** What a put-back debt says, with the appliance it is owed to. */
export function debtWords(plan: Plan, debt: { key: string; subject?: string }, text?: string): string {
  const words = text ?? plan.procedure.debts[debt.key]?.text ?? debt.key;
  const subject =
    debt.subject &&
    (plan.system.appliances.find((a) => a.id === debt.subject) ??
      (plan.system.network && partOf(plan.system.network, debt.subject)));
  return subject ? `${subject.name}: ${lower(words)}` : words;
}

/** The same as it stands once the run has ended: where the system is left shut off, what is owed is not that it is turned on. */
export const owedWords = (plan: Plan, debt: { key: string; subject?: string }, use?: Use): string =>
  debtWords(plan, debt, use === 'shut-off' ? plan.procedure.debts[debt.key]?.unsafe : undefined);

/** Units that the gauges of a run judge in, the one chosen now among them: what is told of it stays in these. */
export const unitsJudgedIn = (plan: Plan, state: RunState): Unit[] => {
  const ids = [...gaugesUsed(state), ...(state.gauge ? [state.gauge] : [])];
  return [...new Set(plan.gauges.filter((g) => ids.includes(g.id)).map((g) => g.resolution.unit))];
};
/** Ids of every gauge that read a zero or a hold, in the order of their use. */
export const gaugesUsed = (state: RunState): string[] => [
  ...new Set(state.visits.flatMap((v) => [...v.zeros.map((z) => z.gauge), ...v.holds.map((h) => h.gauge)])),
];
