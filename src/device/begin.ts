import type { Plan } from '@/core/plan/plan';
import { type AskedRun, demandBegins, type Known, planAsked, planDigest } from '@/wire/asked-plan';
import { afterKey, type CarriedClaim } from '@/wire/carried';
import { ownKitOf } from '@/core/instrument/kit';
import type { StartRun } from '@/wire/requests';
import type { Identity } from '@/wire/role';
import { type Carrying, type KnownSystem, mustCarry } from './carried';
import { now, serverNow } from './clock';
import { OfficeError } from './office';
import type { Store } from './store';

/** What of a house stands behind a plan that is made here. @throws OfficeError saying what to do */
export function knownHere(
  { house, packs, gauges, systems }: Carrying,
  who: Identity,
  request: AskedRun,
): { known: Known; system: KnownSystem } {
  const system = systems.find((s) => s.id === request.system);
  const pack = packs.find((p) => p.id === request.pack);
  if (!system || !pack)
    throw new OfficeError(
      0,
      'not-carried',
      system
        ? 'The rules of this test were not taken along. Open Today once where there is a signal.'
        : 'This installation was not taken along. Open it once where there is a signal; after that a test begins on it without.',
    );
  const at = serverNow();
  const retest = request.retestOf
    ? Object.values(system.failures).find((f) => f.run === request.retestOf)
    : undefined;
  return {
    system,
    known: {
      organisation: house.organisation,
      site: system.site,
      system: system.system,
      pack,
      packHash: house.packs.find((p) => p.id === pack.id)!.hash,
      gauges,
      ownKit: ownKitOf(house.cabinet.value.things, at, request.zone),
      after: system.given?.value.after[afterKey(request.procedure, request.section)],
      retestOf: retest,
      by: who.name,
      at,
      clock: house.clock,
    },
  };
}
/** The plan of a run as it is made here, and what is said of it to the office. @throws PlanError, OfficeError */
function planHere(carrying: Carrying, who: Identity, request: AskedRun): { plan: Plan; claim: CarriedClaim } {
  if (request.practice)
    throw new OfficeError(
      0,
      'no-signal',
      'Practice plays at the office: it needs a signal. A test for real begins without.',
    );
  const { known, system } = knownHere(carrying, who, request);
  const plan = planAsked(request, known);
  demandBegins(plan);
  return {
    plan,
    claim: {
      at: known.at,
      digest: planDigest(plan),
      pack: known.packHash,
      system: system.given ?? undefined,
      cabinet: carrying.house.cabinet,
      entered: [...carrying.entered],
    },
  };
}
/** Begins a run on this device. @returns what is sent to the office when there is a signal @throws PlanError, OfficeError */
export async function beginHere(store: Store, who: Identity, request: StartRun): Promise<StartRun> {
  const { visit: _visit, carried: _carried, ...asked } = request;
  const { plan, claim } = planHere(await mustCarry(who), who, asked);
  await keepBegun(store, plan);
  return { ...request, carried: claim };
}
export const keepBegun = (store: Store, plan: Plan): Promise<unknown> =>
  store.put('runs', { run: plan.run, plan, sealed: null, opened: now(), unborn: true });
