/**
 * Stand-in for a gauge on a pipe: a small process of its own that speaks the public ingest protocol
 * (docs/gauge-protocol.md) like a real gauge would. Always marked simulated. Its state is a pure function of the
 * installation, the actions and the time; both are kept as lines in a file, so it resumes after a kill.
 */
import { appendFileSync, existsSync, mkdirSync, readFileSync, readdirSync, renameSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { type Action, type AnyWorld, type Simulation, worldOf } from '@/core/simulation/simulation';
import { bring } from '@/core/simulation/world';
import { uuid7 } from '@/wire/uuid7';

interface Setup {
  readonly id: string;
  readonly code: string;
  readonly office: string;
  readonly installation: Simulation;
  readonly scale: number;
  readonly unit: string;
}
const folder = process.env.VAST_GAUGE_FOLDER ?? path.resolve('.run/gauge');
const port = Number(process.env.VAST_GAUGE_PORT ?? 3100);
const TICK_MS = 500;
const BATCH_TICKS = 10;
/** Points of a time that was passed at once. */
const PASSED_POINTS = 500;
mkdirSync(folder, { recursive: true });

/** What is sent to a world: something done, or time that was passed at once. */
type Sent =
  | Action
  | { readonly act: 'passed'; readonly at: number; readonly ms: number }
  | { readonly act: 'paused'; readonly at: number; readonly paused: boolean };
class Pipe {
  readonly actions: Action[] = [];
  private token: string | null = null;
  private offset = 0;
  private points: [number, number][] = [];
  /** What the second display showed at each point, where there is one. */
  private flows: (number | null)[] = [];
  private pending: {
    id: string;
    sequence: number;
    points: [number, number][];
    flows?: (number | null)[];
  } | null = null;
  private sequence = Math.floor(Date.now() / 1000);
  private ticks = 0;
  private busy = false;
  ended = false;
  /** The world as far as it was brought, and how many actions it has seen. */
  private readonly world: AnyWorld;
  private seen = 0;
  constructor(readonly setup: Setup) {
    this.world = worldOf(setup.installation);
  }

  /** The office's clock, as estimated from its answers. */
  now = () => this.stands ?? Date.now() + this.offset + this.ahead;
  /** Where its clock stands, because the one who trains has stopped it. */
  private stands: number | null = null;
  /** Time that was passed at once so far, ms. */
  private get ahead(): number {
    return this.passes.reduce((sum, p) => sum + p.ms, 0);
  }
  readonly passes: { at: number; ms: number }[] = [];
  /** Passes time at once, or, below nothing, stays behind: what the display showed meanwhile is sent like any other points. */
  pass(by: { at: number; ms: number }): void {
    this.passes.push(by);
    const every = Math.max(TICK_MS, Math.ceil(by.ms / PASSED_POINTS));
    for (let at = by.at + every; at < by.at + by.ms; at += every) this.point(at);
  }
  private point(at: number): AnyWorld {
    const world = this.at(at);
    const flow = world.flow();
    this.points.push([at, world.display()]);
    if (flow !== undefined) this.flows.push(flow);
    return world;
  }
  /** The world as it is at a moment. */
  private at(moment: number): AnyWorld {
    this.seen = bring(this.world, this.actions, moment, this.seen);
    return this.world;
  }
  see = () => this.at(this.now()).view();

  async tick(): Promise<void> {
    if (this.ended || this.stands !== null) return;
    const at = this.now();
    const world = this.point(at);
    const [digits, flow, probe] = [world.display(), world.flow(), world.probe()];
    this.ticks += 1;
    if (this.busy || this.ticks % 2) return;
    this.busy = true;
    try {
      if (!this.token) {
        const paired = await this.post<{ token: string; now: number }>('/api/gauge/pair', {
          code: this.setup.code,
        });
        this.token = paired.token;
      }
      if (!this.pending && this.points.length >= BATCH_TICKS) {
        this.pending = {
          id: uuid7(at),
          sequence: ++this.sequence,
          points: this.points.slice(0, 600),
          ...(flow === undefined ? {} : { flows: this.flows.slice(0, 600) }),
        };
        this.points = this.points.slice(600);
        this.flows = this.flows.slice(600);
      }
      const live = [[at, digits]];
      const answer = await this.post<{ now: number; goOn: boolean }>('/api/gauge/readings', {
        live,
        scale: this.setup.scale,
        unit: this.setup.unit,
        ...(flow === undefined ? {} : { flow: { unit: 'CFM', scale: 1, live: [flow] } }),
        ...(probe === undefined ? {} : { temperature: { unit: 'C', scale: 1, digits: probe } }),
        ...(this.pending ? { batch: this.pending } : {}),
      });
      this.pending = null;
      if (!answer.goOn) this.end();
    } catch {
      // the office is away: keep the last minutes and try again
      this.points = this.points.slice(-1200);
      this.flows = this.flows.slice(-1200);
    } finally {
      this.busy = false;
    }
  }
  take(sent: Sent): void {
    if (sent.act === 'passed') this.passes.push(sent);
    else if (sent.act === 'paused') this.stands = sent.paused ? sent.at : null;
    else this.actions.push(sent);
  }
  end(): void {
    this.ended = true;
    const file = fileOf(this.setup.id);
    if (existsSync(file)) renameSync(file, `${file}.ended`);
  }
  private async post<T>(url: string, body: unknown): Promise<T> {
    const sent = Date.now();
    const response = await fetch(this.setup.office + url, {
      method: 'POST',
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(4000),
      headers: {
        'content-type': 'application/json',
        ...(this.token ? { authorization: `Bearer ${this.token}` } : {}),
      },
    });
    if (response.status === 401 && this.token) this.token = null;
    if (response.status === 409) this.end();
    if (!response.ok) throw new Error(String(response.status));
    const value = (await response.json()) as T & { now: number };
    const measured = value.now - (sent + Date.now()) / 2;
    if (Math.abs(measured - this.offset) > 250) this.offset = Math.round(measured);
    return value;
  }
}

const pipes = new Map<string, Pipe>();
const fileOf = (id: string) => path.join(folder, `${id}.lines`);
const keep = (id: string, value: unknown) => appendFileSync(fileOf(id), JSON.stringify(value) + '\n');
for (const name of readdirSync(folder).filter((n) => n.endsWith('.lines'))) {
  try {
    const [first, ...rest] = readFileSync(path.join(folder, name), 'utf8').trim().split('\n');
    const setup = JSON.parse(first!) as Setup;
    // one from before installations said what they hide cannot be brought on
    if (!('truth' in setup.installation)) throw new Error(setup.id);
    const pipe = new Pipe(setup);
    for (const line of rest) pipe.take(JSON.parse(line) as Sent);
    pipes.set(pipe.setup.id, pipe);
  } catch {
    console.error(`The simulated installation in ${name} could not be read; it is left aside.`);
  }
}

createServer((request, response) => {
  const send = (status: number, value: unknown) => {
    response.writeHead(status, { 'content-type': 'application/json' });
    response.end(JSON.stringify(value));
  };
  let text = '';
  request.on('data', (d: Buffer) => (text += d.toString('utf8')));
  request.on('end', () => {
    try {
      const [, kind, id, what] = (request.url ?? '').split('/');
      if (kind === 'alive') return send(200, { alive: true, pipes: pipes.size });
      if (kind !== 'installations') return send(404, {});
      if (request.method === 'POST' && !id) {
        const { past = [], ...setup } = JSON.parse(text) as Setup & { past?: readonly Sent[] };
        if (!pipes.has(setup.id)) {
          keep(setup.id, setup);
          const pipe = new Pipe(setup);
          for (const sent of past) {
            keep(setup.id, sent);
            pipe.take(sent);
          }
          pipes.set(setup.id, pipe);
        }
        return send(200, {});
      }
      const pipe = id ? pipes.get(id) : undefined;
      if (!pipe) return send(404, {});
      if (request.method === 'POST' && what === 'actions') {
        const sent = JSON.parse(text) as Partial<Sent>;
        // what is kept elsewhere brings its own moment along
        const action = { ...sent, at: sent.at ?? pipe.now() } as Sent;
        keep(pipe.setup.id, action);
        if (action.act === 'passed') pipe.pass(action);
        else pipe.take(action);
      }
      return send(200, pipe.see());
    } catch {
      return send(400, {});
    }
  });
}).listen(port, '127.0.0.1', () => console.log(`Simulated gauge on 127.0.0.1:${port}`));
setInterval(() => {
  for (const pipe of pipes.values()) void pipe.tick();
}, TICK_MS);
