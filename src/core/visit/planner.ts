/**
 * Lays the tasks of a visit in time: least time on site, holds side by side, waits filled, promises kept. Branch and
 * bound over the order in which hands are put to work, with a dominance rule and a proof by lower bound; where the search
 * is cut off, the gap to the bound is told. Pure: the same tasks give the same plan. Source: least time on site, exact search
 */
import { jobsOf, Laying, MIN, type Job, type Move } from './model';
import { VisitError, type Progress, type VisitPlan, type VisitTask } from './types';

export interface VisitOptions {
  /** People who do the work. */
  readonly crew?: number;
  /** Minutes from the visit's start at which the rest begins. */
  readonly now?: number;
  readonly progress?: Readonly<Record<string, Progress>>;
  /** Steps of the search at most. */
  readonly effort?: number;
}

const CREW_MOST = 4;
const EFFORT = 60_000;

/** No plan from here can be shorter: hands still to be put to work, longest chain, and what is taken in turn. */
function bound(s: Laying): number {
  let least = s.length;
  let hands = 0;
  const soonest = Math.min(...s.free);
  for (let i = 0; i < s.jobs.length; i++) {
    const j = s.jobs[i]!;
    if (s.status[i] === 2) continue;
    if (s.status[i] === 1) {
      hands += j.task.close;
      least = Math.max(least, Math.max(s.ready[i]!, soonest) + j.tailClose);
      continue;
    }
    hands += j.task.hands + (j.waits ? j.task.close : 0);
    let at = Math.max(soonest, j.task.notBefore ?? 0);
    for (const a of j.after) if (s.status[a] === 2) at = Math.max(at, s.end[a]!);
    if (j.during >= 0 && s.status[j.during] === 1) at = Math.max(at, s.handsEnd[j.during]!);
    least = Math.max(least, at + j.tail);
  }
  if (hands > 0) {
    // the last hand put to work may be followed by a wait of nobody; hands alone bound the length by their share
    const base = s.free.reduce((sum, f) => sum + f, 0);
    least = Math.max(least, (base + hands) / s.free.length);
  }
  return least;
}
/** Things that pass from task to task: the tasks that hold one follow each other. Static, from the start. */
function thingsBound(jobs: readonly Job[]): number {
  const things = new Set(jobs.flatMap((j) => [...j.task.takes]));
  let least = 0;
  for (const thing of things) {
    let sum = 0;
    for (const [i, j] of jobs.entries()) {
      if (!j.task.takes.includes(thing)) continue;
      sum += chain(jobs, i, thing);
    }
    least = Math.max(least, sum);
  }
  return least;
}
/** Shortest time from the start of a task that takes a thing to the end of the one that frees it. */
function chain(jobs: readonly Job[], from: number, thing: string): number {
  const own = (j: Job) => j.task.hands + j.task.wait + j.task.close;
  const seen = new Map<number, number>();
  // it may be any of the tasks that follow which gives it back: the nearest counts
  const reach = (i: number): number => {
    const known = seen.get(i);
    if (known !== undefined) return known;
    seen.set(i, Infinity);
    const j = jobs[i]!;
    const rest = j.task.frees.includes(thing)
      ? 0
      : Math.min(Infinity, ...jobs.flatMap((f, k) => (f.after.includes(i) ? [reach(k)] : [])));
    seen.set(i, own(j) + rest);
    return own(j) + rest;
  };
  const length = reach(from);
  return Number.isFinite(length) ? length : own(jobs[from]!);
}

const lateOf = (s: Laying): string[] =>
  s.jobs.flatMap((j, i) =>
    j.task.finishBy !== undefined && s.end[i]! > j.task.finishBy + MIN ? [j.task.id] : [],
  );

/** A quick plan by a rule of thumb: always the move that begins first; among equals by weight. */
function quick(start: Laying, weight: (m: Move) => number): Laying | null {
  const s = start.copy();
  while (s.left > 0) {
    let best: { move: Move; at: number; w: number } | null = null;
    for (const move of s.moves()) {
      const at = s.begins(move);
      const w = weight(move);
      if (!best || at < best.at - MIN || (at <= best.at + MIN && w > best.w)) best = { move, at, w };
    }
    if (!best) return null;
    s.apply(best.move);
  }
  return s;
}

class Search {
  best: Laying | null = null;
  nodes = 0;
  cut = false;
  private readonly seen = new Map<string, number[][]>();
  constructor(
    readonly floor: number,
    readonly effort: number,
    readonly promises: boolean,
  ) {}
  private get top(): number {
    return this.best ? this.best.length : Infinity;
  }
  keep(s: Laying | null): void {
    if (s && s.length < this.top - MIN && (!this.promises || lateOf(s).length === 0)) this.best = s;
  }
  /** Whether a state like this was met before and was nowhere worse. */
  private dominated(s: Laying): boolean {
    const key = s.status.join('');
    const soonest = Math.min(...s.free);
    const mine = [
      s.length,
      ...[...s.free].sort((a, b) => a - b),
      ...s.jobs.map((_, i) =>
        s.status[i] === 1
          ? Math.max(soonest, s.ready[i]!)
          : s.status[i] === 2
            ? Math.max(soonest, s.end[i]!)
            : 0,
      ),
      // a task waiting under which others are to be done
      ...s.jobs.map((j, i) => (s.status[i] === 1 && j.inside.length ? Math.max(soonest, s.handsEnd[i]!) : 0)),
    ];
    const list = this.seen.get(key) ?? [];
    if (list.some((other) => other.every((v, i) => v <= mine[i]! + MIN))) return true;
    const kept = list.filter((other) => !other.every((v, i) => v >= mine[i]! - MIN));
    kept.push(mine);
    this.seen.set(key, kept);
    return false;
  }
  go(s: Laying): void {
    if (s.left === 0) return this.keep(s);
    if (this.top <= this.floor + MIN) return;
    if (this.nodes >= this.effort) {
      this.cut = true;
      return;
    }
    this.nodes += 1;
    const moves = s
      .moves()
      .map((move) => {
        const j = s.jobs[move.job]!;
        return {
          move,
          at: s.begins(move),
          hands: move.close ? j.task.close : j.task.hands,
          tail: move.close ? j.tailClose : j.tail,
        };
      })
      .sort((a, b) => a.at - b.at || b.tail - a.tail);
    const one = s.free.length === 1;
    for (const m of moves) {
      // something harmless would be over before this begins: then it goes first
      if (
        one &&
        moves.some(
          (x) =>
            x !== m &&
            (x.move.close || s.jobs[x.move.job]!.task.takes.length === 0) &&
            x.at + x.hands <= m.at + MIN &&
            x.hands > 0,
        )
      )
        continue;
      const next = s.copy();
      next.apply(m.move);
      if (this.promises) {
        const { finishBy } = s.jobs[m.move.job]!.task;
        if (finishBy !== undefined && next.status[m.move.job] === 2 && next.end[m.move.job]! > finishBy + MIN)
          continue;
      }
      if (bound(next) >= this.top - MIN) continue;
      if (this.dominated(next)) continue;
      this.go(next);
      if (this.cut) return;
    }
  }
}

/**
 * Plans a visit. Promises are kept where any order keeps them; where none does, the shortest plan is given and the
 * promises it breaks are named.
 * @throws VisitError when the tasks contradict each other
 */
export function planVisit(tasks: readonly VisitTask[], options: VisitOptions = {}): VisitPlan {
  const { crew = 1, now = 0, progress = {}, effort = EFFORT } = options;
  if (!Number.isInteger(crew) || crew < 1 || crew > CREW_MOST)
    throw new VisitError('', `Plan with one to ${CREW_MOST} people.`);
  const jobs = jobsOf(tasks);
  const start = new Laying(jobs, crew, now);
  jobs.forEach((j, i) => {
    const p = progress[j.task.id];
    if (p) start.resume(i, p);
  });
  const floor = Math.max(bound(start), Object.keys(progress).length ? 0 : now + thingsBound(jobs));
  const weights: ((m: Move) => number)[] = [
    (m) => (m.close ? jobs[m.job]!.tailClose : jobs[m.job]!.tail),
    (m) => (m.close ? 1e6 : jobs[m.job]!.task.wait),
    (m) => (m.close ? 1e6 : jobs[m.job]!.tail - jobs[m.job]!.task.hands),
    (m) => -(jobs[m.job]!.task.finishBy ?? 1e6),
  ];
  const tries = weights.map((w) => quick(start, w));
  if (tries.every((t) => t === null)) throw new VisitError('', stuckWords(jobs));
  const attempt = (promises: boolean) => {
    const search = new Search(floor, effort, promises);
    for (const t of tries) search.keep(t);
    search.go(start);
    return search;
  };
  const kept = attempt(true);
  const search = kept.best ? kept : attempt(false);
  const best = search.best!;
  const proved = !search.cut || best.length <= floor + MIN;
  return {
    slots: best.slots(),
    length: best.length,
    bound: proved ? best.length : floor,
    proved,
    late: lateOf(best),
    nodes: kept.nodes + (search === kept ? 0 : search.nodes),
  };
}
const stuckWords = (jobs: readonly Job[]): string => {
  const taken = jobs.find((j) => j.task.takes.some((t) => !jobs.some((k) => k.task.frees.includes(t))));
  return taken
    ? `“${taken.task.title}” takes something that no task gives back.`
    : 'These tasks block each other: look at what each of them needs.';
};

/**
 * The plan in an order chosen by hand: moves are made in the order wished, each as soon as what must come before it has
 * ended. @param wishes when each task is wished to begin, minutes; `pinned` ones begin no earlier
 */
export function arrange(
  tasks: readonly VisitTask[],
  wishes: Readonly<Record<string, number>>,
  pinned: ReadonlySet<string>,
  options: VisitOptions = {},
): VisitPlan {
  const { crew = 1, now = 0, progress = {} } = options;
  const jobs = jobsOf(
    tasks.map((t) =>
      pinned.has(t.id) ? { ...t, notBefore: Math.max(t.notBefore ?? 0, wishes[t.id] ?? 0) } : t,
    ),
  );
  const s = new Laying(jobs, crew, now);
  jobs.forEach((j, i) => {
    const p = progress[j.task.id];
    if (p) s.resume(i, p);
  });
  while (s.left > 0) {
    const moves = s.moves();
    if (!moves.length) throw new VisitError('', stuckWords(jobs));
    const wish = (m: Move): number =>
      m.close ? Math.max(s.ready[m.job]!, 0) : Math.max(wishes[jobs[m.job]!.task.id] ?? Infinity, 0);
    const next = moves.reduce((a, b) => (wish(b) < wish(a) - MIN ? b : a));
    s.apply(next);
  }
  const floor = Math.max(...jobs.map((j) => j.tail), 0);
  return {
    slots: s.slots(),
    length: s.length,
    bound: Math.min(floor, s.length),
    proved: false,
    late: lateOf(s),
    nodes: 0,
  };
}
