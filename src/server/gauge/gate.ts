/**
 * Where a gauge's display may go: whether a run is under way and judged by it. Kept in this process for as long as nothing but streams
 * is added to the run; the database says when something else was.
 */
import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import { currentVisit } from '@/core/run/read';
import type { Exact } from '@/core/quantity/exact';
import type { Tx } from '@/database/client';
import { ofProcess } from '@/database/process';
import { openRuns, runs } from '@/database/schema';
import { standingOf } from '@/server/runs/standing';

export interface Gate {
  /** The last entry that was looked at. */ position: number;
  /** A step is open: what is shown belongs to it. */ readonly open: boolean;
  /** The gauge that judges. */ readonly gauge: string | null;
  /** The same, or before one is chosen the one that is meant: its display is shown already. */
  readonly shows: string | null;
  /** Unit and steps in which its figures are kept. */ readonly resolution: Exact | null;
  readonly zone: string;
  /** ms */ readonly began: number;
  /** Who made the run: its streams are entered for them. */ readonly maker: string;
}
/** So many are kept in mind: a line each. */
const MOST = 5_000;
const held = ofProcess('gates', () => new Map<string, Gate>());
const key = (org: string, run: string) => `${org}/${run}`;

export const knownGate = (org: string, run: string): Gate | undefined => held.get(key(org, run));
/** Whether a step is open that this gauge judges. */
export const judges = (gate: Gate, gauge: string): boolean => gate.open && gate.gauge === gauge;
/** Looks at the run itself. @throws TroubleError 404 */
export async function gateOf(tx: Tx, scope: { readonly org: string }, run: string): Promise<Gate> {
  const { plan, state, position } = await standingOf(tx, scope, run);
  const [row] = await tx.select({ madeBy: runs.madeBy }).from(runs).where(eq(runs.id, run));
  const gauge = state?.gauge ?? null;
  const shows = gauge ?? plan.gaugeMeant ?? null;
  const gate: Gate = {
    position,
    open: !!state && !!currentVisit(state),
    gauge,
    shows,
    resolution: plan.gauges.find((g) => g.id === shows)?.resolution ?? null,
    zone: plan.made.zone,
    began: Date.parse(plan.made.at),
    maker: row!.madeBy,
  };
  if (held.size >= MOST) held.delete(held.keys().next().value!);
  held.set(key(scope.org, run), gate);
  return gate;
}
/** The open run to which this gauge was put last, to judge it or meant to; undefined where there is none. */
export async function runJudgedBy(tx: Tx, gauge: string): Promise<string | undefined> {
  const [open] = await tx
    .select({ run: openRuns.run })
    .from(openRuns)
    .where(and(eq(openRuns.shows, gauge), eq(openRuns.practice, false)))
    .orderBy(desc(openRuns.turn))
    .limit(1);
  return open?.run;
}
