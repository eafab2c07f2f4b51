/** Cutting, coupling and curing: counted, timed, and no pressure before the time is over. */
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';
import type { Cure } from './state';

const MINUTE_MS = 60_000;
/** By which a device may be early. */
const EARLY_MS = 5000;
/** The joints that stand in a stage: those made last. */
export const cureOf = (state: RunState, visit: number): Cure | undefined =>
  [...state.rooms.cures].reverse().find((c) => c.visit === visit && !c.ended);
export const curedAt = (c: Pick<Cure, 'madeAt' | 'minutes'>): number => c.madeAt + c.minutes * MINUTE_MS;

export const cureFold: Fold<'joints-made' | 'cure-later'> = {
  'joints-made': { apply: (event, on) => made(on, event), words: (event) => madeWords(event) },
  'cure-later': {
    transition: true,
    apply: (_, on) => later(on),
    words: () => 'left to cure until another day',
  },
};
const several = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
const timeWords = (minutes: number): string =>
  minutes % 60 === 0
    ? `${minutes / 60} h`
    : minutes > 60
      ? `${Math.floor(minutes / 60)} h ${minutes % 60} min`
      : `${minutes} min`;
/** What was counted, in a phrase. */
export const madeWords = (c: Pick<Cure, 'cuts' | 'couplings' | 'means' | 'minutes' | 'table'>): string =>
  `${several(c.cuts, 'cut')}, ${several(c.couplings, 'coupling')}, ${c.means}; cures ${timeWords(c.minutes)}${c.table ? ` by ${c.table}` : ''}`;

function made(
  { state, stage, visit, at }: OnStage,
  { cuts, couplings, means, minutes, table }: EventOf<'joints-made'>,
): Refusal | null {
  if (stage.kind !== 'cure') return no('wrong-step', 'Nothing is cut or coupled in this step.');
  if (!cuts && !couplings)
    return no('none', 'Count what was cut and what was coupled: one of both at least.');
  if (minutes < stage.minutes && !table.trim())
    return no(
      'table',
      `Less than ${timeWords(stage.minutes)} only by the cement’s own table for bore, pressure and weather: name it.`,
    );
  // a joint made over, or one more: the time runs from the last of them
  const before = cureOf(state, visit.ordinal);
  if (before) state.rooms.cures.splice(state.rooms.cures.indexOf(before), 1);
  state.rooms.cures.push({
    visit: visit.ordinal,
    title: stage.title,
    cuts,
    couplings,
    means,
    minutes,
    table: table.trim(),
    madeAt: at,
  });
  return null;
}
function later({ plan, state, stage, visit, at }: OnStage): Refusal | null {
  if (stage.kind !== 'cure') return no('wrong-step', 'Nothing cures in this step.');
  const now = cureOf(state, visit.ordinal);
  if (now) now.ended = { at, cured: false };
  follow(plan, state, 'later', at);
  return null;
}
/** Goes on to pressure: only when the time is over. */
export function confirmCure({ plan, state, stage, visit, at }: OnStage): Refusal | null {
  if (stage.kind !== 'cure') return no('wrong-step', 'Nothing cures in this step.');
  const now = cureOf(state, visit.ordinal);
  if (!now) return no('none', 'Say first what was cut and coupled: the time runs from the last joint.');
  const left = curedAt(now) - at;
  if (left > EARLY_MS)
    return no(
      'early',
      `It cures ${timeWords(Math.ceil(left / MINUTE_MS))} more: a joint pressed too early blows apart. It can be left for another day.`,
    );
  now.ended = { at, cured: true };
  follow(plan, state, 'cured', at);
  return null;
}
/** What was cut and coupled, in a sentence. */
export const cureWords = (c: Cure): string =>
  `${c.title}: ${madeWords(c)}${c.ended ? (c.ended.cured ? `; pressed after ${timeWords(Math.floor((c.ended.at - c.madeAt) / MINUTE_MS))}` : '; left for another day') : ''}`;
const WORDS: Readonly<Record<string, string>> = { cured: 'cured', later: 'left for another day' };
export const cureCourse: Course = (visit) => ({ word: WORDS[visit.outcome ?? ''] ?? 'open', text: '' });
