import type { ReactNode } from 'react';

export const FIELD = 'mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg';

/** A line of the bench that is typed into: words, or a figure with the keys for one. */
export function Line({
  children,
  value,
  onChange,
  most,
  figure,
  placeholder,
}: {
  /** What is asked. */
  children: ReactNode;
  value: string;
  onChange: (value: string) => void;
  /** Letters at most. */
  most?: number;
  figure?: true;
  placeholder?: string;
}) {
  return (
    <label>
      {children}
      <input
        className={figure ? `figure ${FIELD}` : FIELD}
        {...(figure ? { inputMode: 'decimal' } : {})}
        value={value}
        placeholder={placeholder}
        maxLength={most}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
