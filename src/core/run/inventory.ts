/** What is present on the day: what must be written down, and what changed since it was last seen. */
import type { InventoryKind } from '@/core/pack/schema';
import type { ExpectedItem, System } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import type { InventoryItem } from './events';
import type { RunState } from './state';

/** The things of one kind that the system page names, and those that were written down here before. */
export function expectedItems(system: System, kind: InventoryKind['kind']): ExpectedItem[] {
  const named = namedItems(system, kind);
  const seen = (system.seen ?? []).filter((s) => s.kind === kind);
  return [
    ...named.map((item) => {
      const last = seen.find((s) => s.id === item.id);
      return last ? { ...item, make: last.make, model: last.model, serial: last.serial } : item;
    }),
    ...seen.filter((s) => !named.some((n) => n.id === s.id)),
  ];
}
function namedItems(system: System, kind: InventoryKind['kind']): ExpectedItem[] {
  /** A thing of the system page with what its plate says, as far as it was read. */
  const line = (thing: {
    readonly id: string;
    readonly name: string;
    readonly place?: string;
    readonly make?: string;
    readonly model?: string;
    readonly serial?: string;
  }): ExpectedItem => {
    const { id, name, place = '', make = '', model = '', serial = '' } = thing;
    return { id, kind, name, place, make, model, serial };
  };
  switch (kind) {
    case 'meter':
      return system.meter.kind === 'none' ? [] : [line({ ...system.meter, id: 'meter' })];
    case 'appliance':
      return system.appliances.map(line);
    case 'regulator':
      return (system.regulators ?? []).map(line);
    case 'tank':
      return system.tank ? [line(system.tank)] : [];
    default:
      return [];
  }
}

/** The inspection points of a kind in this procedure. */
export const pointsOf = (plan: Plan, kind: InventoryKind['kind']) =>
  plan.procedure.inventory?.find((k) => k.kind === kind)?.points ?? [];

/** Names of the required things that are not written down yet, or lack an inspection point. */
export function missingInventory(plan: Plan, state: RunState): string[] {
  return (plan.procedure.inventory ?? [])
    .filter((k) => k.required)
    .flatMap((k) => {
      const expected = expectedItems(plan.system, k.kind);
      const complete = (id: string) => {
        const item = state.inventory.find((i) => i.id === id);
        return item !== undefined && k.points.every((p) => item.points[p.key] !== undefined);
      };
      return expected.filter((e) => !complete(e.id)).map((e) => e.name);
    });
}

/** What is different from when it was last seen: another make, model or serial is another thing and needs a new check. */
export function inventoryChanges(
  before: Pick<InventoryItem, 'name' | 'make' | 'model' | 'serial'>,
  now: Pick<InventoryItem, 'name' | 'make' | 'model' | 'serial'>,
): string[] {
  return (['make', 'model', 'serial'] as const)
    .filter(
      (k) =>
        before[k].trim() && now[k].trim() && before[k].trim().toLowerCase() !== now[k].trim().toLowerCase(),
    )
    .map((k) => `${now.name}: ${k} was ${before[k]}, is ${now[k]}`);
}

/** Points that were found at fault. */
export const faultsFound = (plan: Plan, state: RunState): string[] =>
  state.inventory.flatMap((i) =>
    Object.entries(i.points)
      .filter(([, said]) => said === 'fault')
      .map(([key]) => `${i.name}: ${pointsOf(plan, i.kind).find((p) => p.key === key)?.text ?? key}`),
  );
