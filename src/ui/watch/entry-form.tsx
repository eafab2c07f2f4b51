'use client';
import { useState } from 'react';
import { formatExact, type Exact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { now } from '@/device/clock';
import { uuid7 } from '@/wire/uuid7';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { FigureInput, TextField, Field } from '@/ui/kit/field';
import type { WatchEntryRequest } from '@/wire/watch';

export interface Kept {
  readonly id: string;
  readonly word: 'holds' | 'lost' | 'ended';
  readonly fell: boolean;
  readonly doubt: boolean;
}

/** A reading of the watch gauge, or that somebody worked here. What was typed stays until it is kept. */
export function WatchEntryForm({
  to,
  figure,
  who: asWho = '',
  onKept,
}: {
  to: string;
  /** What it was left at: unit and example. */
  figure: Exact;
  who?: string;
  onKept: (kept: Kept, said: WatchEntryRequest) => void;
}) {
  const [id, setId] = useState(() => uuid7(now()));
  const [value, setValue] = useState('');
  const [warmth, setWarmth] = useState('');
  const [who, setWho] = useState(asWho);
  const [trade, setTrade] = useState('');
  const [text, setText] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<{ text: string; path?: string } | null>(null);
  const wrong = (path: string) => (trouble?.path === path ? trouble.text : undefined);
  const send = async (kind: 'reading' | 'on-site') => {
    if (kind === 'reading' && !value.trim())
      return setTrouble({ text: 'Type what the gauge shows.', path: 'figure' });
    if (!who.trim())
      return setTrouble({ text: 'Type your name, so that it can be asked about.', path: 'who' });
    setBusy(true);
    const said: WatchEntryRequest = {
      id,
      kind,
      who: who.trim(),
      trade: trade.trim(),
      text: text.trim(),
      ...(kind === 'reading' ? { figure: value } : {}),
      ...(kind === 'reading' && warmth.trim() ? { temperature: warmth } : {}),
    };
    try {
      const kept = await office<Kept>(to, { body: said });
      setTrouble(null);
      setValue('');
      setText('');
      setId(uuid7(now()));
      onKept(kept, said);
    } catch (error) {
      const e = error as OfficeError;
      setTrouble({
        text:
          e.status === 0
            ? 'No signal: what you typed stays here. Press again where there is one; if it fell, call now.'
            : e.message,
        ...(e.path ? { path: e.path } : {}),
      });
    }
    setBusy(false);
  };
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void send('reading');
      }}
    >
      <Field label="The gauge shows" hint={`it was left at ${formatExact(figure)}`} wrong={wrong('figure')}>
        {(ids) => (
          <div className="text-2xl [&_input]:min-h-16 [&_input]:text-3xl">
            <FigureInput
              {...ids}
              label="The gauge shows"
              value={value}
              units={[figure.unit]}
              onChange={(v) => {
                setValue(v);
                setTrouble(null);
              }}
            />
          </div>
        )}
      </Field>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField
          label="Your name"
          value={who}
          onChange={setWho}
          maxLength={80}
          autoComplete="name"
          {...(wrong('who') ? { wrong: wrong('who')! } : {})}
        />
        <TextField
          label="Trade"
          placeholder="screed, tiles, owner"
          value={trade}
          onChange={setTrade}
          maxLength={60}
        />
        <Field label="Temperature" hint="if known" wrong={wrong('temperature')}>
          {(ids) => (
            <FigureInput
              {...ids}
              label="Temperature"
              value={warmth}
              units={['C', 'F']}
              onChange={setWarmth}
            />
          )}
        </Field>
        <TextField label="Anything to say" value={text} onChange={setText} maxLength={500} />
      </div>
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble && !['figure', 'who', 'temperature'].includes(trouble.path ?? '') ? trouble.text : ''}
      </p>
      <Button tone="act" type="submit" className="min-h-16 text-lg" disabled={busy}>
        {busy ? 'Sending …' : 'Keep this reading'}
      </Button>
      <Button type="button" className="min-h-14" disabled={busy} onClick={() => void send('on-site')}>
        I work here today, no reading
      </Button>
      <p className="text-sm text-quiet">
        In {unitLabel(figure.unit)}, as the gauge shows it. A wrong entry is corrected by a later one; nothing
        is erased.
      </p>
    </form>
  );
}
