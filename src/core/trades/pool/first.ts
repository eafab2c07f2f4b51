/** A pool drawn from what was counted: its outline, outlets around it, connections at the equipment. */
import { capital } from '@/core/quantity/words';
import { OUTLET_TYPES, OUTLET_WORDS, type OutletType } from '@/core/installation/parts';
import type { Pipe } from '@/core/installation/pipe';
import type { Link, Network, Outline, Part } from '@/core/network/network';

const OUTLINE: Outline = { shape: 'rectangle', x: 40, y: 12, width: 80, height: 40 };
/** Where outlets of a type usually sit: along an edge, or on the floor. House figures, only for a first drawing. */
const RUN: Readonly<Record<OutletType, { from: readonly [number, number]; to: readonly [number, number] }>> =
  {
    return: { from: [52, 12], to: [108, 12] },
    skimmer: { from: [120, 20], to: [120, 44] },
    drain: { from: [74, 30], to: [90, 30] },
    cleaner: { from: [48, 52], to: [60, 52] },
    'jet-upper': { from: [72, 52], to: [88, 52] },
    'jet-lower': { from: [98, 52], to: [114, 52] },
    other: { from: [52, 42], to: [112, 42] },
  };
/** Even places along a run: one in its middle, several from end to end. */
function placed(type: OutletType, n: number, of: number): { x: number; y: number } {
  const { from, to } = RUN[type];
  const t = of === 1 ? 0.5 : n / (of - 1);
  const at = (a: number, b: number) => Math.round(a + (b - a) * t);
  return { x: at(from[0], to[0]), y: at(from[1], to[1]) };
}

/**
 * @param counted outlets in the catalogue's words @param pipe the usual pipe of the lines: its size stands at every end, and one run
 * of it from the equipment to the first outlet. What is joined to what is left open: that is found out.
 */
export function poolNetwork(
  counted: readonly { readonly word: string; readonly count: number }[],
  pipe: Pipe,
): Network {
  const outlets = OUTLET_TYPES.flatMap((type): Part[] => {
    const count = counted.find((c) => c.word === OUTLET_WORDS[type])?.count ?? 0;
    return Array.from({ length: count }, (_, i) => ({
      id: `${type}-${i + 1}`,
      kind: 'outlet' as const,
      name: `${capital(OUTLET_WORDS[type])}${count > 1 ? ` ${i + 1}` : ''}`,
      place: '',
      ...placed(type, i, count),
      facts: { type, size: pipe.size },
    }));
  });
  const has = (...types: string[]) => outlets.some((o) => types.some((t) => t === o.facts.type));
  const connection = (type: string, name: string, y: number): Part => ({
    id: `at-${type}`,
    kind: 'connection',
    name,
    place: 'equipment',
    x: 12,
    y,
    facts: { type, size: pipe.size },
  });
  const connections = [
    connection('pump', 'Pump inlet', 20),
    connection('heater', 'After the heater', 34),
    ...(has('jet-upper') ? [connection('blower', 'Air blower', 48)] : []),
  ];
  const first = outlets.find((o) => o.facts.type === 'return') ?? outlets[0];
  const links: Link[] = first ? [{ id: 'run-1', from: 'at-heater', to: first.id, pipe }] : [];
  return { outline: OUTLINE, parts: [...connections, ...outlets], links };
}
