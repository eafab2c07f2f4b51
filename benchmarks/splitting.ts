/** The search for the part that leaks, on random drawings: expected minutes beside one by one and beside halving. */
import type { Network } from '@/core/network/network';
import { orderOf } from '@/core/splitting/order';
import { splittingOf } from '@/core/splitting/sections';
import { halving, oneByOne } from '@/core/testing/searches';
import type { Report } from './run';
import { seeded } from '../scripts/honesty/worlds';

const NETWORKS = 500;
/** A run with branches, some with a valve of their own at the fork, each with one to three things behind a valve. */
export function randomNetwork(seed: number): Network {
  const r = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(r() * (to - from + 1));
  const parts: Network['parts'][number][] = [];
  const links: Network['links'][number][] = [];
  const part = (id: string, kind: string, name: string, facts: object = {}) => {
    parts.push({ id, kind, name, place: '', x: 0, y: 0, facts } as never);
    return id;
  };
  const join = (from: string, to: string) => links.push({ id: `${from}-${to}`, from, to } as never);
  let last = part('point', 'point', 'Test point');
  for (let b = 0; b < whole(2, 5); b += 1) {
    let fork = part(`tee-${b}`, 'tee', '');
    join(last, fork);
    last = fork;
    for (let j = 0; j < whole(0, 4); j += 1) join(fork, part(`joint-${b}-${j}`, 'joint', `Joint ${b}.${j}`));
    if (r() < 0.4) {
      const valve = part(`branch-${b}`, 'valve', `Branch valve ${b}`, { use: 'hidden' });
      join(fork, valve);
      fork = valve;
    }
    for (let k = 0; k < whole(1, 3); k += 1) {
      const valve = part(`valve-${b}-${k}`, 'valve', 'lever', { use: 'appliance' });
      join(fork, valve);
      join(valve, part(`appliance-${b}-${k}`, 'appliance', `Appliance ${b}.${k}`));
    }
  }
  return { parts, links } as Network;
}
export interface Searched {
  networks: number;
  exact: number;
  least: number;
  single: number;
  halves: number;
}
/** Sums over so many random drawings, by how many parts they have. */
export function searched(networks: number, seed = 1): Map<string, Searched> {
  const bands = new Map<string, Searched>();
  for (let i = 0; i < networks; i += 1) {
    const s = splittingOf(randomNetwork(seed + i), {}, 4);
    if (!s) continue;
    const n = s.suspicion.length;
    const band =
      n <= 4 ? '2 to 4 parts' : n <= 8 ? '5 to 8 parts' : n <= 12 ? '9 to 12 parts' : 'over 12 parts';
    const into = bands.get(band) ?? { networks: 0, exact: 0, least: 0, single: 0, halves: 0 };
    const { step, exact } = orderOf(s);
    into.networks += 1;
    into.exact += Number(exact);
    into.least += step.minutes;
    into.single += oneByOne(s);
    into.halves += halving(s);
    bands.set(band, into);
  }
  return bands;
}
export function splitting(report: Report): void {
  for (const [band, s] of [...searched(NETWORKS)].sort()) {
    const mean = (v: number) => v / s.networks;
    console.log(
      `     ${band.padEnd(16)} ${String(s.networks).padStart(4)} drawings, ${s.exact} exact; min: ${mean(s.least).toFixed(1)}, one by one ${mean(s.single).toFixed(1)}, halving ${mean(s.halves).toFixed(1)}`,
    );
    report(`search, ${band}, of one by one`, (100 * s.least) / s.single, '%');
    report(`search, ${band}, of halving`, (100 * s.least) / s.halves, '%');
  }
}
