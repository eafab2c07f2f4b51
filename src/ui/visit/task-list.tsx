'use client';
import type { VisitPair } from '@/core/plan/beside-offer';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { attendanceOn, type VisitFacts } from '@/core/visit/facts';
import type { VisitPlan, VisitTask } from '@/core/visit/types';
import { deviceZone, now } from '@/device/clock';
import { beginRun } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { countdown, minutesWords } from '@/ui/kit/words';
import { uuid7 } from '@/wire/uuid7';
import { clockOf } from './times';
import type { VisitRunLine } from './visit-view';

interface Props {
  readonly facts: VisitFacts;
  readonly plan: VisitPlan;
  readonly runs: readonly VisitRunLine[];
  readonly begin: number;
  /** Tests that begin together. */
  readonly pairs: readonly VisitPair[];
  readonly at: number;
  readonly selected: string | null;
  readonly mayPlan: boolean;
  readonly mayRun: boolean;
  readonly onSelect: (task: string) => void;
  readonly onChange: (facts: VisitFacts, removed?: string[]) => void;
}

/** The visit as a list with clock times: what is next, what runs, what is done; minutes can be changed. */
export function TaskList({
  facts,
  plan,
  runs,
  pairs,
  begin,
  at,
  selected,
  mayPlan,
  mayRun,
  onSelect,
  onChange,
}: Props) {
  const order = [...plan.slots].sort((a, b) => a.start - b.start || a.end - b.end);
  const byId = new Map(facts.tasks.map((t) => [t.id, t]));
  const minute = (at - begin) / 60_000;
  const edit = (task: VisitTask, part: Partial<VisitTask>) =>
    onChange({ ...facts, tasks: facts.tasks.map((t) => (t.id === task.id ? { ...t, ...part } : t)) });
  return (
    <ol className="mt-4 border-t border-ink">
      {order.map((slot) => {
        const task = byId.get(slot.task);
        if (!task) return null;
        const test = facts.tests.find((t) => t.id === task.test);
        const run = runs.find((r) => r.test === task.test);
        const own = run?.progress.tasks[task.id];
        const done = facts.done[task.id] !== undefined || (own?.state === 'done' && !own.running);
        const waiting = own?.state === 'waiting' && run && !run.over;
        const first = test && task.kind === 'test' && task.takes.length > 0;
        return (
          <li
            key={task.id}
            className={`grid grid-cols-[4.2rem_1fr] gap-x-4 gap-y-2 border-b border-seam py-3 sm:grid-cols-[4.2rem_1fr_auto] ${selected === task.id ? 'bg-panel' : ''} ${done ? 'text-quiet' : ''}`}
          >
            <span className="figure-narrow pt-0.5">{clockOf(begin, slot.start, facts.zone)}</span>
            <span>
              <button type="button" className="text-left font-semibold" onClick={() => onSelect(task.id)}>
                {task.title}
              </button>
              {(done || own) && <span className="text-sm"> {done ? 'done' : 'now'}</span>}
              <span className="block text-sm text-quiet">
                {task.hands > 0 && `${minutesWords(task.hands)} hands on`}
                {task.wait > 0 &&
                  `, then ${minutesWords(task.wait)} waiting until ${clockOf(begin, slot.closeStart, facts.zone)}`}
                {task.during && `, while ${byId.get(task.during)?.waits?.toLowerCase() ?? 'a hold'} waits`}
                {first && test.gaugeName && `; gauge ${test.gaugeName}`}
                {facts.pinned.includes(task.id) && '; not earlier, by hand'}
              </span>
              {run && run.progress.repeats > 0 && first && (
                <span className="block text-sm text-ochre">
                  Repeated {run.progress.repeats} {run.progress.repeats === 1 ? 'step' : 'steps'}: the rest is
                  planned again.
                </span>
              )}
              {selected === task.id && mayPlan && !own && (
                <Minutes task={task} onEdit={(part) => edit(task, part)} />
              )}
            </span>
            <span className="col-start-2 flex flex-wrap items-center justify-end gap-3 sm:col-start-3">
              {waiting && run.ends !== null && (
                <span className="figure text-2xl" role="timer" aria-label={`${task.title}, time left`}>
                  {at < run.ends ? countdown(run.ends - at) : '0:00'}
                </span>
              )}
              {first && run && (
                <a
                  className={buttonClass(run.over ? 'plain' : 'act')}
                  href={run.sealed ? `/ledger/${run.run}` : `/bench/${run.run}`}
                >
                  {run.sealed ? `Record ${run.sealed}` : `Bench: ${run.stage}`}
                </a>
              )}
              {first && !run && mayRun && <Begin facts={facts} test={test.id} pairs={pairs} />}
              {task.kind !== 'test' && !done && (
                <Button
                  onClick={() => {
                    const end = Math.max(0.5, Math.round(minute * 2) / 2);
                    onChange({
                      ...facts,
                      done: {
                        ...facts.done,
                        [task.id]: { start: Math.max(0, Math.min(slot.start, end - task.hands)), end },
                      },
                    });
                  }}
                >
                  Done
                </Button>
              )}
              {first && !run && mayPlan && (
                <Button
                  onClick={() =>
                    onChange(
                      {
                        ...facts,
                        tests: facts.tests.filter((t) => t.id !== test.id),
                        tasks: withoutTest(facts.tasks, test.id),
                        wishes: {},
                        pinned: [],
                      },
                      [test.id],
                    )
                  }
                >
                  Take off
                </Button>
              )}
              {task.kind === 'other' && mayPlan && (
                <Button
                  onClick={() =>
                    onChange({
                      ...facts,
                      tasks: without(facts.tasks, new Set([task.id])),
                      wishes: {},
                      pinned: [],
                    })
                  }
                >
                  Take off
                </Button>
              )}
            </span>
          </li>
        );
      })}
    </ol>
  );
}
function without(tasks: readonly VisitTask[], gone: ReadonlySet<string>): VisitTask[] {
  return tasks
    .filter((t) => !gone.has(t.id) && !(t.during && gone.has(t.during)))
    .map((t) => ({ ...t, after: t.after.filter((a) => !gone.has(a)) }));
}
const withoutTest = (tasks: readonly VisitTask[], test: string): VisitTask[] =>
  without(tasks, new Set(tasks.filter((t) => t.test === test).map((t) => t.id)));

function Minutes({ task, onEdit }: { task: VisitTask; onEdit: (part: Partial<VisitTask>) => void }) {
  return (
    <span className="no-print mt-2 flex flex-wrap gap-3">
      {(['hands', ...(task.wait ? (['wait'] as const) : [])] as const).map((key) => (
        <label key={key} className="text-sm">
          {key === 'hands' ? 'Minutes hands on' : 'Minutes waiting'}
          <input
            type="number"
            min={0}
            max={1440}
            step={1}
            className="figure mt-1 block min-h-12 w-28 border border-edge bg-panel px-2 text-base"
            defaultValue={task[key]}
            onBlur={(e) => {
              const value = Number(e.target.value);
              if (Number.isFinite(value) && value >= 0 && value !== task[key]) onEdit({ [key]: value });
            }}
          />
        </label>
      ))}
    </span>
  );
}

/** Begins the run of a test on the visit. */
function Begin({ facts, test, pairs }: { facts: VisitFacts; test: string; pairs: readonly VisitPair[] }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const pair = pairs.find((p) => p.tests.some((x) => x.test === test));
  // asked again after a lost answer, the same runs are meant
  const [ids] = useState(() => [uuid7(now()), uuid7(now() + 1)] as const);
  const begin = async () => {
    setBusy(true);
    setTrouble('');
    try {
      const wanted = pair ? pair.tests.map((x) => x.test) : [test];
      const beside = pair && {
        id: pair.beside,
        runs: pair.tests.map((x, i) => ({ run: ids[i]!, procedure: x.procedure })),
      };
      for (const [i, one] of wanted.entries()) {
        const t = facts.tests.find((x) => x.id === one)!;
        await beginRun(
          {
            id: ids[i]!,
            system: t.system,
            pack: t.pack,
            procedure: t.procedure,
            case: t.case,
            choices: t.choices ?? {},
            practice: false,
            ...attendanceOn(facts, t),
            visit: { id: facts.id, test: one },
            ...(beside ? { beside } : {}),
            zone: deviceZone(),
          },
          t.title,
        );
      }
      location.assign(`/bench/${ids[0]}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
      router.refresh();
    }
  };
  return (
    <span>
      <Button tone="act" disabled={busy} onClick={() => void begin()}>
        {pair ? 'Begin both, side by side' : 'Begin at the bench'}
      </Button>
      <span role="alert" className="block max-w-xs text-sm text-rust">
        {trouble}
      </span>
    </span>
  );
}
