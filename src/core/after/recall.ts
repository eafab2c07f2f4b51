/** Finding every place with a make, model or range of serials: what a maker's recall names. */
export interface Plate {
  readonly name: string;
  readonly make: string;
  readonly model: string;
  readonly serial: string;
}
export interface Recall {
  readonly make: string;
  readonly model: string;
  /** First and last serial, both included; one alone means that serial; '' means any. */
  readonly from: string;
  readonly to: string;
}
const bare = (text: string): string => text.toLowerCase().replace(/[\s\-_./]/g, '');
type Piece = { readonly text: string } | { readonly number: bigint };
/** A serial as runs of letters and of figures: "SH-0880A" is sh, 880, a. */
const pieces = (serial: string): Piece[] =>
  (bare(serial).match(/\d+|\D+/g) ?? []).map((p) => (/^\d/.test(p) ? { number: BigInt(p) } : { text: p }));

/** Orders serials as a maker counts them; null where they are not of one kind (letters against figures). */
export function compareSerials(a: string, b: string): -1 | 0 | 1 | null {
  const [x, y] = [pieces(a), pieces(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const [p, q] = [x[i], y[i]];
    if (!p || !q) return p ? 1 : -1;
    if ('number' in p !== 'number' in q) return null;
    if ('number' in p && 'number' in q) {
      if (p.number !== q.number) return p.number < q.number ? -1 : 1;
    } else if ('text' in p && 'text' in q && p.text !== q.text) return p.text < q.text ? -1 : 1;
  }
  return 0;
}
/**
 * Whether a serial lies in a range, ends included. Ends of a range are counted as makers do: the letters before the
 * figures must be the same, so that SH-900 is not between AB-1 and ZZ-9.
 */
export function inSerialRange(serial: string, from: string, to: string): boolean {
  if (!from && !to) return true;
  if (!bare(serial)) return false;
  const low = from || to;
  const high = to || from;
  const head = (s: string) => /^\D*/.exec(bare(s))![0];
  if (head(serial) !== head(low) || head(serial) !== head(high)) return false;
  const a = compareSerials(serial, low);
  const b = compareSerials(serial, high);
  return a !== null && b !== null && a >= 0 && b <= 0;
}
/** Whether a plate is meant by a recall. Make and model match by their beginning, without regard to case and marks. */
export const isRecalled = (plate: Plate, recall: Recall): boolean =>
  Boolean(recall.make.trim() || recall.model.trim() || recall.from.trim() || recall.to.trim()) &&
  bare(plate.make).startsWith(bare(recall.make)) &&
  bare(plate.model).startsWith(bare(recall.model)) &&
  inSerialRange(plate.serial, recall.from.trim(), recall.to.trim());
