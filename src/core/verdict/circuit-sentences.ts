/** What holds of a refrigerant circuit came to, in the sentences of a record. */
import type { VacuumCause } from '@/core/medium/vacuum';
import { duration } from '@/core/quantity/duration';
import { breachWords, showChange, showExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { wouldDecide } from '@/core/roles/tightness/corrected';
import type { Hold } from '@/core/run/state';

const SHAPES: Readonly<Record<VacuumCause, string>> = {
  level: 'it did not move',
  falls: 'it fell, which a closed circuit cannot do by itself',
  leak: 'it rose evenly, as air through a leak does',
  moisture: 'it rose and flattened, as moisture and what walls and oil give off do',
  both: 'its shape is of both a leak and moisture, and cannot be told',
  few: 'too few readings to see a shape',
};
const perMinute = (pa: number): string => `${pa < 10 ? pa.toPrecision(2) : pa.toFixed(0)} Pa a minute`;

/** A standing vacuum with its shape. */
function vacuumSentence(hold: Hold): string | null {
  const { judgement: j, end } = hold;
  if (!j?.vacuum || !end) return null;
  const { cause, leak, moisture, towards, readings } = j.vacuum;
  const parts = [
    leak > 0.05 ? `even part ${perMinute(leak)}` : '',
    moisture > 0.05 && towards !== null
      ? `part that dies away ${perMinute(moisture)} at first, towards ${towards.toFixed(0)} Pa`
      : '',
  ].filter(Boolean);
  return `The pump shut, it stood at ${showExact(hold.start.figure)} and at ${showExact(end.figure)} after ${duration(j.elapsedMs)}: ${SHAPES[cause]}${parts.length && cause !== 'level' ? ` (${parts.join('; ')})` : ''}, by ${readings} readings; ${j.limit ? `${showExact(j.limit.value)} is the bound` : ''}.`;
}
/** A hold over hours, with what is left without warmth and how well that is known. */
function correctedSentence(hold: Hold): string | null {
  const { judgement: j, end } = hold;
  if (!j?.blurred || j.corrected === undefined || !end) return null;
  const unit = unitLabel(j.change.unit);
  const figure = (n: number, more = 1) => n.toFixed(j.change.scale + more).replace('-', '−');
  const { start: t0, end: t1 } = hold.temperature;
  const warmth =
    t0 && t1
      ? `${showExact(t0)} to ${showExact(t1)}`
      : 'temperature not logged, so nothing could be taken out';
  return `${showExact(hold.start.figure)} to ${showExact(end.figure)} (${showChange(j.change)}) in ${duration(j.elapsedMs)}; ${warmth}; without what warmth and barometer do ${figure(j.corrected)} ${unit}, known to ± ${figure(2 * j.blurred.u)} ${unit}; ${breachWords(j.perceptible)} counts.`;
}
/** How such a hold came out; null for every other. */
export function circuitSentence(hold: Hold): string | null {
  const { judgement: j, end } = hold;
  if (!j || !end) return null;
  if (hold.role === 'strength' && j.outcome === 'withstood')
    return `Withstood: ${showExact(hold.start.figure)} to ${showExact(end.figure)} in ${duration(j.elapsedMs)}; a fall of ${showExact(j.perceptible.value)} would have counted.`;
  return vacuumSentence(hold) ?? correctedSentence(hold);
}
/** What would make an unclear hold decide; '' where nothing of the kind is known. */
export function decideSentence(hold: Hold): string {
  const ways = hold.judgement?.outcome === 'unclear' ? wouldDecide(hold.judgement) : [];
  return ways.length ? `What would make it decide: ${ways.join('; or ')}.` : '';
}
