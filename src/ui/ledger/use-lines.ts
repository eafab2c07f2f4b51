import { office, type OfficeError } from '@/device/office';
import { queryText } from '@/wire/ledger';
import type { LedgerQuery } from '@/wire/ledger-schema';
import { type RefObject, useEffect, useRef, useState } from 'react';
import type { RecordLine } from './row';

const WAIT_MS = 120;

/** The lines that a search finds, asked for as it is typed; the address always says what is shown. */
export function useLines(query: LedgerQuery, firstLines: readonly RecordLine[], firstMore: boolean) {
  const [lines, setLines] = useState(firstLines);
  const [more, setMore] = useState(firstMore);
  const [trouble, setTrouble] = useState('');
  const asked = useRef<AbortController | null>(null);
  const text = queryText(query);
  const shown = useRef(text);
  useEffect(() => {
    if (shown.current === text) return;
    const timer = setTimeout(() => {
      asked.current?.abort();
      const control = new AbortController();
      asked.current = control;
      office<{ lines: RecordLine[]; more: boolean }>(`/api/ledger?${text}`, { signal: control.signal }).then(
        (answer) => {
          if (control.signal.aborted) return;
          shown.current = text;
          setLines(answer.lines);
          setMore(answer.more);
          setTrouble('');
          history.replaceState(null, '', text ? `/ledger?${text}` : '/ledger');
        },
        (e: OfficeError) => {
          if (!control.signal.aborted) setTrouble(e.message);
        },
      );
    }, WAIT_MS);
    return () => clearTimeout(timer);
  }, [text]);

  const next = async () => {
    const last = lines[lines.length - 1]!;
    try {
      const answer = await office<{ lines: RecordLine[]; more: boolean }>(
        `/api/ledger?${text}&at=${encodeURIComponent(last.sealedAt)}&id=${last.run}`,
      );
      setLines((l) => [...l, ...answer.lines]);
      setMore(answer.more);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return { text, lines, more, trouble, next };
}
/** The key / goes to the search. */
export function useSlash(field: RefObject<HTMLInputElement | null>): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === '/' && !(e.target as HTMLElement).closest('input, textarea, select')) {
        e.preventDefault();
        field.current?.focus();
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [field]);
}
