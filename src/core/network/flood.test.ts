import fc from 'fast-check';
import { bakery } from '@/core/testing/bakery';
import { networkFrom, withNetwork } from './enter';
import { reachOf } from './flood';
import { pipesOf, unanswered } from './installation';
import { positionKey, servedBy, type Network, type Part, type Position } from './network';

const drawn = networkFrom(bakery());
const set = (n: Network, id: string, change: Partial<Part>): Network => ({
  ...n,
  parts: n.parts.map((p) => (p.id === id ? { ...p, ...change } : p)),
});
const stand = (n: Network, id: string, position: Position) => set(n, id, { position });
const first = bakery().appliances[0]!;

test('drawn from the lists: everything behind the closed supply valve is in, the supply is out', () => {
  const r = reachOf(drawn);
  expect(r.boundaries.map((b) => b.id)).toEqual(['supply']);
  expect(r.outside.map((n) => n.id)).toEqual(['source']);
  expect(r.warnings).toEqual([]);
});
test('a source left open, a closed valve that hides an appliance, a missing test point, a loose part: each is said', () => {
  expect(reachOf(stand(drawn, 'supply', 'open')).warnings[0]).toMatch(/stands open to the section/);
  const hidden = reachOf(stand(drawn, `valve-${first.id}`, 'closed'));
  expect(hidden.boundaries.map((b) => b.id)).toContain(`valve-${first.id}`);
  expect(hidden.warnings).toEqual([expect.stringContaining(`${first.name} is not reached`)]);
  const none = reachOf({ ...drawn, parts: drawn.parts.filter((p) => p.kind !== 'point') });
  expect(none.parts.size).toBe(0);
  expect(none.warnings[0]).toMatch(/no test point/);
  const point = drawn.parts.find((p) => p.kind === 'point')!;
  expect(reachOf({ parts: [point], links: [] }).warnings[0]).toMatch(/joined to nothing/);
});
test('the positions of a stage stand in place of the drawn ones, by the name a run knows a valve under', () => {
  expect(reachOf(drawn, { [first.id]: 'closed' }).boundaries.map((b) => b.id)).toEqual([
    'supply',
    `valve-${first.id}`,
  ]);
  expect(reachOf(drawn, { supply: 'open' }).parts.has('source')).toBe(true);
  expect(reachOf(drawn, { stranger: 'closed' })).toEqual(reachOf(drawn));
  const valve = drawn.parts.find((p) => p.id === `valve-${first.id}`)!;
  expect([servedBy(drawn, valve)?.id, positionKey(drawn, valve)]).toEqual([first.id, first.id]);
});
test('a pipe behind a closed valve is no part of the section and is named; one joined to nothing still counts', () => {
  const branch = drawn.links.find((l) => l.from === `tee-${first.id}` && l.to === `valve-${first.id}`)!;
  const pipe = { ...bakery().pipes[0]!, id: 'far', name: 'Far run' };
  const beyond = drawn.links.find((l) => l.from === branch.to)!;
  const long = { ...drawn, links: drawn.links.map((l) => (l === beyond ? { ...l, pipe } : l)) };
  expect(pipesOf(long).shutOff).toEqual([]);
  const closed = stand(long, branch.to, 'closed');
  expect(pipesOf(closed).shutOff).toEqual([pipe]);
  expect(withNetwork(bakery(), closed).pipes.map((p) => p.id)).toEqual(bakery().pipes.map((p) => p.id));
  expect(unanswered(closed)).toEqual(['Far run lies behind a closed valve: it is no part of this section.']);
  const loose = { ...closed, links: closed.links.filter((l) => l !== branch) };
  expect(pipesOf(loose).inside).toContainEqual(pipe);
});
test('what nobody has answered is asked by name', () => {
  const near = { x: 9, y: 9, place: '', facts: {} };
  const asked = (kind: Part['kind']) =>
    unanswered({ ...drawn, parts: [...drawn.parts, { ...near, id: 'n', kind, name: 'Thing' }] });
  expect(asked('fitting')).toEqual([expect.stringMatching(/Thing: what does it permit/)]);
  expect(asked('opening')).toEqual([expect.stringMatching(/Thing: how wide/)]);
  expect(asked('appliance')).toEqual([expect.stringMatching(/Thing: its volume is not known/)]);
  expect(asked('valve')).toEqual([expect.stringMatching(/Thing: what does it shut/)]);
  expect(asked('tee')).toEqual([]);
  const section = withNetwork(bakery(), {
    ...drawn,
    parts: [...drawn.parts, { ...near, id: 'n', kind: 'valve', name: 'Thing' }],
  });
  expect(section.valves).toEqual([{ id: 'n', name: 'Thing', place: '', kind: 'hidden' }]);
});
test('laws: opening a valve never shrinks what is reached; nothing is at once in and a boundary', () => {
  const valves = drawn.parts.filter((n) => n.kind === 'valve').map((n) => n.id);
  fc.assert(
    fc.property(fc.subarray(valves), fc.constantFrom(...valves), (closed, one) => {
      const s = valves.reduce((x, v) => stand(x, v, closed.includes(v) ? 'closed' : 'open'), drawn);
      const [before, after] = [reachOf(s), reachOf(stand(s, one, 'open'))];
      for (const n of before.parts) expect(after.parts.has(n)).toBe(true);
      for (const b of before.boundaries) expect(before.parts.has(b.id)).toBe(false);
      for (const l of before.shutOff) expect(before.links.has(l)).toBe(false);
    }),
  );
});
