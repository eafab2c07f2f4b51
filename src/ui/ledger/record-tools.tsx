'use client';
import type { PaperKind, PaperOffer } from '@/core/record/papers';
import { office, type OfficeError } from '@/device/office';
import { Moment, useZone } from '@/ui/frame/zone';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { TextField } from '@/ui/kit/field';
import { moment } from '@/ui/kit/words';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Suspense, useState } from 'react';

// what is typed into is opened by a tap: its script comes then
const PostForm = byNeed(() => import('./record-forms').then((m) => m.PostForm));
const SupersedeForm = byNeed(() => import('./record-forms').then((m) => m.SupersedeForm));

interface Link_ {
  readonly token: string;
  readonly made: string;
  readonly revoked: string | null;
}
export interface RecordToolsProps {
  readonly run: string;
  readonly number: string;
  readonly certificateTitle: string;
  readonly customer: string;
  readonly papers: readonly PaperOffer[];
  readonly links: readonly Link_[];
  readonly watch: string | null;
  readonly mayShare: boolean;
  readonly mayMark: boolean;
  /** Superseded or void already: nothing more is said of it. */
  readonly marked: boolean;
  readonly site: { readonly name: string; readonly address: string; readonly customer: string };
  readonly permit: string;
  readonly present: string;
}
const row = 'grid grid-cols-[auto_1fr_auto] items-center gap-3 border-t border-seam py-1';

/** What can be done with a sealed record: handed over, shared, taken away as files, superseded, made void. */
export function RecordTools(props: RecordToolsProps) {
  return (
    <div className="no-print grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-4 border border-seam bg-panel p-4 lg:grid-cols-2">
      <HandOver {...props} />
      <div className="grid content-start gap-4">
        <Files run={props.run} watch={props.watch} all={props.mayShare} />
        {props.mayShare && <PublicLinks run={props.run} links={props.links} />}
        {props.mayMark && !props.marked && <Correct {...props} />}
      </div>
    </div>
  );
}

function HandOver({ run, certificateTitle, customer, papers, mayShare }: RecordToolsProps) {
  const all: PaperOffer[] = [{ kind: 'certificate', title: certificateTitle, to: customer }, ...papers];
  const [chosen, setChosen] = useState<readonly PaperKind[]>([]);
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const print = async () => {
    setTrouble('');
    try {
      await office(`/api/runs/${run}/print`, { method: 'POST' });
      setSaid('The ticket came out of the simulated printer.');
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section aria-labelledby="hand-over">
      <h2 id="hand-over" className="font-semibold">
        Hand over
      </h2>
      <ul className="mt-1">
        {all.map((p) => (
          <li key={p.kind} className={row}>
            <input
              type="checkbox"
              className={mayShare ? 'size-6' : 'hidden'}
              disabled={!mayShare}
              aria-label={`Send: ${p.title}`}
              checked={chosen.includes(p.kind)}
              onChange={(e) => {
                setSaid('');
                setChosen(e.target.checked ? [...chosen, p.kind] : chosen.filter((k) => k !== p.kind));
              }}
            />
            <a
              className="min-h-11 py-1.5 text-lake underline underline-offset-4"
              href={`/api/runs/${run}/pdf${p.kind === 'certificate' ? '' : `?form=${p.kind}`}`}
              target="_blank"
              rel="noreferrer"
            >
              {p.title}
              <span className="text-sm text-quiet no-underline"> PDF, for {p.to}</span>
            </a>
            {p.kind === 'ticket' && mayShare ? (
              <Button className="min-h-11 text-sm" onClick={() => void print()}>
                Print
              </Button>
            ) : p.kind === 'certificate' ? (
              <a
                className="min-h-11 py-1.5 text-sm text-lake underline underline-offset-4"
                href={`/api/runs/${run}/pdf?both=1`}
                target="_blank"
                rel="noreferrer"
              >
                in both units
              </a>
            ) : (
              <span />
            )}
          </li>
        ))}
      </ul>
      {chosen.length > 0 ? (
        <Suspense fallback={<p aria-live="polite">Opening …</p>}>
          <PostForm
            run={run}
            papers={chosen}
            onSent={(to) => {
              setSaid(`Sent to ${to} (simulated).`);
              setChosen([]);
            }}
          />
        </Suspense>
      ) : (
        <p className="mt-2 text-sm text-quiet">
          {mayShare
            ? 'Tick what is to be sent.'
            : 'A tester or the office sends papers and takes files away.'}
        </p>
      )}
      <p role="status" className="mt-1">
        {said && (
          <>
            {said}{' '}
            <Link prefetch={false} className="text-lake underline" href="/outbox">
              Look into the outbox
            </Link>
          </>
        )}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}

function Files({ run, watch, all }: { run: string; watch: string | null; all: boolean }) {
  const file = (href: string, words: string) => (
    <a className={buttonClass('plain', 'min-h-11 text-sm')} href={href}>
      {words}
    </a>
  );
  return (
    <section aria-labelledby="files">
      <h2 id="files" className="font-semibold">
        Take away
      </h2>
      <div className="mt-2 flex flex-wrap gap-2">
        {all && file(`/api/runs/${run}/file`, 'Record file (JSON)')}
        {all && file(`/api/runs/${run}/readings`, 'Readings (CSV)')}
        {all && file(`/api/runs/${run}/bundle`, 'Bundle with photos (ZIP)')}
        {watch && (
          <Link
            prefetch={false}
            className={buttonClass('plain', 'min-h-11 text-sm')}
            href={`/watches/${watch}`}
          >
            Its watch
          </Link>
        )}
      </div>
      <p className="mt-1 text-sm text-quiet">
        Anyone can check these files without us, on the{' '}
        <a className="underline" href="/check">
          check page
        </a>{' '}
        or with the command line.
      </p>
    </section>
  );
}

function PublicLinks({ run, links }: { run: string; links: readonly Link_[] }) {
  const router = useRouter();
  const zone = useZone();
  const [trouble, setTrouble] = useState('');
  const open = links.find((l) => !l.revoked);
  const ended = links.filter((l) => l.revoked);
  const act = (what: 'make' | 'revoke') =>
    void office(`/api/runs/${run}/link`, { body: { act: what } }).then(
      () => router.refresh(),
      (e: OfficeError) => setTrouble(e.message),
    );
  return (
    <section aria-labelledby="public">
      <h2 id="public" className="font-semibold">
        Public page
      </h2>
      {open ? (
        <p>
          <a className="text-lake underline underline-offset-4" href={`/verify/${open.token}`}>
            Open to everyone with the link
          </a>
          , since <Moment at={open.made} />. It shows the face, never the log.
        </p>
      ) : (
        <p>Nobody outside can see this record: its link is revoked.</p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {open ? (
          <>
            <Button className="min-h-11 text-sm" onClick={() => act('revoke')}>
              Revoke the link
            </Button>
            <Button className="min-h-11 text-sm" onClick={() => act('make')}>
              Another link in its place
            </Button>
          </>
        ) : (
          <Button className="min-h-11 text-sm" onClick={() => act('make')}>
            Make a link
          </Button>
        )}
      </div>
      {ended.length > 0 && (
        <p className="mt-1 text-sm text-quiet">
          Revoked: {ended.map((l) => moment(l.revoked!, zone)).join('; ')}. Codes printed before lead nowhere
          now.
        </p>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}

function Correct({ run, number, site, permit, present }: RecordToolsProps) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [voiding, setVoiding] = useState('');
  const [trouble, setTrouble] = useState('');
  const makeVoid = async () => {
    setTrouble('');
    try {
      await office(`/api/runs/${run}/void`, { body: { reason: voiding } });
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section aria-labelledby="correct">
      <h2 id="correct" className="font-semibold">
        Something is wrong with it
      </h2>
      <p className="text-sm text-quiet">
        A sealed record is never changed. A wrong name or address is put right by a record in its place; a
        wrong reading only by another test.
      </p>
      <details onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary className="min-h-11 cursor-pointer py-2 text-lake">Supersede it</summary>
        {open && (
          <Suspense fallback={<p aria-live="polite">Opening …</p>}>
            <SupersedeForm {...{ run, number, site, permit, present }} />
          </Suspense>
        )}
      </details>
      <details>
        <summary className="min-h-11 cursor-pointer py-2 text-lake">Make it void</summary>
        <div className="grid gap-3 pb-3">
          <TextField label="Why it is void" value={voiding} onChange={setVoiding} maxLength={500} />
          <p className="text-sm">
            {number} keeps its number and stays readable; everyone who checks it is told. This cannot be taken
            back.
          </p>
          <HoldButton tone="danger" disabled={!voiding.trim()} onHeld={() => void makeVoid()}>
            Make {number} void
          </HoldButton>
        </div>
      </details>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
