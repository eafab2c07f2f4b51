/** A check list by how one walks: the lines of one thing together, things at one place together. */
import { capital, lower } from '@/core/quantity/words';
import type { ChecksStage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { type CheckLine, checkLines, UNKNOWN } from '@/core/run/read';
import type { EventOf } from '@/core/run/events';

type Said = EventOf<'check'>['answer'];
/** What stands before a person at one moment of the walk. */
export interface Thing {
  readonly key: string;
  /** Name of the part, or where it is seen to; '' for a line that stands alone. */
  readonly title: string;
  readonly place: string;
  readonly lines: readonly CheckLine[];
  /** All that it should be, in a sentence; '' where every line is answered by itself. */
  readonly whole: string;
}

/** The one answer by which a line is as it should be; null where only the person knows: it is asked by itself. */
export function goodAnswer({ item }: CheckLine): Exclude<Said, 'undone'> | null {
  if (!item.ask) return 'done';
  return item.yes || item.denies ? null : (item.must?.answer ?? null);
}
/** What bounds the test, a timed sequence, and what nobody has entered are never settled along with something else. */
const alone = (line: CheckLine): boolean =>
  line.item.ordered === true || line.item.valves?.includes('supply') === true || line.subject?.id === UNKNOWN;
const shortOf = ({ item }: CheckLine): string => item.short ?? lower(item.text);
const sentence = (lines: readonly CheckLine[]): string => {
  if (lines.length < 2 || lines.some((l) => goodAnswer(l) === null)) return '';
  const text = lines.map(shortOf).join(', ');
  return capital(text);
};

/** Lines that follow each other, by what they are about. */
function thingsOf(run: readonly CheckLine[]): Thing[] {
  const found = new Map<string, CheckLine[]>();
  for (const line of run) {
    const key = alone(line)
      ? line.id
      : line.subject
        ? `of/${line.subject.id}`
        : line.item.at
          ? `at/${line.item.at}`
          : line.id;
    found.set(key, [...(found.get(key) ?? []), line]);
  }
  return [...found].map(([key, lines]) => ({
    key,
    lines,
    // an appliance and its own valve are one thing: the name of the appliance, not that of the valve
    title: (lines.find((l) => l.item.each !== 'valve') ?? lines[0]!).subject?.name ?? lines[0]!.item.at ?? '',
    place: lines[0]!.subject?.place ?? '',
    whole: sentence(lines),
  }));
}
/**
 * The things of a list in the order of the walk: the order of the list, but what is about parts goes place by place.
 * No line moves past one that is about no part: what is asked first stays first.
 */
export function walkOf(plan: Plan, stage: ChecksStage): Thing[] {
  const runs: CheckLine[][] = [];
  for (const line of checkLines(plan, stage)) {
    const last = runs[runs.length - 1];
    if (last && !line.subject === !last[0]!.subject) last.push(line);
    else runs.push([line]);
  }
  return runs.flatMap((run) => {
    const things = thingsOf(run);
    const places = [...new Set(things.map((t) => t.place))];
    return places.flatMap((place) => things.filter((t) => t.place === place));
  });
}
