'use client';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { dropDraft, keepDraft, readDraft, sweepDrafts, type Draft } from '@/device/drafts';
import { Moment } from '@/ui/frame/zone';
import { Button } from './button';

const PAUSE_MS = 400;

/** What was made here before and did not go, offered again. */
export function Offer({
  what = 'What was typed here',
  not = 'sent',
  at,
  take,
  drop,
}: {
  what?: string;
  not?: string;
  at: number;
  take: () => void;
  drop: () => void;
}) {
  return (
    <div
      role="status"
      className="no-print flex flex-wrap items-center gap-3 border-l-4 border-lake bg-panel p-3"
    >
      <span>
        {what} <Moment at={new Date(at).toISOString()} /> was not {not}. It is still on this device.
      </span>
      <Button type="button" tone="act" className="min-h-12" onClick={take}>
        Put it back
      </Button>
      <Button type="button" className="min-h-12" onClick={drop}>
        Throw it away
      </Button>
    </div>
  );
}

/**
 * Keeps what is typed into a form on this device and offers it again after a crash, a reload or a lost signal.
 * @param of names the form and the thing it is about  @returns the offer to show, and `sent` to call once it was taken
 */
export function useFormDraft<T extends FieldValues>(
  form: Pick<UseFormReturn<T>, 'watch' | 'reset' | 'getValues'>,
  of: string,
): { offer: ReactNode; sent: () => void } {
  const [draft, setDraft] = useState<Draft<T> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const { watch, reset, getValues } = form;
  useEffect(() => {
    sweepDrafts();
    const found = readDraft<T>(of);
    setDraft(found && JSON.stringify(found.value) !== JSON.stringify(getValues()) ? found : null);
  }, [of, getValues]);
  useEffect(() => {
    const keep = () => {
      if (timer.current) clearTimeout(timer.current);
      timer.current = null;
      keepDraft(of, getValues());
    };
    const { unsubscribe } = watch(() => {
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(keep, PAUSE_MS);
    });
    const leave = () => timer.current && keep();
    addEventListener('pagehide', leave);
    return () => {
      unsubscribe();
      leave();
      removeEventListener('pagehide', leave);
    };
  }, [of, watch, getValues]);
  const done = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    dropDraft(of);
    setDraft(null);
  };
  return {
    offer: draft && (
      <Offer
        at={draft.at}
        take={() => {
          reset({ ...getValues(), ...draft.value }, { keepDefaultValues: true });
          setDraft(null);
        }}
        drop={done}
      />
    ),
    sent: done,
  };
}

/** The same for one text. @returns the text, how to change it, and how to say that it was taken */
export function useTextDraft(of: string): [string, (text: string) => void, () => void] {
  const [text, setText] = useState(() => readDraft<string>(of)?.value ?? '');
  return [
    text,
    (next) => {
      setText(next);
      if (next) keepDraft(of, next);
      else dropDraft(of);
    },
    () => {
      setText('');
      dropDraft(of);
    },
  ];
}
