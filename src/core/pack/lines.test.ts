import { packs } from '@/core/testing/quarter';
import { lineKey } from '@/core/grammar/lines';
import { parseWithUnit } from '@/core/quantity/exact';
import { compareProcedures, ruleLines, shortOf } from './lines';
import type { Procedure } from './schema';

type Way = readonly (string | number)[];
const shipped = Object.values(packs).flatMap((pack) => pack.procedures.map((p) => [p.id, p] as const));

/** What stands at a way into a procedure; an entry of a list by its place or by its key. */
function standsAt(root: unknown, at: Way): unknown {
  return at.reduce<unknown>((here, key) => {
    if (Array.isArray(here))
      return typeof key === 'number' ? here[key] : here.find((x) => x?.key === key || x?.kind === key);
    return here && typeof here === 'object' ? (here as Record<string, unknown>)[key] : undefined;
  }, root);
}
/** Words for people: they explain a rule and are none. */
const WORDS =
  /^(title|summary|instruction|text|hint|\w*[sS]ource|confirms|because|label|question|reason|cannotProve)$/;
/** Every figure, number, mark and name below a value that a rule can rest on. */
function* leaves(value: unknown, at: Way = []): Generator<Way> {
  if (value && typeof value === 'object') {
    for (const [key, below] of Object.entries(value))
      if (!WORDS.test(key)) yield* leaves(below, [...at, Array.isArray(value) ? Number(key) : key]);
  } else if (typeof value === 'number' || value === true || isFigure(value)) yield at;
}
function isFigure(value: unknown): boolean {
  try {
    return typeof value === 'string' && Boolean(parseWithUnit(value));
  } catch {
    return false;
  }
}
/** The procedure with one of its values another. */
function altered(p: Procedure, at: Way): Procedure {
  const copy = structuredClone(p);
  const holder = standsAt(copy, at.slice(0, -1)) as Record<string | number, unknown>;
  const key = at[at.length - 1]!;
  const value = holder[key];
  if (typeof value === 'number') holder[key] = value + 1;
  else if (typeof value === 'string') holder[key] = value.replace(/\d/, (d) => String((Number(d) + 1) % 10));
  else delete holder[key];
  return copy;
}

describe.each(shipped)('%s', (_, p) => {
  const lines = ruleLines(p);
  test('no two lines are one, and each stands where there is something', () => {
    expect(new Set(lines.map(lineKey)).size).toBe(lines.length);
    expect(lines.filter((l) => standsAt(p, l.at.slice(0, -1)) === undefined).map(lineKey)).toEqual([]);
    expect(lines.filter((l) => l.at[0] === 'stages' && l.at.length < 3).map(lineKey)).toEqual([]);
  });
  test('a line that can be edited shows exactly what stands there', () => {
    const shown = (value: unknown) => (value && typeof value === 'object' ? 'item' : String(value));
    for (const l of lines.filter((x) => x.edit === 'figure' || x.edit === 'number'))
      expect([lineKey(l), l.value]).toEqual([lineKey(l), shown(standsAt(p, l.at))]);
  });
  test('lines that change places, and a line taken away, are seen once each', () => {
    for (const [key, stage] of Object.entries(p.stages)) {
      if (stage.kind !== 'checks' || stage.items.length < 2) continue;
      const turned = { ...stage, items: [...stage.items].reverse() };
      const less = { ...stage, items: stage.items.slice(1) };
      const by = (s: typeof stage) => compareProcedures(p, { ...p, stages: { ...p.stages, [key]: s } });
      expect(by(turned).map((c) => [c.label, c.permitsMore])).toEqual([['Order of the lines', true]]);
      expect(by(less).map((c) => [c.at[3], c.to, c.permitsMore])).toEqual([
        [stage.items[0]!.key, null, true],
      ]);
    }
  });
  test('no figure, number or mark changes in silence', () => {
    // one of each: the same field of the same kind of stage is compared in the same way wherever it stands
    const alike = (at: Way) =>
      at
        .map((k, i) => (i === 1 && at[0] === 'stages' ? p.stages[k]!.kind : typeof k === 'number' ? '#' : k))
        .join('/');
    const each = new Map([...leaves(p)].map((at) => [alike(at), at]));
    const silent = [...each.values()].filter((at) => compareProcedures(p, altered(p, at)).length === 0);
    expect(silent.map((at) => at.join('/'))).toEqual([]);
  });
});
test.each(shipped)(
  '%s in short: every stage in its order and every figure, in a part of the words',
  (_id, p) => {
    const short = shortOf(p);
    expect(short.flatMap((s) => (s.stage ? [s.stage] : []))).toEqual(Object.keys(p.stages));
    const figures = ruleLines(p).filter((l) => l.edit === 'figure' || l.edit === 'number');
    const told = new Set(short.flatMap((s) => s.figures.map((f) => `${f.label} ${f.value}`)));
    for (const l of figures) expect(told).toContain(`${l.label} ${l.value}`);
    const words = (x: unknown) => JSON.stringify(x).split(/\s+/).length;
    expect(words(short)).toBeLessThan(words(ruleLines(p).map((l) => [l.where, l.label, l.value])) / 2);
  },
);
