import type { Plan } from '@/core/plan/plan';
import { showChange, showExact } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import type { Hold, RunState, Visit } from '@/core/run/state';

/** A stage of the record in its own words. */
export interface StageLine {
  readonly key: string;
  readonly title: string;
  readonly word: string;
  readonly text: string;
}

/** "2 min 03 s". */
export function duration(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return `${Math.floor(seconds / 60)} min ${String(seconds % 60).padStart(2, '0')} s`;
}

/** Each course of the run in the words of its stage. */
export function stageLines(plan: Plan, state: RunState): StageLine[] {
  return state.visits.map((visit) => ({
    key: `${visit.ordinal}-${visit.stage}`,
    title: visit.title,
    ...lineOf(plan, visit),
  }));
}
const LET_BY_WORDS: Record<string, string> = { proved: 'proved', suspected: 'suspected', fell: 'not proved' };
function holdText(hold: Hold): string {
  if (hold.broken) return `void: ${hold.broken.reason}`;
  if (!hold.judgement || !hold.end) return 'not ended';
  const tops = hold.topUps.length
    ? `; ${hold.topUps.length} re-adjustment${hold.topUps.length > 1 ? 's' : ''}`
    : '';
  const added = hold.judgement.makeUp ? `; ${showExact(hold.judgement.makeUp.added)} added` : '';
  const short = hold.short ? `; ended before the planned ${hold.minutes} min: ${hold.short}` : '';
  return `${showExact(hold.start.figure)} to ${showExact(hold.end.figure)} (${showChange(hold.judgement.change)}) in ${duration(hold.judgement.elapsedMs)}${tops}${added}${short}`;
}
function lineOf(plan: Plan, visit: Visit): { word: string; text: string } {
  if (visit.skipped) return { word: 'skipped', text: `${visit.skipped.reason}: ${visit.skipped.text}` };
  switch (visit.kind) {
    case 'checks': {
      const given = Object.values(visit.answers).filter((a) => a.answer !== 'undone').length;
      return {
        word: visit.outcome === 'done' ? 'complete' : (visit.outcome ?? 'open'),
        text: `${given} lines answered`,
      };
    }
    case 'zero': {
      const last = visit.zeros[visit.zeros.length - 1];
      return {
        word: visit.outcome === 'zeroed' ? 'zero' : visit.outcome === 'off-zero' ? 'off zero' : 'open',
        text: last ? `${showExact(last.figure)} open to air` : '',
      };
    }
    case 'fill':
      return {
        word: visit.outcome === 'in-band' ? 'in band' : 'open',
        text: visit.fills.length ? showExact(visit.fills[visit.fills.length - 1]!.figure) : '',
      };
    case 'hold': {
      const hold = visit.holds[visit.holds.length - 1];
      if (!hold) return { word: visit.split ? 'void' : 'open', text: visit.split ?? '' };
      if (hold.broken) return { word: 'void', text: holdText(hold) };
      const outcome = hold.judgement?.outcome ?? 'open';
      return {
        word:
          hold.role === 'let-by'
            ? (LET_BY_WORDS[outcome] ?? outcome)
            : (hold.role === 'lock-up' || hold.role === 'decay') && outcome === 'fell'
              ? 'fell'
              : (hold.judgement?.rate?.title ?? HOLD_WORDS[outcome] ?? outcome),
        text: holdText(hold),
      };
    }
    case 'observe': {
      const stage = plan.procedure.stages[visit.stage]!;
      const result =
        stage.kind === 'observe' ? stage.results.find((r) => r.key === visit.outcome) : undefined;
      return { word: result ? 'seen' : 'open', text: result?.text ?? '' };
    }
    case 'dial': {
      const dial = visit.dial;
      const inputs = visit.inputs.map(
        (i) =>
          `${plan.system.appliances.find((a) => a.id === i.appliance)?.name ?? i.appliance}: ${showFigure(i.input ?? i.flow)}`,
      );
      if (!dial) return { word: visit.outcome === 'done' ? 'measured' : 'open', text: inputs.join('; ') };
      const time = dial.endedAt ? ` in ${duration(dial.endedAt - dial.startedAt)}` : '';
      return {
        word: dial.moved === undefined ? 'open' : dial.moved ? 'moved' : 'stood still',
        text: dial.moved
          ? `${dial.turns ? showExact(dial.turns) : ''} of a turn${time}${dial.rate ? `: ${showFigure(dial.rate)}` : ''}`
          : `mark ${dial.mark}${time}`,
      };
    }
    case 'joints':
      return {
        word: visit.outcome === 'clear' ? 'clear' : visit.outcome === 'bubbles' ? 'bubbles' : 'open',
        text: visit.split ?? '',
      };
    case 'inventory':
      return { word: visit.outcome === 'done' ? 'written down' : 'open', text: '' };
    case 'volume':
      return { word: visit.outcome === 'known' ? 'known' : 'open', text: '' };
    case 'pump': {
      const last = visit.pumped[visit.pumped.length - 1];
      return {
        word: PUMP_WORDS[visit.outcome ?? ''] ?? 'open',
        text: last
          ? `${visit.pumped.length} ${visit.pumped.length === 1 ? 'step' : 'steps'} to ${showExact((last.look?.reading ?? last.reached).figure)}`
          : (visit.split ?? ''),
      };
    }
    case 'draw-down':
      return {
        word: visit.drawn ? 'measured' : 'open',
        text: visit.drawn ? `${showExact(visit.drawn.volume)}: ${showFigure(visit.drawn.rate)}` : '',
      };
    case 'isolate-and-repeat':
      return {
        word: HOLD_WORDS[visit.outcome ?? ''] ?? visit.outcome ?? 'open',
        text: visit.cycles
          .filter((c) => c.hold)
          .map((c) => `${c.name}: ${holdText(c.hold!)}`)
          .join('; '),
      };
  }
}
const PUMP_WORDS: Record<string, string> = {
  raised: 'raised, joints dry',
  drips: 'a joint drips',
  air: 'too much air',
  'not-reached': 'not reached',
};
const HOLD_WORDS: Record<string, string> = {
  settled: 'settled',
  nil: 'no movement',
  allowance: 'within allowance',
  beyond: 'beyond the limit',
  moved: 'moved',
  rose: 'rose',
  disagree: 'readings disagree',
  late: 'read too late',
  withstood: 'withstood',
  fell: 'did not withstand',
  holds: 'holds',
  creeps: 'creeps',
  'too-low': 'too low',
  'too-high': 'too high',
  vents: 'reaches the vent setting',
  confirm: 'pass, to be confirmed',
  done: 'done',
  kept: 'stays above its floor',
  below: 'fell below its floor',
  above: 'rose above its band',
  within: 'within the limit',
  'no-limit': 'measured, no limit given',
  'too-far': 'fell too far to compare',
  held: 'held',
  witness: 'second place fell',
};
