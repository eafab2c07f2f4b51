import type { ChecksStage } from '@/core/kinds';
import { packs } from '@/core/testing/quarter';
import { bakery, plan } from '@/core/testing/bakery';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { checkLines } from '@/core/run/read';
import { goodAnswer, walkOf } from './walk';

const prepare = (p = plan()) => walkOf(p, p.procedure.stages['prepare'] as ChecksStage);

test('the lines of an appliance are one thing, with its own valve; each appliance its own', () => {
  const things = prepare();
  expect(things.filter((t) => t.whole && t.place).map((t) => [t.title, t.place, t.whole])).toEqual([
    ['Deck oven', 'bakehouse', 'Off, pilot out, cannot start by itself, valve OPEN'],
    ['Hob', 'shop', 'Off, lid raised, cannot start by itself, valve OPEN'],
  ]);
});
test('smell now and reported, each step of the detector, and what bounds the test stand alone', () => {
  const things = prepare();
  for (const key of ['smell-now', 'smell-reported', 'prove-1', 'voltage', 'prove-2', 'supply'])
    expect(things.filter((t) => t.lines.some((l) => l.item.key === key))).toEqual([
      expect.objectContaining({ whole: '', lines: [expect.anything()] }),
    ]);
});
test('things at one place follow each other; nothing passes a line that is about no part', () => {
  const oven = bakery().appliances[0]!;
  const appliances = ['bakehouse', 'shop', 'bakehouse'].map((place, i) => ({
    ...oven,
    id: `a${i}`,
    name: `A${i}`,
    place,
  }));
  const p = plan({ system: { appliances } });
  const walk = prepare(p);
  expect(walk.filter((t) => t.title.startsWith('A')).map((t) => t.title)).toEqual(['A0', 'A2', 'A1']);
  expect(walk[0]!.lines[0]!.item.key).toBe('smell-now');
  expect(walk.flatMap((t) => t.lines)).toHaveLength(
    checkLines(p, p.procedure.stages['prepare'] as ChecksStage).length,
  );
});
test('what nobody has entered is asked by itself', () => {
  const { noValves: _none, ...open } = bakery();
  const p = plan();
  const walk = prepare({
    ...p,
    format: 2,
    system: { ...open, pipes: [{ ...open.pipes[0]!, length: q('3 m') }] },
  } as typeof p);
  const asked = walk.filter((t) => t.lines[0]!.subject?.id === 'not-entered');
  expect(asked).toHaveLength(1);
  expect(asked[0]!.whole).toBe('');
});

const lists = Object.values(packs).flatMap((pack) =>
  pack.procedures.flatMap((procedure) =>
    Object.entries(procedure.stages).flatMap(([key, stage]) =>
      stage.kind === 'checks' ? [[procedure.id, key, stage] as const] : [],
    ),
  ),
);
test.each(lists)(
  '%s, %s: what an alarm hangs on is never settled along with something else',
  (_, __, stage) => {
    for (const item of stage.items) {
      const answer = goodAnswer({ id: item.key, item });
      if (item.ask && (item.yes || item.denies)) expect(answer).toBeNull();
      // what is gathered at one place can be settled by one tap, in words of its own
      if (item.at)
        expect([item.key, answer !== null, !!item.short, !item.ordered || !item.each]).toEqual([
          item.key,
          true,
          true,
          true,
        ]);
    }
  },
);
