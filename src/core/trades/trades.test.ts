import { pipeFigures } from '@/core/installation/pipes';
import { PART_KINDS } from '@/core/network/catalogue';
import { reachOf } from '@/core/network/flood';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { dutyFrom, MEDIA, servedBy, tradeFor, toldBy, tradeOf, TRADES, USES } from '.';
import { type FirstFacts, firstSection } from './first';

test('each use of a medium has one trade; of which nothing more is said has the first that carries it', () => {
  for (const medium of MEDIA) {
    const carrying = TRADES.filter((t) => t.carries.includes(medium));
    expect(tradeOf({ medium })).toBe(carrying[0]);
    expect(tradeFor(medium)).toBe(carrying[0]);
    for (const duty of Object.keys(servedBy(medium))) {
      expect(carrying.filter((t) => duty in t.serves)).toEqual([tradeOf({ medium, duty })]);
      expect(dutyFrom(medium, duty)).toEqual({ duty });
    }
  }
  expect(new Set(USES).size).toBe(USES.length);
  expect(tradeOf({ medium: 'water', duty: 'main' }).name).toBe('main');
  // the use of another medium, left over in a form, says nothing
  expect(dutyFrom('natural gas', 'main')).toEqual({});
  expect(tradeOf({ medium: 'natural gas', duty: 'main' }).fuel).toBe(true);
  expect(tradeFor('steam')).toBeUndefined();
  expect(() => tradeOf({ medium: 'steam' })).toThrow('No trade knows steam.');
});
test('told by medium and use, an installation is of one trade, the one it is of', () => {
  for (const medium of MEDIA)
    for (const duty of ['', 'zebra', ...USES]) {
      const told = TRADES.filter((t) => {
        const { media, duties, not } = toldBy(t);
        return media.includes(medium) && (duties.includes(duty) || (not !== null && !not.includes(duty)));
      });
      expect([medium, duty, told]).toEqual([medium, duty, [tradeOf({ medium, duty })]]);
    }
});
test('every part there is stands in some palette, and a palette names each once', () => {
  const all = new Set(TRADES.flatMap((t) => t.palette));
  expect(PART_KINDS.filter((k) => !all.has(k))).toEqual([]);
  for (const t of TRADES) expect(new Set(t.palette).size).toBe(t.palette.length);
});

const { nominal, bore } = pipeFigures('copper-thin', '22 × 0.9');
const pipe = {
  id: 'p',
  name: 'Main run',
  material: 'copper',
  length: q('12 m'),
  size: nominal,
  bore,
};
const facts = (over: Partial<FirstFacts>): FirstFacts => ({
  id: 's',
  name: 'New place',
  medium: 'natural gas',
  workingPressure: q('21 mbar'),
  meter: { kind: 'none', name: 'none', volume: q('0 l') },
  pipe,
  counted: [],
  ...over,
});
const G4 = { kind: 'diaphragm-U6-G4', name: 'G4', volume: q('8 l') };
test('gas from meter, largest pipe and what was counted: each appliance has its own valve and is reached', () => {
  const s = firstSection(
    facts({
      meter: G4,
      counted: [
        { word: 'boiler', count: 1, volume: q('0.3 l') },
        { word: 'hob', count: 2, volume: q('0.2 l') },
      ],
    }),
  );
  expect(s.appliances.map((a) => [a.name, a.kind, a.valve])).toEqual([
    ['Boiler', 'boiler', 'isolating valve'],
    ['Hob 1', 'hob', 'isolating valve'],
    ['Hob 2', 'hob', 'isolating valve'],
  ]);
  expect([s.meter.kind, s.pipes[0]!.length, s.supplyValveOwner]).toEqual([G4.kind, q('12 m'), 'gas network']);
  const reach = reachOf(s.network!);
  expect([reach.warnings, reach.boundaries.map((b) => b.name)]).toEqual([[], ['supply valve at the meter']]);
});
test('loops of a manifold, openings of a drain, a bare main: each by its own trade', () => {
  const loops = firstSection(
    facts({ medium: 'water', duty: 'loops', counted: [{ word: 'loop', count: 3, volume: q('0 l') }] }),
  );
  expect(loops.loops?.map((l) => l.name)).toEqual(['Loop 1', 'Loop 2', 'Loop 3']);
  expect(loops.appliances).toEqual([]);
  const drain = firstSection(
    facts({ medium: 'drain', counted: [{ word: 'closet riser', count: 2, volume: q('0 l') }] }),
  );
  expect(drain.surfaces?.map((x) => [x.name, x.bore])).toEqual([
    ['Closet riser 1', pipe.bore],
    ['Closet riser 2', pipe.bore],
  ]);
  const main = firstSection(facts({ medium: 'water', duty: 'main', counted: [] }));
  expect([main.surfaces, main.loops, main.appliances]).toEqual([undefined, undefined, []]);
  expect(main.network!.parts.map((p) => p.kind)).toContain('cap');
});
