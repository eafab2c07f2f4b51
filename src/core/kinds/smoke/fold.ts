/** Found with smoke, sealed, measured again: by place, by whom, and what it gained. */
import { showExact } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';
import { PLACES, PRESENT, SIZES } from './entries';
import type { Search, SmokeFinding } from './state';

/** By which a device may be early. */
const EARLY_MS = 5000;
export const searchOf = (state: RunState, visit: number): Search | undefined =>
  state.rooms.smoke.searches.find((s) => s.visit === visit);
/** Minutes a machine of this plan warms up; null where it passes no smoke. */
export function warmMinutes(plan: Plan): number | null {
  const stage = Object.values(plan.procedure.stages).find((s) => s.kind === 'smoke');
  return stage?.kind === 'smoke' ? stage.minutes : null;
}
/** When the machine can be used, ms; null: it is not on. */
export const warmAt = (state: RunState, minutes: number): number | null =>
  state.rooms.smoke.onAt === null ? null : state.rooms.smoke.onAt + minutes * 60_000;

export const smokeFold: Fold<'smoke-on' | 'smoke-without' | 'smoke-found' | 'smoke-sealed' | 'smoke-over'> = {
  'smoke-on': {
    // it warms up while the ducts are still measured
    anytime: (_, { plan, state, at }) => {
      if (warmMinutes(plan) === null || state.phase !== 'running')
        return no('wrong-step', 'No smoke is used in this test.');
      if (state.rooms.smoke.onAt !== null) return no('overtaken', 'It is on already.');
      state.rooms.smoke.onAt = at;
      return null;
    },
    words: () => 'smoke machine switched on',
  },
  'smoke-without': {
    apply: (event, on) => {
      const search = here(on);
      if ('code' in search) return search;
      search.without = event.means;
      return null;
    },
    words: (event) => `no smoke machine; looked for with: ${event.means}`,
    said: () => true,
  },
  'smoke-found': {
    apply: (event, on) => found(on, event),
    words: (event) => findingWords({ ...event, place: event.spot }),
  },
  'smoke-sealed': {
    misfit: (event) =>
      event.flow && UNITS[event.flow.unit].dimension !== 'flow'
        ? no('unit', 'What the fan shows now is a flow, like 48 CFM.')
        : null,
    apply: (event, on) => sealed(on, event),
    words: (event) =>
      `sealed by ${event.sealedBy} with ${event.means}${event.flow ? `; the fan then showed ${showExact(event.flow)}` : ''}`,
  },
  'smoke-over': {
    transition: true,
    sign: () => true,
    apply: (event, on) => over(on, event),
    words: (event) =>
      `${event.next === 'again' ? 'measured again now' : 'left for another day'}; ${PRESENT[event.installer]}${event.fee ? `; retest fee ${event.fee}` : ''}`,
  },
};
function here({ state, stage, visit }: OnStage): Search | Refusal {
  if (stage.kind !== 'smoke') return no('wrong-step', 'Nothing is looked for with smoke in this step.');
  const open = searchOf(state, visit.ordinal);
  if (open) return open;
  const made: Search = { visit: visit.ordinal, findings: [] };
  state.rooms.smoke.searches.push(made);
  return made;
}
function found(on: OnStage, event: EventOf<'smoke-found'>): Refusal | null {
  const search = here(on);
  if ('code' in search) return search;
  const { state, stage, at } = on;
  if (!search.without) {
    const warm = stage.kind === 'smoke' ? warmAt(state, stage.minutes) : null;
    if (warm === null) return no('cold', 'Switch the smoke machine on first, or say with what you look.');
    if (warm - at > EARLY_MS)
      return no('cold', `The machine warms up ${Math.ceil((warm - at) / 60_000)} min more.`);
    search.onAt ??= state.rooms.smoke.onAt!;
  }
  if (state.rooms.smoke.searches.some((s) => s.findings.some((f) => f.id === event.finding)))
    return no('overtaken', 'This finding is entered already.');
  const { finding, spot, where, size, byName } = event;
  search.findings.push({ id: finding, place: spot, where, ...(size ? { size } : {}), at, byName });
  return null;
}
function sealed(on: OnStage, event: EventOf<'smoke-sealed'>): Refusal | null {
  const search = here(on);
  if ('code' in search) return search;
  // what was found in a search before may be sealed in this one
  const finding = on.state.rooms.smoke.searches
    .flatMap((s) => s.findings)
    .find((f) => f.id === event.finding);
  if (!finding) return no('unknown', 'There is no such finding.');
  if (finding.sealed) return no('overtaken', 'It is sealed already.');
  const { sealedBy, means, flow } = event;
  finding.sealed = { by: sealedBy, means, at: on.at, ...(flow ? { flow } : {}) };
  return null;
}
function over(on: OnStage, event: EventOf<'smoke-over'>): Refusal | null {
  const search = here(on);
  if ('code' in search) return search;
  const { plan, state, at } = on;
  const since = lastMeasured(state);
  const all = state.rooms.smoke.searches.flatMap((s) => s.findings);
  if (event.next === 'again' && !all.some((f) => f.sealed && f.sealed.at >= since))
    return no(
      'nothing',
      'Nothing was sealed since it was measured: it would be the same again. Seal something, or leave it for another day.',
    );
  search.over = { at, next: event.next, installer: event.installer, fee: event.fee.trim() };
  follow(plan, state, event.next, at);
  return null;
}
const lastMeasured = (state: RunState): number =>
  Math.max(
    0,
    ...state.rooms.fan.visits.flatMap((v) => (v.of === 'system' && v.result ? [v.result.judgedAt] : [])),
  );

export const findingWords = (f: Pick<SmokeFinding, 'place' | 'where' | 'size' | 'sealed'>): string =>
  `${PLACES[f.place]}, ${f.where}${f.size ? `: ${SIZES[f.size]}` : ''}${f.sealed ? `; sealed by ${f.sealed.by} with ${f.sealed.means}${f.sealed.flow ? `, the fan then showed ${showExact(f.sealed.flow)}` : ''}` : ''}`;
export const smokeCourse: Course = (visit) => ({
  word: visit.outcome === 'again' ? 'sealed' : visit.outcome === 'later' ? 'left for another day' : 'open',
  text: '',
});
