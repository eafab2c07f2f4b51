'use client';
import { networkOf } from '@/core/network/enter';
import { insideOf, reachOf } from '@/core/network/flood';
import { fillingOf } from '@/core/plan/filling';
import { parseFigure, showExact } from '@/core/quantity/exact';
import { namesOf } from '@/core/run/isolations';
import { gaugeOf } from '@/core/run/read';
import { type Searching, searchOf } from '@/core/splitting/search';
import type { BenchView } from '@/device/bench';
import { Keypad } from '@/ui/bench/keypad';
import type { PanelProps } from '@/ui/bench/shared';
import { useNow } from '@/ui/bench/use-bench';
import { FoundHere } from '@/ui/leaks/found-here';
import { Button } from '@/ui/kit/button';
import { countdown } from '@/ui/kit/words';
import { useMemo, useState } from 'react';
import { closedWords, SearchDrawn, SearchSaid, Steps } from './split-tree';

type Act = PanelProps['act'];
interface Props {
  readonly view: BenchView;
  readonly act: Act;
  readonly onDone: () => void;
}
/** The search for the leaking part: what comes next, its hold with its clock, what is closed for it, and what is known by now. */
export function SearchPane({ view, act, onDone }: Props) {
  const { plan, state } = view;
  const search = useMemo(() => searchOf(plan, state), [plan, state]);
  const [trouble, setTrouble] = useState('');
  const say = async (payload: Parameters<Act>[0]) => {
    const answer = await act(payload);
    setTrouble(answer.accepted ? '' : answer.text);
    return answer.accepted ? null : answer.text;
  };
  const { open, shut } = state.search;
  return (
    <section aria-label="Find the part that leaks" className="grid content-start gap-3">
      <h2 className="text-xl font-semibold">Find the part that leaks</h2>
      <p role="alert" className={`font-semibold text-rust ${trouble ? '' : 'hidden'}`}>
        {trouble}
      </p>
      {open ? (
        <Held view={view} search={search} say={say} />
      ) : shut.length ? (
        <Shut view={view} say={say} />
      ) : !search ? (
        <p>Nothing is in question any more, or no valve inside the section parts it.</p>
      ) : state.search.workedOn === null ? (
        <WorkedOn view={view} say={say} />
      ) : (
        <Next view={view} search={search} say={say} />
      )}
      {search && !open && <SearchSaid plan={plan} state={state} search={search} />}
      {search?.found && !open && (
        <FoundHere plan={plan} joint={search.splitting.sections[search.found.part]!.name} />
      )}
      {!open && !shut.length && (
        <Button className="min-h-14" onClick={onDone}>
          Back to the test
        </Button>
      )}
    </section>
  );
}
interface Part {
  readonly view: BenchView;
  readonly say: (payload: Parameters<Act>[0]) => Promise<string | null>;
}
/** What was touched last leaks first: asked once, before the first part is held. */
function WorkedOn({ view: { plan, state }, say }: Part) {
  const [picked, setPicked] = useState<readonly string[]>([]);
  const network = networkOf(plan.system);
  const parts = insideOf(network, reachOf(network, state.valves)).filter((p) => p.name && p.kind !== 'point');
  return (
    <div className="grid gap-3">
      <p className="text-lg">What was worked on today? It is looked at first.</p>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {parts.map((p) => (
          <Button
            key={p.id}
            className="min-h-14"
            aria-pressed={picked.includes(p.id)}
            tone={picked.includes(p.id) ? 'act' : 'plain'}
            onClick={() =>
              setPicked(picked.includes(p.id) ? picked.filter((x) => x !== p.id) : [...picked, p.id])
            }
          >
            {p.name}
          </Button>
        ))}
      </div>
      <Button
        tone={picked.length ? 'act' : 'plain'}
        className="min-h-16"
        onClick={() => void say({ kind: 'worked-on', parts: [...picked] })}
      >
        {picked.length ? 'That is all' : 'Nothing, or nobody knows'}
      </Button>
    </div>
  );
}
/** The isolation that comes next, or another; its start reading begins its clock. */
function Next({ view, search, say }: Part & { search: Searching }) {
  const { plan, state, live } = view;
  const { splitting: s, order } = search;
  const [own, setOwn] = useState('');
  const key = own || order.step.isolation?.key || '';
  const gauge = gaugeOf(plan, state);
  const air = fillingOf(plan).name === 'air';
  if (!key)
    // one part is left, or none that a valve tells from another
    return search.found && search.found.confidence > 0.9 ? null : (
      <p className="text-lg">No valve tells the parts that are left apart. Look at each joint.</p>
    );
  const closed = [...s.shuts[key]!];
  return (
    <div className="grid gap-2">
      <label>
        Close
        <select
          className="mt-1 block min-h-12 w-full border border-edge bg-panel px-2 text-lg text-ink"
          value={key}
          onChange={(e) => setOwn(e.target.value)}
        >
          {s.isolations.map((i) => (
            <option key={i.key} value={i.key}>
              {closedWords(s, i.key)}
            </option>
          ))}
        </select>
      </label>
      {air ? (
        <FlowRead closed={closed} say={say} />
      ) : gauge ? (
        <>
          <p>Raise the rest as for the test, shut the source, let it settle, then read.</p>
          <Keypad
            gauge={gauge}
            label="The gauge now shows"
            save="Closed, settled: begin"
            live={live}
            onSave={(entered) => say({ kind: 'isolation-start', closed, ...entered })}
          />
        </>
      ) : (
        <p role="alert">Choose and zero the gauge first.</p>
      )}
      <Steps search={search} />
      {!search.found && <SearchDrawn plan={plan} state={state} search={search} />}
    </div>
  );
}
/** A part held by itself, with its clock; it can be read at any time, and dropped. */
function Held({ view, search, say }: Part & { search: Searching | null }) {
  const { plan, state, live } = view;
  const at = useNow(true);
  const open = state.search.open!;
  const gauge = plan.gauges.find((g) => g.id === open.gauge);
  return (
    <div className="grid gap-2">
      <p className="text-lg">
        Closed: <span className="font-semibold">{namesOf(plan, open.closed).join(', ')}</span>. From{' '}
        <span className="figure">{showExact(open.start.figure)}</span>; touch nothing.
      </p>
      <p className="flex items-baseline gap-3" role="timer">
        <span className="figure text-5xl">{countdown(at - open.start.readMoment)}</span>
        {search && (
          <span className="text-quiet">
            of <span className="figure">{search.minutes} min</span>; earlier where it falls plainly
          </span>
        )}
      </p>
      {gauge && (
        <Keypad
          gauge={gauge}
          label="The gauge now shows"
          save="That part read"
          live={live}
          previous={open.start.figure}
          onSave={(entered) => say({ kind: 'isolation-end', ...entered })}
        />
      )}
      <Button className="min-h-14" onClick={() => void say({ kind: 'isolation-dropped' })}>
        Drop this hold: the wrong valve, or it was disturbed
      </Button>
    </div>
  );
}
/** Nothing else is held before it is said that all stands as it was. */
function Shut({ view: { plan, state }, say }: Part) {
  return (
    <div className="grid gap-3">
      <p className="border-l-4 border-rust pl-3 text-lg">
        Still closed for the search:{' '}
        <span className="font-semibold">{namesOf(plan, state.search.shut).join(', ')}</span>. Open it again: a
        test with it shut would be one of a part only.
      </p>
      <Button
        tone="act"
        className="min-h-16"
        onClick={() => void say({ kind: 'isolation-reopened', left: false })}
      >
        It is open again
      </Button>
      {state.phase !== 'running' && (
        <Button className="min-h-16" onClick={() => void say({ kind: 'isolation-reopened', left: true })}>
          It stays shut: the leak is behind it
        </Button>
      )}
    </div>
  );
}
const FLOW_UNITS = ['l/s', 'm3/h', 'CFM'] as const;
/** A fan shows what the rest loses. */
function FlowRead({ closed, say }: { closed: string[]; say: Part['say'] }) {
  const [typed, setTyped] = useState('');
  const [unit, setUnit] = useState<(typeof FLOW_UNITS)[number]>('l/s');
  const [wrong, setWrong] = useState('');
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        try {
          void say({ kind: 'isolation-flow', closed, flow: parseFigure(typed, unit) }).then(
            (trouble) => trouble === null && setTyped(''),
          );
          setWrong('');
        } catch (error) {
          setWrong((error as Error).message);
        }
      }}
    >
      <p>Seal it off, raise the fan to the reference pressure, and read the flow.</p>
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-1">
        <label className="text-lg">
          The fan shows
          <input
            className="figure mt-1 block min-h-16 w-full border border-edge bg-panel px-3 text-2xl"
            inputMode="decimal"
            maxLength={10}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
        </label>
        <select
          aria-label="Unit of the flow"
          className="min-h-16 border border-edge bg-panel px-2 text-lg"
          value={unit}
          onChange={(e) => setUnit(e.target.value as typeof unit)}
        >
          {FLOW_UNITS.map((u) => (
            <option key={u}>{u}</option>
          ))}
        </select>
      </div>
      <p role="alert" className="text-rust">
        {wrong}
      </p>
      <Button type="submit" tone="act" className="min-h-16" disabled={!typed.trim()}>
        Read
      </Button>
    </form>
  );
}
