/** What a worker is asked, and what it says: see `serve` of the workers. */
export interface Asked<Q> {
  readonly id: number;
  readonly question: Q;
}
export interface Answered<A> {
  readonly id: number;
  readonly answer: A;
}
export const READY = 'ready';

/**
 * Puts questions to one worker; only the newest is answered. Where no worker starts, or it fails, the page works the
 * answer out itself, so that a question never stays open.
 */
export class AskWorker<Q, A> {
  private worker: Worker | null = null;
  private ready = false;
  private failed = false;
  private asked = 0;
  private open: { readonly id: number; readonly question: Q; readonly take: (answer: A) => void } | null =
    null;

  constructor(
    private readonly start: () => Worker,
    private readonly here: (question: Q) => A | Promise<A>,
  ) {}

  ask(question: Q, take: (answer: A) => void): void {
    this.open = { id: ++this.asked, question, take };
    if (this.failed) void this.itself();
    else if (this.worker) this.send();
    else this.begin();
  }
  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.ready = false;
    this.open = null;
  }

  private begin(): void {
    const fail = () => {
      this.worker?.terminate();
      this.failed = true;
      void this.itself();
    };
    try {
      this.worker = this.start();
    } catch {
      fail();
      return;
    }
    this.worker.onerror = fail;
    this.worker.onmessage = (e: MessageEvent<Answered<A> | typeof READY>) => {
      if (e.data !== READY) {
        this.answer(e.data.id, e.data.answer);
        return;
      }
      // what is sent before it stands may be lost
      this.ready = true;
      this.send();
    };
  }
  private send(): void {
    if (this.ready && this.open)
      this.worker!.postMessage({
        id: this.open.id,
        question: this.open.question,
      } satisfies Asked<Q>);
  }
  private async itself(): Promise<void> {
    if (!this.open) return;
    const { id, question } = this.open;
    this.answer(id, await this.here(question));
  }
  private answer(id: number, answer: A): void {
    if (this.open?.id !== id) return; // overtaken by a newer question
    const { take } = this.open;
    this.open = null;
    take(answer);
  }
}
