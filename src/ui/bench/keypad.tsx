'use client';
import { Delete } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { entryStep, parseReading, type Gauge } from '@/core/instrument/gauge';
import { add, exact, FigureError, formatExact, subtract, type Exact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { now, serverNow } from '@/device/clock';
import type { GaugeFrame } from '@/device/bench';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { leaveDraft } from './draft';

export interface Entered {
  readonly figure: Exact;
  /** Device-clock moment of the first key: when the eye had read the gauge. */
  readonly readAt: number;
  readonly same: boolean;
  readonly streamed: boolean;
}
interface Props {
  readonly gauge: Gauge;
  readonly label: string;
  readonly save: string;
  readonly previous?: Exact | null;
  readonly live?: GaugeFrame | null;
  readonly signed?: boolean;
  /** What is judged ends with it: the same figure again is pressed and held. */
  readonly sameHeld?: boolean;
  /** The one figure it should show, with what is said by pressing it. */
  readonly expected?: { readonly figure: Exact; readonly words: string };
  /** What must be ticked before saving. */
  readonly confirm?: string;
  readonly extra?: ReactNode;
  /** Entered with the figure: stands beside it where there is room. */
  readonly aside?: ReactNode;
  /** @returns the trouble, or null when it was saved */
  readonly onSave: (entered: Entered) => Promise<string | null>;
  readonly onCancel?: () => void;
  /** Another way on, beside the small keys. */
  readonly other?: { readonly words: string; readonly onClick: () => void };
}

// keys share what height there is, so that figure, keys and the one action stand together without scrolling
const KEY =
  'figure min-h-[2.625rem] min-w-0 border border-edge bg-panel text-2xl hover:border-ink active:bg-block';
const WIDE =
  'min-h-11 border border-edge bg-panel px-2 text-sm font-semibold leading-tight hover:border-ink active:bg-block disabled:text-quiet disabled:border-seam lg:text-base';

/** A display this old, ms, is what the gauge shows now. House figure */
const SHOWN_MS = 5_000;
export const fresh = (live: GaugeFrame | null | undefined): boolean =>
  !!live && Math.abs(serverNow() - live.at) <= SHOWN_MS;

/** What is typed, how it came, and the way it is saved: it stays until it is. */
function useTyping({ gauge, label, previous, live, confirm, onSave, onCancel }: Props) {
  const [text, setText] = useState('');
  const [how, setHow] = useState<'typed' | 'same' | 'streamed'>('typed');
  const [readAt, setReadAt] = useState<number | null>(null);
  const [trouble, setTrouble] = useState('');
  const [ticked, setTicked] = useState(false);
  const [busy, setBusy] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const unit = unitLabel(gauge.resolution.unit);
  const shown =
    live && live.gauge === gauge.id ? exact(live.digits, live.scale, gauge.resolution.unit) : null;

  const typed = useRef('');
  useEffect(() => {
    typed.current = how === 'typed' ? text : '';
  }, [text, how]);
  useEffect(() => {
    field.current?.focus({ preventScroll: true });
    // a stage that somebody else ends takes the keypad away: what was typed is kept as a draft
    return () => {
      if (typed.current) leaveDraft({ text: typed.current, unit, label });
    };
    // oxlint-disable-next-line react-hooks/exhaustive-deps -- on leaving only
  }, []);
  const cancel = () => {
    typed.current = '';
    onCancel?.();
  };
  const put = (value: string, kind: typeof how = 'typed') => {
    setReadAt((r) => (value === '' ? null : kind === 'typed' ? (r ?? now()) : now()));
    setText(value);
    setHow(kind);
    setTrouble('');
  };
  const press = (key: string) => put(how === 'typed' ? text + key : key);
  const step = (direction: 1 | -1) => {
    try {
      const value = text ? parseReading(text, gauge) : (shown ?? previous);
      if (!value) return;
      put(formatExact(direction > 0 ? add(value, entryStep(gauge)) : subtract(value, entryStep(gauge))));
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const commit = async () => {
    // nothing typed: what the gauge shows now is taken with the one press
    if (!text && shown && fresh(live)) return save(shown, 'streamed', now());
    try {
      await save(parseReading(text, gauge), how, readAt ?? now());
    } catch (error) {
      setTrouble(error instanceof FigureError ? error.message : String(error));
    }
  };
  const save = async (figure: Exact, by: typeof how, seen: number, said?: true) => {
    if (busy) return;
    if (confirm && !ticked && !said) {
      setTrouble(`Tick first: ${confirm.toLowerCase()}.`);
      return;
    }
    setBusy(true);
    const kept = typed.current;
    typed.current = ''; // being saved: leaving now loses nothing
    const wrong = await onSave({ figure, readAt: seen, same: by === 'same', streamed: by === 'streamed' });
    setBusy(false);
    if (wrong) {
      typed.current = kept;
      setTrouble(wrong);
    } else setText('');
  };
  return {
    text,
    how,
    trouble,
    setTrouble,
    ticked,
    setTicked,
    busy,
    field,
    unit,
    shown,
    cancel,
    put,
    press,
    step,
    save,
    commit,
  };
}
type Typing = ReturnType<typeof useTyping>;

/** Reading entry: decimals and unit fixed by the gauge; what was typed stays until it is saved. */
export function Keypad(props: Props) {
  const { label, save, confirm, extra, aside } = props;
  const typing = useTyping(props);
  const { text, trouble, setTrouble, ticked, setTicked, busy, field, unit, put, commit, shown } = typing;
  const { expected } = props;
  const form = useRef<HTMLFormElement>(null);
  // what is said takes room: figure, keys and action stay in sight, what stands above them goes
  useEffect(() => {
    if (trouble) form.current?.scrollIntoView?.({ block: 'nearest' });
  }, [trouble]);
  return (
    <form
      ref={form}
      className="flex flex-[1_0_auto] scroll-mb-3 flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void commit();
      }}
      aria-label="Entry"
    >
      <div className="flex shrink-0 flex-wrap items-end justify-between gap-x-4 gap-y-1">
        <label className="block min-w-0 flex-1">
          <span className="block text-base">{label}</span>
          <span className="flex items-baseline gap-3 border-b-4 border-lake">
            <input
              ref={field}
              inputMode="none"
              autoComplete="off"
              className="figure w-full min-w-0 bg-transparent text-4xl leading-tight outline-none"
              value={text}
              onChange={(e) => put(e.target.value)}
              aria-describedby="keypad-trouble"
              aria-invalid={trouble !== ''}
            />
            <span className="figure text-xl whitespace-nowrap">{unit}</span>
          </span>
        </label>
        {aside && <div className="mt-1 w-full lg:mt-0 lg:w-3/5">{aside}</div>}
        <p
          id="keypad-trouble"
          role="alert"
          className="w-full leading-tight font-semibold text-rust empty:hidden"
        >
          {trouble}
        </p>
      </div>
      {confirm && (
        <label className="flex min-h-12 shrink-0 cursor-pointer items-center gap-3 border border-edge bg-panel px-3 leading-tight">
          <input
            type="checkbox"
            className="size-6 accent-lake"
            checked={ticked}
            onChange={(e) => {
              setTicked(e.target.checked);
              setTrouble('');
            }}
          />
          <span className="font-semibold">{confirm}</span>
        </label>
      )}
      {extra}
      {expected && !text && (
        <Button
          tone="act"
          className="min-h-16 shrink-0 text-lg"
          disabled={busy}
          onClick={() => void typing.save(expected.figure, 'typed', now(), true)}
        >
          <span>
            {expected.words} <span className="figure">{formatExact(expected.figure)}</span> {unit}
          </span>
        </Button>
      )}
      <Keys typing={typing} {...props} />
      <button
        type="submit"
        disabled={busy}
        className={buttonClass(
          expected && !text ? 'plain' : 'act',
          'sticky bottom-0 z-10 min-h-14 w-full shrink-0 text-lg lg:min-h-16 lg:text-xl',
        )}
      >
        <span>
          {save}
          {text && !trouble ? (
            <span className="figure block text-base font-normal">
              {text} {unit}
            </span>
          ) : shown && fresh(props.live) ? (
            <span className="block text-base font-normal">
              with the display, <span className="figure">{formatExact(shown)}</span> {unit}
            </span>
          ) : null}
        </span>
      </button>
    </form>
  );
}

/** Digits, and beside them the keys that spare typing: the display, the figure before, a step up or down. */
function Keys({
  typing: { text, how, shown, cancel, put, press, step, save },
  gauge,
  previous,
  sameHeld,
  signed,
  onCancel,
  other,
}: Props & { typing: Typing }) {
  return (
    <div className="flex min-h-[15rem] flex-1 flex-col gap-2 lg:grid lg:max-h-[25rem] lg:min-h-[12.125rem] lg:grid-cols-[1fr_15rem]">
      <div className="order-2 grid min-h-0 flex-1 auto-rows-fr grid-cols-3 gap-1.5 lg:order-1">
        {['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'].map((k) => (
          <button key={k} type="button" className={KEY} onClick={() => press(k)}>
            {k}
          </button>
        ))}
        <button
          type="button"
          className={`${KEY} inline-flex items-center justify-center`}
          aria-label="Take the last digit away"
          onClick={() => put(how === 'typed' ? text.slice(0, -1) : '')}
        >
          <Delete aria-hidden />
        </button>
      </div>
      <div className="order-1 flex shrink-0 gap-1.5 *:flex-auto lg:order-2 lg:grid lg:min-h-0 lg:auto-rows-fr lg:grid-flow-row">
        {shown && (
          <button type="button" className={WIDE} onClick={() => put(formatExact(shown), 'streamed')}>
            <span className="max-lg:sr-only">Take the display: </span>
            <span className="lg:hidden">Display </span>
            <span className="figure">{formatExact(shown)}</span>
          </button>
        )}
        {previous && sameHeld && (
          <HoldButton
            tone="plain"
            className="min-h-11 px-2 text-sm leading-tight"
            onHeld={() => void save(previous, 'same', now())}
          >
            Looked again: still <span className="figure">{formatExact(previous)}</span>
          </HoldButton>
        )}
        {previous && !sameHeld && (
          <button type="button" className={WIDE} onClick={() => put(formatExact(previous), 'same')}>
            Same <span className="max-lg:hidden">as before: </span>
            <span className="figure">{formatExact(previous)}</span>
          </button>
        )}
        <button type="button" className={WIDE} onClick={() => step(1)}>
          <span className="max-lg:sr-only">One step up </span>
          <span className="figure">+{formatExact(entryStep(gauge))}</span>
        </button>
        <button type="button" className={WIDE} onClick={() => step(-1)}>
          <span className="max-lg:sr-only">One step down </span>
          <span className="figure">−{formatExact(entryStep(gauge))}</span>
        </button>
        {signed && (
          <button
            type="button"
            className={WIDE}
            onClick={() => put(/^[-−]/.test(text) ? text.slice(1) : `−${text}`)}
          >
            <span className="max-lg:sr-only">Change sign </span>±
          </button>
        )}
        {onCancel && (
          <button type="button" className={WIDE} onClick={cancel}>
            Back
          </button>
        )}
        {other && (
          <button type="button" className={WIDE} onClick={other.onClick}>
            {other.words}
          </button>
        )}
      </div>
    </div>
  );
}
