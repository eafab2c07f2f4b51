/** Which entry a photo is evidence of, and what that entry said. */
import { showExact } from '@/core/quantity/exact';
import type { Photo, Reading, RunState } from './state';

/** Every accepted reading of a run, in the order of its stages, with its stage. */
export const readingsOf = (
  state: RunState,
): readonly { readonly reading: Reading; readonly visit: number; readonly what: string }[] =>
  state.visits.flatMap((v) => {
    const at = (what: string, reading: Reading | undefined) =>
      reading ? [{ reading, visit: v.ordinal, what: `${v.title}, ${what}` }] : [];
    const holds = [...v.holds, ...v.cycles.flatMap((c) => [c.settle, c.hold].flatMap((h) => (h ? [h] : [])))];
    return [
      ...v.fills.flatMap((r) => at('raised', r)),
      ...v.cycles.flatMap((c) => at('raised', c.fill)),
      ...v.pumped.flatMap((p) => [...at('step', p.reached), ...at('after the pause', p.look?.reading)]),
      ...holds.flatMap((h) => [...at('start', h.start), ...at('end', h.end)]),
      ...v.readings.flatMap((r) => at('reading', r)),
    ];
  });
/** The newest reading: what a photo taken now stands beside. */
export const lastReadingId = (state: RunState): string | null =>
  readingsOf(state).reduce<Reading | null>(
    (last, { reading }) => (!last || reading.at >= last.at ? reading : last),
    null,
  )?.id ?? null;
/** What was entered beside a photo, in words; '' where it stands for itself. */
export function besidePhoto(state: RunState, photo: Pick<Photo, 'beside'>): string {
  const found = photo.beside && readingsOf(state).find((r) => r.reading.id === photo.beside);
  if (!found) return '';
  const { figure, corrected } = found.reading;
  return `${found.what}: ${showExact(figure)} entered${corrected ? `, corrected to ${showExact(corrected.figure)}` : ''}`;
}

/** Hashes of every photo that stands in a run: taken beside values, and of things that were present. */
export const photosOf = (state: RunState): string[] => [
  ...new Set([...state.photos.map((p) => p.hash), ...state.inventory.flatMap((i) => i.photos ?? [])]),
];
