'use client';
import { useEffect, useRef, useState, type ButtonHTMLAttributes, type ReactNode } from 'react';
import { buttonClass, type Tone } from './button-class';

export function Button({
  tone = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { tone?: Tone }) {
  return <button type={type} className={buttonClass(tone, className)} {...rest} />;
}

/** So long it is held, ms. House figure */
export const HOLD_MS = 800;
/**
 * For what cannot be undone: press and hold 0.8 s while the edge fills. With the keyboard, Enter or Space held as long.
 */
export function HoldButton({
  onHeld,
  children,
  tone = 'act',
  className = '',
  disabled,
}: {
  onHeld: () => void;
  children: ReactNode;
  tone?: Tone;
  className?: string;
  disabled?: boolean;
}) {
  const [pressed, setPressed] = useState(false);
  const [hint, setHint] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  // what rests or moves beside it does not end what the other began: a pointer over the button, a key of it
  const by = useRef<'pointer' | 'key'>('key');
  const stop = (means: typeof by.current) => {
    if (!timer.current || by.current !== means) return;
    clearTimeout(timer.current);
    timer.current = null;
    setPressed(false);
    setHint(true);
  };
  const begin = (means: typeof by.current) => {
    if (disabled || timer.current) return;
    by.current = means;
    setPressed(true);
    timer.current = setTimeout(() => {
      timer.current = null;
      setPressed(false);
      setHint(false);
      onHeld();
    }, HOLD_MS);
  };
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  return (
    <button
      type="button"
      disabled={disabled}
      className={buttonClass(tone, `relative overflow-hidden select-none touch-none ${className}`)}
      onPointerDown={(e) => {
        if (e.button === 0) begin('pointer');
      }}
      onPointerUp={() => stop('pointer')}
      onPointerLeave={() => stop('pointer')}
      onPointerCancel={() => stop('pointer')}
      onKeyDown={(e) => {
        if ((e.key === 'Enter' || e.key === ' ') && !e.repeat) {
          e.preventDefault();
          e.stopPropagation();
          begin('key');
        }
      }}
      onKeyUp={(e) => {
        if (e.key === 'Enter' || e.key === ' ') stop('key');
      }}
      onContextMenu={(e) => e.preventDefault()}
    >
      <span
        aria-hidden
        className="absolute bottom-0 left-0 h-2 bg-current"
        style={{ width: pressed ? '100%' : '0%', transition: pressed ? `width ${HOLD_MS}ms linear` : 'none' }}
      />
      <span>
        {children}
        <span className="block text-sm font-normal opacity-90">
          {hint ? 'Hold it down until the edge is full' : 'Press and hold'}
        </span>
      </span>
    </button>
  );
}
