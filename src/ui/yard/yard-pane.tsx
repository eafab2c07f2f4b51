'use client';
import type { Plan } from '@/core/plan/plan';
import { CAUSES } from '@/core/yard/words';
import { recallAhead, setAhead } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { asOptions, SelectField } from '@/ui/kit/field';
import { clockTime } from '@/ui/kit/words';
import type { YardNow, YardRequest } from '@/wire/yard';
import { FastForward } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';

/** How often it is asked what came about, ms. */
const ASK_MS = 2500;
/** How often what it was is sent again while the end of the test is on its way, ms. */
const AGAIN_MS = 1000;
type Says = (body: YardRequest) => Promise<void>;

/** What a practice run by a scenario has beside the bench: the task, what comes in between, time to pass, and what it was. */
export function YardPane({ plan, ended, fresh }: { plan: Plan; ended: boolean; fresh: boolean }) {
  const { live, trouble, says } = useYard(plan.run);
  if (!live) return null;
  const asking = live.happened.filter((h) => h.answers.length > 0 && !h.answered);
  return (
    <section aria-labelledby="yard" className="border-2 border-dashed border-heather p-3" data-yard>
      <h2 id="yard" className="font-semibold text-heather">
        Practice: {live.title}
      </h2>
      {live.halted ? (
        <Halted halted={live.halted} />
      ) : (
        <>
          {asking.map((h) => (
            <Asked key={h.id} happened={h} says={says} zone={plan.made.zone} />
          ))}
          {live.stands !== null && (
            <p className="mt-2 border-l-4 border-heather pl-3 font-semibold" role="status">
              The one who trains has stopped your hands and the clock. Nothing moves on until they let it.
            </p>
          )}
          {live.mayPass > 0 && <Pass ms={live.mayPass} says={says} />}
        </>
      )}
      <Said live={live} zone={plan.made.zone} />
      <Guide live={live} />
      {(ended || live.halted) && !live.concluded && <Conclude live={live} says={says} plan={plan} />}
      {live.concluded && (
        <a className={buttonClass('act', 'mt-3 w-full')} href={`/yard/${plan.run}`}>
          See what it was
        </a>
      )}
      <Task live={live} says={says} fresh={fresh} over={ended || live.halted !== null || live.concluded} />
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}

/** Asks the office again and again, and sets this bench's clock by what was passed at once. */
function useYard(run: string): { live: YardNow | null; trouble: string; says: Says } {
  const [live, setLive] = useState<YardNow | null>(null);
  const [trouble, setTrouble] = useState('');
  const url = `/api/yard/runs/${run}`;
  const newest = useRef(-1);
  const take = useCallback(
    (now: YardNow) => {
      // what was asked before something was done can be answered after it
      if (now.kept < newest.current) return;
      newest.current = now.kept;
      setAhead(run, now.passed, now.stands);
      setLive(now);
      setTrouble('');
    },
    [run],
  );
  const over = live?.concluded ?? false;
  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = () =>
      void office<YardNow>(url).then(
        (now) => {
          if (gone) return;
          take(now);
          if (!now.concluded) timer = setTimeout(ask, ASK_MS);
        },
        (error: OfficeError) => {
          // practice without a scenario has none of this
          if (gone || error.status === 404) return;
          timer = setTimeout(ask, ASK_MS * 2);
        },
      );
    if (!over) ask();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [url, take, over]);
  useEffect(() => () => recallAhead(null), []);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => void (here.current = false);
  }, []);
  const says = useCallback<Says>(
    async (body) => {
      while (here.current)
        try {
          return take(await office<YardNow>(`${url}/acts`, { body }));
        } catch (e) {
          const { code, message } = e as OfficeError;
          if (code !== 'not-ended') return setTrouble(message);
          setTrouble(
            'The end of the test is still on its way to the office. What you said goes after it by itself: leave this page open.',
          );
          await new Promise((on) => setTimeout(on, AGAIN_MS));
        }
    },
    [url, take],
  );
  return { live, trouble, says };
}

/** Something that came in between and wants an answer. */
function Asked({
  happened: { id, who, says: words, answers, at },
  says,
  zone,
}: {
  happened: YardNow['happened'][number];
  says: Says;
  zone: string;
}) {
  return (
    <div className="mt-3 border-l-4 border-heather pl-3" role="group" aria-label={words} data-happened={id}>
      <p className="text-sm text-quiet">
        {clockTime(at, zone)}
        {who && `, ${who}`}
      </p>
      <p className="text-lg font-semibold" aria-live="assertive">
        {words}
      </p>
      <div className="mt-2 grid gap-2">
        {answers.map((a) => (
          <Button
            key={a.key}
            className="min-h-14 text-left"
            onClick={() => void says({ kind: 'answered', happening: id, answer: a.key })}
          >
            {a.text}
          </Button>
        ))}
      </div>
    </div>
  );
}
/** Everything said so far, newest first. */
function Said({ live, zone }: { live: YardNow; zone: string }) {
  const lines = [
    ...live.happened
      .filter((h) => h.answered || !h.answers.length)
      .map((h) => ({
        at: h.at,
        text: `${h.who ? `${h.who}: ` : ''}${h.says}`,
        then: h.answered
          ? `${h.answers.find((a) => a.key === h.answered!.key)?.text ?? ''}${h.answered.then ? ` ${h.answered.then}` : ''}`
          : '',
      })),
    ...live.notes.map((n) => ({ at: n.at, text: `${n.by}: ${n.text}`, then: '' })),
  ].sort((a, b) => b.at - a.at);
  if (!lines.length) return null;
  return (
    <ul className="mt-3 grid gap-2 text-sm" aria-label="What came in between" aria-live="polite">
      {lines.map((l) => (
        <li key={`${l.at}${l.text}`}>
          <span className="text-quiet">{clockTime(l.at, zone)} </span>
          {l.text}
          {l.then && <span className="block pl-4 text-quiet">{l.then}</span>}
        </li>
      ))}
    </ul>
  );
}
/** What is asked, each with its reason: the next first. */
function Guide({ live: { guide } }: { live: YardNow }) {
  if (!guide.length) return null;
  const open = guide.filter((g) => !g.met);
  return (
    <div className="mt-3" data-guide={open.length}>
      <h3 className="text-sm text-quiet">
        What a good conduct does here: {guide.length - open.length} of {guide.length} so far
      </h3>
      <ul className="mt-1 grid gap-2">
        {guide.map((g) => (
          <li key={g.id} className={`border-l-4 pl-3 ${g.met ? 'border-moss text-quiet' : 'border-heather'}`}>
            <span className="sr-only">{g.met ? 'done: ' : 'open: '}</span>
            {g.text}
            {!g.met && <span className="block text-sm text-quiet">{g.why}</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
const minutes = (ms: number) => {
  if (ms < 90_000) return `${Math.round(ms / 1000)} s`;
  const whole = Math.round(ms / 60_000);
  return whole < 120 ? `${whole} min` : `${(ms / 3_600_000).toFixed(1)} h`;
};
/** Nothing is asked meanwhile: in practice the time is passed at once, and the display goes on as it would have. */
function Pass({ ms, says }: { ms: number; says: Says }) {
  const [busy, setBusy] = useState(false);
  return (
    <Button
      className="mt-3 flex w-full items-center justify-center gap-2"
      disabled={busy}
      onClick={() => {
        setBusy(true);
        void says({ kind: 'pass' }).finally(() => setBusy(false));
      }}
    >
      <FastForward size={20} aria-hidden />
      Pass {minutes(ms)} of waiting
    </Button>
  );
}
function Halted({ halted }: { halted: NonNullable<YardNow['halted']> }) {
  return (
    <div className="mt-2 border-l-4 border-rust pl-3" role="alert" data-halted>
      <p className="font-bold text-rust">{halted.danger ? 'Stopped: that was dangerous' : 'Ended'}</p>
      <p className="mt-1">{halted.why}</p>
    </div>
  );
}
/** What the one who practises says it was: asked before anything is told. */
function Conclude({ live, says, plan }: { live: YardNow; says: Says; plan: Plan }) {
  const [cause, setCause] = useState('');
  const [place, setPlace] = useState('');
  const [because, setBecause] = useState('');
  const [busy, setBusy] = useState(false);
  const field = 'mt-1 block min-h-12 w-full border border-edge bg-panel px-2';
  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!cause || busy) return;
        setBusy(true);
        void says({ kind: 'concluded', cause, place, because }).finally(() => setBusy(false));
      }}
    >
      <h3 className="font-semibold">What was it?</h3>
      <SelectField
        label="Cause"
        value={cause}
        onChange={setCause}
        none="Choose"
        options={asOptions(CAUSES)}
      />
      <SelectField
        label="Where, if you know"
        value={place}
        onChange={setPlace}
        none="Nowhere, or not known"
        options={live.places.map((p) => ({ id: p.id, title: p.name }))}
      />
      <label className="text-sm">
        How do you know?
        <textarea
          className={`${field} min-h-16`}
          value={because}
          maxLength={1000}
          onChange={(e) => setBecause(e.target.value)}
        />
      </label>
      <Button tone="act" type="submit" className="min-h-14" disabled={!cause || busy} data-run={plan.run}>
        Say so, and see what it was
      </Button>
    </form>
  );
}
/** The task once more, and the way out. */
function Task({
  live,
  says,
  over,
  fresh,
}: {
  live: YardNow;
  says: Says;
  over: boolean;
  /** Nothing was entered yet: the task stands open. */ fresh: boolean;
}) {
  const [open, setOpen] = useState(fresh);
  return (
    <div className="mt-3 text-sm">
      <button
        type="button"
        className="min-h-11 text-lake underline"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        The task
      </button>
      {open && (
        <>
          <p className="whitespace-pre-line">{live.briefing}</p>
          {!over && (
            <Button className="mt-2" onClick={() => void says({ kind: 'give-up' })}>
              Give up and see what it was
            </Button>
          )}
        </>
      )}
    </div>
  );
}
