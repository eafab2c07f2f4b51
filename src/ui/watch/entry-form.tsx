'use client';
import { type Exact, formatExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { FigureField, WordsField } from '@/ui/kit/figure-field';
import { uuid7 } from '@/wire/uuid7';
import type { WatchEntryRequest } from '@/wire/watch';
import { type SyntheticEvent, useState } from 'react';
import { useForm } from 'react-hook-form';

export interface Kept {
  readonly id: string;
  readonly word: 'holds' | 'lost' | 'ended';
  readonly fell: boolean;
  readonly doubt: boolean;
}

interface Said {
  readonly figure: string;
  readonly temperature: string;
  readonly who: string;
  readonly trade: string;
  readonly text: string;
}
const required = {
  who: 'Type your name, so that it can be asked about.',
  figure: 'Type what the gauge shows.',
};

/** What is typed stays until it is kept; asked twice with one id it is kept once. */
function useEntry(to: string, asWho: string, onKept: (kept: Kept, said: WatchEntryRequest) => void) {
  const [id, setId] = useState(() => uuid7(now()));
  const values: Said = { figure: '', temperature: '', who: asWho, trade: '', text: '' };
  const form = useForm<Said>({ defaultValues: values });
  const [trouble, setTrouble] = useState('');
  const send = async (kind: 'reading' | 'on-site') => {
    setTrouble('');
    form.clearErrors();
    const typed = form.getValues();
    const missing = (['figure', 'who'] as const).find(
      (key) => (key === 'who' || kind === 'reading') && !typed[key].trim(),
    );
    if (missing) return form.setError(missing, { message: required[missing] });
    const said: WatchEntryRequest = {
      id,
      kind,
      who: typed.who.trim(),
      trade: typed.trade.trim(),
      text: typed.text.trim(),
      ...(kind === 'reading' ? { figure: typed.figure } : {}),
      ...(kind === 'reading' && typed.temperature.trim() ? { temperature: typed.temperature } : {}),
    };
    try {
      const kept = await office<Kept>(to, { body: said });
      form.reset({ ...typed, figure: '', text: '' });
      setId(uuid7(now()));
      onKept(kept, said);
    } catch (error) {
      const { status, path, message } = error as OfficeError;
      if (path && path in values) form.setError(path as keyof Said, { message });
      else
        setTrouble(
          status === 0
            ? 'No signal: what you typed stays here. Press again where there is one; if it fell, call now.'
            : message,
        );
    }
  };
  const submit = (kind: 'reading' | 'on-site') => (event: SyntheticEvent) => {
    event.preventDefault();
    void form.handleSubmit(() => send(kind))();
  };
  return { control: form.control, submit, trouble, busy: form.formState.isSubmitting };
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
  const { control, submit, trouble, busy } = useEntry(to, asWho, onKept);
  return (
    <form noValidate className="grid gap-4" onSubmit={submit('reading')}>
      <div className="text-2xl [&_input]:min-h-16 [&_input]:text-3xl [&_label]:text-sm">
        <FigureField
          control={control}
          name="figure"
          label="The gauge shows"
          hint={`it was left at ${formatExact(figure)}`}
          units={[figure.unit]}
        />
      </div>
      <div className="grid gap-4 sm:grid-cols-2">
        <WordsField control={control} name="who" label="Your name" maxLength={80} autoComplete="name" />
        <WordsField
          control={control}
          name="trade"
          label="Trade"
          placeholder="screed, tiles, owner"
          maxLength={60}
        />
        <FigureField
          control={control}
          name="temperature"
          label="Temperature"
          hint="if known"
          units={['C', 'F']}
        />
        <WordsField control={control} name="text" label="Anything to say" maxLength={500} />
      </div>
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble}
      </p>
      <Button tone="act" type="submit" className="min-h-16 text-lg" disabled={busy}>
        {busy ? 'Sending …' : 'Keep this reading'}
      </Button>
      <Button type="button" className="min-h-14" disabled={busy} onClick={submit('on-site')}>
        I work here today, no reading
      </Button>
      <p className="text-sm text-quiet">
        In {unitLabel(figure.unit)}, as the gauge shows it. A wrong entry is corrected by a later one; nothing
        is erased.
      </p>
    </form>
  );
}
