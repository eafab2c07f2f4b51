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

const HOLD_MS = 800;
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
  const done = useRef(false);
  const stop = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    setPressed(false);
    if (!done.current) setHint(true);
  };
  const begin = () => {
    if (disabled || timer.current) return;
    done.current = false;
    setPressed(true);
    timer.current = setTimeout(() => {
      timer.current = null;
      done.current = true;
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
        if (e.button === 0) begin();
      }}
      onPointerUp={() => timer.current && stop()}
      onPointerLeave={() => timer.current && stop()}
      onPointerCancel={() => timer.current && stop()}
      onKeyDown={(e) => {
        if ((e.key === 'Enter' || e.key === ' ') && !e.repeat) {
          e.preventDefault();
          e.stopPropagation();
          begin();
        }
      }}
      onKeyUp={(e) => {
        if ((e.key === 'Enter' || e.key === ' ') && timer.current) stop();
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
