'use client';
import { Button } from '@/ui/kit/button';
import { Minus, Plus } from 'lucide-react';

type Counted = readonly { readonly word: string; readonly count: number }[];
/** How many of each thing: a tap more, a tap less. */
export function Counters({
  words,
  counted,
  onChange,
}: {
  words: readonly string[];
  counted: Counted;
  onChange: (counted: { word: string; count: number }[]) => void;
}) {
  const count = (word: string) => counted.find((c) => c.word === word)?.count ?? 0;
  const set = (word: string, n: number) =>
    onChange([...counted.filter((c) => c.word !== word), { word, count: Math.max(0, Math.min(60, n)) }]);
  return (
    <fieldset>
      <legend className="text-sm">How many of each</legend>
      <ul className="mt-1 grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3">
        {words.map((word) => (
          <li key={word} className="flex min-h-14 items-center gap-3 border-t border-seam">
            <span className="flex-1">{word}</span>
            <Button
              aria-label={`One ${word} less`}
              disabled={!count(word)}
              onClick={() => set(word, count(word) - 1)}
            >
              <Minus size={18} aria-hidden />
            </Button>
            <output className="figure w-8 text-center" aria-label={`${word}, how many`}>
              {count(word)}
            </output>
            <Button aria-label={`One ${word} more`} onClick={() => set(word, count(word) + 1)}>
              <Plus size={18} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
