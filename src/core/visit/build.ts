/** Turns tests into tasks: short holds are hands, long ones wait; what fits in a wait is laid beside it. */
import { fillingNamed } from '@/core/fillings';
import { minutesForInventory } from '@/core/kinds/inventory/estimate';
import { minutesForJoints } from '@/core/kinds/joints/estimate';
import type { PartRule } from '@/core/pack/schema';
import type { PathStep } from '@/core/plan/good-path';
import type { VisitTask } from './types';

/** A test on a visit: what is to be tested, by which procedure, with which gauge; `run` once it was begun. */
export interface VisitTest {
  readonly id: string;
  readonly site: string;
  readonly siteName: string;
  readonly system: string;
  readonly systemName: string;
  readonly pack: string;
  readonly procedure: string;
  readonly title: string;
  readonly case: string;
  readonly caseTitle: string;
  readonly gauge: string | null;
  readonly gaugeName: string;
  /** Procedures of which one must have ended well before. */
  readonly needs: readonly string[];
  readonly run?: string;
  /** What was settled when it was planned: it arrives at the bench with the run. */
  readonly choices?: Readonly<Record<string, string>>;
  readonly permit?: string;
  readonly doneBy?: 'licensed' | 'owner';
  readonly present?: string;
  readonly section?: string;
}
/** A wait shorter than this is stood beside the gauge: it counts as hands. Minutes, house choice. */
export const STAND_BY = 5;
const round = (minutes: number): number => Math.max(0.5, Math.round(minutes * 2) / 2);

/**
 * Tasks of a test from the steps of its good path: a task for each long wait with the work that leads to it, one for
 * what remains. The section and the gauge are taken by the first and given back by the last.
 */
export function testTasks(
  test: VisitTest,
  steps: readonly PathStep[],
  fills?: PartRule['fills'],
): VisitTask[] {
  const things = [`section:${test.system}`, ...(test.gauge ? [`gauge:${test.gauge}`] : [])];
  const chunks: { titles: PathStep[]; hands: number; wait: number; close: number; waits?: string }[] = [];
  let open: (typeof chunks)[number] = { titles: [], hands: 0, wait: 0, close: 0 };
  for (const step of steps) {
    open.titles.push(step);
    if (step.wait < STAND_BY) {
      open.hands += step.hands + step.wait + step.close;
      continue;
    }
    chunks.push({
      ...open,
      hands: open.hands + step.hands,
      wait: step.wait,
      close: step.close,
      waits: step.title,
    });
    open = { titles: [], hands: 0, wait: 0, close: 0 };
  }
  if (open.titles.length) chunks.push(open);
  const tasks = chunks.map((c, i): VisitTask => {
    const last = i === chunks.length - 1;
    return {
      id: `${test.id}.${i + 1}`,
      title: `${test.siteName}: ${c.waits ?? (i === 0 ? test.title : 'put back and sign')}`,
      kind: 'test',
      hands: round(c.hands),
      wait: Math.round(c.wait * 2) / 2,
      close: c.wait ? round(c.close) : 0,
      after: i === 0 ? [] : [`${test.id}.${i}`],
      takes: i === 0 ? things : [],
      frees: last ? things : [],
      test: test.id,
      stages: c.titles.map((s) => s.stage),
      ...(c.waits ? { waits: c.waits } : {}),
    };
  });
  return [...tasks, ...fillersOf(test, steps, tasks, fills)];
}
/** What fits in the wait of a test: soaping where the run has no list of its own, the inventory likewise, photos. */
function fillersOf(
  test: VisitTest,
  steps: readonly PathStep[],
  tasks: readonly VisitTask[],
  fills: PartRule['fills'],
): VisitTask[] {
  // the longest wait: a short one would be lengthened by what is put into it
  const host = [...tasks].sort((a, b) => b.wait - a.wait)[0];
  if (!host || host.wait < STAND_BY) return [];
  const has = (kind: PathStep['kind']) => steps.some((s) => s.kind === kind);
  const filler = (key: string, title: string, hands: number): VisitTask => ({
    id: `${test.id}.${key}`,
    title: `${test.siteName}: ${title}`,
    kind: 'filler',
    hands,
    wait: 0,
    close: 0,
    after: [],
    during: host.id,
    takes: [],
    frees: [],
    test: test.id,
  });
  const looks = round(minutesForJoints(4));
  const { joints, appliances, photos } = fillingNamed(fills);
  return [
    ...(joints && !has('joints') ? [filler('soap', joints, looks)] : []),
    ...(appliances && !has('inventory')
      ? [filler('inventory', 'appliance inventory', round(minutesForInventory(1)))]
      : []),
    filler('photos', photos, 3),
  ];
}
/** Tasks every visit has: people told at the start, handing over at the end. */
export function frameTasks(tasks: readonly VisitTask[], brief: number, handOver: number): VisitTask[] {
  const last = tasks.filter((t) => t.kind === 'test' && t.frees.length > 0).map((t) => t.id);
  const simple = (id: string, title: string, hands: number, after: readonly string[]): VisitTask => ({
    id,
    title,
    kind: 'meeting',
    hands,
    wait: 0,
    close: 0,
    after,
    takes: [],
    frees: [],
  });
  return [
    simple('brief', 'Tell the people in the building', brief, []),
    ...tasks.map((t) => (t.kind === 'test' && t.after.length === 0 ? { ...t, after: ['brief'] } : t)),
    simple('hand-over', 'Hand over and leave', handOver, last),
  ];
}
/** Tests that must follow others on the same system: the first task of the later waits for the last of the earlier. */
export function ordered(tests: readonly VisitTest[], tasks: readonly VisitTask[]): VisitTask[] {
  return tasks.map((t) => {
    const test = tests.find((x) => x.id === t.test);
    if (!test || t.kind !== 'test' || !t.takes.length || !test.needs.length) return t;
    const before = tests
      .filter((x) => x.id !== test.id && x.system === test.system && test.needs.includes(x.procedure))
      .flatMap((x) => tasks.filter((y) => y.test === x.id && y.frees.length > 0).map((y) => y.id));
    return before.length ? { ...t, after: [...new Set([...t.after, ...before])] } : t;
  });
}
/** Which tests on one visit would disturb each other, in sentences. */
export function disturbances(tests: readonly VisitTest[]): string[] {
  const out: string[] = [];
  tests.forEach((a, i) =>
    tests.slice(i + 1).forEach((b) => {
      if (a.system === b.system)
        out.push(
          `${a.title} and ${b.title} use the same section of ${a.siteName}: they are laid one after the other.`,
        );
      else if (a.gauge && a.gauge === b.gauge)
        out.push(
          `${a.siteName} and ${b.siteName} are planned with the same gauge (${a.gaugeName}): one after the other. Take a second gauge to lay the holds side by side.`,
        );
    }),
  );
  return out;
}
