import { tradeOf } from '@/core/trades';
import fc from 'fast-check';
import { VALVE_KINDS } from '@/core/installation/parts';
import type { Schematic } from './drawn-before';
import type { System } from '@/core/installation/section';
import { exact } from '@/core/quantity/exact';
import { bakery } from '@/core/testing/bakery';
import { demoSystem, readDemo } from '../../../scripts/demo-data';
import { networkFrom, withListsOf } from './enter';
import { reachOf } from './flood';
import { installationOf, sectionOf } from './installation';
import { GRID, type Network } from './network';

const demo = readDemo().sites.flatMap((site) =>
  site.systems.map((s): [string, System] => [s.key, demoSystem(s, s.key)]),
);
/** A section without its drawing; where the gauge goes on what is parted is said by the drawing alone. */
const facts = ({ network: _n, schematic: _s, ...s }: System) =>
  tradeOf(s).parted ? { ...s, testPoint: '' } : s;
/** The drawing that such a section had beside its lists. */
const drawnBefore = (s: System): Schematic => {
  const n = networkFrom({
    ...s,
    meter: { ...s.meter, valve: '' },
    joints: [],
    valves: [],
    elements: [],
    factoryTested: [],
    loops: [],
    surfaces: [],
  });
  return {
    nodes: n.parts.map(({ facts: _f, place: _p, ...p }) => ({
      ...p,
      kind: p.kind === 'tank' ? 'source' : p.kind,
    })),
    links: n.links.map(({ pipe, ...l }) => ({ ...l, ...(pipe ? { pipe: pipe.id } : {}) })),
  } as Schematic;
};
const through = (s: System): System => sectionOf(installationOf(s, networkFrom(s)));

describe('a section and its network say the same', () => {
  test.each(demo)('%s of the demo', (_, s) => {
    expect(facts(through(s))).toEqual(facts(s));
    // and from the drawing of before
    const drawn = { ...s, schematic: drawnBefore(s) };
    expect(facts(through(drawn))).toEqual(facts(s));
  });

  const litre = fc.integer({ min: 0, max: 99 }).map((n) => exact(n, 1, 'l'));
  const mm = fc.integer({ min: 1, max: 999 }).map((n) => exact(n, 1, 'mm'));
  const bar = fc.integer({ min: 1, max: 99 }).map((n) => exact(n, 1, 'bar'));
  const word = fc.constantFrom('boiler', 'hob', 'Küche', 'x', 'a / b', 'supply', 'end', 'valve-1');
  const yes = fc.boolean();
  /** Ids that other lists use as well, and those that a network gives by itself. */
  const id = fc.constantFrom('1', '2', '3', 'supply', 'meter', 'point', 'end', 'source', 'tee-1', 'valve-1');
  const listOf = <T extends { id: string }>(one: fc.Arbitrary<T>, least = 0) =>
    fc.uniqueArray(one, { selector: (x) => x.id, minLength: least, maxLength: 4 });
  const thing = { id, name: word, place: word };
  const any: fc.Arbitrary<System> = fc
    .record({
      supplyValve: word,
      supplyValveOwner: word,
      testPoint: word,
      meter: fc.oneof(
        fc.record({ kind: fc.constantFrom('none', 'unknown'), name: word, volume: litre }),
        fc.record(
          {
            kind: word,
            name: word,
            volume: litre,
            serial: word,
            testDial: litre,
            valve: word,
            valveOwner: word,
          },
          { requiredKeys: ['kind', 'name', 'volume', 'valve'] },
        ),
      ),
      pipes: listOf(fc.record({ id, name: word, material: word, size: mm, bore: mm, length: mm }), 1),
      appliances: listOf(
        fc.record(
          {
            ...thing,
            kind: word,
            valve: word,
            hasPilot: yes,
            hasLid: yes,
            volume: litre,
            maxInlet: bar,
            make: word,
          },
          { requiredKeys: ['id', 'name', 'place', 'kind', 'valve', 'hasPilot', 'hasLid', 'volume'] },
        ),
      ),
      valves: listOf(
        fc.record({
          ...thing,
          kind: fc.constantFrom(...VALVE_KINDS.filter((k) => !['supply', 'meter', 'appliance'].includes(k))),
        }),
      ),
      regulators: listOf(
        fc.record({ ...thing, stage: word, maxInlet: bar }, { requiredKeys: ['id', 'name', 'place'] }),
      ),
      tank: fc.option(fc.record({ ...thing, size: word }), { nil: undefined }),
      joints: listOf(fc.record(thing)),
      elements: listOf(fc.record({ ...thing, most: bar })),
      factoryTested: listOf(fc.record({ id, name: word, certificate: word })),
      surfaces: listOf(fc.record({ id, name: word, bore: mm, count: fc.integer({ min: 1, max: 9 }) })),
      loops: listOf(fc.record({ id, name: word, valve: word, flowMeter: word })),
    })
    .map((s) => {
      const full = Object.entries(s).filter(([, v]) => v !== undefined && !(Array.isArray(v) && !v.length));
      return { ...bakery(), appliances: [], ...Object.fromEntries(full) };
    });
  const whole = (n: Network) => {
    const ids = new Set(n.parts.map((p) => p.id));
    expect(ids.size).toBe(n.parts.length);
    expect(new Set(n.links.map((l) => l.id)).size).toBe(n.links.length);
    for (const l of n.links) expect([ids.has(l.from), ids.has(l.to)]).toEqual([true, true]);
    for (const p of n.parts) {
      expect([p.x, p.y].every((v) => Number.isInteger(v) && v >= 0)).toBe(true);
      expect(p.x <= GRID.width && p.y <= GRID.height).toBe(true);
    }
  };
  test('law: whatever the lists hold comes back from the network, which is one piece reached from the gauge', () => {
    fc.assert(
      fc.property(any, (s) => {
        const n = networkFrom(s);
        whole(n);
        expect(facts(through(s))).toEqual(facts(s));
        const all = reachOf({
          ...n,
          parts: n.parts.map((p) => (p.position ? { ...p, position: 'open' as const } : p)),
        });
        expect([...all.outside, ...all.boundaries.filter((b) => b.kind !== 'cap')]).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });
  test('what the form cannot show is not lost by saving it: a part that still lacks a fact, a pipe behind a closed valve', () => {
    const n = networkFrom(bakery());
    const part = { kind: 'fitting' as const, name: 'Strainer', place: '', facts: {}, x: 9, y: 90 };
    const valve = n.parts.find((p) => p.id === 'valve-oven')!;
    const far = { ...bakery().pipes[0]!, id: 'far' };
    const stood: Network = {
      parts: [
        ...n.parts.map((p) => (p === valve ? { ...p, position: 'closed' as const } : p)),
        { ...part, id: 'new' },
      ],
      links: n.links.map((l) => (l.from === valve.id ? { ...l, pipe: far } : l)),
    };
    const section = sectionOf(installationOf(bakery(), stood));
    expect([section.elements, section.pipes.map((p) => p.id)]).toEqual([undefined, ['p1', 'p2']]);
    const saved = withListsOf({ ...section, name: 'Renamed' }).network!;
    expect(saved.parts.find((p) => p.id === 'new')).toMatchObject({ name: 'Strainer' });
    expect(
      saved.links
        .filter((l) => l.pipe)
        .map((l) => l.pipe!.id)
        .sort(),
    ).toEqual(['far', 'p1', 'p2']);
  });
  test('law: lists changed on a form arrive in a network that stood, and what stays keeps its place', () => {
    fc.assert(
      fc.property(any, any, (before, after) => {
        const stood = through(before);
        const now = withListsOf({ ...after, network: stood.network! });
        whole(now.network!);
        expect(facts(now)).toEqual(facts(after));
        for (const p of now.network!.parts) {
          const own = stood.network!.parts.find((x) => x.id === p.id && x.kind === p.kind);
          if (own && !['valve', 'tee', 'cap', 'point'].includes(p.kind))
            expect([p.x, p.y]).toEqual([own.x, own.y]);
        }
        // entered twice, nothing more changes
        expect(withListsOf(now)).toEqual(now);
      }),
      { numRuns: 40 },
    );
  });
});
