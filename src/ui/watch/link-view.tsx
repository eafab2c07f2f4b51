'use client';
import { useEffect, useState } from 'react';
import { showExact } from '@/core/quantity/exact';
import type { WatchFacts } from '@/core/watch/watch';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { FigureInput, TextField } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';
import type { WatchEntryRequest } from '@/wire/watch';
import { WatchEntryForm, type Kept } from './entry-form';
import { momentWords } from './words';

interface Own {
  readonly id: string;
  readonly figure: string;
  readonly at: number;
  readonly who: string;
}

/** The page behind a watch's link: what the gauge should show, one entry, and whom to call when it fell. */
export function WatchLinkView({
  facts,
  ended,
  firm,
  token,
}: {
  facts: WatchFacts;
  ended: boolean;
  firm: string;
  token: string;
}) {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const to = `/api/watch/${token}`;
  const key = `vast-watch-${token.slice(0, 12)}`;
  const [kept, setKept] = useState<(Kept & { said: WatchEntryRequest }) | null>(null);
  const [own, setOwn] = useState<readonly Own[]>([]);
  const [stood, setStood] = useState('');
  useEffect(() => {
    setStood(momentWords(facts.startedAt, zone));
    try {
      setOwn(JSON.parse(localStorage.getItem(key) ?? '[]') as Own[]);
    } catch {
      setOwn([]);
    }
  }, [key, facts.startedAt, zone]);
  const remember = (list: readonly Own[]) => {
    setOwn(list);
    localStorage.setItem(key, JSON.stringify(list));
  };
  return (
    <main className="mx-auto max-w-xl px-4 py-6">
      <p className="text-sm text-quiet">Left under watch by {firm}</p>
      <h1 className="text-2xl font-bold">
        {facts.place.site}: {facts.place.system}
      </h1>
      <p className="mt-3 text-lg">
        The gauge {facts.gauge.name} should show about{' '}
        <span className="figure text-3xl">{showExact(facts.figure)}</span>.
      </p>
      <p className="text-quiet">
        Left so on {stood || '…'}. A fall of <span className="figure-narrow">{showExact(facts.fall)}</span> or
        more means that something was hit or came loose.
      </p>
      {ended ? (
        <p className="mt-6 border-l-4 border-seam pl-3 text-lg">
          This watch is over. Nothing more is entered here.
        </p>
      ) : (
        <>
          {kept ? (
            <section
              role="status"
              className={`mt-6 border-l-4 bg-panel p-4 text-lg ${kept.fell ? 'border-rust' : 'border-moss'}`}
              data-kept={kept.fell ? 'fell' : 'kept'}
            >
              <p className="font-semibold">
                {kept.said.kind === 'on-site'
                  ? 'Kept: you work here today.'
                  : kept.fell
                    ? `It has fallen. Stop work near the pipes and call: ${facts.call}.`
                    : kept.doubt
                      ? `Kept. Figure and temperature do not agree: look whether anything is wet, read again later; if in doubt call: ${facts.call}.`
                      : 'Kept: it stands.'}
              </p>
              {kept.fell && (
                <>
                  <p className="mt-1">Cover nothing before somebody has looked. The office has been told.</p>
                  {/^[+\d][\d\s-]+$/.test(facts.call) && (
                    <a
                      className={buttonClass('act', 'mt-3 min-h-16 w-full text-lg')}
                      href={`tel:${facts.call}`}
                    >
                      Call {facts.call}
                    </a>
                  )}
                </>
              )}
              <Button className="mt-3 min-h-14 w-full" onClick={() => setKept(null)}>
                Another entry
              </Button>
            </section>
          ) : (
            <section className="mt-6" aria-label="New entry">
              <WatchEntryForm
                to={to}
                figure={facts.figure}
                who={own[own.length - 1]?.who ?? ''}
                onKept={(k, said) => {
                  setKept({ ...k, said });
                  scrollTo({ top: 0 });
                  if (said.kind === 'reading' && said.figure)
                    remember(
                      [...own, { id: k.id, figure: said.figure, at: now(), who: said.who }].slice(-10),
                    );
                }}
              />
            </section>
          )}
          {own.length > 0 && (
            <section className="mt-8" aria-labelledby="own">
              <h2 id="own" className="text-lg font-semibold">
                Entered on this device
              </h2>
              <ul className="mt-2 border-t border-seam">
                {[...own].reverse().map((o) => (
                  <li key={o.id} className="border-b border-seam py-2">
                    <Correct
                      own={o}
                      facts={facts}
                      to={to}
                      zone={zone}
                      onDone={(figure) => remember(own.map((x) => (x.id === o.id ? { ...x, figure } : x)))}
                    />
                  </li>
                ))}
              </ul>
            </section>
          )}
        </>
      )}
      <p className="mt-8 text-sm text-quiet">
        This page takes readings; it shows nothing that others wrote. In an emergency shut the stop valve and
        call {facts.call}.
      </p>
    </main>
  );
}

/** One reading of this device, and the way to correct it: both stay in the log. */
function Correct({
  own,
  facts,
  to,
  zone,
  onDone,
}: {
  own: Own;
  facts: WatchFacts;
  to: string;
  zone: string;
  onDone: (figure: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [id] = useState(() => uuid7(now()));
  const [value, setValue] = useState('');
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  const send = async () => {
    try {
      await office<Kept>(to, {
        body: {
          id,
          kind: 'correction',
          of: own.id,
          figure: value,
          who: own.who,
          trade: '',
          text: why.trim(),
        },
      });
      setOpen(false);
      onDone(value);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <>
      <p className="flex items-center justify-between gap-3">
        <span>
          <span className="figure">{own.figure}</span>{' '}
          <span className="text-sm text-quiet">{momentWords(own.at, zone)}</span>
        </span>
        {!open && (
          <Button className="min-h-11" onClick={() => setOpen(true)}>
            Correct it
          </Button>
        )}
      </p>
      {open && (
        <div className="mt-2 grid gap-3">
          <FigureInput label="Right figure" value={value} units={[facts.figure.unit]} onChange={setValue} />
          <TextField label="Why" value={why} onChange={setWhy} maxLength={500} />
          <p role="alert" className="min-h-6 text-rust">
            {trouble}
          </p>
          <Button
            tone="act"
            className="min-h-14"
            disabled={!value.trim() || !why.trim()}
            onClick={() => void send()}
          >
            Correct it; the first stays in the log
          </Button>
        </div>
      )}
    </>
  );
}
