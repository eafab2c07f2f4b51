/** What a test costs whoever conducts it: presses, typed characters, and words that stand before them. Counted from a log as the bench makes it. */
import { walkOf } from '@/core/kinds/checks/walk';
import type { Plan } from '@/core/plan/plan';
import { formatExact } from '@/core/quantity/exact';
import type { RunEvent } from '@/core/run/events';
import { holdAhead } from '@/core/run/follow-on';
import { currentVisit, stageOf } from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';

export interface Effort {
  readonly taps: number;
  readonly characters: number;
  /** Words of instructions, cautions, lines and buttons, each as often as it stands there anew. */
  readonly words: number;
  /** Seconds of the log without the holds and pauses that the rule asks for. */
  readonly seconds: number;
}
const count = (text: string | undefined): number =>
  text ? text.trim().split(/\s+/).filter(Boolean).length : 0;

/** Words that a stage puts before the person. */
function wordsOf(plan: Plan, state: RunState): number {
  const visit = currentVisit(state);
  if (!visit) return 0;
  const stage = stageOf(plan, visit);
  const cautions = (stage.cautions ?? []).reduce((n, key) => n + count(plan.procedure.cautions[key]), 0);
  const own =
    stage.kind === 'checks'
      ? walkOf(plan, stage).reduce(
          (n, t) =>
            n +
            count(t.title) +
            (t.whole ? count(t.whole) : t.lines.reduce((m, l) => m + count(l.item.text), 0)) +
            t.lines.reduce((m, l) => m + count(l.item.hint), 0),
          0,
        )
      : stage.kind === 'observe'
        ? count(stage.question) + stage.results.reduce((n, r) => n + count(r.text), 0)
        : 0;
  return count(stage.title) + count(stage.instruction) + cautions + own;
}
/** Presses that one entry takes: what follows from another by the same press takes none. */
function tapsOf(plan: Plan, state: RunState, event: RunEvent, before: RunEvent | null): number {
  const visit = currentVisit(state);
  switch (event.kind) {
    case 'stream':
      return 0;
    case 'check': {
      const stage = visit && stageOf(plan, visit);
      if (stage?.kind !== 'checks') return 1;
      // the further lines of a thing that is settled as a whole come with its first
      const id = event.subject ? `${event.item}/${event.subject}` : event.item;
      const thing = walkOf(plan, stage).find((t) => t.lines.some((l) => l.id === id));
      return thing?.whole && thing.lines.some((l) => visit!.answers[l.id]) ? 0 : 1;
    }
    case 'proceed':
      // the last line of a list leads on by itself
      return visit?.kind === 'checks' ? 0 : 1;
    case 'zero':
      return event.figure.digits === 0 ? 1 : 2;
    case 'fill': {
      // what the let-by rests on is said with the press; more than that is ticked
      return holdAhead(plan, state)?.role === 'let-by' ? 1 : 2;
    }
    case 'hold-start':
      return (before?.kind === 'fill' || before?.kind === 'hold-end') && sameFigure(before, event) ? 0 : 1;
    case 'hold-end':
    case 'reading':
      return 2;
    case 'signature':
      return 2;
    default:
      return 1;
  }
}
const sameFigure = (a: RunEvent, b: RunEvent): boolean =>
  'figure' in a &&
  'figure' in b &&
  !!a.figure &&
  !!b.figure &&
  formatExact(a.figure) === formatExact(b.figure);
/** Characters that an entry is typed with; a zero and a figure that stands already are not. */
function charactersOf(event: RunEvent, taps: number): number {
  const typed = Object.entries(event).reduce(
    (n, [key, value]) => n + (TYPED.has(key) && typeof value === 'string' ? value.length : 0),
    0,
  );
  const figure =
    'figure' in event && event.figure && taps > 0 && !(event.kind === 'zero' && event.figure.digits === 0);
  return typed + (figure ? formatExact(event.figure!).length : 0);
}
const TYPED = new Set(['text', 'told', 'where', 'why', 'reason', 'mark', 'name']);

/** The effort of a whole log, or of its beginning. @param until stops before the first entry it says */
export function effortOf(
  plan: Plan,
  events: readonly RunEvent[],
  until: (event: RunEvent, state: RunState) => boolean = () => false,
): Effort {
  const state = begin(plan);
  let [taps, characters, words, held] = [0, 0, wordsOf(plan, state), 0];
  let before: RunEvent | null = null;
  let at = events[0]?.at ?? 0;
  const began = at;
  for (const event of events) {
    if (until(event, state)) break;
    const here = state.visits.length;
    const presses = tapsOf(plan, state, event, before);
    taps += presses;
    characters += charactersOf(event, presses);
    step(plan, state, event, true);
    if (event.kind === 'hold-end' || event.kind === 'pump-look' || event.kind === 'dial-end')
      held += event.at - at;
    if (state.visits.length > here) words += wordsOf(plan, state);
    if (event.kind !== 'stream') before = event;
    at = event.at;
  }
  return { taps, characters, words, seconds: Math.max(0, at - began - held) / 1000 };
}
