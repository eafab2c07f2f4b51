/** The parts into which closing valves can split what a test reaches, and the holds that are possible: by flooding. */
import { ruleOfPart } from '@/core/network/catalogue';
import { positionOf, type Positions, type Reach, reachOf } from '@/core/network/flood';
import { figureOf, type Network, type Part, partName, shutName } from '@/core/network/network';
import { pipeVolume } from '@/core/installation/section';
import { toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import type { Splitting } from './order';

export interface SplitPart {
  /** ids of the network's parts in it */ readonly parts: readonly string[];
  readonly name: string;
}
export interface NetworkSplitting extends Splitting {
  readonly sections: readonly SplitPart[];
  /** Valves to close for each isolation, by its key: their names, and their ids in the drawing. */
  readonly closed: Readonly<Record<string, readonly string[]>>;
  readonly shuts: Readonly<Record<string, readonly string[]>>;
  /** What part of the whole volume each isolation holds; null where no volume is known. */
  readonly share: Readonly<Record<string, number | null>>;
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
  network: Network,
  positions: Positions,
  hold: number,
  disturbed: ReadonlySet<string> = new Set(),
): NetworkSplitting | null {
  const whole = reachOf(network, positions);
  const valves = network.parts.filter(
    (p) =>
      whole.parts.has(p.id) && (ruleOfPart(p.kind).ownValve || positionOf(network, p, positions) === 'open'),
  );
  const without = (closed: readonly Part[]): Reach =>
    reachOf(network, positions, new Set(closed.map((v) => v.id)));
  // parts that every single valve puts on the same side belong together
  const sides = valves.map((v) => without([v]).parts);
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
  const isolations = new Map<number, { closed: readonly Part[]; volume: number }>();
  const all = 2 ** named.length - 1;
  // from the whole inwards: each further valve that is closed leaves less under pressure
  const open: (readonly Part[])[] = [[]];
  for (const closed of open)
    for (const v of valves) {
      if (closed.includes(v) || isolations.size >= MOST) continue;
      const next = [...closed, v];
      let held = 0;
      const reach = without(next);
      for (const id of reach.parts) held |= 1 << (index.get(id) ?? 31);
      held &= all;
      if (held === 0 || held === all || isolations.has(held)) continue;
      isolations.set(held, { closed: next, volume: volumeIn(network, reach) });
      open.push(next);
    }
  const everything = volumeIn(network, whole);
  const list = [...isolations].map(([holds, { closed, volume }]) => ({
    key: closed.map((v) => v.id).join('+'),
    holds,
    minutes: hold + TURN * closed.length,
    closed: closed.map((v) => shutName(network, v)),
    shuts: closed.map((v) => v.id),
    share: everything > 0 ? volume / everything : null,
  }));
  return {
    suspicion,
    isolations: list.map(({ key, holds, minutes }) => ({ key, holds, minutes })),
    sections: named.map((g) => ({ parts: g.map((p) => p.id), name: nameOf(g) })),
    closed: Object.fromEntries(list.map((i) => [i.key, i.closed])),
    shuts: Object.fromEntries(list.map((i) => [i.key, i.shuts])),
    share: Object.fromEntries(list.map((i) => [i.key, i.share])),
  };
}
/** What is inside, as far as pipes and plates say it, m3. */
function volumeIn(network: Network, reach: Reach): number {
  const pipes = network.links.filter((l) => reach.links.has(l.id) && l.pipe);
  const plates = network.parts.filter((p) => reach.parts.has(p.id));
  return (
    pipes.reduce((sum, l) => sum + pipeVolume(l.pipe!), 0) +
    plates.reduce((sum, p) => {
      const volume = figureOf(p, 'volume');
      return sum + (volume ? convert(toNumber(volume), volume.unit, 'm3') : 0);
    }, 0)
  );
}
/** By what people know it: its appliances or loops, otherwise the pipework by its first named part. */
function nameOf(group: readonly Part[]): string {
  const things = group.filter((p) => p.kind === 'appliance' || p.kind === 'loop');
  if (things.length) return things.map((p) => partName(p)).join(' and ');
  const known = group.find((p) => !ruleOfPart(p.kind).nameless) ?? group[0]!;
  return `the pipework by ${partName(known)}`;
}
