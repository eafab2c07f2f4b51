'use client';
import { dayWords } from '@/ui/visit/times';
import { ENDS, TRAPS, type Trap, WAYS } from '@/core/yard/words';
import { deviceZone, now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { useMay } from '@/ui/frame/may';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField } from '@/ui/kit/field';
import type { ScenarioCard, TaskRow } from '@/wire/yard';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useState } from 'react';

export interface TrapLine {
  readonly trap: Trap;
  readonly met: number;
  readonly mastered: boolean;
  /** It should be met again. */ readonly due: boolean;
}
const LEVELS = ['for whoever begins', 'with some practice', 'for an old hand'] as const;

/** Where one may be wrong: the case of the day, every scenario by its trade, and what was met and mastered. */
export function YardList({
  cards,
  today,
  traps,
  tasks,
  me,
}: {
  /** Whose it is; '' where this person practises nothing. */ me: string;
  cards: readonly ScenarioCard[];
  tasks: readonly TaskRow[];
  today: string | null;
  traps: readonly TrapLine[];
}) {
  const [way, setWay] = useState<'free' | 'guided'>('free');
  const [trade, setTrade] = useState('');
  const [busy, setBusy] = useState('');
  const [trouble, setTrouble] = useState('');
  const run = useMay('run');
  const trades = [...new Set(cards.map((c) => c.trade))];
  const shown = cards.filter((c) => !trade || c.trade === trade);
  const ofDay = cards.find((c) => c.id === today);
  const begin = async (scenario: string, task?: TaskRow) => {
    setBusy(task?.id ?? scenario);
    setTrouble('');
    const id = uuid7(now());
    try {
      await office('/api/yard/runs', {
        body: {
          run: id,
          scenario,
          way: task?.way ?? way,
          ...(task ? { task: task.id } : {}),
          zone: deviceZone(),
        },
      });
      location.assign(`/bench/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy('');
    }
  };
  const row = { begin, busy, may: run };
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_320px]">
      <div>
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <Tasks tasks={tasks} begin={(t) => begin('set', t)} busy={busy} />
        {ofDay && (
          <section aria-labelledby="of-day" className="border-2 border-dashed border-heather p-3">
            <h2 id="of-day" className="font-semibold text-heather">
              Case of the day
            </h2>
            <Row card={ofDay} {...row} told />
          </section>
        )}
        <div className="mt-4 flex flex-wrap items-end gap-3">
          <fieldset className="flex flex-wrap gap-2">
            <legend className="text-sm text-quiet">How</legend>
            {(['free', 'guided'] as const).map((w) => (
              <Button
                key={w}
                tone={way === w ? 'act' : 'plain'}
                aria-pressed={way === w}
                onClick={() => setWay(w)}
              >
                {WAYS[w].split(':')[0]}
              </Button>
            ))}
          </fieldset>
          <SelectField
            label="Trade"
            value={trade}
            onChange={setTrade}
            none="all"
            options={trades.map((t) => ({ id: t, title: t }))}
          />
        </div>
        <p className="mt-1 text-sm text-quiet">{WAYS[way].split(': ')[1]}</p>
        {trades
          .filter((t) => !trade || t === trade)
          .map((t) => (
            <section key={t} aria-labelledby={`trade-${t}`} className="mt-5">
              <h2
                id={`trade-${t}`}
                className="border-b border-seam text-lg font-semibold first-letter:uppercase"
              >
                {t}
              </h2>
              <ul>
                {shown
                  .filter((c) => c.trade === t)
                  .sort((a, b) => a.level - b.level || a.title.localeCompare(b.title))
                  .map((c) => (
                    <li key={c.id} className="border-b border-seam py-2">
                      <Row card={c} {...row} />
                    </li>
                  ))}
              </ul>
            </section>
          ))}
      </div>
      <Traps traps={traps} me={me} />
    </div>
  );
}
function Row({
  card,
  begin,
  busy,
  may,
  told = false,
}: {
  card: ScenarioCard;
  begin: (id: string) => Promise<void>;
  busy: string;
  may: boolean;
  told?: boolean;
}) {
  const [open, setOpen] = useState(told);
  return (
    <div className="grid items-center gap-2 sm:grid-cols-[1fr_auto]" data-scenario={card.id}>
      <div>
        <button
          type="button"
          className="min-h-11 text-left font-semibold underline-offset-4 hover:underline"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {card.title}
        </button>
        <p className="text-sm text-quiet">
          {LEVELS[card.level - 1]}, about {card.minutes} min
          {card.own && ', of this house'}
          {card.last && (
            <>
              ; last time: <span className="text-ink">{ENDS[card.last].toLowerCase()}</span>
              {card.times > 1 && `, ${card.times} times`}
            </>
          )}
        </p>
        {open && <p className="mt-1 max-w-prose">{card.briefing}</p>}
      </div>
      {may && (
        <Button disabled={busy !== ''} onClick={() => void begin(card.id)} aria-label={`Begin ${card.title}`}>
          {busy === card.id ? 'Setting up …' : 'Begin'}
        </Button>
      )}
    </div>
  );
}
/** What was set to this person and is not done. */
function Tasks({
  tasks,
  begin,
  busy,
}: {
  tasks: readonly TaskRow[];
  begin: (task: TaskRow) => Promise<void>;
  busy: string;
}) {
  if (!tasks.length) return null;
  return (
    <section aria-labelledby="tasks" className="mb-4 border-2 border-heather p-3">
      <h2 id="tasks" className="font-semibold text-heather">
        Set to you
      </h2>
      <ul>
        {tasks.map((t) => (
          <li
            key={t.id}
            className="flex flex-wrap items-center justify-between gap-2 py-2"
            data-task={t.stands}
          >
            <span>
              <strong className="first-letter:uppercase">
                {t.way === 'exam' ? `Exam, ${t.trade}` : t.title}
              </strong>
              <span className="block text-sm text-quiet">
                until {dayWords(t.due)}
                {t.minutes !== null && `, ${t.minutes} min at most`}
                {t.note && `: ${t.note}`}
              </span>
            </span>
            {t.stands === 'set' ? (
              <Button tone="act" disabled={busy !== ''} onClick={() => void begin(t)}>
                {t.way === 'exam' ? 'Sit the exam' : 'Begin'}
              </Button>
            ) : t.stands === 'running' ? (
              <a className={buttonClass('act')} href={`/bench/${t.run}`}>
                Go on
              </a>
            ) : t.stands === 'done' ? (
              <a className={buttonClass('plain')} href={`/yard/${t.run}`}>
                What came of it
              </a>
            ) : (
              <span className="text-quiet">waits for its signature</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
/** What each trap is, in words, and whether it was met: a block for each, dressed once it is mastered. */
function Traps({ traps, me }: { traps: readonly TrapLine[]; me: string }) {
  return (
    <section aria-labelledby="traps">
      <h2 id="traps" className="text-lg font-semibold">
        Traps
      </h2>
      <p className="text-sm text-quiet">
        {traps.filter((t) => t.mastered).length} of {traps.length} mastered,{' '}
        {traps.filter((t) => t.due).length} due.{' '}
        {me && (
          <Link prefetch={false} href={`/yard/statements/of/${me}`} className="text-lake underline">
            Statements
          </Link>
        )}
      </p>
      <ul className="mt-2 grid gap-1">
        {traps.map((t) => (
          <li key={t.trap} className="grid grid-cols-[28px_1fr] items-center gap-2">
            <svg width="28" height="16" aria-hidden>
              <rect
                x="1"
                y="2"
                width="26"
                height="12"
                fill={t.mastered ? 'var(--heather)' : 'none'}
                stroke={t.met ? 'var(--heather)' : 'var(--edge)'}
                strokeWidth="1.5"
                strokeDasharray={t.met ? undefined : '2 3'}
              />
              {t.met > 0 && !t.mastered && <path d="M2,13L26,3" stroke="var(--heather)" strokeWidth="1.5" />}
            </svg>
            <span>
              {TRAPS[t.trap]}
              <span className="text-sm text-quiet">
                {' '}
                {t.mastered ? 'mastered' : t.met ? `met ${t.met === 1 ? 'once' : `${t.met} times`}` : ''}
                {t.due && t.met ? ', due' : ''}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
