'use client';
import { useEffect, useState } from 'react';

const SHOWN_MS = 8_000;
type Typed = HTMLInputElement | HTMLTextAreaElement;
const lineOf = (target: EventTarget | null): Typed | null =>
  (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) && target.maxLength > 0
    ? target
    : null;
const room = (line: Typed): number =>
  line.maxLength - line.value.length + ((line.selectionEnd ?? 0) - (line.selectionStart ?? 0));

/** Says it where a line takes no more: the browser alone would cut what is typed or pasted without a word. */
export function FullLines() {
  const [said, setSaid] = useState('');
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const say = (text: string) => {
      setSaid(text);
      clearTimeout(timer);
      timer = setTimeout(() => setSaid(''), SHOWN_MS);
    };
    const pasted = (e: ClipboardEvent) => {
      const line = lineOf(e.target);
      const text = e.clipboardData?.getData('text') ?? '';
      if (line && text.length > room(line))
        say(
          `That was ${text.length} characters long and is cut: this line takes ${line.maxLength}. Put the rest into a note.`,
        );
    };
    const typed = (e: InputEvent) => {
      const line = lineOf(e.target);
      if (line && e.inputType.startsWith('insertText') && (e.data?.length ?? 0) > room(line))
        say(`This line is full: it takes ${line.maxLength} characters. Put the rest into a note.`);
    };
    document.addEventListener('paste', pasted);
    document.addEventListener('beforeinput', typed);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('paste', pasted);
      document.removeEventListener('beforeinput', typed);
    };
  }, []);
  return (
    <div
      aria-live="polite"
      data-full
      className="pointer-events-none fixed inset-x-0 bottom-24 z-40 grid justify-items-center"
    >
      {said && <p className="max-w-md border border-ochre bg-panel px-4 py-3 shadow-none">{said}</p>}
    </div>
  );
}
