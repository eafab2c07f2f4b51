/** Events outside the stages: corrections, streams, put-back list, signatures. */
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import type { EventOf } from './events';
import type { Fold } from './fold';
import { fitsReading, fitsStream } from './gate';
import { closedNow, namesOf } from './isolations';
import { currentVisit, debtBefore, debtWords, escapes, unsafeOpen } from './read';
import type { RunState } from './state';
import { no, overtaken, type Refusal } from './transition';

/** The two classes of an unsafe situation. */
export const DANGER_WORDS = { 'immediate-danger': 'immediate danger', 'at-risk': 'at risk' } as const;
export const closingFold: Fold<'correction' | 'stream' | 'debt' | 'unsafe' | 'signature'> = {
  correction: {
    entered: 'corrected',
    misfit: (event, { state }) => fitsReading(state, event),
    anytime: (event, { state, at }) => correct(state, event, at),
    words: (event) => `reading corrected to ${showExact(event.figure)}: ${event.reason}`,
    said: () => true,
  },
  stream: {
    misfit: (event, { plan }) => fitsStream(plan, event),
    anytime: (event, { plan, state }) => stream(plan, state, event),
    words: (event) =>
      `${event.points.length} streamed display values${event.simulated ? ' (simulated gauge)' : ''}`,
  },
  debt: {
    undo: true,
    anytime: (event, { plan, state, at }) => clearDebt(plan, state, event, at),
    words: (event, { plan }) =>
      `put back: ${event.text || (plan.procedure.debts[event.debt]?.text ?? event.debt)}`,
  },
  unsafe: {
    anytime: (event, { plan, state, at }) => classUnsafe(plan, state, event, at),
    words: (event) => `${DANGER_WORDS[event.danger]}, ${event.action}: ${event.text}; told: ${event.told}`,
  },
  signature: {
    anytime: (event, { plan, state, at }) => sign(plan, state, event, at),
    words: (event) =>
      event.refused
        ? `${event.role} ${event.name} did not sign: ${event.refused}`
        : `${event.role} ${event.name} signed`,
  },
};

function correct(state: RunState, event: EventOf<'correction'>, at: number): Refusal | null {
  for (const visit of state.visits) {
    const reading = visit.readings.find((r) => r.id === event.of);
    if (reading) {
      reading.corrected = { figure: event.figure, reason: event.reason, byName: event.byName, at };
      return null;
    }
    const judged = [...visit.holds, ...visit.cycles.flatMap((c) => [c.settle, c.hold])].some(
      (h) => h?.start.id === event.of || h?.end?.id === event.of,
    );
    if (judged)
      return no(
        'judged',
        'A reading that started or ended a hold cannot be changed. Log a disturbance and repeat the hold; the old one stays in the record.',
      );
  }
  return no('unknown-reading', 'The reading to correct is not in this run.');
}

function stream(plan: Plan, state: RunState, event: EventOf<'stream'>): Refusal | null {
  const visit = currentVisit(state);
  if (!visit && !event.imported) return overtaken();
  if (event.gauge !== state.gauge)
    return no('other-gauge', 'The stream came from another gauge than the one that judges.');
  if (event.imported) return keepImported(plan, state, event);
  for (const [t, digits] of event.points) visit!.trace.push([t + event.offset, digits]);
  const { flows } = event;
  if (flows)
    state.rooms.fan.shown.push(
      ...event.points.map(([t, digits], i) => ({
        at: t + event.offset,
        digits,
        flow: flows.digits[i] ?? null,
        scale: flows.scale,
      })),
    );
  return null;
}
/**
 * Readings of the gauge's own log, read in afterwards: each goes to the stage it was taken in. They stand in the trace
 * and may speak against a result, but no hold is judged again by them.
 */
function keepImported(plan: Plan, state: RunState, event: EventOf<'stream'>): Refusal | null {
  if (state.signatures.length) return no('signed', 'The record is signed; nothing is read in any more.');
  const scale = plan.gauges.find((g) => g.id === event.gauge)?.resolution;
  if (!scale || event.unit !== scale.unit || event.scale !== scale.scale)
    return no('unit', 'The log is not in the unit and the steps of the gauge that judges.');
  const [first] = event.points;
  if (
    first &&
    state.imports.some((i) => i.hash === event.imported!.hash) &&
    state.visits.some((v) => v.trace.some(([t, digits]) => t === first[0] && digits === first[1]))
  )
    return no('twice', 'These readings of the log are in the run already.');
  let kept = 0;
  for (const [t, digits] of event.points) {
    const visit = state.visits.find((v) => t >= v.entered && (v.left === undefined || t < v.left));
    if (!visit) continue;
    visit.trace.push([t, digits]);
    kept += 1;
  }
  if (!kept)
    return no(
      'outside',
      'No reading of the log lies within the time of this test. Look at the day and at the clock of the gauge, and correct its clock on import.',
    );
  for (const v of state.visits) v.trace.sort((a, b) => a[0] - b[0]);
  const { file, hash } = event.imported!;
  const known = state.imports.findIndex((i) => i.hash === hash);
  if (known < 0) state.imports.push({ file, hash, points: kept, at: event.at + event.offset });
  else state.imports[known] = { ...state.imports[known]!, points: state.imports[known]!.points + kept };
  return null;
}

function clearDebt(plan: Plan, state: RunState, event: EventOf<'debt'>, at: number): Refusal | null {
  if (state.phase === 'running') return no('still-running', 'Put back after the test has ended.');
  const debt = state.debts.find((d) => d.key === event.debt && d.subject === event.subject && !d.cleared);
  if (!debt) return no('overtaken', 'This line is already cleared.');
  const first = debtBefore(plan, state, debt.key);
  if (first) return no('order', `First: ${debtWords(plan, first)}. What is put back has its order.`);
  const answers = plan.procedure.debts[debt.key]?.answers;
  const answer = answers?.find((a) => a.key === event.answer);
  if (event.answer && !answer) return no('answer', 'That is not one of the answers.');
  debt.cleared = { at, byName: event.byName, text: event.text, ...(answer?.poor ? { poor: true } : {}) };
  if (state.phase === 'put-back' && state.debts.every((d) => d.cleared)) state.phase = 'signing';
  return null;
}

/** Classes an unsafe situation in words, with what was done and who was told. */
function classUnsafe(plan: Plan, state: RunState, event: EventOf<'unsafe'>, at: number): Refusal | null {
  if (state.phase === 'running') return no('still-running', 'End the test first; STOP ends it at once.');
  if (state.signatures.length) return no('signed', 'The record is signed; a new one would have to follow.');
  const { danger, action, text, told, byName } = event;
  if (danger === 'at-risk' && plan.format > 1 && escapes(state))
    return no(
      'escape',
      'Gas escapes: that is immediate danger, never only at risk. Shut it off, and class it so.',
    );
  state.unsafe = { danger, action, text, told, at, byName };
  return null;
}

function sign(plan: Plan, state: RunState, event: EventOf<'signature'>, at: number): Refusal | null {
  if (state.phase === 'running') return no('still-running', 'The test has not ended.');
  if (state.phase === 'put-back') return no('debts', 'Clear the put-back list first.');
  if (
    state.signatures.some((s) => s.role === event.role && (event.role !== 'witness' || s.name === event.name))
  )
    return no('overtaken', 'This signature is already there.');
  if (state.ending?.by === 'stop' && !state.ending.reason)
    return no('stop-reason', 'Say first why the run was stopped.');
  if (closedNow(state).length)
    return no(
      'search-shut',
      `Say first whether it is open again or stays shut: ${namesOf(plan, closedNow(state)).join(', ')}, closed for the search.`,
    );
  if (unsafeOpen(plan, state))
    return no('unsafe', 'Say first how dangerous it is, what was done and who was told.');
  if (event.role === 'tester' && (!event.strokes || event.via))
    return no('strokes', 'The tester must sign here, on the bench.');
  if (event.role === 'witness' && (!event.as?.trim() || !event.saw))
    return no('witness', 'Say in what office the witness was there, and what they saw.');
  if (!event.strokes && !event.refused?.trim())
    return no('strokes', 'Sign, or write why the signature is refused.');
  state.signatures.push({
    role: event.role,
    name: event.name,
    at,
    by: event.by,
    ...(event.strokes ? { strokes: event.strokes } : {}),
    ...(event.refused ? { refused: event.refused } : {}),
    ...(event.as ? { as: event.as } : {}),
    ...(event.saw ? { saw: event.saw } : {}),
    ...(event.via ? { via: event.via } : {}),
  });
  // a witness is welcome and never owed: tester and customer, or the refusal, make it complete; own kit is nobody else's
  const owed = plan.procedure.ofKit ? (['tester'] as const) : (['tester', 'customer'] as const);
  if (owed.every((role) => state.signatures.some((s) => s.role === role))) state.phase = 'signed';
  return null;
}
