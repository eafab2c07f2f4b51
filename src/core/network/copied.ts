/** An installation like another: what belongs to that one alone is not taken along. */
import type { System } from '@/core/installation/section';
import type { Fact } from './catalogue';
import { networkOf, withNetwork } from './enter';

/** Facts of one thing and no other of its make. */
const OF_ONE = ['serial', 'certificate'];
const without = <V>(facts: Readonly<Record<string, V>>): Readonly<Record<string, V>> =>
  Object.fromEntries(Object.entries(facts).filter(([key]) => !OF_ONE.includes(key)));

/**
 * A system drawn and counted as another one is. Serial numbers and certificates, a measured volume, heights, what was seen
 * there, and kinds of valve of which somebody said that there are none stay behind: each is looked at anew where it is.
 */
export function copiedSystem(from: System, id: string, name: string): System {
  const {
    measured: _measured,
    seen: _seen,
    looks: _looks,
    foundEnds: _ends,
    noValves: _none,
    heights: _heights,
    section: _section,
    schematic: _schematic,
    ...rest
  } = from;
  const network = networkOf(from);
  const { serial: _serial, ...meter } = from.meter;
  const { serial: _tankSerial, ...tank } = from.tank ?? { serial: '' };
  const facts = {
    ...rest,
    id,
    name,
    meter,
    ...(from.tank ? { tank: tank as System['tank'] } : {}),
  } as System;
  return withNetwork(facts, {
    ...network,
    parts: network.parts.map((p) => ({ ...p, facts: without<Fact>(p.facts) })),
  });
}
