import { expectedItems } from '@/core/run/inventory';
import type { Verbs } from '@/core/run/verbs';

/** Everything expected, or one thing; `point=said` and `serial=...` say otherwise than good and as known. */
export const inventoryVerbs: Verbs = {
  inventory: ({ plan, args, first }) => {
    const said = Object.fromEntries(args.slice(1).map((a) => a.split('=') as [string, string]));
    return (plan.procedure.inventory ?? [])
      .flatMap((k) => expectedItems(plan.system, k.kind).map((item) => ({ item, k })))
      .filter(({ item }) => first === 'all' || item.id === first)
      .map(({ item, k }) => ({
        kind: 'inventory',
        item: {
          ...item,
          serial: said.serial ?? item.serial,
          model: said.model ?? item.model,
          make: said.make ?? item.make,
          points: Object.fromEntries(k.points.map((p) => [p.key, (said[p.key] as 'good') ?? 'good'])),
          note: '',
        },
      }));
  },
};
