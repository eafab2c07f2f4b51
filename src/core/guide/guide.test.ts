import { DESK_LINES } from '@/core/desk';
import { packs } from '@/core/testing/quarter';
import { ARTICLES, DIFFERENCES, findTopics, GUIDE_WORDS, procedureTopics, TOPICS } from './index';

const lines = new Set(DESK_LINES.map((l) => l.id));
const all = [...TOPICS, ...procedureTopics(Object.values(packs))];
const first = (typed: string) => findTopics(all, typed)[0]?.id;

test('articles lead to formulas and words that are there', () => {
  for (const [id, a] of Object.entries(ARTICLES)) {
    for (const line of a.desk) expect([id, line, lines.has(line)]).toEqual([id, line, true]);
    for (const word of a.words ?? []) expect([id, word, word in GUIDE_WORDS]).toEqual([id, word, true]);
  }
});
test('every formula of the Desk is reached from what it explains', () => {
  // quick figures and rule tables that no figure of a run is asked by
  const alone = ['laminar-leak', 'head', 'refrigerant-loss', 'gauge-part', 'pool-plugs', 'pool-volume'];
  const led = new Set(Object.values(ARTICLES).flatMap((a) => a.desk));
  expect(
    DESK_LINES.filter((l) => l.group !== 'units' && !led.has(l.id) && !alone.includes(l.id)).map((l) => l.id),
  ).toEqual([]);
});
test('a topic has one address, and each is found under its own title first', () => {
  expect(new Set(all.map((t) => t.id)).size).toBe(all.length);
  for (const t of all)
    expect([
      t.id,
      findTopics(all, t.title)
        .slice(0, 4)
        .map((f) => f.title),
    ]).toEqual([t.id, expect.arrayContaining([t.title])]);
});
test('words are found by what else people call them; all words must stand there; none finds nothing', () => {
  expect(first('let-by')).toBe('word/let-by');
  expect(findTopics(all, 'micron').map((t) => t.id)).toContain('word/vacuum');
  expect(first('trapped air')).toBe('formula/trapped-air');
  expect(findTopics(all, 'staged low').map((t) => t.id)).toContain(
    'procedure/gas-metric/gas-lowpressure-staged',
  );
  expect(findTopics(all, 'let-by zebra')).toEqual([]);
  expect(findTopics(all, '   ')).toEqual([]);
});
test('a rise is never called proof, and no text makes anything tight', () => {
  const texts = [
    ...Object.values(ARTICLES).flatMap((a) => a.text),
    ...Object.values(GUIDE_WORDS).map((w) => w.text),
    ...DIFFERENCES.map((d) => d.here),
  ];
  for (const t of texts) expect(t).not.toMatch(/rise (proves|shows) (that )?(it is )?tight|certainly tight/i);
  expect(ARTICLES.permitted.text.join(' ')).toMatch(/rise is never proof/);
});
