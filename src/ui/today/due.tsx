'use client';
import { dayWords } from '@/ui/visit/times';
import { useMay } from '@/ui/frame/may';
import { FOLLOW_UPS, type FollowUpKind } from '@/core/after/follow-ups';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField, TextField } from '@/ui/kit/field';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

export interface Due {
  readonly id: string;
  readonly kind: FollowUpKind;
  readonly text: string;
  readonly place: string;
  readonly due: string;
  readonly late: boolean;
  readonly owner: string | null;
  /** What a person says who closes it; null where only its own event does. */
  readonly closes: string | null;
  readonly href: string | null;
}
export interface Member {
  readonly id: string;
  readonly name: string;
}

/** What is due, most urgent first: of everybody or only of oneself, each with who sees to it and by when. */
export function DueList({
  due,
  members,
  person,
}: {
  due: readonly Due[];
  members: readonly Member[];
  person: string;
}) {
  const [mine, setMine] = useState(false);
  const shown = due.filter((d) => !mine || d.owner === person);
  return (
    <section aria-labelledby="due">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="due" className="text-lg font-semibold">
          Due
        </h2>
        <label className="flex min-h-11 items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-5"
            checked={mine}
            onChange={(e) => setMine(e.target.checked)}
          />
          only mine
        </label>
      </div>
      <ul className="border-t border-seam">
        {shown.map((d) => (
          <DueLine key={d.id} due={d} members={members} />
        ))}
      </ul>
      {shown.length === 0 && (
        <p className="mt-2 text-quiet">
          {mine
            ? 'Nothing is yours to see to.'
            : 'Nothing is owed, and nothing runs out in the next 60 days.'}
        </p>
      )}
      {due.length > 0 && (
        <Link prefetch={false} className={buttonClass('plain', 'mt-3 mr-3 min-h-11 text-sm')} href="/owed">
          All that is owed
        </Link>
      )}
      {due.length > 0 && (
        <a
          className={buttonClass('plain', 'mt-3 min-h-11 text-sm')}
          href={`/api/follow-ups/ics${mine ? '?mine=1' : ''}`}
        >
          Into the calendar (ICS)
        </a>
      )}
    </section>
  );
}

function DueLine({ due: d, members }: { due: Due; members: readonly Member[] }) {
  const owner = members.find((m) => m.id === d.owner)?.name ?? null;
  return (
    <li className="border-b border-seam py-3">
      <span
        className={`flex justify-between gap-3 text-sm ${d.late ? 'font-semibold text-rust' : 'text-quiet'}`}
      >
        <span>{d.place || FOLLOW_UPS[d.kind].words}</span>
        <span className="whitespace-nowrap">
          {d.late ? 'was due ' : 'by '}
          {dayWords(d.due)}
        </span>
      </span>
      {d.href ? (
        <Link
          prefetch={false}
          className="block min-h-11 py-1 underline-offset-4 hover:text-lake hover:underline"
          href={d.href}
        >
          {d.text}
        </Link>
      ) : (
        <span className="block">{d.text}</span>
      )}
      <SeeTo due={d} members={members} owner={owner} />
    </li>
  );
}

function SeeTo({ due: d, members, owner }: { due: Due; members: readonly Member[]; owner: string | null }) {
  const router = useRouter();
  const may = useMay('share');
  const [who, setWho] = useState(d.owner ?? '');
  const [when, setWhen] = useState(d.due);
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const ask = (method: 'POST' | 'PUT', body: unknown) =>
    void office(`/api/follow-ups/${d.id}`, { method, body }).then(
      () => {
        setTrouble('');
        router.refresh();
      },
      (e: OfficeError) => setTrouble(e.message),
    );
  if (!may) return <p className="py-1 text-sm">{owner ? `${owner} sees to it` : 'Nobody sees to it yet'}</p>;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 text-sm">
        <span className={owner ? '' : 'text-ochre'}>
          {owner ? `${owner} sees to it` : 'Nobody sees to it yet'}
        </span>
        <span className="text-lake">{d.closes ? ' · hand on or close' : ' · hand on'}</span>
      </summary>
      <div className="grid gap-3 pb-2">
        <SelectField
          label="Who sees to it"
          none="nobody yet"
          value={who}
          options={members.map((m) => ({ id: m.id, title: m.name }))}
          onChange={setWho}
        />
        <TextField label="By" type="date" value={when} onChange={setWhen} required />
        <Button onClick={() => ask('PUT', { owner: who || null, due: when })}>Keep</Button>
        {d.closes ? (
          <>
            <TextField
              label={d.kind === 'refer' ? 'The answer, and who gave it' : 'What was done'}
              value={said}
              onChange={setSaid}
              maxLength={500}
            />
            <Button tone="act" onClick={() => ask('POST', { text: said })}>
              {d.closes}
            </Button>
          </>
        ) : (
          <p className="text-sm text-quiet">
            It goes off the list by itself when it is seen to: a new date in the cabinet or with the person,
            or the end of the watch.
          </p>
        )}
        <p role="alert" className="text-rust">
          {trouble}
        </p>
      </div>
    </details>
  );
}
