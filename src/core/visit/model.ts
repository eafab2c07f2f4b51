/** The state of a visit while it is laid: which tasks stand where, who is free when, what is taken. */
import { VisitError, type Progress, type Slot, type VisitTask } from './types';

/** A task by numbers, ready for the search. */
export interface Job {
  readonly task: VisitTask;
  readonly after: readonly number[];
  readonly during: number;
  /** jobs done during this one */ readonly inside: readonly number[];
  readonly waits: boolean;
  /** shortest time from its start to the end of everything that must follow */ tail: number;
  /** the same from its close */ tailClose: number;
}
export interface Move {
  readonly job: number;
  readonly close: boolean;
}
export const MIN = 1e-9;

/** Checks the tasks and numbers them. @throws VisitError on an unknown name, a circle, or an impossible time */
export function jobsOf(tasks: readonly VisitTask[]): Job[] {
  const index = new Map(tasks.map((t, i) => [t.id, i]));
  if (index.size !== tasks.length) throw new VisitError('', 'Two tasks have the same name: rename one.');
  const at = (id: string, of: VisitTask) => {
    const i = index.get(id);
    if (i === undefined)
      throw new VisitError(of.id, `“${of.title}” waits for a task that is not on this visit.`);
    return i;
  };
  const jobs = tasks.map((task): Job => {
    for (const m of [task.hands, task.wait, task.close])
      if (!(m >= 0) || !Number.isFinite(m))
        throw new VisitError(task.id, `“${task.title}”: minutes must be zero or more.`);
    return {
      task,
      after: task.after.map((id) => at(id, task)),
      during: task.during === undefined ? -1 : at(task.during, task),
      inside: [],
      waits: task.wait > 0 || task.close > 0,
      tail: 0,
      tailClose: 0,
    };
  });
  jobs.forEach((j, i) => {
    if (j.during < 0) return;
    const host = jobs[j.during]!;
    if (!host.waits)
      throw new VisitError(
        j.task.id,
        `“${j.task.title}” is to be done while “${host.task.title}” waits, but that has no wait.`,
      );
    (host.inside as number[]).push(i);
  });
  tails(jobs);
  return jobs;
}
/** Longest way from each task to the end of the visit. */
function tails(jobs: readonly Job[]): void {
  const followers = jobs.map(() => [] as number[]);
  jobs.forEach((j, i) => j.after.forEach((a) => followers[a]!.push(i)));
  const state = jobs.map(() => 0);
  const end = (i: number): number => Math.max(0, ...followers[i]!.map((f) => tail(f)));
  const tail = (i: number): number => {
    const j = jobs[i]!;
    if (state[i] === 2) return j.tail;
    if (state[i] === 1)
      throw new VisitError(
        j.task.id,
        `“${j.task.title}” waits for itself by way of others: take one of its “after” away.`,
      );
    state[i] = 1;
    const after = end(i);
    const host = j.during >= 0 ? jobs[j.during]! : null;
    const own = j.task.hands + j.task.wait + j.task.close;
    // what is done inside must end before the host's close
    const inside = Math.max(
      0,
      ...j.inside.map((k) => jobs[k]!.task.hands + jobs[k]!.task.wait + jobs[k]!.task.close),
    );
    j.tailClose = j.task.close + after;
    j.tail = Math.max(
      own + after,
      j.task.hands + inside + j.task.close + after,
      host ? own + host.task.close : 0,
    );
    state[i] = 2;
    return j.tail;
  };
  jobs.forEach((_, i) => tail(i));
}

/** One moment of the laying. Copied before it is changed. */
export class Laying {
  /** 0 not begun, 1 waiting, 2 ended */
  status: number[];
  handsEnd: number[];
  ready: number[];
  end: number[];
  start: number[];
  person: number[];
  closer: number[];
  free: number[];
  /** when a thing is free again; Infinity while it is taken */
  things: Map<string, number>;
  left: number;
  length: number;

  constructor(
    readonly jobs: readonly Job[],
    crew: number,
    now: number,
  ) {
    const n = crew ? jobs.length : 0;
    const zeros = () => new Array<number>(n).fill(0);
    this.status = zeros();
    this.handsEnd = zeros();
    this.ready = zeros();
    this.end = zeros();
    this.start = zeros();
    this.person = zeros();
    this.closer = zeros();
    this.free = new Array<number>(crew).fill(now);
    this.things = new Map();
    this.left = crew ? jobs.reduce((s, j) => s + (j.waits ? 2 : 1), 0) : 0;
    this.length = 0;
  }
  copy(): Laying {
    const c = new Laying(this.jobs, 0, 0);
    c.status = [...this.status];
    c.handsEnd = [...this.handsEnd];
    c.ready = [...this.ready];
    c.end = [...this.end];
    c.start = [...this.start];
    c.person = [...this.person];
    c.closer = [...this.closer];
    c.free = [...this.free];
    c.things = new Map(this.things);
    c.left = this.left;
    c.length = this.length;
    return c;
  }
  /** Takes over what has happened already. */
  resume(i: number, p: Progress): void {
    const { task } = this.jobs[i]!;
    this.start[i] = p.start;
    this.left -= this.jobs[i]!.waits && p.state === 'waiting' ? 1 : this.jobs[i]!.waits ? 2 : 1;
    for (const t of task.takes) this.things.set(t, Infinity);
    if (p.state === 'waiting') {
      this.status[i] = 1;
      this.handsEnd[i] = p.handsEnd;
      this.ready[i] = p.ready;
      return;
    }
    this.status[i] = 2;
    this.handsEnd[i] = this.ready[i] = this.end[i] = p.end;
    for (const t of task.frees) this.things.set(t, p.end);
    this.length = Math.max(this.length, p.end);
  }
  /** When a move could begin at the earliest, whoever does it; Infinity while something is in its way. */
  earliest(move: Move): number {
    const i = move.job;
    const j = this.jobs[i]!;
    if (move.close) {
      if (this.status[i] !== 1) return Infinity;
      let at = this.ready[i]!;
      for (const k of j.inside) {
        if (this.status[k] !== 2) return Infinity;
        at = Math.max(at, this.end[k]!);
      }
      return at;
    }
    if (this.status[i] !== 0) return Infinity;
    let at = j.task.notBefore ?? 0;
    for (const a of j.after) {
      if (this.status[a] !== 2) return Infinity;
      at = Math.max(at, this.end[a]!);
    }
    if (j.during >= 0) {
      if (this.status[j.during] !== 1) return Infinity;
      at = Math.max(at, this.handsEnd[j.during]!);
    }
    for (const t of j.task.takes) at = Math.max(at, this.things.get(t) ?? 0);
    return at;
  }
  /** Who does it: the one free latest before it can begin, else the one free first. */
  private who(at: number): number {
    let best = 0;
    for (let p = 1; p < this.free.length; p++) {
      const [f, b] = [this.free[p]!, this.free[best]!];
      if (f <= at + MIN ? b > at + MIN || f > b : f < b) best = p;
    }
    return best;
  }
  /** When it would begin given who is free. */
  begins(move: Move): number {
    const at = this.earliest(move);
    return at === Infinity ? at : Math.max(at, this.free[this.who(at)]!);
  }
  apply(move: Move): void {
    const i = move.job;
    const j = this.jobs[i]!;
    const at = this.earliest(move);
    const person = this.who(at);
    const begin = Math.max(at, this.free[person]!);
    const hands = move.close ? j.task.close : j.task.hands;
    this.free[person] = begin + hands;
    this.left -= 1;
    if (!move.close) {
      this.start[i] = begin;
      this.person[i] = this.closer[i] = person;
      this.handsEnd[i] = begin + hands;
      this.ready[i] = begin + hands + j.task.wait;
      for (const t of j.task.takes) this.things.set(t, Infinity);
      if (j.waits) {
        this.status[i] = 1;
        return;
      }
    } else {
      this.closer[i] = person;
      this.ready[i] = begin; // from here on: when it was closed
    }
    this.status[i] = 2;
    this.end[i] = begin + hands;
    this.length = Math.max(this.length, this.end[i]);
    for (const t of j.task.frees) this.things.set(t, this.end[i]);
  }
  moves(): Move[] {
    const list: Move[] = [];
    for (let i = 0; i < this.jobs.length; i++) {
      if (this.status[i] === 2) continue;
      const move = { job: i, close: this.status[i] === 1 };
      if (this.earliest(move) !== Infinity) list.push(move);
    }
    return list;
  }
  slots(): Slot[] {
    return this.jobs.map((j, i) => ({
      task: j.task.id,
      start: this.start[i]!,
      handsEnd: this.handsEnd[i]!,
      closeStart: j.waits ? this.ready[i]! : this.handsEnd[i]!,
      end: this.end[i]!,
      person: this.person[i]!,
      closer: this.closer[i]!,
    }));
  }
}
