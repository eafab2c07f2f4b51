import type { RunState } from './state';

/** How long a step of a run took, going through it each time together. */
export interface StepTime {
  readonly stage: string;
  readonly title: string;
  /** minutes from entering to leaving, summed over every time */ readonly minutes: number;
  /** of them under a running hold */ readonly held: number;
  readonly times: number;
}
/** Time per step from the log: where a job loses time. Steps in the order they were first come to. */
export function stepTimes(state: RunState): StepTime[] {
  const steps = new Map<string, StepTime>();
  for (const v of state.visits) {
    if (v.left === undefined) continue;
    const holds = [...v.holds, ...v.cycles.flatMap((c) => [c.settle, c.hold].flatMap((h) => (h ? [h] : [])))];
    const held = holds.reduce(
      (sum, h) => sum + Math.max(0, (h.endedAt ?? h.broken?.at ?? h.startedAt) - h.startedAt),
      0,
    );
    const old = steps.get(v.stage);
    steps.set(v.stage, {
      stage: v.stage,
      title: v.title,
      minutes: (old?.minutes ?? 0) + (v.left - v.entered) / 60_000,
      held: (old?.held ?? 0) + held / 60_000,
      times: (old?.times ?? 0) + 1,
    });
  }
  return [...steps.values()];
}
/** The middle of several runs' minutes for each step; a step that only some came to counts where it stood. */
export function medianTimes(runs: readonly (readonly StepTime[])[]): Record<string, number> {
  const all = new Map<string, number[]>();
  for (const run of runs) for (const s of run) all.set(s.stage, [...(all.get(s.stage) ?? []), s.minutes]);
  return Object.fromEntries(
    [...all].map(([stage, list]) => {
      const sorted = [...list].sort((a, b) => a - b);
      const mid = sorted.length >> 1;
      return [stage, sorted.length % 2 ? sorted[mid]! : (sorted[mid - 1]! + sorted[mid]!) / 2];
    }),
  );
}
