'use client';
import type { Leak } from '@/core/after/leaks';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { TextField } from '@/ui/kit/field';
import { useState } from 'react';
import type { Say } from './spotted';

type Doing = 'safe' | 'repaired' | 'note' | 'closed';
const WORDS: Readonly<Record<Doing, string>> = {
  safe: 'Made safe',
  repaired: 'Mended',
  note: 'Note',
  closed: 'Close it',
};
const HOUR = 3_600_000;
/** What is done next about a leak: made safe first, mended, then tested; or it was none. */
export function Did({
  leak,
  system,
  say,
  who,
  now,
}: {
  leak: Leak;
  system: string;
  say: Say;
  who: string;
  now: number;
}) {
  const [doing, setDoing] = useState<Doing | null>(null);
  const mended = leak.state === 'repaired' || leak.state === 'curing';
  const next: readonly Doing[] = [
    ...(leak.state === 'open' ? (['safe'] as const) : []),
    'repaired',
    'note',
    'closed',
  ];
  if (doing)
    return <Entry doing={doing} leak={leak} say={say} who={who} now={now} onDone={() => setDoing(null)} />;
  return (
    <div className="flex flex-wrap gap-3">
      {mended && (
        <a className={buttonClass('act', 'min-h-14')} href={`/places/${system}#start`}>
          Test it again
        </a>
      )}
      {next.map((d) => (
        <Button
          key={d}
          className="min-h-14"
          tone={!mended && d === (leak.state === 'open' ? 'safe' : 'repaired') ? 'act' : 'plain'}
          onClick={() => setDoing(d)}
        >
          {d === 'repaired' && mended ? 'Mended again' : WORDS[d]}
        </Button>
      ))}
    </div>
  );
}
interface Typed {
  readonly what: string;
  readonly by: string;
  readonly parts: string;
  readonly minutes: string;
  readonly cost: string;
  readonly cures: string;
}
/** What was typed as an entry of the book. @throws Error whose text says what to do */
function bodyOf(doing: Doing, t: Typed, now: number) {
  const what = t.what.trim();
  if (!what) throw new Error(doing === 'repaired' ? 'Say what was mended.' : 'Say it in a few words.');
  if (doing === 'safe') return { kind: doing, how: what };
  if (doing === 'note') return { kind: doing, text: what };
  if (doing === 'closed') return { kind: doing, why: what };
  if (!t.by.trim()) throw new Error('Say who mended it.');
  const minutes = t.minutes.trim() ? wholeNumber(t.minutes) : undefined;
  if (minutes === null) throw new Error('Type the minutes as a whole number, like 45.');
  const paid = /^(\d{1,6})(?:[.,](\d{1,2}))?\s*([^\s\d]{1,8})$/.exec(t.cost.trim());
  if (t.cost.trim() && !paid) throw new Error('Type the cost with its currency, like 35.50 EUR.');
  const hours = t.cures.trim() ? wholeNumber(t.cures) : 0;
  if (hours === null || hours > 720)
    throw new Error('Type the hours that it cures as a whole number up to 720, like 24.');
  return {
    kind: doing,
    what,
    by: t.by.trim(),
    parts: t.parts.trim(),
    ...(hours ? { cured: now + hours * HOUR } : {}),
    ...(minutes !== undefined ? { minutes } : {}),
    ...(paid
      ? {
          cost: {
            amount: Number(paid[1]) * 100 + Number((paid[2] ?? '').padEnd(2, '0') || 0),
            currency: paid[3]!,
          },
        }
      : {}),
  };
}
const wholeNumber = (typed: string): number | null => (/^\d{1,5}$/.test(typed.trim()) ? Number(typed) : null);
function Entry({
  doing,
  leak,
  say,
  who,
  now,
  onDone,
}: {
  doing: Doing;
  leak: Leak;
  say: Say;
  who: string;
  now: number;
  onDone: () => void;
}) {
  const [typed, setTyped] = useState<Typed>({
    what: '',
    by: who,
    parts: '',
    minutes: '',
    cost: '',
    cures: '',
  });
  const set = (key: keyof Typed) => (value: string) => {
    setTyped({ ...typed, [key]: value });
    setTrouble('');
  };
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  return (
    <form
      aria-label={WORDS[doing]}
      className="grid gap-3"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        try {
          setBusy(true);
          void say(bodyOf(doing, typed, now), leak.id).then((wrong) => {
            setBusy(false);
            if (wrong) setTrouble(wrong);
            else onDone();
          });
        } catch (error) {
          setBusy(false);
          setTrouble((error as Error).message);
        }
      }}
    >
      {doing === 'safe' && (
        <p className="border-l-4 border-rust pl-3">
          Shut off, vent what is inside outdoors, nothing that could ignite it near; then label it.
        </p>
      )}
      {doing === 'repaired' && (
        <p className="border-l-4 border-ochre pl-3">
          Nothing is pressed before every joint is cured. Only a test shows that it holds.
        </p>
      )}
      <TextField
        label={
          doing === 'safe'
            ? 'How it was made safe'
            : doing === 'repaired'
              ? 'What was mended'
              : doing === 'closed'
                ? 'Why nothing is tested for it'
                : 'Note'
        }
        value={typed.what}
        onChange={set('what')}
        maxLength={300}
      />
      {doing === 'repaired' && (
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField label="By whom" value={typed.by} onChange={set('by')} maxLength={120} />
          <TextField
            label="Parts"
            hint="may stay empty"
            value={typed.parts}
            onChange={set('parts')}
            maxLength={300}
          />
          <TextField
            label="Cures for, h"
            hint="may stay empty"
            value={typed.cures}
            onChange={set('cures')}
            inputMode="numeric"
            maxLength={3}
          />
          <TextField
            label="Time it took, min"
            hint="may stay empty"
            value={typed.minutes}
            onChange={set('minutes')}
            inputMode="numeric"
            maxLength={5}
          />
          <TextField
            label="Cost"
            hint="like 35.50 EUR; may stay empty"
            value={typed.cost}
            onChange={set('cost')}
            maxLength={20}
          />
        </div>
      )}
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <div className="grid grid-cols-2 gap-3 sm:flex">
        <Button className="min-h-14" onClick={onDone}>
          Back
        </Button>
        <Button type="submit" tone="act" className="min-h-14 sm:px-8" disabled={busy}>
          Into the book
        </Button>
      </div>
    </form>
  );
}
