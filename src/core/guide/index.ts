/** The guide: words, articles behind each "why?", formulas, procedures and schools, as one list that can be searched. */
import { DESK_LINES } from '@/core/desk';
import type { Pack } from '@/core/pack/schema';
import { ARTICLES } from './articles';
import { DIFFERENCES } from './schools';
import { wordsOf } from './typed';
import { GUIDE_WORDS } from './words';

export * from './texts';

export const TOPIC_KINDS = {
  why: 'What stands behind a figure',
  word: 'Words',
  procedure: 'Procedures',
  formula: 'Formulas',
  schools: 'Schools',
  keys: 'Keys',
} as const;
export type TopicKind = keyof typeof TOPIC_KINDS;
export interface Topic {
  /** `why/leak-rate`, `word/let-by`, `formula/head`, `procedure/gas-metric/gas-lowpressure-staged`, `schools`, `keys`. */
  readonly id: string;
  readonly kind: TopicKind;
  readonly title: string;
  /** What it is about, in a line. */
  readonly about: string;
  /** Everything under which it is looked for. */
  readonly text: string;
}
const topic = (kind: TopicKind, id: string, title: string, about: string, more = ''): Topic => ({
  id: id ? `${kind}/${id}` : kind,
  kind,
  title,
  about,
  text: `${title} ${about} ${more}`.toLowerCase(),
});
/** Topics that are the same for everybody. */
export const TOPICS: readonly Topic[] = [
  ...Object.entries(ARTICLES).map(([id, a]) => topic('why', id, a.title, a.text[0]!, a.text.join(' '))),
  ...Object.entries(GUIDE_WORDS).map(([id, w]) => topic('word', id, w.term, w.text, w.also)),
  ...DESK_LINES.map((f) => topic('formula', f.id, f.title, f.answers, `${f.formula} ${f.source}`)),
  topic(
    'schools',
    '',
    'Where schools differ',
    'The questions on which practitioners differ, and what stands here.',
    DIFFERENCES.map((d) => `${d.question} ${d.ways.join(' ')}`).join(' '),
  ),
  topic('keys', '', 'Keys', 'What the keys do on the bench and everywhere.', 'keyboard shortcuts'),
];
/** Topics of the procedures that a house works by. */
export const procedureTopics = (packs: readonly Pack[]): readonly Topic[] =>
  packs.flatMap((pack) =>
    pack.procedures.map((p) =>
      topic(
        'procedure',
        `${pack.id}/${p.id}`,
        p.title,
        p.summary,
        `${pack.title} ${pack.school} ${p.proves.join(' ')}`,
      ),
    ),
  );
/** Topics in which every word occurs, those first whose title has them all. */
export function findTopics(topics: readonly Topic[], typed: string): readonly Topic[] {
  const words = wordsOf(typed);
  if (!words.length) return [];
  const found = topics.filter((t) => words.every((w) => t.text.includes(w)));
  const rank = (t: Topic) => {
    const title = t.title.toLowerCase();
    return title.startsWith(words[0]!) ? 0 : words.every((w) => title.includes(w)) ? 1 : 2;
  };
  return found.toSorted((a, b) => rank(a) - rank(b));
}
