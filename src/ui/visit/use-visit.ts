'use client';
import { withPromise } from '@/core/visit/current';
import type { VisitFacts } from '@/core/visit/facts';
import { arrange } from '@/core/visit/planner';
import { VisitError, type VisitPlan } from '@/core/visit/types';
import { armAlarm, notify, sound } from '@/device/alarm';
import { now as deviceNow } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { visitNow } from '@/wire/visit-now';
import { visitStart } from '@/wire/visit-time';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { usePlan } from './use-plan';
import type { VisitRunLine, VisitViewProps } from './visit-view';

/** The present moment on the server's line, once a second. */
function useServerTime(serverNow: number): number {
  const offset = useRef(serverNow - deviceNow());
  const [at, setAt] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => setAt(deviceNow() + offset.current), 1000);
    return () => clearInterval(timer);
  }, []);
  return at;
}

/** The visit as it is kept: what is changed here is shown at once and saved one change after the other. */
function useKept(props: VisitViewProps) {
  const router = useRouter();
  const [facts, setFacts] = useState(props.facts);
  const version = useRef(props.version);
  const [trouble, setTrouble] = useState('');
  const [unsaved, setUnsaved] = useState(0);
  // what the office knows newer than this page
  useEffect(() => {
    if (props.version >= version.current) {
      version.current = props.version;
      setFacts(props.facts);
    }
  }, [props.facts, props.version]);
  const running = props.runs.some((r) => !r.over);
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => router.refresh(), 15_000);
    return () => clearInterval(timer);
  }, [running, router]);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const save = (next: VisitFacts, removed: string[] = []) => {
    setFacts(next);
    setTrouble('');
    setUnsaved((n) => n + 1);
    const {
      id,
      title,
      day,
      start,
      crew,
      people,
      present,
      permit,
      promise: by,
      tasks,
      wishes,
      pinned,
      done,
    } = next;
    // one at a time, each on the version the one before made
    saving.current = saving.current.then(async () => {
      try {
        const answer = await office<{ version: number }>(`/api/visits/${id}`, {
          method: 'PUT',
          keepalive: true, // who lays it and leaves at once has laid it
          body: {
            version: version.current,
            title,
            day,
            start,
            crew,
            ...(people ? { people } : {}),
            present,
            permit,
            promise: by,
            removed,
            tasks,
            wishes,
            pinned,
            done,
          },
        });
        version.current = answer.version;
        if (removed.length) router.refresh();
      } catch (error) {
        setTrouble((error as OfficeError).message);
        router.refresh();
      }
      setUnsaved((n) => n - 1);
    });
  };
  useEffect(() => {
    if (!unsaved) return;
    const stay = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener('beforeunload', stay);
    return () => removeEventListener('beforeunload', stay);
  }, [unsaved]);
  return { facts, trouble, setTrouble, save, saving: unsaved > 0 };
}

/** A visit with its order: worked out anew when something is known anew, or laid by hand. */
export function useVisit(props: VisitViewProps) {
  const { facts, trouble, setTrouble, save, saving } = useKept(props);
  const [dragged, setDragged] = useState<VisitPlan | null>(null);
  const at = useServerTime(props.serverNow);
  useAlarms(props.runs, facts, at);
  const begin = visitStart(facts);
  const minute = Math.floor((at - begin) / 60_000);
  const { promise, now } = useMemo(
    () => visitNow({ facts, runs: props.runs }, begin, begin + minute * 60_000),
    [facts, props.runs, begin, minute],
  );
  const planned = usePlan({
    facts: {
      tasks: facts.tasks,
      crew: facts.crew,
      wishes: facts.wishes,
      pinned: facts.pinned,
      done: facts.done,
    },
    promise,
    now,
  });
  const plan = dragged ?? planned.plan;
  const byHand = Object.keys(facts.wishes).length > 0;

  const wish = (task: string, wanted: number, done: boolean) => {
    if (!planned.plan) return;
    const base = Object.fromEntries(planned.plan.slots.map((s) => [s.task, s.start]));
    const later = wanted > (base[task] ?? 0);
    const wishes = { ...base, [task]: wanted };
    // what is moved later stays no earlier; what is moved earlier only changes the order
    const pinned = [...facts.pinned.filter((p) => p !== task), ...(later ? [task] : [])];
    if (done) {
      setDragged(null);
      save({ ...facts, wishes, pinned });
      return;
    }
    try {
      setDragged(
        arrange(withPromise(facts, promise), wishes, new Set(pinned), {
          crew: facts.crew,
          now: now.now,
          progress: {
            ...Object.fromEntries(
              Object.entries(facts.done).map(([k, d]) => [k, { state: 'done' as const, ...d }]),
            ),
            ...now.progress,
          },
        }),
      );
    } catch (error) {
      if (!(error instanceof VisitError)) throw error;
      setTrouble(error.message);
    }
  };
  return {
    ...{ facts, at, begin, minute, planned, plan, byHand, save, saving, wish },
    trouble: trouble || planned.trouble,
  };
}

/** Every hold of the visit has an alarm of its own, before its end and at it. */
function useAlarms(runs: readonly VisitRunLine[], facts: VisitFacts, at: number): void {
  const rung = useRef(new Set<string>());
  useEffect(() => {
    addEventListener('pointerdown', armAlarm, { once: true });
  }, []);
  useEffect(() => {
    for (const r of runs) {
      if (r.ends === null) continue;
      const name = facts.tests.find((t) => t.id === r.test)?.siteName ?? '';
      for (const [mark, ms, words] of [
        ['soon', 60_000, 'a minute to go. Back to the gauge.'],
        ['end', 0, 'the time has run out. Read the gauge.'],
      ] as const) {
        const key = `${r.run}:${r.ends}:${mark}`;
        if (at < r.ends - ms || rung.current.has(key)) continue;
        rung.current.add(key);
        if (at > r.ends - ms + 5000) continue; // long past when the page was opened
        sound(mark === 'end' ? 3 : 1);
        notify(`${name}, ${r.stage}: ${words}`);
      }
    }
  }, [runs, facts.tests, at]);
}
