/** What a fan showed, in the sentences of a record. */
import { flowWords, isPushed, judgingEdition, type FanStage } from '@/core/kinds/fan/asked';
import { STEEPEST } from '@/core/kinds/fan/judge';
import type { FanReading, FanResult, FanVisit } from '@/core/kinds/fan/state';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import type { RunState } from '@/core/run/state';

/** The passage a claim rests on. @param before a claim made after it, of what it found, rests on the last of the ducts before */
export const fanOfClaim = (state: RunState, visit: number, before = false): FanVisit | undefined =>
  [...state.rooms.fan.visits]
    .reverse()
    .find((v) => v.result && (v.visit === visit || (before && v.of === 'system' && v.visit < visit)));
const n2 = (n: number): string => n.toFixed(2);
const stageOfVisit = (plan: Plan, state: RunState, v: FanVisit): FanStage =>
  plan.procedure.stages[state.visits[v.visit - 1]!.stage] as FanStage;

/** Where the exponent comes from. */
export function exponentWords(r: NonNullable<FanResult['at']>): string {
  if (!r.measured) return `exponent ${n2(r.n)}, assumed`;
  const doubt = r.word === 'doubtful' ? ', doubtful' : '';
  return `exponent ${n2(r.measured.n)} measured (${n2(r.measured.low)} to ${n2(r.measured.high)}${doubt})`;
}
/** The flow at the reference pressure, as it was read and carried. */
function flowSentence(v: FanVisit, r: FanResult, plan: Plan, stage: FanStage): string {
  const { at, reference } = r;
  if (!at) return '';
  const from = at.from as FanReading;
  const { unit } = from.fan.range.least;
  const way = stage.of === 'hose' ? '' : isPushed(plan, stage) ? ', air pushed in' : ', air drawn out';
  const pressure = `${from.net.toFixed(1)} Pa`;
  if (at.bound)
    return `At ${pressure}${way} the flow was below ${from.fan.range.name} (${showExact(from.fan.range.least)}): at ${reference.toFixed(0)} Pa at most ${flowWords(at.flow, unit)}, whatever the exponent from ${STEEPEST.least} to ${STEEPEST.most}`;
  const same = Math.abs(from.net - reference) < 0.05;
  const ends = [at.low, at.high].map((flow) => flowWords(flow, unit)) as [string, string];
  const [low, high] = at.measured
    ? [Math.max(STEEPEST.least, at.measured.low), Math.min(STEEPEST.most, at.measured.high)]
    : [STEEPEST.least, STEEPEST.most];
  const between = ends[0] === ends[1] ? '' : `; with ${n2(low)} and ${n2(high)}: ${ends[0]} to ${ends[1]}`;
  const carried = same
    ? ''
    : `; at ${reference.toFixed(0)} Pa ${flowWords(at.flow, unit, r.limit ?? undefined)} (${exponentWords(at)}${between})`;
  return `${showExact(from.figure!)} at ${pressure}${way}${same ? ` = ${flowWords(at.flow, unit, r.limit ?? undefined)}` : carried}${same && at.measured ? `; ${exponentWords(at)}` : ''}`;
}
/** Limit and own kit beside it. */
function againstWords(r: FanResult, plan: Plan, stage: FanStage): string {
  const unit = r.at ? (r.at.from as FanReading).fan.range.least.unit : 'CFM';
  const edition = judgingEdition(plan, stage);
  if (r.limit === null) return edition ? `${edition.title} gives no limit for this case` : '';
  const own =
    r.blank === null
      ? 'own hose and ring not tested'
      : `own hose and ring pass ${flowWords(r.blank, unit)} by themselves, not taken off`;
  return `the limit is ${flowWords(r.limit, unit, r.at?.flow)} (${edition?.title ?? ''}: ${edition?.limit?.working.formula ?? ''})${stage.of === 'hose' ? '' : `; ${own}`}`;
}
/** A fan stage that was judged, in a sentence; null where nothing was read. */
export function fanSentence(plan: Plan, state: RunState, v: FanVisit): string | null {
  const { result } = v;
  if (!result) return null;
  const stage = stageOfVisit(plan, state, v);
  if (!result.at) {
    const { blank } = state.rooms.fan;
    if (v.cannot) return `No flow could be read: ${v.cannot}.`;
    return blank?.from === 'dated'
      ? `Own hose and ring as tested ${blank.on}: ${showExact(blank.flow)} at ${showExact(blank.pressure)}.`
      : null;
  }
  const flow = flowSentence(v, result, plan, stage);
  const against = againstWords(result, plan, stage);
  const why = v.cannot
    ? `; no reading that decides could be had: ${v.cannot}`
    : v.noSecond
      ? `; no second pressure: ${v.noSecond}`
      : '';
  return `${flow}${against ? `; ${against}` : ''}${why}.`;
}
