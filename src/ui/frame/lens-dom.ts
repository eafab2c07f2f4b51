/**
 * The words of a page told as its reader is used to them. What the product wrote stays what it is: in the record, in what is sent, in
 * what React knows of the page; only what stands in the page's text is told anew, wherever it comes from, a sealed sentence too.
 */
import type { Unit } from '@/core/quantity/unit';
import { told, type Telling } from '@/core/quantity/usage';

/** What is read as it was written: drawings and their axes, what is typed into, and whatever says so of itself. */
const AS_WRITTEN = 'script,style,svg,textarea,select,[contenteditable],[translate="no"]';
/** Units that stay in a part of the page: those its gauges judge in, or every one. */
const JUDGED = '[data-judged-in]';
const EVERY = '*';

interface Seen {
  /** What the product wrote there. */
  readonly written: string;
  /** What was made of it. */
  readonly shown: string;
}
export class Lens {
  private readonly seen = new WeakMap<Text, Seen>();
  private readonly observer = new MutationObserver((records) => this.heard(records));
  private telling: Telling | null = null;
  constructor(private readonly root: HTMLElement) {}

  /** Tells the page so, and what comes onto it; null tells it as it was written. */
  tell(telling: Telling | null): void {
    this.observer.disconnect();
    this.telling = telling;
    this.whole(this.root);
    if (telling)
      this.observer.observe(this.root, {
        childList: true,
        characterData: true,
        subtree: true,
        attributes: true,
        attributeFilter: ['data-judged-in'],
      });
  }
  private heard(records: readonly MutationRecord[]): void {
    const parts = new Set<Element>();
    const lines = new Set<Element>();
    for (const r of records) {
      if (r.type === 'characterData') {
        if (r.target.parentElement) lines.add(r.target.parentElement);
        continue;
      }
      if (r.type === 'attributes') parts.add(r.target as Element);
      else {
        if (r.target instanceof Element) lines.add(r.target);
        for (const node of r.addedNodes) if (node instanceof Element) parts.add(node);
      }
    }
    for (const line of lines) if (line.isConnected) this.line(line);
    for (const part of parts) if (part.isConnected) this.whole(part);
    this.observer.takeRecords(); // what was told just now is no news
  }
  private whole(part: Element): void {
    this.line(part);
    for (const element of part.querySelectorAll('*')) this.line(element);
  }
  /** Texts beside each other are one line of words: a figure and its unit are often two of them. */
  private line(element: Element): void {
    let run: Text[] = [];
    for (const node of element.childNodes) {
      if (node.nodeType === Node.TEXT_NODE) run.push(node as Text);
      else if (node.nodeType !== Node.COMMENT_NODE) {
        this.words(element, run);
        run = [];
      }
    }
    this.words(element, run);
  }
  private words(element: Element, run: readonly Text[]): void {
    if (!run.length) return;
    const written = run.map((t) => {
      const seen = this.seen.get(t);
      return seen?.shown === t.data ? seen.written : t.data;
    });
    const whole = written.join('');
    const now = /\d/.test(whole) ? this.toldOf(element, whole) : whole;
    run.forEach((t, i) => {
      // what is told anew stands in the first, so that the others may go on being what they are
      const shown = now === whole ? written[i]! : i === 0 ? now : '';
      if (shown === written[i]) this.seen.delete(t);
      else this.seen.set(t, { written: written[i]!, shown });
      if (t.data !== shown) t.data = shown;
    });
  }
  private toldOf(element: Element, words: string): string {
    if (!this.telling || element.closest(AS_WRITTEN)) return words;
    const judged = element.closest<HTMLElement>(JUDGED)?.dataset.judgedIn;
    return told(words, {
      ...this.telling,
      keep: judged === EVERY ? 'all' : ((judged?.split(' ') ?? []) as Unit[]),
    });
  }
}
