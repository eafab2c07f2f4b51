/**
 * The head of an organisation's chain of records at the end of a day, as one signed line that is given out of the house:
 * printed, mailed, published. Whoever kept a line sees by it when the records were written anew afterwards, also by those
 * who hold the key and the database.
 */
import { isSignedBy, publicKeyOf, type Seal, signText } from './seal';

export interface Anchor {
  /** ISO day, UTC, at whose end the record was the last of its series. */
  readonly day: string;
  readonly number: string;
  readonly hash: string;
  readonly key: string;
}
const FORMAT = 'vast-stone-anchor-1';
const LINE =
  /^vast-stone-anchor-1 (\d{4}-\d{2}-\d{2}) ([A-Z]{1,10}-\d{1,12}) ([0-9a-f]{64}) ([0-9a-f]{64}) ([0-9a-f]{128})$/;
const signed = (a: Anchor): string => `${FORMAT} ${a.day} ${a.number} ${a.hash} ${a.key}`;

/** @param secret Ed25519 private key, 32 bytes hex */
export function anchorLine(head: Omit<Anchor, 'key'>, secret: string): string {
  const text = signed({ ...head, key: publicKeyOf(secret) });
  return `${text} ${signText(text, secret)}`;
}
/** A line as it reads; null for anything else, or where its signature does not belong to it. Spaces and breaks of a print do not matter. */
export function readAnchor(line: string): Anchor | null {
  const found = LINE.exec(line.trim().replace(/\s+/g, ' '));
  if (!found) return null;
  const [, day, number, hash, key, signature] = found as unknown as [string, ...string[]];
  const anchor: Anchor = { day: day!, number: number!, hash: hash!, key: key! };
  return isSignedBy(signed(anchor), signature!, anchor.key) ? anchor : null;
}

const split = (number: string): { readonly series: string; readonly n: number } => {
  const at = number.lastIndexOf('-');
  return { series: number.slice(0, at), n: Number(number.slice(at + 1)) };
};
type Link = Pick<Seal, 'number' | 'previous' | 'hash'>;
export interface AnchorFinding {
  /** `agrees`: the record stands under the anchor; `differs`: it, or one between, is not what it was; `open`: not to be told. */
  readonly word: 'agrees' | 'differs' | 'open';
  readonly text: string;
}
/**
 * Holds a record against a line that was given out.
 * @param others seals of further records at hand: a chain from the anchored record down to this one proves it
 */
export function againstAnchor(anchor: Anchor, record: Link, others: readonly Link[] = []): AnchorFinding {
  const mine = split(record.number);
  const its = split(anchor.number);
  if (mine.series !== its.series)
    return {
      word: 'open',
      text: `The anchor is of another series (${anchor.number}); it says nothing of this record.`,
    };
  if (mine.n > its.n)
    return {
      word: 'open',
      text: `The record is younger than the anchor of ${anchor.day} (${anchor.number}); a later anchor would show it.`,
    };
  const byNumber = new Map([...others, record].map((l) => [split(l.number).n, l]));
  let wanted = anchor.hash;
  for (let n = its.n; n >= mine.n; n--) {
    const link = byNumber.get(n);
    if (!link)
      return {
        word: 'open',
        text: `Between the anchor of ${anchor.day} (${anchor.number}) and this record, ${its.series}-${String(n).padStart(5, '0')} is not here. Give its file too.`,
      };
    if (link.hash !== wanted)
      return {
        word: 'differs',
        text: `${link.number} is not the record that stood there on ${anchor.day}: it was written anew after the anchor was given out.`,
      };
    wanted = link.previous;
  }
  return {
    word: 'agrees',
    text: `It stood in the series on ${anchor.day}, as the anchor ${anchor.number} shows.`,
  };
}
