'use client';
import { useMay } from '@/ui/frame/may';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { showExact, type Exact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import type { WatchEntry, WatchFacts, WatchState } from '@/core/watch/watch';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { FigureInput, TextField } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';
import { WatchEntryForm, type Kept } from './entry-form';
import { WatchChart } from './watch-chart';
import { momentWords, watchWords } from './words';

interface Props {
  readonly id: string;
  readonly facts: WatchFacts;
  readonly state: WatchState;
  readonly log: readonly WatchEntry[];
  readonly linked: boolean;
  readonly who: string;
  readonly at: number;
}

/** A watch as the firm sees it: what it says, its readings over the days, the link, and its end. */
export function WatchView({ id, facts, state, log, linked, who, at }: Props) {
  const router = useRouter();
  const shares = useMay('share');
  const { zone } = facts;
  const unit = unitLabel(facts.figure.unit);
  const to = `/api/watches/${id}/entries`;
  return (
    <>
      <p className="text-sm text-quiet">
        {facts.purpose === 'screed' ? 'Screed watch' : 'Watch'} · left {momentWords(facts.startedAt, zone)} at{' '}
        {showExact(facts.figure)} on {facts.gauge.name}, serial {facts.gauge.serial}
      </p>
      <h1 className="text-2xl font-bold">
        {facts.place.site}: {facts.place.system}
      </h1>
      <p
        className={`mt-3 border-l-4 pl-3 text-lg ${state.lost ? 'border-rust font-semibold' : 'border-seam'}`}
        data-watch={state.word}
      >
        {watchWords(state, zone)}
      </p>
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_22rem]">
        <div className="min-w-0">
          <WatchChart facts={facts} state={state} until={state.ended?.at ?? at} zone={zone} />
          <table className="mt-4 w-full [&_td]:py-2 [&_td]:pr-3 [&_td]:align-top [&_th]:py-2 [&_th]:pr-3 [&_th]:text-left [&_th]:font-normal [&_th]:text-quiet">
            <thead>
              <tr className="border-b border-seam text-sm">
                <th scope="col">When</th>
                <th scope="col">Reading</th>
                <th scope="col">Change</th>
                <th scope="col">By</th>
              </tr>
            </thead>
            <tbody>
              {[...log].reverse().map((e) => {
                const r = state.readings.find((x) => x.id === e.id);
                return (
                  <tr key={e.id} className="border-b border-seam">
                    <td className="whitespace-nowrap">{momentWords(e.at, zone)}</td>
                    <td>
                      {r ? (
                        <>
                          <span className={`figure whitespace-nowrap ${r.lost ? 'font-bold text-rust' : ''}`}>
                            {showExact(r.figure)}
                          </span>
                          {r.was && (
                            <span className="block text-sm text-quiet">
                              first {showExact(r.was.figure)}; corrected: {r.was.why}
                            </span>
                          )}
                        </>
                      ) : e.kind === 'correction' ? (
                        <span className="text-quiet">
                          correction to {showExact(e.figure)}: {e.text}
                        </span>
                      ) : e.kind === 'on-site' ? (
                        <span>worked here{e.text && `: ${e.text}`}</span>
                      ) : (
                        <span>ended{'text' in e && e.text ? `: ${e.text}` : ''}</span>
                      )}
                      {r?.text && <span className="block text-sm">{r.text}</span>}
                    </td>
                    <td>
                      {r && (
                        <>
                          <span className="figure-narrow whitespace-nowrap">
                            {r.change.toFixed(facts.figure.scale).replace('-', '−')} {unit}
                          </span>
                          <span className="block text-sm text-quiet">
                            {r.corrected ? 'temperature taken out' : 'raw'}
                            {r.doubt && ': disagrees with the raw figure, look at it'}
                          </span>
                        </>
                      )}
                    </td>
                    <td>
                      {e.who}
                      <span className="block text-sm text-quiet">
                        {[e.trade, e.by === 'link' ? 'by the link' : ''].filter(Boolean).join(', ')}
                      </span>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {log.length === 0 && (
            <p className="mt-2 text-quiet">Readings by the owner, other trades or yourself appear here.</p>
          )}
        </div>
        <div className="grid content-start gap-6">
          {state.word !== 'ended' && (
            <>
              <section aria-labelledby="read" className="border border-seam bg-panel p-4">
                <h2 id="read" className="mb-3 font-semibold">
                  Read it now
                </h2>
                <WatchEntryForm to={to} figure={facts.figure} who={who} onKept={() => router.refresh()} />
              </section>
              {shares && <LinkPart id={id} linked={linked} facts={facts} />}
              <CorrectPart to={to} state={state} unit={facts.figure.unit} who={who} zone={zone} />
              <EndPart to={to} who={who} />
            </>
          )}
          <section className="text-sm text-quiet">
            <h2 className="font-semibold">What counts</h2>
            <p>
              A fall of <span className="figure-narrow">{showExact(facts.fall)}</span> or more (
              {facts.fallSource}).{' '}
              {facts.perKelvin === null
                ? 'What a kelvin does here is not known: readings are compared raw.'
                : 'Where a temperature stands at both, its part is taken out.'}{' '}
              To be looked after until {facts.until}. Whom to call: {facts.call}.
            </p>
          </section>
        </div>
      </div>
    </>
  );
}

/** The link for owner and other trades: shown once when it is made; a new one takes the old one’s place. */
function LinkPart({ id, linked, facts }: { id: string; linked: boolean; facts: WatchFacts }) {
  const router = useRouter();
  const [link, setLink] = useState('');
  const [trouble, setTrouble] = useState('');
  const [origin, setOrigin] = useState('');
  useEffect(() => setOrigin(location.origin), []);
  const does = async (act: 'make' | 'revoke') => {
    try {
      const { token } = await office<{ token: string | null }>(`/api/watches/${id}/link`, { body: { act } });
      setLink(token ? `${origin}/watch/${token}` : '');
      setTrouble('');
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section aria-labelledby="link" className="border border-seam bg-panel p-4">
      <h2 id="link" className="font-semibold">
        Link for owner and trades
      </h2>
      <p className="mt-1 text-sm">
        Whoever has it can write readings on a phone, without signing in, and sees nothing that others wrote.
      </p>
      {link && (
        <>
          <label className="mt-3 block text-sm">
            Copy it now: it is shown once
            <input
              readOnly
              className="figure-narrow mt-1 min-h-12 w-full border border-edge bg-ground px-2 text-sm"
              value={link}
              onFocus={(e) => e.target.select()}
              data-watch-link
            />
          </label>
          <Button className="mt-2 min-h-12 w-full" onClick={() => void navigator.clipboard?.writeText(link)}>
            Copy
          </Button>
        </>
      )}
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <div className="grid gap-2">
        <Button className="min-h-12" tone={linked ? 'plain' : 'act'} onClick={() => void does('make')}>
          {linked ? 'Make a new link; the old one ends' : 'Make the link'}
        </Button>
        {linked && (
          <Button className="min-h-12" onClick={() => void does('revoke')}>
            End the link
          </Button>
        )}
      </div>
      <p className="mt-2 text-sm text-quiet">
        Show {facts.place.site} how the gauge is read, and what it should show.
      </p>
    </section>
  );
}

function CorrectPart({
  to,
  state,
  unit,
  who,
  zone,
}: {
  to: string;
  state: WatchState;
  unit: Exact['unit'];
  who: string;
  zone: string;
}) {
  const router = useRouter();
  const [of, setOf] = useState('');
  const [value, setValue] = useState('');
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  if (!state.readings.length) return null;
  const send = async () => {
    try {
      await office<Kept>(to, {
        body: { id: uuid7(now()), kind: 'correction', of, figure: value, who, trade: '', text: why.trim() },
      });
      setOf('');
      setValue('');
      setWhy('');
      setTrouble('');
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <details className="border border-seam bg-panel p-4">
      <summary className="min-h-11 cursor-pointer font-semibold">Correct a reading</summary>
      <div className="mt-2 grid gap-3">
        <label className="text-sm">
          Which
          <select
            className="mt-1 min-h-12 w-full border border-edge bg-panel px-2"
            value={of}
            onChange={(e) => setOf(e.target.value)}
          >
            <option value="">Choose</option>
            {state.readings.map((r) => (
              <option key={r.id} value={r.id}>
                {momentWords(r.at, zone)}: {showExact(r.figure)}, {r.who}
              </option>
            ))}
          </select>
        </label>
        <FigureInput label="Right figure" value={value} units={[unit]} onChange={setValue} />
        <TextField label="Why" value={why} onChange={setWhy} maxLength={500} />
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <Button
          className="min-h-12"
          disabled={!of || !value.trim() || !why.trim()}
          onClick={() => void send()}
        >
          Correct it; the first stays
        </Button>
      </div>
    </details>
  );
}

function EndPart({ to, who }: { to: string; who: string }) {
  const router = useRouter();
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  const send = async () => {
    try {
      await office<Kept>(to, { body: { id: uuid7(now()), kind: 'end', who, trade: '', text: why.trim() } });
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <details className="border border-seam bg-panel p-4">
      <summary className="min-h-11 cursor-pointer font-semibold">End the watch</summary>
      <div className="mt-2 grid gap-3">
        <TextField
          label="Why it is over"
          hint="floor is down, gauge off"
          value={why}
          onChange={setWhy}
          maxLength={500}
        />
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <Button className="min-h-12" disabled={!why.trim()} onClick={() => void send()}>
          End it
        </Button>
      </div>
    </details>
  );
}
