/** The parts into which closing valves can split what a test reaches, and the holds that are possible: by flooding. */
import { ruleOfPart } from '@/core/network/catalogue';
import { positionOf, reachOf, type Positions } from '@/core/network/flood';
import { type Joined, type Part, partName, positionKey, servedBy } from '@/core/network/network';
import type { Isolation, Splitting } from './order';

export interface SplitPart {
  /** ids of the network's parts in it */ readonly parts: readonly string[];
  readonly name: string;
}
export interface NetworkSplitting extends Splitting {
  readonly sections: readonly SplitPart[];
  /** Valves to close for each isolation, by its key. */
  readonly closed: Readonly<Record<string, readonly string[]>>;
}
/** Suspicion of a part of the drawing: what is undone, worn or made up of many joints. House figures. */
const SUSPICION: Readonly<Record<string, number>> = {
  joint: 3,
  appliance: 2.5,
  regulator: 2,
  fitting: 1.5,
  valve: 1.5,
  meter: 1.5,
};
/** Each run of pipe between two parts. House figure. */
const RUN = 0.6;
/** Minutes to go to a valve, turn it and come back. House figure. */
const TURN = 1.5;
/** Most holds that are looked at; a network has seldom a tenth. */
const MOST = 400;

/**
 * @param hold minutes of one hold with its settling  @param disturbed ids of parts that were worked on today: three times as suspect
 * @returns null where no valve inside parts anything
 */
export function splittingOf(
  network: Joined,
  positions: Positions,
  hold: number,
  disturbed: ReadonlySet<string> = new Set(),
): NetworkSplitting | null {
  const whole = reachOf(network, positions);
  const valves = network.parts.filter(
    (p) => whole.parts.has(p.id) && ruleOfPart(p.kind).closes && positionOf(network, p, positions) === 'open',
  );
  const shut = (closed: readonly Part[]): Positions => ({
    ...positions,
    ...Object.fromEntries(closed.map((v) => [positionKey(network, v), 'closed' as const])),
  });
  // parts that every single valve puts on the same side belong together
  const sides = valves.map((v) => reachOf(network, shut([v])).parts);
  const inside = network.parts.filter((p) => whole.parts.has(p.id));
  const groups = new Map<string, Part[]>();
  for (const p of inside) {
    const key = sides.map((s) => (s.has(p.id) ? '1' : '0')).join('');
    groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  const named = [...groups.values()];
  if (named.length < 2 || named.length > 30) return null;
  const index = new Map(named.flatMap((g, i) => g.map((p) => [p.id, i] as const)));
  const links = network.links.filter((l) => whole.links.has(l.id));
  const suspicion = named.map((g) => {
    const own = g.reduce((sum, p) => sum + (SUSPICION[p.kind] ?? 0.5) * (disturbed.has(p.id) ? 3 : 1), 0);
    return own + RUN * links.filter((l) => g.some((p) => p.id === l.from || p.id === l.to)).length;
  });
  const isolations = new Map<number, { closed: readonly Part[] }>();
  const all = 2 ** named.length - 1;
  // from the whole inwards: each further valve that is closed leaves less under pressure
  const open: (readonly Part[])[] = [[]];
  for (const closed of open)
    for (const v of valves) {
      if (closed.includes(v) || isolations.size >= MOST) continue;
      const next = [...closed, v];
      let held = 0;
      for (const id of reachOf(network, shut(next)).parts) held |= 1 << (index.get(id) ?? 31);
      held &= all;
      if (held === 0 || held === all || isolations.has(held)) continue;
      isolations.set(held, { closed: next });
      open.push(next);
    }
  const list = [...isolations].map(
    ([holds, { closed }]): Isolation & { readonly closed: readonly string[] } => ({
      key: closed.map((v) => v.id).join('+'),
      holds,
      minutes: hold + TURN * closed.length,
      closed: closed.map((v) => valveName(network, v)),
    }),
  );
  return {
    suspicion,
    isolations: list.map(({ key, holds, minutes }) => ({ key, holds, minutes })),
    sections: named.map((g) => ({ parts: g.map((p) => p.id), name: nameOf(g) })),
    closed: Object.fromEntries(list.map((i) => [i.key, i.closed])),
  };
}
/** A valve by what it shuts, where that is one thing. */
function valveName(network: Joined, valve: Part): string {
  const served = servedBy(network, valve);
  return served ? `the valve of ${partName(served)}` : partName(valve);
}
/** By what people know it: its appliances, otherwise the pipework by its first named part. */
function nameOf(group: readonly Part[]): string {
  const appliances = group.filter((p) => p.kind === 'appliance');
  if (appliances.length) return appliances.map((p) => partName(p)).join(' and ');
  const known = group.find((p) => !ruleOfPart(p.kind).nameless) ?? group[0]!;
  return `the pipework by ${partName(known)}`;
}
