'use client';
import { useEffect, useRef } from 'react';

/** The search field; "/" goes to it from anywhere on the page. */
export function SearchField({ value }: { value: string }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === '/' && !(e.target as HTMLElement).closest('input, textarea')) {
        e.preventDefault();
        field.current?.focus();
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  return (
    <input
      ref={field}
      type="search"
      name="q"
      defaultValue={value}
      aria-label="Search the ledger"
      placeholder="Place, number, verdict, person"
      className="min-h-12 min-w-0 flex-1 border border-edge bg-panel px-3 placeholder:text-quiet"
    />
  );
}
