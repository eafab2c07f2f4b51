import { packs, planOf } from '@/core/testing/quarter';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { beginsHold, holdAhead } from './follow-on';
import { currentVisit } from './read';
import { begin, reduce } from './reduce';
import { enter } from './transition';

const p = plan();
const after = (lines: ReturnType<typeof upTo>) => reduce(p, play(p, lines));
const whole = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48')];

test('a fill leads into the let-by, settling into the hold; a judged end into nothing by itself', () => {
  const ahead = (n: number) => holdAhead(p, after(whole.slice(0, n)));
  expect(ahead(3)).toMatchObject({ role: 'let-by', minutes: 1, cautions: ['leave-valve'] });
  expect(ahead(4)).toBeNull(); // the let-by waits for its own reading
  expect(ahead(5)).toBeNull(); // it runs, and is judged
  expect(ahead(6)).toMatchObject({ role: 'settle', minutes: 1 });
  expect(ahead(8)).toMatchObject({ role: 'tightness', minutes: 2 });
  expect(ahead(10)).toBeNull();
});
test('it begins only inside the band of the hold, both ends counted, and only where it has not begun', () => {
  const waiting = after(whole.slice(0, 4));
  expect(currentVisit(waiting)!.kind).toBe('hold');
  for (const [figure, begins] of [
    ['6.99 mbar', false],
    ['7.00 mbar', true],
    ['10.00 mbar', true],
    ['10.01 mbar', false],
    ['0.008 bar', false],
  ] as const)
    expect([figure, beginsHold(p, waiting, q(figure))]).toEqual([figure, begins]);
  expect(beginsHold(p, after(whole.slice(0, 5)), q('9.10 mbar'))).toBe(false);
  expect(beginsHold(p, after(whole.slice(0, 3)), q('9.10 mbar'))).toBe(false);
});
test('a pump that still runs, and a hold that runs from an earlier reading, are not begun by the next', () => {
  for (const pack of Object.values(packs))
    for (const procedure of pack.procedures.filter((x) => !x.partOnly))
      for (const [key, stage] of Object.entries(procedure.stages)) {
        if (stage.kind !== 'fill') continue;
        const to = [stage.on['in-band']].flat().map((e) => (typeof e === 'string' ? e : e?.to))[0];
        const next = to ? procedure.stages[to] : undefined;
        if (!stage.evacuates && !(next?.kind === 'hold' && next.since)) continue;
        const one = planOf(procedure.id);
        const state = begin(one);
        enter(one, state, key, 0);
        expect([procedure.id, key, holdAhead(one, state)]).toEqual([procedure.id, key, null]);
      }
});
