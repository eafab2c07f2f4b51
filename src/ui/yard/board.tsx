'use client';
import { BEGUN, TRAPS, type Way, WAYS } from '@/core/yard/words';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { moment } from '@/ui/kit/words';
import type { Board, ScenarioCard, TaskRow } from '@/wire/yard';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

const STANDS: Readonly<Record<TaskRow['stands'], string>> = {
  set: 'not begun',
  running: 'going on',
  'to sign': 'to be looked at and signed',
  done: 'done',
};
/** Who practises, what is set to whom, and what goes on now. */
export function BoardView({
  board,
  cards,
  faults,
  zone,
  today,
}: {
  board: Board;
  cards: readonly ScenarioCard[];
  faults: Readonly<Record<string, Readonly<Record<string, string>>>>;
  zone: string;
  today: string;
}) {
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_360px]">
      <div className="grid content-start gap-6">
        {board.running.length > 0 && (
          <section aria-labelledby="running">
            <h2 id="running" className="text-lg font-semibold">
              Going on now
            </h2>
            <ul>
              {board.running.map((r) => (
                <li
                  key={r.run}
                  className="flex flex-wrap items-center justify-between gap-2 border-b border-seam py-2"
                >
                  <span>
                    <strong>{r.name}</strong>: {r.title}{' '}
                    <span className="text-sm text-quiet">
                      {r.way}, since {moment(r.made, zone)}
                    </span>
                  </span>
                  <Link prefetch={false} href={`/yard/${r.run}/watch`} className={buttonClass('plain')}>
                    Look on
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
        <section aria-labelledby="people">
          <h2 id="people" className="text-lg font-semibold">
            Who practises
          </h2>
          <table className="w-full text-left">
            <thead className="text-sm text-quiet">
              <tr>
                <th className="font-normal">Name</th>
                <th className="font-normal">Traps mastered</th>
                <th className="font-normal">met</th>
                <th className="font-normal">due</th>
                <th className="font-normal max-sm:hidden">Last practised</th>
              </tr>
            </thead>
            <tbody>
              {board.people.map((p) => (
                <tr key={p.id} className="border-t border-seam">
                  <th className="py-2 font-semibold">{p.name}</th>
                  <td>
                    <span className="figure-narrow">{p.mastered}</span> of {p.of}
                  </td>
                  <td className="figure-narrow">{p.met}</td>
                  <td className="figure-narrow">{p.due}</td>
                  <td className="max-sm:hidden">{p.last === null ? 'not yet' : moment(p.last, zone)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <a className={buttonClass('plain', 'mt-3')} href="/api/yard/csv" download>
            All of it as a table (CSV)
          </a>
        </section>
        <section aria-labelledby="set">
          <h2 id="set" className="text-lg font-semibold">
            What is set
          </h2>
          {!board.tasks.length && (
            <p className="text-quiet">Nothing yet. Set a scenario to somebody at the side.</p>
          )}
          <ul>
            {board.tasks.map((t) => (
              <li
                key={t.id}
                className="flex flex-wrap items-center justify-between gap-2 border-b border-seam py-2"
                data-task={t.stands}
              >
                <span>
                  <strong>{t.name}</strong>: {t.title}{' '}
                  <span className="text-sm text-quiet">
                    {t.way}
                    {t.minutes !== null && `, ${t.minutes} min`}, until {t.due}; {STANDS[t.stands]}
                  </span>
                </span>
                {t.run && (
                  <Link
                    prefetch={false}
                    href={t.stands === 'done' ? `/yard/${t.run}` : `/yard/${t.run}/watch`}
                    className={buttonClass('plain')}
                  >
                    {t.stands === 'to sign'
                      ? 'Look at it and sign'
                      : t.stands === 'done'
                        ? 'What came of it'
                        : 'Look on'}
                  </Link>
                )}
              </li>
            ))}
          </ul>
        </section>
      </div>
      <div className="grid content-start gap-6">
        <SetTask board={board} cards={cards} faults={faults} today={today} />
        <OwnScenarios cards={cards} />
      </div>
    </div>
  );
}
/** Scenarios as files: one is taken out, changed, and brought in under a name of its own. */
function OwnScenarios({ cards }: { cards: readonly ScenarioCard[] }) {
  const router = useRouter();
  const [scenario, setScenario] = useState(cards[0]?.id ?? '');
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const take = async (file: File | undefined) => {
    if (!file) return;
    setSaid('Trying its conducts …');
    setTrouble('');
    try {
      const { title } = await office<{ title: string }>('/api/yard/scenarios', {
        body: { text: await file.text() },
      });
      setSaid(`${title} is in: its good conduct ends mastered, its mistakes are caught.`);
      router.refresh();
    } catch (error) {
      setSaid('');
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section aria-labelledby="files" className="grid gap-3 border border-seam p-3">
      <h2 id="files" className="font-semibold">
        Scenarios as files
      </h2>
      <label className="text-sm">
        Take one out
        <select
          className="mt-1 block min-h-12 w-full border border-edge bg-panel px-2"
          value={scenario}
          onChange={(e) => setScenario(e.target.value)}
        >
          {cards.map((c) => (
            <option key={c.id} value={c.id}>
              {c.trade}: {c.title}
            </option>
          ))}
        </select>
      </label>
      <a className={buttonClass('plain')} href={`/api/yard/scenarios/${scenario}`} download>
        Export it
      </a>
      <label className="text-sm">
        Bring one in (JSON)
        <input
          className="mt-1 block min-h-12 w-full border border-edge bg-panel p-2"
          type="file"
          accept="application/json,.json"
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </label>
      <p aria-live="polite">{said}</p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
/** A scenario, to whom, how and until when; with something else hidden in it where that is wished. */
function SetTask({
  board,
  cards,
  faults,
  today,
}: {
  board: Board;
  cards: readonly ScenarioCard[];
  faults: Readonly<Record<string, Readonly<Record<string, string>>>>;
  today: string;
}) {
  const router = useRouter();
  const [person, setPerson] = useState(board.people[0]?.id ?? '');
  const [scenario, setScenario] = useState(cards[0]?.id ?? '');
  const [way, setWay] = useState<Way>('exam');
  const [fault, setFault] = useState('');
  const [minutes, setMinutes] = useState('60');
  const [due, setDue] = useState(today);
  const [note, setNote] = useState('');
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const card = cards.find((c) => c.id === scenario);
  const own = faults[scenario] ?? {};
  const field = 'mt-1 block min-h-12 w-full border border-edge bg-panel px-2';
  const send = async () => {
    setBusy(true);
    setTrouble('');
    try {
      const limit = minutes.trim() ? { minutes: Number(minutes) } : {};
      await office('/api/yard/tasks', {
        body: { id: uuid7(now()), person, scenario, way, ...(fault ? { fault } : {}), ...limit, due, note },
      });
      setSaid(`Set to ${board.people.find((p) => p.id === person)?.name ?? ''}: it stands in their Yard.`);
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return (
    <form
      className="grid content-start gap-3 border-2 border-dashed border-heather p-3"
      aria-label="Set a scenario"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      <h2 className="font-semibold text-heather">Set a scenario</h2>
      <label className="text-sm">
        To whom
        <select className={field} value={person} onChange={(e) => setPerson(e.target.value)}>
          {board.people.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
      </label>
      <label className="text-sm">
        Scenario
        <select
          className={field}
          value={scenario}
          onChange={(e) => {
            setScenario(e.target.value);
            setFault('');
          }}
        >
          {cards.map((c) => (
            <option key={c.id} value={c.id}>
              {c.trade}: {c.title}
            </option>
          ))}
        </select>
      </label>
      {card && <p className="text-sm text-quiet">Trains: {card.traps.map((t) => TRAPS[t]).join(', ')}.</p>}
      {Object.keys(own).length > 0 && (
        <label className="text-sm">
          What is hidden
          <select className={field} value={fault} onChange={(e) => setFault(e.target.value)}>
            <option value="">what the scenario hides</option>
            {Object.entries(own).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className="text-sm">
        How
        <select className={field} value={way} onChange={(e) => setWay(e.target.value as Way)}>
          {BEGUN.map((key) => [key, WAYS[key]] as const).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-2 gap-3">
        <label className="text-sm">
          Minutes at most
          <input
            className={`figure ${field}`}
            inputMode="numeric"
            value={minutes}
            onChange={(e) => setMinutes(e.target.value.replace(/\D/g, ''))}
          />
        </label>
        <label className="text-sm">
          Until
          <input className={field} type="date" value={due} onChange={(e) => setDue(e.target.value)} />
        </label>
      </div>
      <label className="text-sm">
        A word to them
        <input className={field} value={note} maxLength={300} onChange={(e) => setNote(e.target.value)} />
      </label>
      <Button tone="act" type="submit" className="min-h-14" disabled={busy || !person || !scenario}>
        Set it
      </Button>
      <p aria-live="polite">{said}</p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </form>
  );
}
