import type { Stage } from '@/core/kinds';
import { goodStages } from '@/core/plan/good-path';
import type { Plan } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { roleOf } from '@/core/roles';
import { holdEnds, permittedDrop } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { verdictOf } from '@/core/verdict/verdict';
import { type Course, type CourseState, type GlyphCourse } from './courses';

const STATE_WORDS: Record<CourseState, string> = {
  waiting: 'waiting',
  running: 'running',
  set: 'set',
  split: 'void',
  skipped: 'skipped',
};

/** Minutes of a stage for the drawing: those of its own hold once it has run, before that what the pack says. */
function minutesOf(stage: Stage, visit?: Visit): number {
  if (stage.kind === 'isolate-and-repeat') return stage.settleMinutes + stage.minutes;
  if (stage.kind !== 'hold' && stage.kind !== 'dial') return 0;
  const ran = visit?.dial?.minutes ?? visit?.holds[visit.holds.length - 1]?.minutes;
  if (ran !== undefined) return ran;
  const { minutes } = stage;
  if (typeof minutes === 'number') return minutes;
  return Math.max(typeof minutes.rule === 'number' ? minutes.rule : 0, minutes.house ?? 0, 3);
}

const holdsOf = (visit: Visit): Hold[] => [
  ...visit.holds,
  ...visit.cycles.flatMap((c) => (c.hold ? [c.hold] : [])),
];

function plumbOf(plan: Plan, state: RunState, visit: Visit): { plumb: number; out: boolean } {
  const hold = [...holdsOf(visit)].reverse().find((h) => h.judgement);
  const judgement = hold?.judgement;
  if (visit.dial?.moved !== undefined) return { plumb: visit.dial.moved ? -1.5 : 0, out: visit.dial.moved };
  if (visit.kind === 'joints') return { plumb: 0, out: visit.outcome === 'bubbles' };
  if (!judgement) return { plumb: 0, out: false };
  const permitted =
    hold.role === 'tightness'
      ? (judgement.limit ?? permittedDrop(plan, state))
      : roleOf(hold.role).regulator
        ? null
        : judgement.limit;
  // water added is a fall that was made good: against what may be added
  if (judgement.makeUp) {
    const most = judgement.makeUp.limit && toNumber(judgement.makeUp.limit.value);
    return {
      plumb: most ? -toNumber(judgement.makeUp.added) / most : 0,
      out: ['beyond', 'too-far', 'rose'].includes(judgement.outcome),
    };
  }
  if (roleOf(hold.role).measures === 'lost') return { plumb: 0, out: false };
  const limit =
    hold.role === 'floor' && judgement.accept?.low
      ? toNumber(hold.start.figure) - toNumber(judgement.accept.low.value)
      : toNumber((permitted ?? judgement.perceptible).value);
  const out = [
    'beyond',
    'suspected',
    'fell',
    'rose',
    'late',
    'moved',
    'below',
    'above',
    'creeps',
    'too-low',
    'too-high',
    'vents',
  ].includes(judgement.outcome);
  // a rise is measured against what is perceptible: no rise is permitted
  const against = judgement.change.digits > 0 ? toNumber(judgement.perceptible.value) : limit;
  return { plumb: against > 0 ? toNumber(judgement.change) / against : 0, out };
}

/**
 * The wall of a run: laid courses from the bottom up, then those still waiting.
 * @param at moment for the filling of a running course, ms on the server's line
 */
export function wallCourses(plan: Plan, state: RunState, at: number): Course[] {
  const seen = new Map<string, number>();
  // a void result is a crack through the last course, whatever broke the procedure
  const cracked = state.ending && verdictOf(plan, state)?.word === 'void' ? state.visits.length : 0;
  const laid = state.visits.map((visit, i): Course => {
    const stage = plan.procedure.stages[visit.stage]!;
    const times = (seen.get(visit.stage) ?? 0) + 1;
    seen.set(visit.stage, times);
    const running = state.phase === 'running' && i === state.visits.length - 1;
    const hold = holdsOf(visit).find((h) => !h.end && !h.broken);
    const split =
      visit.ordinal === cracked ||
      visit.split !== undefined ||
      visit.holds.some((h) => h.broken && h === visit.holds[visit.holds.length - 1]);
    const courseState: CourseState = visit.skipped
      ? 'skipped'
      : running
        ? 'running'
        : split
          ? 'split'
          : 'set';
    const answered = Object.values(visit.answers).filter((a) => a.answer !== 'undone').length;
    return {
      key: `${visit.ordinal}`,
      title: visit.title,
      state: courseState,
      minutes: minutesOf(stage, visit),
      ...plumbOf(plan, state, visit),
      filled: hold
        ? Math.min(1, Math.max(0, (at - hold.startedAt) / (holdEnds(hold) - hold.startedAt)))
        : running
          ? Math.min(0.9, answered / 20)
          : 1,
      topUps: visit.holds.reduce((n, h) => n + h.topUps.length, 0),
      repeated: times > 1 || visit.cycles.length > 1,
      word: STATE_WORDS[courseState],
      footing: stage.kind === 'hold' && stage.role === 'let-by',
      visit: visit.ordinal,
    };
  });
  const last = state.visits[state.visits.length - 1];
  const ahead = state.phase === 'running' && last ? goodStages(plan, last.stage).slice(1) : [];
  const waiting = ahead.map((key): Course => {
    const stage = plan.procedure.stages[key]!;
    return {
      key: `w-${key}`,
      title: stage.title,
      state: 'waiting',
      minutes: minutesOf(stage),
      plumb: 0,
      out: false,
      filled: 0,
      topUps: 0,
      repeated: false,
      word: 'waiting',
      footing: stage.kind === 'hold' && stage.role === 'let-by',
      visit: null,
    };
  });
  return [...laid, ...waiting];
}
/** The wall as a 24 px glyph: at most nine courses, those that held or broke something. */
export function wallGlyph(plan: Plan, state: RunState, at = state.lastAt): GlyphCourse[] {
  const all = wallCourses(plan, state, at);
  const telling = all.filter((c) => c.minutes > 0 || c.state === 'split' || c.state === 'running');
  return (telling.length ? telling : all).slice(-9).map((c) => ({
    s: c.state === 'set' && c.out ? 'out' : c.state,
    p: Math.round(Math.max(-1.5, Math.min(1.5, c.plumb)) * 100),
  }));
}
