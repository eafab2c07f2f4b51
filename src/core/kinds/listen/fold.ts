/** Listening along a run: spots, what they come to, and what else speaks of the place. */
import { metres } from '@/core/installation/section';
import { parseWithUnit, showExact, type Exact } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';
import { CLARITY, fitOf, nextSpot, type Fit } from '@/core/trades/pool/listen';
import { EVIDENCE, EVIDENCE_KEYS, type Evidence } from './entries';

const isLength = (a: Exact): boolean => UNITS[a.unit].dimension === 'length';
const MOST_SPOTS = 200;
/** The longest run that is walked. m */
const LONGEST = 500;
/** What must be asked before anything is broken open; another means need not be at hand. */
export const ASKED: readonly Evidence[] = EVIDENCE_KEYS.filter((e) => e !== 'other');
const SAYS = { agrees: 'agrees', against: 'speaks against it', unknown: 'not known' } as const;

/** The fit of all spots; null where there is no run or nothing was heard. */
export function placeNow(
  state: RunState,
): (Fit & { readonly length: number; readonly next: number | null }) | null {
  const { run, spots } = state.rooms.listen;
  if (!run) return null;
  const length = metres(run.length);
  const heard = spots.map((s) => ({ along: metres(s.along), loud: s.loud, clear: s.clear }));
  const fit = fitOf(heard, length);
  return fit && { ...fit, length, next: nextSpot(heard, length) };
}
export const listenFold: Fold<'listen-run' | 'listen' | 'listen-picture' | 'listen-evidence'> = {
  'listen-run': {
    misfit: (event) =>
      isLength(event.length) && metres(event.length) > 0 && metres(event.length) <= LONGEST
        ? null
        : no('length', `The run is a length along the pipe, above zero and up to ${LONGEST} m.`),
    apply: (event, { state, stage }) => begin(state, stage.kind, event),
    words: (event) => `run walked: ${event.name}, ${showExact(event.length)}; compressor ${event.compressor}`,
  },
  listen: {
    misfit: (event) =>
      isLength(event.along) ? null : no('length', 'A spot is so far along the run, a length.'),
    apply: (event, { state, stage }) => spot(state, stage.kind, event),
    words: (event) =>
      `heard at ${showExact(event.along)}${event.near ? `, ${event.near}` : ''}: ${event.loud} of 10, ${CLARITY[event.clear].words}`,
  },
  'listen-picture': {
    apply: (event, { state, stage }) => {
      if (stage.kind !== 'listen') return no('wrong-step', 'A run is drawn where it is listened along.');
      if (!state.photos.some((p) => p.hash === event.photo))
        return no('photo', 'This photo is not with the run. Take it here, then draw the run on it.');
      if (event.from.every((x, i) => x === event.to[i]))
        return no('ends', 'Beginning and end of the run lie on one point. Tap them apart.');
      state.rooms.listen.picture = { photo: event.photo, from: event.from, to: event.to };
      return null;
    },
    words: () => 'run drawn on a photo',
  },
  'listen-evidence': {
    apply: (event, { state, stage }) => {
      if (stage.kind !== 'listen') return no('wrong-step', 'This is asked where the place is listened for.');
      state.rooms.listen.evidence[event.what] = { says: event.says, text: event.text };
      return null;
    },
    words: (event) => `${EVIDENCE[event.what]}: ${SAYS[event.says]}${event.text ? `, ${event.text}` : ''}`,
    said: () => true,
  },
};
function begin(state: RunState, kind: string, event: EventOf<'listen-run'>): Refusal | null {
  if (kind !== 'listen') return no('wrong-step', 'No run is walked now.');
  const { listen } = state.rooms;
  if (listen.spots.some((s) => metres(s.along) > metres(event.length)))
    return no('shorter', 'A spot that was heard lies beyond this length. Measure the run again.');
  listen.run = { name: event.name, length: event.length, compressor: event.compressor };
  return null;
}
function spot(state: RunState, kind: string, event: EventOf<'listen'>): Refusal | null {
  if (kind !== 'listen') return no('wrong-step', 'Nothing is listened for now.');
  const { run, spots } = state.rooms.listen;
  if (!run) return no('run', 'Say first which run you walk, how long it is and where the compressor stands.');
  const along = metres(event.along);
  if (along < 0 || along > metres(run.length))
    return no('outside', `The run is ${showExact(run.length)} long: this spot does not lie on it.`);
  if (spots.length >= MOST_SPOTS)
    return no('too-many', 'So many spots tell no more: end with what was heard.');
  const { along: at, loud, clear, near, byName } = event;
  // heard again at the same place: the newer one stands
  const again = spots.findIndex((s) => metres(s.along) === along);
  const entry = { along: at, loud, clear, near, byName };
  if (again >= 0) spots[again] = entry;
  else spots.push(entry);
  return null;
}
/** Ends the walk: silent, against what else is known, too wide, or a place. */
export function confirmListen({ plan, state, stage, at }: OnStage): Refusal | null {
  if (stage.kind !== 'listen') return no('wrong-step', 'Nothing is listened for now.');
  const { run, spots, evidence } = state.rooms.listen;
  if (!run || spots.length < 3)
    return no('spots', 'Three spots along the run at least: louder, softer, and on the other side.');
  const place = placeNow(state);
  if (!place) {
    follow(plan, state, 'silent', at);
    return null;
  }
  const open = ASKED.filter((e) => !evidence[e]);
  if (open.length)
    return no(
      'evidence',
      `Before anything is broken open: ${open.map((e) => EVIDENCE[e]).join(', ')}. "Not known" is an answer.`,
    );
  const against = EVIDENCE_KEYS.some((e) => evidence[e]?.says === 'against');
  const wide = place.to - place.from > metres(parseWithUnit(stage.widest)) + 1e-9;
  follow(plan, state, against ? 'against' : wide ? 'wide' : 'located', at);
  return null;
}
/** The place in a sentence, in the unit the run was measured in. */
export function placeWords(state: RunState): string {
  const { run, spots } = state.rooms.listen;
  const place = placeNow(state);
  if (!run) return '';
  const far = (m: number) => `${convert(m, 'm', run.length.unit).toFixed(1)} ${run.length.unit}`;
  if (!place) return `Nothing heard at ${spots.length} spots along ${run.name}: silence proves nothing`;
  return `${run.name}: most likely ${far(place.best)} along, nine in ten between ${far(place.from)} and ${far(place.to)}, from ${spots.length} spots`;
}
const WORDS: Readonly<Record<string, string>> = {
  located: 'a place',
  wide: 'a wide place',
  against: 'a place that something speaks against',
  silent: 'nothing heard',
};
export const listenCourse: Course = (visit) => ({ word: WORDS[visit.outcome ?? ''] ?? 'open', text: '' });
export const evidenceWords = (
  e: Evidence,
  said: { readonly says: keyof typeof SAYS; readonly text: string },
): string => `${EVIDENCE[e]}: ${SAYS[said.says]}${said.text ? `, ${said.text}` : ''}`;
