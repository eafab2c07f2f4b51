import type { Plan } from '@/core/plan/plan';
import { type Doing, handWork, type HandWork } from '@/core/simulation/hands';
import { faultOf, simulationOf, withStandIns } from '@/core/yard/setup';
import type { Simulation, SimulatedView } from '@/core/simulation/simulation';
import { inOrganisation } from '@/database/client';
import { gaugeLinks } from '@/database/schema';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { planHeld } from '@/server/runs/standing';
import { notHere, TroubleError } from '@/server/trouble';
import type { SimulatedRequest } from '@/wire/requests';
import { randomBytes } from 'node:crypto';
import 'server-only';

/** The id of a stand-in of a practice run, derived from the run's: starting twice makes one. */
function simulatedId(run: string, what: 'gauge' | 'fan'): string {
  const hex = digest(`simulated ${what} ${run}`);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
/** A practice plan with the instruments that belong to it. */
export const practised = (plan: Plan): Plan => withStandIns(plan, simulatedIds(plan.run));
/** The ids of the instruments of a practice run. */
export const simulatedIds = (run: string) => ({
  gauge: simulatedId(run, 'gauge'),
  fan: simulatedId(run, 'fan'),
});
/** What the world of a practice run hears besides hands: what came about, time that was passed at once. */
export const sendAct = (run: string, action: object): Promise<SimulatedView> =>
  standIn(`/installations/${run}/actions`, action);
async function standIn<T>(path: string, body?: unknown): Promise<T> {
  const base = process.env.VAST_GAUGE_URL;
  let response: Response | undefined;
  try {
    if (base)
      response = await fetch(`${base}${path}`, {
        method: body === undefined ? 'GET' : 'POST',
        ...(body === undefined
          ? {}
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
        signal: AbortSignal.timeout(3000),
      });
  } catch {
    /* said below */
  }
  if (!response?.ok)
    throw new TroubleError(
      503,
      'stand-in-away',
      'The simulated gauge does not answer. It is started with ./start; wait a moment and try again.',
    );
  return (await response.json()) as T;
}

/** @throws TroubleError 422 where nothing of that name can be hidden in what this run simulates */
export function hiddenFault(plan: Plan, wished: string): void {
  if (faultOf(plan, wished, 0) === null)
    throw new TroubleError(422, 'fault', 'This hidden fault is not known.');
}
/**
 * Sets up the simulated installation of a practice run in the stand-in process and pairs its gauge.
 * @param past what was done to it already, and how far its clock is ahead
 */
export async function beginSimulation(
  scope: { org: string },
  plan: Plan,
  installation: Simulation,
  past: readonly object[] = [],
): Promise<void> {
  const gauge = plan.gauges[0]!;
  const code = randomBytes(9).toString('base64url');
  await inOrganisation(scope, (tx) =>
    tx.insert(gaugeLinks).values({
      org: scope.org,
      run: plan.run,
      gauge: gauge.id,
      codeHash: digest(code),
      simulated: true,
      made: new Date(now()),
    }),
  );
  await standIn('/installations', {
    id: plan.run,
    code,
    office: process.env.VAST_URL,
    installation,
    scale: gauge.resolution.scale,
    unit: gauge.resolution.unit,
    ...(past.length ? { past } : {}),
  });
}
/** What a practice run simulates where a fault was wished for, or a surprise. */
export const simulationFor = (plan: Plan, fault: string): Simulation =>
  simulationOf(plan, { seed: randomBytes(4).readUInt32BE(), began: now(), fault });

async function practicePlan(scope: { org: string }, run: string): Promise<Plan> {
  const plan = await inOrganisation(scope, (tx) => planHeld(tx, scope, run));
  if (!plan.practice) throw notHere('simulated installation');
  return plan;
}
export async function simulatedState(scope: { org: string }, run: string): Promise<SimulatedView> {
  await practicePlan(scope, run);
  return standIn(`/installations/${run}`);
}
/** Keeps what a hand does. @returns its moment on the line of the run; null where nothing keeps it */
export type KeepHand = (work: HandWork, action: Doing) => Promise<number | null>;
/** Does something at the simulated installation. */
export async function workSimulated(
  scope: { org: string },
  run: string,
  request: SimulatedRequest,
  keep: KeepHand = () => Promise.resolve(null),
): Promise<SimulatedView> {
  const plan = await practicePlan(scope, run);
  const action = handWork(
    plan.system,
    simulationOf(plan, { seed: 0, began: 0, fault: 'surprise' }).kind,
    request,
  );
  if (typeof action === 'string') throw new TroubleError(422, 'hand', action);
  const { act, value, id } = request;
  const work = { act, ...(value === undefined ? {} : { value }), ...(id === undefined ? {} : { id }) };
  const at = await keep(work, action);
  return standIn(`/installations/${run}/actions`, at === null ? action : { ...action, at });
}
