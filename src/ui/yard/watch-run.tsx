'use client';
import { ENDS } from '@/core/yard/words';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { countdown } from '@/ui/kit/words';
import type { TrainRequest, Watched } from '@/wire/yard';
import { useCallback, useEffect, useState } from 'react';

const ASK_MS = 2500;
/** Somebody practises; the one who trains sees what is true, says something, hides something else, stops the hands, signs. */
export function WatchRun({ run, first }: { run: string; first: Watched }) {
  const [seen, setSeen] = useState(first);
  const [trouble, setTrouble] = useState('');
  const url = `/api/yard/runs/${run}/training`;
  useEffect(() => {
    const timer = setInterval(
      () => void office<Watched>(url).then(setSeen, (e: OfficeError) => setTrouble(e.message)),
      ASK_MS,
    );
    return () => clearInterval(timer);
  }, [url]);
  const does = useCallback(
    (body: TrainRequest) =>
      office<Watched>(url, { body }).then(
        (w) => {
          setSeen(w);
          setTrouble('');
        },
        (e: OfficeError) => setTrouble(e.message),
      ),
    [url],
  );
  const { live } = seen;
  const over = live.concluded || live.halted !== null;
  const figure = (v: number) => `${v.toFixed(seen.decimals).replace('-', '−')} ${seen.unit}`;
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_340px]" data-watched={over ? 'over' : 'running'}>
      <div className="grid content-start gap-4">
        <dl className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          <Fact name="Stage" value={seen.stage || 'none'} />
          <Fact name="The gauge shows" value={figure(seen.shown)} figure />
          <Fact name="True" value={figure(seen.perfect)} figure />
          <Fact
            name="Leaks now"
            value={seen.leaking === null ? 'not known in litres' : `${seen.leaking.toFixed(2)} l/h`}
            figure
          />
          {seen.holdEnds !== null && (
            <Fact name="Hold ends in" value={countdown(seen.holdEnds - live.at)} figure />
          )}
          {seen.result && <Fact name="Result at the bench" value={seen.result} />}
        </dl>
        {live.halted && (
          <p className="border-l-4 border-rust pl-3" role="status">
            {live.halted.why}
          </p>
        )}
        <section aria-labelledby="asked">
          <h2 id="asked" className="text-lg font-semibold">
            What is asked
          </h2>
          <ul className="grid gap-1">
            {live.guide.map((g) => (
              <li key={g.id} className={`border-l-4 pl-3 ${g.met ? 'border-moss' : 'border-edge'}`}>
                {g.text}
                <span className="text-sm text-quiet"> {g.met ? 'done' : 'not yet'}</span>
              </li>
            ))}
          </ul>
        </section>
        {seen.said.length > 0 && (
          <section aria-labelledby="found">
            <h2 id="found" className="text-lg font-semibold">
              Found by hand
            </h2>
            <ul className="text-sm">
              {seen.said.map((s, i) => (
                <li key={i}>{s}</li>
              ))}
            </ul>
          </section>
        )}
        <p className="text-sm text-quiet">Hidden: {seen.hidden}</p>
        <a className={buttonClass('plain', 'justify-self-start')} href={`/bench/${run}`}>
          Open their bench
        </a>
      </div>
      <aside className="grid content-start gap-4 border-2 border-dashed border-heather p-3">
        {over ? <Sign seen={seen} run={run} does={does} /> : <Hands seen={seen} does={does} />}
        <p role="alert" className="text-rust">
          {trouble}
        </p>
      </aside>
    </div>
  );
}
function Fact({ name, value, figure = false }: { name: string; value: string; figure?: boolean }) {
  return (
    <div>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className={figure ? 'figure-narrow text-lg' : 'text-lg font-semibold'}>{value}</dd>
    </div>
  );
}
type Does = (body: TrainRequest) => Promise<void>;
function Hands({ seen, does }: { seen: Watched; does: Does }) {
  const [note, setNote] = useState('');
  const [fault, setFault] = useState('');
  const field = 'mt-1 block min-h-12 w-full border border-edge bg-panel px-2';
  return (
    <>
      <h2 className="font-semibold text-heather">While they practise</h2>
      <form
        className="grid gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (note.trim()) void does({ kind: 'note', text: note.trim() }).then(() => setNote(''));
        }}
      >
        <label className="text-sm">
          Say something
          <input className={field} value={note} maxLength={1000} onChange={(e) => setNote(e.target.value)} />
        </label>
        <Button type="submit" disabled={!note.trim()}>
          Say it
        </Button>
      </form>
      {Object.keys(seen.faults).length > 0 && (
        <form
          className="grid gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (fault) void does({ kind: 'hidden', fault }).then(() => setFault(''));
          }}
        >
          <label className="text-sm">
            Hide something else from now on
            <select className={field} value={fault} onChange={(e) => setFault(e.target.value)}>
              <option value="">Choose</option>
              {Object.entries(seen.faults).map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <Button type="submit" disabled={!fault}>
            Hide it
          </Button>
        </form>
      )}
      <Button
        aria-pressed={seen.live.stands !== null}
        onClick={() => void does({ kind: 'paused', paused: seen.live.stands === null })}
      >
        {seen.live.stands === null ? 'Stop hands and clock' : 'Let it go on'}
      </Button>
    </>
  );
}
function Sign({ seen, run, does }: { seen: Watched; run: string; does: Does }) {
  const [text, setText] = useState('');
  return (
    <>
      <h2 className="font-semibold text-heather">It is over: {ENDS[seen.end].toLowerCase()}</h2>
      {seen.live.way === 'exam' && !seen.signed && (
        <form
          className="grid gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void does({ kind: 'signed', text });
          }}
        >
          <label className="text-sm">
            A word with it
            <textarea
              className="mt-1 block min-h-20 w-full border border-edge bg-panel px-2"
              value={text}
              maxLength={1000}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <Button tone="act" type="submit" className="min-h-14">
            Sign what came of it
          </Button>
        </form>
      )}
      {seen.signed && <p>Signed: {seen.name} can see it now.</p>}
      <a className={buttonClass('plain')} href={`/yard/${run}`}>
        What came of it
      </a>
    </>
  );
}
