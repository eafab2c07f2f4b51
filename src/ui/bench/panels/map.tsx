'use client';
import type { looksNow } from '@/core/kinds/map/fold';
import type { PoolMap } from '@/core/trades/pool/ends';
import { hiddenPool, seenFrom } from '@/core/simulation/pool-joins';
import { nextLook } from '@/core/trades/pool/joins';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { useMemo, useState } from 'react';
import { Line } from '../line';
import { FoundEnd, Known, Seen } from '../pool/map-parts';
import { PoolDrawn, usePool } from '../pool/pool-drawn';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

type What = 'closed' | 'air' | 'among' | 'pipe';
type Mark = 'on' | 'off' | 'plugged';
const WHAT: Readonly<Record<What, string>> = {
  closed: 'One line shut at the equipment',
  air: 'Low air into one end',
  among: 'Air: bubbles, not sure from which',
  pipe: 'The pipe itself seen',
};
/** What a tap on an end says next, by the kind of look. */
const MARKS: Readonly<Record<What, readonly Mark[]>> = {
  closed: ['on', 'off'],
  air: ['on', 'off', 'plugged'],
  among: ['on'],
  pipe: ['on'],
};
const SAID: Readonly<Record<What, Partial<Record<Mark, string>>>> = {
  closed: { on: 'went quiet', off: 'kept flowing' },
  air: { on: 'bubbled', off: 'still', plugged: 'plugged' },
  among: { on: 'perhaps' },
  pipe: { on: 'this pipe' },
};
interface Draft {
  readonly what: What;
  readonly from: string;
  readonly marks: Readonly<Record<string, Mark>>;
  readonly stood: boolean | null;
  readonly joined: boolean;
  readonly elsewhere: string;
}
const NEW: Draft = { what: 'closed', from: '', marks: {}, stood: null, joined: true, elsewhere: '' };

/** What was seen from one end, marked on the pool; the lines that follow, what clashes, and where to look next. */
export function MapPanel(props: PanelProps) {
  const { map } = usePool(props.view.plan, props.view.state);
  if (!map.ends.length)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        No outlet and no connection is drawn here. Stop this run, draw them on the place page (or enter their
        number), and begin again: nothing is lost.
      </p>
    );
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <MapWork {...props} />
      </div>
      <WayOn open act={props.act}>
        {map.joins.clashes.length
          ? 'End it as it is: what was seen contradicts itself'
          : map.joins.settled && !map.lost.length
            ? 'Every line is known: go on'
            : 'Go on with what is known'}
      </WayOn>
    </div>
  );
}
/** The same beside any stage: what bubbles while a line is pressed is seen then. */
export function MapWork(props: PanelProps) {
  const { view, act } = props;
  const pool = usePool(view.plan, view.state);
  const [draft, setDraft] = useState<Draft>(NEW);
  const { map } = pool;
  const name = (id: string) => map.ends.find((e) => e.id === id)?.name ?? id;
  const notes = new Map(
    Object.entries(draft.marks).flatMap(([id, mark]) => {
      const said = SAID[draft.what][mark];
      return said ? [[id, said] as const] : [];
    }),
  );
  if (draft.from) notes.set(draft.from, 'from here');
  // what contradicts itself comes first: nothing else is sure until it is put right
  const clash = map.joins.clashes.length > 0;
  return (
    <>
      {clash && <Seen {...props} name={name} map={map} />}
      <Next map={map} looks={pool.looks} name={name} />
      <Look
        draft={draft}
        setDraft={setDraft}
        map={map}
        act={act}
        name={name}
        practice={view.plan.practice ? view.plan.run : ''}
      >
        <PoolDrawn
          pool={pool}
          notes={notes}
          chosen={draft.from}
          onEnd={(id) => setDraft((d) => tapped(d, id, map))}
        />
      </Look>
      <Known map={map} name={name} />
      {!clash && <Seen {...props} name={name} map={map} />}
      <FoundEnd {...props} />
    </>
  );
}
/** A tap on an end: first it is where one looks from, then each tap is the next answer. */
function tapped(d: Draft, id: string, map: PoolMap): Draft {
  if (d.what !== 'pipe' && !d.from) {
    const end = map.ends.find((e) => e.id === id);
    return d.what === 'closed' && !end?.dry ? d : { ...d, from: id };
  }
  if (id === d.from) return { ...d, from: '' };
  const order = MARKS[d.what];
  const now = d.marks[id];
  const next = now === undefined ? order[0] : order[order.indexOf(now) + 1];
  const { [id]: _, ...rest } = d.marks;
  return { ...d, marks: next ? { ...rest, [id]: next } : rest };
}
function Next({
  map,
  looks,
  name,
}: {
  map: PoolMap;
  looks: ReturnType<typeof looksNow>;
  name: (id: string) => string;
}) {
  const next = useMemo(
    () =>
      nextLook(
        map.ends.map((e) => e.id),
        looks,
        new Set(map.ends.filter((e) => e.dry).map((e) => e.id)),
      ),
    [map, looks],
  );
  if (!next) return null;
  return (
    <p className="border-l-4 border-lake pl-3">
      Look next from <strong>{name(next.at)}</strong>: it tells of{' '}
      {next.tells.length > 4 ? `${next.tells.length} ends` : next.tells.map(name).join(', ')}.
    </p>
  );
}

function Look({
  draft,
  setDraft,
  map,
  act,
  name,
  practice,
  children,
}: {
  draft: Draft;
  setDraft: (d: Draft) => void;
  map: PoolMap;
  act: PanelProps['act'];
  name: (id: string) => string;
  /** The practice run whose hidden pool answers; '' where a real one is looked at. */
  practice: string;
  children: React.ReactNode;
}) {
  const [trouble, setTrouble] = useState('');
  const { what, from, marks, stood, joined, elsewhere } = draft;
  const of = (mark: Mark) => map.ends.filter((e) => marks[e.id] === mark && e.id !== from).map((e) => e.id);
  const asks = what === 'air' && from !== '' && !of('on').length && !elsewhere.trim();
  const enter = async () => {
    const answer = await act({
      kind: 'look',
      what,
      from: what === 'pipe' ? '' : from,
      on: of('on'),
      off: of('off'),
      plugged: of('plugged'),
      ...(what === 'air' && stood ? { stood } : {}),
      ...(what === 'pipe' && joined ? { joined } : {}),
      ...(what === 'air' && elsewhere.trim() ? { elsewhere: elsewhere.trim() } : {}),
    });
    setTrouble(answer.accepted ? '' : answer.text);
    if (answer.accepted) setDraft({ ...NEW, what });
  };
  return (
    <section aria-label="A look" className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <Choice
        label="What you did"
        options={WHAT}
        value={what}
        onChange={(w) => setDraft({ ...NEW, what: w })}
      />
      <p aria-live="polite" className="text-lg font-semibold">
        {what === 'pipe'
          ? 'Tap every end whose pipe you saw.'
          : from
            ? `From ${name(from)}: tap what ${what === 'closed' ? 'went quiet; twice: kept flowing' : what === 'air' ? 'bubbled; twice: watched, still; three times: plugged' : 'it could have been'}.`
            : `Tap the ${what === 'closed' ? 'connection whose line you shut' : 'end the air goes into'}.`}
      </p>
      <div className="max-sm:order-last">{children}</div>
      <EndList draft={draft} map={map} onEnd={(id) => setDraft(tapped(draft, id, map))} />
      {what === 'pipe' && (
        <Choice
          label="How many pipes"
          options={{ one: 'One pipe for all of them', each: 'A pipe of its own for each' }}
          value={joined ? 'one' : 'each'}
          onChange={(k) => setDraft({ ...draft, joined: k === 'one' })}
        />
      )}
      {what === 'air' && (
        <>
          <Line value={elsewhere} onChange={(v) => setDraft({ ...draft, elsewhere: v })} most={200}>
            Bubbles where no end is listed? Where
          </Line>
          {asks && (
            <Choice
              label="Nothing bubbled: did the pressure stand"
              options={{
                yes: 'Nothing bubbled, the pressure stood',
                no: 'Nothing bubbled, it did not stand',
              }}
              value={stood === null ? '' : stood ? 'yes' : 'no'}
              onChange={(k) => setDraft({ ...draft, stood: k === 'yes' })}
            />
          )}
        </>
      )}
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      {practice && (what === 'closed' || what === 'air') && (
        <Button
          className="min-h-16 border-dashed border-heather text-heather"
          disabled={!from}
          onClick={() => {
            const there = seenFrom(hiddenPool(practice, map.ends), what, from, of('plugged'));
            const said = (ids: readonly string[], mark: Mark) => ids.map((id) => [id, mark] as const);
            setDraft({
              ...draft,
              marks: Object.fromEntries([
                ...said(there.on, 'on'),
                ...said(there.off, 'off'),
                ...said(of('plugged'), 'plugged'),
              ]),
              stood: there.stood,
              elsewhere: there.elsewhere,
            });
          }}
        >
          Do it on the simulated pool
        </Button>
      )}
      <Button
        tone="act"
        className="min-h-16"
        disabled={(what !== 'pipe' && !from) || (asks && stood === null && of('off').length > 0)}
        onClick={() => void enter()}
      >
        Enter this look
      </Button>
    </section>
  );
}
/** The same ends as buttons: for fingers on a small screen, and for who does not see the drawing. */
function EndList({ draft, map, onEnd }: { draft: Draft; map: PoolMap; onEnd: (id: string) => void }) {
  return (
    <ul aria-label="Ends" className="grid grid-cols-2 gap-2 sm:grid-cols-4">
      {map.ends.map((e) => {
        const mark = draft.marks[e.id];
        const from = draft.from === e.id;
        const said = from ? 'from here' : mark ? SAID[draft.what][mark] : '';
        const off = draft.what === 'closed' && !draft.from && !e.dry;
        return (
          <li key={e.id}>
            <Button
              className="min-h-16 w-full justify-start text-left"
              tone={from || mark === 'on' ? 'act' : 'plain'}
              aria-pressed={from || !!mark}
              disabled={off}
              onClick={() => onEnd(e.id)}
            >
              <span>
                <span className="block">{e.name}</span>
                <span className="block text-sm font-normal">{said || e.word}</span>
              </span>
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
