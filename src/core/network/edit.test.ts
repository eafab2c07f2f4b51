import fc from 'fast-check';
import { bakery } from '@/core/testing/bakery';
import { added, branchOf, copied, joined, moved, removed, type Sheet } from './edit';
import { networkFrom } from './enter';
import { reachOf } from './flood';
import { sectionOf, installationOf } from './installation';
import { GRID, linksAt, type Network } from './network';

const start = networkFrom(bakery());
const tee = { kind: 'tee', name: '', place: '', facts: {} } as const;
const between = (s: Sheet, a: string, b: string) =>
  s.links.filter((l) => (l.from === a && l.to === b) || (l.from === b && l.to === a)).length;
const [oven] = bakery().appliances;

test('a part set into a line, and taken out again: the line is whole and the pipe still on it', () => {
  const line = start.links.find((l) => l.pipe)!;
  const more = added(start, tee, { link: line.id }, ['new', 'new-link']);
  expect([
    between(more, line.from, 'new'),
    between(more, 'new', line.to),
    between(more, line.from, line.to),
  ]).toEqual([1, 1, 0]);
  expect(more.links.find((l) => l.pipe?.id === line.pipe!.id)).toMatchObject({ from: line.from, to: 'new' });
  const again = removed(more, 'new', 'healed');
  expect(between(again, line.from, line.to)).toBe(1);
  expect(again.links.find((l) => l.id === 'healed')!.pipe).toEqual(line.pipe);
});
test('a part added to another is joined to it; to nothing, it stands loose', () => {
  const more = added(start, tee, { part: 'point' }, ['new', 'l']);
  expect(linksAt(more, 'new')).toEqual([{ id: 'l', from: 'point', to: 'new' }]);
  expect(linksAt(added(start, tee, {}, ['new', 'l']), 'new')).toEqual([]);
  expect(added({ parts: [], links: [] } as Network, tee, {}, ['new', 'l']).parts).toHaveLength(1);
});
test('joining what is joined parts it; nothing is joined to itself or to nobody', () => {
  const parted = joined(start, 'supply', 'source', 'x');
  expect(between(parted, 'supply', 'source')).toBe(0);
  expect(between(joined(parted, 'supply', 'source', 'x'), 'supply', 'source')).toBe(1);
  expect(joined(start, 'supply', 'supply', 'x')).toBe(start);
  expect(joined(start, 'supply', 'ghost', 'x')).toBe(start);
});
test('a branch is what lies beyond, seen from source and gauge; a copy of it is another appliance with its own valve', () => {
  const valve = `valve-${oven!.id}`;
  expect(branchOf(start, valve).sort()).toEqual([oven!.id, valve].sort());
  expect(branchOf(start, oven!.id)).toEqual([oven!.id]);
  expect(branchOf(start, 'supply')).toEqual(['supply']);
  const two = copied(start, valve, (id) => `${id}*`);
  const section = sectionOf(installationOf(bakery(), two));
  expect(section.appliances.map((a) => a.id)).toEqual([
    ...bakery().appliances.map((a) => a.id),
    `${oven!.id}*`,
  ]);
  expect(section.appliances[2]).toMatchObject({ name: oven!.name, valve: oven!.valve, volume: oven!.volume });
  expect(reachOf(two).parts.has(`${oven!.id}*`)).toBe(true);
});
test('laws: whatever is done by hand, every line ends on a part and every part is on the sheet', () => {
  const any = fc.constantFrom(...start.parts.map((p) => p.id), 'n1', 'n2', 'ghost');
  const step = fc.oneof(
    fc.tuple(fc.constant('add' as const), any, fc.constantFrom(...start.links.map((l) => l.id), 'none')),
    fc.tuple(fc.constant('remove' as const), any, any),
    fc.tuple(fc.constant('join' as const), any, any),
    fc.tuple(fc.constant('copy' as const), any, any),
    fc.tuple(fc.constant('move' as const), any, fc.integer({ min: -999, max: 999 })),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
      let n = 0;
      const fresh = () => `n${(n += 1)}`;
      let s: Network = start;
      for (const [what, one, two] of steps) {
        if (what === 'add') s = added(s, tee, { part: one, link: two as string }, [fresh(), fresh()]);
        else if (what === 'remove') s = removed(s, one, fresh());
        else if (what === 'join') s = joined(s, one, two as string, fresh());
        else if (what === 'move') s = moved(s, one, two as number, two as number);
        else if (s.parts.some((p) => p.id === one)) {
          const round = fresh();
          s = copied(s, one, (id) => `${id}/${round}`);
        }
        const ids = new Set(s.parts.map((p) => p.id));
        expect(ids.size).toBe(s.parts.length);
        expect(new Set(s.links.map((l) => l.id)).size).toBe(s.links.length);
        for (const l of s.links)
          expect([ids.has(l.from), ids.has(l.to), l.from === l.to]).toEqual([true, true, false]);
        for (const p of s.parts) {
          expect(Number.isInteger(p.x) && Number.isInteger(p.y)).toBe(true);
          expect(p.x >= 0 && p.x <= GRID.width && p.y >= 0 && p.y <= GRID.height).toBe(true);
        }
        reachOf(s);
      }
    }),
  );
});

test('an end of a line is drawn by itself, whatever is chosen: what it is joined to is found out', () => {
  const start: Sheet = {
    parts: [{ id: 'p', kind: 'connection' as const, name: 'Pump inlet', place: '', x: 10, y: 10, facts: {} }],
    links: [],
  };
  const outlet = { kind: 'outlet' as const, name: 'Skimmer', place: '', facts: {} };
  const sheet = added(start, outlet, { part: 'p' }, ['s', 'l']);
  expect([sheet.parts.map((p) => p.id), sheet.links]).toEqual([['p', 's'], []]);
});
