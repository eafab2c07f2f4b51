'use client';
import {
  countLeaks,
  countWords,
  type Leak,
  LEAK_STATES,
  leakEntryWords,
  leaksOf,
  stillOpen,
} from '@/core/after/leaks';
import { reachOf } from '@/core/network/flood';
import { type Network, partName, partOf } from '@/core/network/network';
import { inZone } from '@/core/quantity/in-zone';
import { enterLeak } from '@/device/enter';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { NetworkDrawing } from '@/ui/network/drawing';
import { Button } from '@/ui/kit/button';
import type { PartPhoto } from '@/wire/part-photo';
import type { LeakBook as Book } from '@/wire/leaks';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { FoundForm } from './found-form';
import { MARK, type Say, Spotted } from './spotted';
import { Did } from './did';

/** What was found at an installation, on its drawing and photos; what was done; the tests that prove it; what it took. */
export function LeakBook({
  system,
  network,
  book: first,
  photos: hung,
  zone,
  who,
}: {
  system: string;
  network: Network;
  book: Book;
  photos: readonly PartPhoto[];
  zone: string;
  who: string;
}) {
  const [book, setBook] = useState(first);
  const [photos, setPhotos] = useState(hung);
  const [adding, setAdding] = useState(false);
  const [chosen, setChosen] = useState('');
  const [kept, setKept] = useState(false);
  const leaks = useMemo(() => leaksOf(book.entries, book.tests, book.now), [book]);
  const say: Say = async (body, leak) => {
    const id = uuid7(now());
    try {
      const how = await enterLeak(
        system,
        { id, leak: leak ?? id, body },
        body.kind === 'found' ? body.joint : body.kind,
      );
      setKept(how === 'kept');
      if (how === 'sent') setBook(await office<Book>(`/api/systems/${system}/leaks`));
      else
        setBook({
          ...book,
          entries: [...book.entries, { id, leak: leak ?? id, at: now(), byName: who, body }],
        });
      return null;
    } catch (error) {
      return (error as OfficeError).message;
    }
  };
  const marks = new Map(
    leaks
      .filter((l) => l.found.part)
      .map(
        (l) =>
          [l.found.part, { n: String(l.n), r: MARK[l.found.size ?? 'pea'], open: stillOpen(l) }] as const,
      ),
  );
  return (
    <div className="mt-3 grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-4">
      {leaks.length > 0 && <p data-leak-count>{countWords(countLeaks(leaks))}.</p>}
      {kept && (
        <p role="status" className="border-l-4 border-ochre pl-3">
          No signal: it waits on this device and is sent by itself.
        </p>
      )}
      <div
        className="overflow-x-auto border border-seam bg-panel p-1"
        role="region"
        aria-label="Leaks on the drawing"
        tabIndex={0}
      >
        <NetworkDrawing
          network={network}
          reach={reachOf(network)}
          leaks={marks}
          {...(adding ? { onPart: setChosen, chosen } : {})}
          label={
            leaks.length
              ? `Leaks on the drawing: ${leaks.map((l) => `${l.n} ${l.found.joint}, ${LEAK_STATES[l.state]}`).join('; ')}`
              : 'The section drawn; no leak is written down'
          }
          least={0.5}
        />
      </div>
      {adding ? (
        <FoundForm
          system={system}
          network={network}
          part={chosen}
          onPart={setChosen}
          photos={photos}
          onPhotos={setPhotos}
          begin={null}
          say={say}
          onDone={() => {
            setAdding(false);
            setChosen('');
          }}
        />
      ) : (
        <Button
          tone={leaks.length ? 'plain' : 'act'}
          className="min-h-14 sm:justify-self-start sm:px-8"
          onClick={() => setAdding(true)}
        >
          Write down a leak
        </Button>
      )}
      <ol className="grid gap-4">
        {[...leaks].reverse().map((l) => (
          <LeakItem
            key={l.id}
            leak={l}
            system={system}
            network={network}
            photos={photos}
            zone={zone}
            now={book.now}
            say={say}
            who={who}
            sealed={book.tests.map((t) => t.run)}
          />
        ))}
      </ol>
    </div>
  );
}
const EDGE: Readonly<Record<Leak['state'], string>> = {
  open: 'border-rust',
  safe: 'border-rust',
  curing: 'border-ochre',
  repaired: 'border-ochre',
  holds: 'border-lichen',
  closed: 'border-seam',
};
function LeakItem({
  leak: l,
  system,
  network,
  photos,
  zone,
  now: moment,
  say,
  who,
  sealed,
}: {
  leak: Leak;
  system: string;
  network: Network;
  photos: readonly PartPhoto[];
  zone: string;
  now: number;
  say: Say;
  who: string;
  /** Tests that are sealed: their records can be opened. */
  sealed: readonly string[];
}) {
  const part = l.found.part ? partOf(network, l.found.part) : undefined;
  return (
    <li className={`grid gap-2 border-l-4 bg-panel px-4 py-3 ${EDGE[l.state]}`} data-leak={l.state}>
      <h2 className="text-lg font-semibold">
        <span className="figure">{l.n}</span> {l.found.joint}
        <span className="font-normal text-quiet">: {LEAK_STATES[l.state]}</span>
      </h2>
      {l.state === 'curing' && l.cured !== null && (
        <p>
          No pressure before <span className="figure-narrow">{inZone(l.cured, zone)}</span>.
        </p>
      )}
      <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_auto]">
        <ul className="grid content-start gap-1">
          <li>
            {inZone(l.at, zone)}, {l.byName}: {leakEntryWords(l.found)}
            {part ? `; at ${partName(part)}` : ''}
          </li>
          {l.entries.map((e) => (
            <li key={e.id}>
              {inZone(e.at, zone)}, {e.byName}: {leakEntryWords(e.body)}
            </li>
          ))}
          {l.retests.map((t) => (
            <li key={t.run}>
              {inZone(t.at, zone)}:{' '}
              <Link prefetch={false} href={`/ledger/${t.run}`} className="text-lake underline">
                {t.number}
              </Link>
              , {t.procedure}: <span className="font-semibold">{t.label}</span>
              {t.shown ? ', shown to somebody' : ''}{' '}
              <span className="figure-narrow text-quiet">{t.minutes} min</span>
            </li>
          ))}
          {l.found.run &&
            (sealed.includes(l.found.run) ? (
              <li>
                Found in{' '}
                <Link prefetch={false} href={`/ledger/${l.found.run}`} className="text-lake underline">
                  the test of that day
                </Link>
                ; its pack for who locates has all that is known.
              </li>
            ) : (
              <li className="text-quiet">Found in a test that is not sealed yet.</li>
            ))}
        </ul>
        {l.found.photo && photos.some((p) => p.hash === l.found.photo) && (
          <Spotted
            system={system}
            hash={l.found.photo}
            spot={l.found.spot}
            size={l.found.size}
            n={l.n}
            name={l.found.joint}
          />
        )}
      </div>
      {stillOpen(l) && <Did leak={l} system={system} say={say} who={who} now={moment} />}
    </li>
  );
}
