import type { Plan } from '@/core/plan/plan';
import { expectation } from '@/core/run/read';
import { type Folded, foldOn, inOrder, tryEvent } from '@/core/run/reduce';
import type { Payload, PlacedEvent, RunEvent } from '@/core/run/events';
import type { RunState } from '@/core/run/state';
import type { Batch, BatchAnswer } from '@/wire/requests';
import { uuid7 } from '@/wire/uuid7';
import type { Identity } from '@/wire/role';
import { deviceZone, now } from './clock';
import { sendErrands } from './errands';
import { pointNow } from './point';
import { office, OfficeError } from './office';
import { keepPhotoHere, sendPhoto, unsentPhotos } from './photo';
import {
  eventsOfRun,
  keepEvent,
  keepPlaced,
  markPlaced,
  markRefused,
  openStore,
  reopenStore,
  setAside,
  unsent,
  type SetAside,
  type Store,
} from './store';

export interface GaugeFrame {
  readonly gauge: string;
  readonly simulated: boolean;
  readonly at: number;
  readonly digits: number;
  readonly scale: number;
  readonly unit: string;
  /** A gauge with two displays: the flow beside; `digits` null: below its range. */
  readonly flow?: { readonly digits: number | null; readonly scale: number; readonly unit: string };
  /** What a probe on the pipe shows. */
  readonly temperature?: { readonly digits: number; readonly scale: number; readonly unit: string };
}
/** `store-away`: the device's own store does not answer, so that nothing can be kept here now; `not-begun`: the office will not have the run that was begun here. */
export type Contact =
  | 'with-office'
  | 'no-signal'
  | 'signed-out'
  | 'database-away'
  | 'store-away'
  | 'not-begun';
export interface BenchView {
  readonly plan: Plan;
  readonly state: RunState;
  readonly events: readonly PlacedEvent[];
  readonly sealed: { readonly number: string } | null;
  readonly here: number;
  readonly waiting: number;
  /** Entries the office will not have, each with its reason. */
  readonly refused: readonly SetAside[];
  /** Photos that are on this device only. */
  readonly photosWaiting: number;
  readonly contact: Contact;
  readonly live: GaugeFrame | null;
  /** Why what a paired gauge sends cannot be used; '' where it can. */
  readonly gaugeRefused: string;
}
export type AppendAnswer =
  | { readonly accepted: true; readonly id: string; readonly state: RunState }
  | { readonly accepted: false; readonly code: string; readonly text: string };

/** What follows from an entry by the same press, once it took effect; null: nothing more. @param n entries made so far */
export type Next = (state: RunState, n: number) => Payload | null;

const POLL_MS = 4000;

/**
 * The bench's engine: local first. Events are kept in the device's store before they count, sent in idempotent
 * batches, and joined with what other devices sent. Everything shown is derived by the core from the log.
 */
export class BenchEngine {
  private plan: Plan | null = null;
  private events: PlacedEvent[] = [];
  private folded: Folded | null = null;
  private sealed: { number: string } | null = null;
  /** Begun here: the office does not know of it yet. */
  private unborn = false;
  private refused: readonly SetAside[] = [];
  private photosWaiting = 0;
  private sendingPhotos = false;
  private contact: Contact = 'with-office';
  private live: GaugeFrame | null = null;
  private gaugeRefused = '';
  private view: BenchView | null = null;
  private listeners = new Set<() => void>();
  private syncing: Promise<void> | null = null;
  private again = false;
  private timer: ReturnType<typeof setInterval> | null = null;
  private source: EventSource | null = null;
  private channel: BroadcastChannel | null = null;

  private constructor(
    readonly run: string,
    readonly who: Identity,
    private store: Store,
  ) {}

  /** Opens a run: from this device when it is here, from the office otherwise. @throws OfficeError when it is in neither */
  static async open(run: string, who: Identity): Promise<BenchEngine> {
    const engine = new BenchEngine(run, who, await openStore(who));
    const stored = await engine.store.get('runs', run);
    if (stored) {
      engine.plan = stored.plan;
      engine.sealed = stored.sealed;
      engine.unborn = stored.unborn ?? false;
      engine.events = await eventsOfRun(engine.store, run);
      engine.refresh();
      void engine.sync();
    } else {
      await engine.fetchAll();
    }
    engine.begin();
    return engine;
  }

  /** Sends what a run still has here without opening it: nothing waits until somebody goes back to its bench. */
  static async send(run: string, who: Identity): Promise<void> {
    const engine = new BenchEngine(run, who, await openStore(who));
    const stored = await engine.store.get('runs', run);
    if (!stored) return;
    engine.plan = stored.plan;
    engine.unborn = stored.unborn ?? false;
    try {
      await engine.sync();
      await engine.sendPhotos();
    } finally {
      engine.close();
    }
  }

  subscribe = (hear: () => void): (() => void) => {
    this.listeners.add(hear);
    return () => this.listeners.delete(hear);
  };
  snapshot = (): BenchView | null => this.view;

  /**
   * Makes an event of what a person did. It is judged first: what would have no effect is refused with its reason and
   * not kept, except entries that must stay in the log whatever comes of them. Several entries of one press are shown as one.
   * @returns what came of the first
   */
  async append(payload: Payload, next?: Next): Promise<AppendAnswer> {
    const first = await this.make(payload);
    let made = first;
    for (let n = 1; next && made.accepted; n += 1) {
      const further = next(made.state, n);
      if (!further) break;
      made = await this.make(further);
    }
    this.refresh();
    this.channel?.postMessage('grew');
    void this.sync();
    return first;
  }
  private async make(payload: Payload): Promise<AppendAnswer> {
    const plan = this.plan!;
    const before = this.folded!.state;
    const expects = expectation(before);
    const { device: at, offset, mono, pageLoad, by: device } = pointNow();
    const make = (deviceSeq: number): RunEvent => ({
      ...payload,
      id: uuid7(at),
      run: this.run,
      device,
      deviceSeq,
      at,
      zone: deviceZone(),
      offset,
      mono,
      pageLoad,
      by: this.who.person,
      byName: this.who.name,
      expects,
    });
    const trial = make(Number.MAX_SAFE_INTEGER);
    const refusal = tryEvent(plan, before, trial);
    if (refusal && !KEPT_ANYWAY.has(refusal.code))
      return { accepted: false, code: refusal.code, text: refusal.text };
    let event: RunEvent;
    try {
      event = await keepEvent(this.store, make).catch(async () => {
        await this.reopen();
        return keepEvent(this.store, make);
      });
    } catch (error) {
      return {
        accepted: false,
        code: 'storage',
        text: `This device could not save the entry (${(error as Error).name}). Free some storage; what you typed is still on the keypad.`,
      };
    }
    this.events = inOrder([...this.events, event]);
    this.folded = foldOn(plan, this.folded, this.events);
    return refusal
      ? { accepted: false, code: refusal.code, text: refusal.text }
      : { accepted: true, id: event.id, state: this.folded.state };
  }

  /**
   * Sends what is unsent and takes in what others sent. Never runs twice at once: a call during a run has it go round
   * once more, and resolves when that is done.
   */
  sync(): Promise<void> {
    this.again = true;
    return (this.syncing ??= this.syncAll());
  }
  private async syncAll(): Promise<void> {
    try {
      while (this.again) {
        this.again = false;
        await this.syncOnce();
      }
    } catch {
      // the device's own store failed: said, and opened anew for the next round
      this.contact = 'store-away';
      this.refresh();
      await this.reopen().catch(() => undefined);
    } finally {
      this.syncing = null;
    }
    if (!this.unborn) void this.sendPhotos().catch(() => undefined);
  }
  private async reopen(): Promise<void> {
    this.store = await reopenStore(this.who);
  }
  /** Photos go after the entries and apart from them: a large one never holds a reading up. */
  private async sendPhotos(): Promise<void> {
    if (this.sendingPhotos) return;
    this.sendingPhotos = true;
    try {
      for (const photo of await unsentPhotos(this.store, this.run)) await sendPhoto(this.store, photo);
    } catch {
      // no signal: the next round goes on where this one stopped
    } finally {
      this.sendingPhotos = false;
      const left = (await unsentPhotos(this.store, this.run)).length;
      if (left !== this.photosWaiting) {
        this.photosWaiting = left;
        this.refresh();
      }
    }
  }
  /** Keeps a photo on this device and sends it when there is a signal. @returns its hash @throws Error saying what to do */
  async keepPhoto(file: Blob): Promise<string> {
    const hash = await keepPhotoHere(this.store, this.run, file);
    this.photosWaiting = (await unsentPhotos(this.store, this.run)).length;
    this.refresh();
    void this.sync();
    return hash;
  }
  /** Where a photo of this run can be shown from: this device while it waits, the office afterwards. */
  async photoAddress(hash: string): Promise<string> {
    const here = await this.store.get('photos', hash);
    return here && !here.sent
      ? URL.createObjectURL(new Blob([here.bytes], { type: 'image/jpeg' }))
      : `/api/runs/${this.run}/photos/${hash}?small=1`;
  }
  /** Has the office begin what was begun here; its plan is the one that holds. @throws OfficeError while it does not */
  private async bear(): Promise<void> {
    const trouble = await sendErrands(this.store);
    const stored = await this.store.get('runs', this.run);
    if (stored?.unborn)
      throw trouble ?? new OfficeError(422, 'not-begun', 'The office does not have this run.');
    this.unborn = false;
    if (stored) this.plan = stored.plan;
    this.folded = null;
    this.listen();
  }
  private async syncOnce(): Promise<void> {
    try {
      if (this.unborn) await this.bear();
      let queue = await unsent(this.store, this.run);
      let most = 200;
      while (queue.length) {
        const batch: Batch = { events: queue.slice(0, most).map(withoutPlace) };
        try {
          const answer = await office<BatchAnswer>(`/api/runs/${this.run}/events`, { body: batch });
          await markPlaced(this.store, answer.placed);
          // an answer that names none of them would be asked for without end
          if (!answer.placed.length)
            throw new OfficeError(502, 'not-placed', 'The office’s answer does not say what it has.');
        } catch (error) {
          if (!(error instanceof OfficeError)) throw error;
          const e = error;
          // a refusal that will not change: keep the entry here, show the reason, go on with the others
          if (!(e.status === 409 || e.status === 422 || (e.status === 403 && e.code !== 'other-site')))
            throw e;
          const bad = accused(batch.events, e.path);
          if (bad) await markRefused(this.store, [bad.id], e.message);
          else if (e.code === 'sealed' || e.code === 'role')
            await markRefused(
              this.store,
              batch.events.map((x) => x.id),
              e.message,
            );
          // not said which: each by itself, so that one bad entry never takes the good ones along
          else if (most > 1) most = 1;
          else await markRefused(this.store, [batch.events[0]!.id], e.message);
        }
        queue = await unsent(this.store, this.run);
      }
      const after = gapBefore(await eventsOfRun(this.store, this.run));
      const news = await office<{ events: PlacedEvent[]; sealed: { number: string } | null }>(
        `/api/runs/${this.run}/events?after=${after}`,
      );
      await keepPlaced(this.store, this.run, news.events);
      if (news.sealed && !this.sealed) {
        this.sealed = news.sealed;
        const stored = await this.store.get('runs', this.run);
        if (stored) await this.store.put('runs', { ...stored, sealed: news.sealed });
      }
      this.contact = 'with-office';
    } catch (error) {
      if (!(error instanceof OfficeError)) throw error;
      const e = error;
      this.contact =
        e.status === 401
          ? 'signed-out'
          : e.status === 503
            ? 'database-away'
            : this.unborn && e.status === 422
              ? 'not-begun'
              : 'no-signal';
    }
    this.events = await eventsOfRun(this.store, this.run);
    this.refused = await setAside(this.store, this.run);
    this.refresh();
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.source?.close();
    this.channel?.close();
    this.listeners.clear();
  }

  private async fetchAll(): Promise<void> {
    const found = await office<{ plan: Plan; events: PlacedEvent[]; sealed: { number: string } | null }>(
      `/api/runs/${this.run}`,
    );
    this.plan = found.plan;
    this.sealed = found.sealed;
    await this.store.put('runs', { run: this.run, plan: found.plan, sealed: found.sealed, opened: now() });
    await keepPlaced(this.store, this.run, found.events);
    this.events = await eventsOfRun(this.store, this.run);
    this.refresh();
  }

  private begin(): void {
    this.timer = setInterval(() => void this.sync(), POLL_MS);
    if (typeof BroadcastChannel !== 'undefined') {
      this.channel = new BroadcastChannel(`vast-stone.${this.run}`);
      this.channel.onmessage = () =>
        void eventsOfRun(this.store, this.run).then(
          (events) => {
            this.events = events;
            this.refresh();
          },
          () => void this.sync(),
        );
    }
    if (!this.unborn) this.listen();
    globalThis.addEventListener?.('online', () => void this.sync());
  }
  /** Hears what others send; the office knows the run. */
  private listen(): void {
    if (typeof EventSource !== 'undefined') {
      this.source = new EventSource(`/api/runs/${this.run}/stream`);
      this.source.addEventListener('gauge', (e) => {
        this.live = JSON.parse((e as MessageEvent<string>).data) as GaugeFrame;
        this.gaugeRefused = '';
        this.refresh();
      });
      this.source.addEventListener('refused', (e) => {
        this.gaugeRefused = (JSON.parse((e as MessageEvent<string>).data) as { text: string }).text;
        this.refresh();
      });
      this.source.addEventListener('log', () => void this.sync());
    }
  }

  private refresh(): void {
    if (!this.plan) return;
    this.events = inOrder(this.events);
    this.folded = foldOn(this.plan, this.folded, this.events);
    const waiting = this.events.filter((e) => e.position === undefined).length;
    this.view = {
      plan: this.plan,
      state: this.folded.state,
      events: this.events,
      sealed: this.sealed,
      here: this.events.length,
      waiting,
      refused: this.refused,
      photosWaiting: this.photosWaiting,
      contact: this.contact,
      live: this.live,
      gaugeRefused: this.gaugeRefused,
    };
    for (const hear of this.listeners) hear();
  }
}

/**
 * Entries that are kept in the log even when they do not take the run on: a pressure outside the band was still read, and what
 * has not stood still yet, or a dial before its tap, is what the next reading is compared with.
 */
const KEPT_ANYWAY = new Set([
  'over-band',
  'under-band',
  'out-of-band',
  'not-steady',
  'not-steady-yet',
  'tap',
]);
const withoutPlace = ({ position: _p, received: _r, ...event }: PlacedEvent): RunEvent => event;
/** The entry a refusal names: by its id, or by its place in the batch ("events[3].figure"). */
function accused(batch: readonly RunEvent[], path: string | undefined): RunEvent | undefined {
  const place = /^events\[(\d+)\]/.exec(path ?? '')?.[1];
  return batch.find((e) => e.id === path) ?? (place === undefined ? undefined : batch[Number(place)]);
}
/** The last position before the first gap: everything after it is asked for again. */
function gapBefore(events: readonly PlacedEvent[]): number {
  const places = events.flatMap((e) => (e.position === undefined ? [] : [e.position])).sort((a, b) => a - b);
  let last = 0;
  for (const p of places) {
    if (p !== last + 1) break;
    last = p;
  }
  return last;
}
