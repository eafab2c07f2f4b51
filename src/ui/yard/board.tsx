'use client';
import { dayWords } from '@/ui/visit/times';
import { BEGUN, TRAPS, WAYS } from '@/core/yard/words';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { asOptions, SelectField } from '@/ui/kit/field';
import { moment } from '@/ui/kit/words';
import type { Board, ScenarioCard, TaskRow } from '@/wire/yard';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Groups } from './groups';

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
        <People board={board} zone={zone} />
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
                    {t.minutes !== null && `, ${t.minutes} min`}, until {dayWords(t.due)}; {STANDS[t.stands]}
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
        <Groups board={board} />
        <OwnScenarios cards={cards} />
      </div>
    </div>
  );
}
/** How far each came; of one group, where that is wished. */
function People({ board, zone }: { board: Board; zone: string }) {
  const [only, setOnly] = useState('');
  const shown = board.people.filter((p) => !only || board.groups[only]?.includes(p.id));
  return (
    <section aria-labelledby="people">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="people" className="text-lg font-semibold">
          Who practises
        </h2>
        {Object.keys(board.groups).length > 0 && (
          <SelectField
            label="Group"
            value={only}
            onChange={setOnly}
            none="everybody"
            options={Object.keys(board.groups).map((g) => ({ id: g, title: g }))}
          />
        )}
      </div>
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr>
            <th className="font-normal">Name</th>
            <th className="font-normal">Traps mastered</th>
            <th className="font-normal">met</th>
            <th className="font-normal">due</th>
            <th className="font-normal max-sm:hidden">Last practised</th>
            <th className="sr-only">Statement</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((p) => (
            <tr key={p.id} className="border-t border-seam">
              <th className="py-2 font-semibold">{p.name}</th>
              <td>
                <span className="figure-narrow">{p.mastered}</span> of {p.of}
              </td>
              <td className="figure-narrow">{p.met}</td>
              <td className="figure-narrow">{p.due}</td>
              <td className="max-sm:hidden">{p.last === null ? 'not yet' : moment(p.last, zone)}</td>
              <td className="text-right">
                <Link
                  prefetch={false}
                  href={`/yard/statements/of/${p.id}`}
                  className="inline-flex min-h-11 items-center underline"
                  aria-label={`Statements of ${p.name}`}
                >
                  Statements
                </Link>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <a className={buttonClass('plain', 'mt-3')} href="/api/yard/csv" download>
        All of it as a table (CSV)
      </a>
    </section>
  );
}
/** Marks a group in the list of whom something is set to. */
const GROUP = 'group ';
const named = (cards: readonly ScenarioCard[]) =>
  cards.map((c) => ({ id: c.id, title: `${c.trade}: ${c.title}` }));
/** Scenarios of the house: one is changed here, or taken out as a file, and brought in under a name of its own. */
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
        Scenarios of your own
      </h2>
      <SelectField label="Begin with" value={scenario} onChange={setScenario} options={named(cards)} />
      <a className={buttonClass('plain')} href={`/api/yard/scenarios/${scenario}`} download>
        Export it
      </a>
      <Link prefetch={false} className={buttonClass('plain')} href={`/yard/scenarios/${scenario}`}>
        Change it, or write another like it
      </Link>
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
  const [way, setWay] = useState<(typeof BEGUN)[number]>('exam');
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
      const whole = person.startsWith(GROUP) ? person.slice(GROUP.length) : null;
      const all = whole === null ? [person] : (board.groups[whole] ?? []);
      for (const one of all)
        await office('/api/yard/tasks', {
          body: {
            id: uuid7(now()),
            person: one,
            scenario,
            way,
            ...(fault ? { fault } : {}),
            ...limit,
            due,
            note,
          },
        });
      const name = whole ?? board.people.find((p) => p.id === person)?.name ?? '';
      setSaid(`Set to ${name}: it stands in ${all.length > 1 ? 'the Yard of each' : 'their Yard'}.`);
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
      <SelectField
        label="To whom"
        value={person}
        onChange={setPerson}
        options={[
          ...Object.entries(board.groups).map(([g, members]) => ({
            id: `${GROUP}${g}`,
            title: `${g}, all ${members.length}`,
          })),
          ...board.people.map((p) => ({ id: p.id, title: p.name })),
        ]}
      />
      <SelectField
        label="Scenario"
        value={scenario}
        onChange={(id) => {
          setScenario(id);
          setFault('');
        }}
        options={named(cards)}
      />
      {card && <p className="text-sm text-quiet">Trains: {card.traps.map((t) => TRAPS[t]).join(', ')}.</p>}
      {Object.keys(own).length > 0 && (
        <SelectField
          label="What is hidden"
          value={fault}
          onChange={setFault}
          none="what the scenario hides"
          options={asOptions(own)}
        />
      )}
      <SelectField
        label="How"
        value={way}
        onChange={(w) => setWay(w as typeof way)}
        options={BEGUN.map((id) => ({ id, title: WAYS[id] }))}
      />
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
