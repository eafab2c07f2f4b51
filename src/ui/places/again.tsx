'use client';
import { lower } from '@/core/quantity/words';
import type { Again as Ready } from '@/core/plan/again';
import type { EarlierRecord } from '@/core/plan/plan';
import { WORDS } from '@/core/verdict/words';
import { Button } from '@/ui/kit/button';
import { dayWords } from '@/ui/visit/times';
import { useState } from 'react';
import { useBegin } from './use-begin';

/** The last test of this place once more: one button that says what it will do; what would permit more is said anew. */
export function Again({
  system,
  ready,
  failure,
}: {
  system: string;
  ready: Ready;
  /** The newest record of it was not good: this repeats it. */
  failure: EarlierRecord | null;
}) {
  const [so, setSo] = useState(false);
  const { begin, trouble, busy, cure } = useBegin(system);
  const { offer, gauge } = ready;
  const start = () =>
    void begin({
      title: offer.title,
      own: { pack: offer.pack, procedure: offer.id, case: ready.case.key, choices: ready.choices },
      pair: null,
      practice: false,
      attendance: {
        ...(ready.section ? { section: ready.section } : {}),
        ...(gauge ? { gauge: gauge.id } : {}),
      },
      fault: 'surprise',
      retestOf: failure?.run ?? null,
    });
  return (
    <section className="mt-3 border border-seam bg-panel p-4" aria-labelledby="again">
      <h2 id="again" className="text-lg font-semibold">
        As on {dayWords(ready.on, true)}
      </h2>
      <p className="text-sm text-quiet">
        {offer.school}. {ready.case.title}.
        {failure &&
          ` Retest after ${failure.number} (${WORDS[failure.word as keyof typeof WORDS].toLowerCase()}).`}
      </p>
      <div className={`mt-3 grid gap-3 ${ready.asks ? 'sm:grid-cols-2' : ''}`}>
        {ready.asks && (
          <Button
            className="min-h-16 justify-start text-left"
            aria-pressed={so}
            tone={so ? 'act' : 'plain'}
            onClick={() => setSo(!so)}
          >
            Today too: {lower(ready.case.title)}; nothing altered since
          </Button>
        )}
        <Button
          tone="act"
          className="min-h-16 text-lg"
          disabled={busy || (ready.asks && !so)}
          onClick={start}
        >
          Again: {lower(offer.title)}
          {gauge ? `, ${gauge.name}` : ''}
        </Button>
      </div>
      {ready.asks && (
        <p className="mt-2 text-sm text-quiet">
          Not so today? Choose anew below, under Start a test. Smell is asked at the bench, every time.
        </p>
      )}
      <p role="alert" className="text-rust">
        {trouble}{' '}
        {cure && (
          <a className="text-lake underline" href={cure}>
            Enter it
          </a>
        )}
      </p>
    </section>
  );
}
