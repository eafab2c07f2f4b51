'use client';
import { FOLLOW_UPS } from '@/core/after/follow-ups';
import { office } from '@/device/office';
import { useMay } from '@/ui/frame/may';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField, TextField } from '@/ui/kit/field';
import { useAttempt } from '@/ui/kit/use-attempt';
import type { Due, Member } from '@/ui/today/due';
import { dayWords } from '@/ui/visit/times';
import { MINE, NOBODYS, OWED_GROUPS, OWED_WHEN, type OwedQuery, type SeenTo } from '@/wire/owed';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

type Line = Due & { readonly ownerName: string | null };
interface Part {
  readonly key: string;
  readonly title: string;
  readonly all: number;
  readonly lines: readonly Line[];
}
interface Props {
  readonly query: OwedQuery;
  readonly day: string;
  readonly all: number;
  readonly parts: readonly Part[];
  readonly members: readonly Member[];
}
const words = (of: Readonly<Record<string, string>>) =>
  Object.entries(of).map(([id, title]) => ({ id, title }));

/** Everything that is owed: narrowed, grouped, and several seen to at once. */
export function OwedView({ query, day, all, parts, members }: Props) {
  const may = useMay('share');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const lines = parts.flatMap((p) => p.lines);
  const toggle = (ids: readonly string[], on: boolean) =>
    setChosen((before) => {
      const next = new Set(before);
      for (const id of ids)
        if (on) next.add(id);
        else next.delete(id);
      return next;
    });
  return (
    <>
      <h1 className="text-2xl font-bold">Owed</h1>
      <Narrow query={query} members={members} />
      <p className="mt-4" role="status">
        {all === 0 ? 'Nothing here is owed.' : all === 1 ? 'One thing is owed.' : `${all} things are owed.`}
        {lines.length < all && ` The first ${lines.length} stand here: narrow them to see the others.`}
      </p>
      <div className="mt-2 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="grid content-start gap-6">
          {parts.map((p) => {
            const ids = p.lines.map((l) => l.id);
            const every = ids.every((id) => chosen.has(id));
            return (
              <section key={p.key} aria-label={titleOf(query, p)}>
                <h2 className="flex items-center gap-3 border-t-2 border-ink pt-1 font-semibold">
                  {may && (
                    <input
                      type="checkbox"
                      className="size-5 accent-lake"
                      aria-label={`All of ${titleOf(query, p)}`}
                      checked={every}
                      onChange={(e) => toggle(ids, e.target.checked)}
                    />
                  )}
                  <span className="flex-1">{titleOf(query, p)}</span>
                  <span className="font-normal text-quiet">{p.all}</span>
                </h2>
                <ul>
                  {p.lines.map((l) => (
                    <OwedLine
                      key={l.id}
                      line={l}
                      day={day}
                      {...(may
                        ? { chosen: chosen.has(l.id), choose: (on: boolean) => toggle([l.id], on) }
                        : {})}
                    />
                  ))}
                </ul>
              </section>
            );
          })}
        </div>
        {may && (
          <SeeTo
            lines={lines.filter((l) => chosen.has(l.id))}
            members={members}
            seen={() => setChosen(new Set())}
          />
        )}
      </div>
    </>
  );
}
const titleOf = ({ group }: OwedQuery, { title }: Part): string =>
  group === 'week' ? `Week of ${dayWords(title)}` : title;

function OwedLine({
  line: l,
  day,
  chosen,
  choose,
}: {
  line: Line;
  day: string;
  chosen?: boolean;
  choose?: (on: boolean) => void;
}) {
  return (
    <li className="flex gap-3 border-b border-seam py-2" data-owed={l.id}>
      {choose && (
        <input
          type="checkbox"
          className="mt-1 size-5 shrink-0 accent-lake"
          aria-label={`${l.place || FOLLOW_UPS[l.kind].words}: ${l.text}`}
          checked={chosen ?? false}
          onChange={(e) => choose(e.target.checked)}
        />
      )}
      <div className="min-w-0 flex-1">
        <p
          className={`flex flex-wrap justify-between gap-x-4 text-sm ${l.late ? 'font-semibold text-rust' : 'text-quiet'}`}
        >
          <span>{l.place || FOLLOW_UPS[l.kind].words}</span>
          <span className="whitespace-nowrap">
            {l.late ? 'was due' : l.due === day ? 'today,' : 'by'} {dayWords(l.due)}
          </span>
        </p>
        {l.href ? (
          <Link prefetch={false} className="underline-offset-4 hover:text-lake hover:underline" href={l.href}>
            {l.text}
          </Link>
        ) : (
          l.text
        )}
        <p className={`text-sm ${l.ownerName ? 'text-quiet' : 'text-ochre'}`}>
          {l.ownerName ? `${l.ownerName} sees to it` : 'Nobody sees to it yet'}
        </p>
      </div>
    </li>
  );
}
/** What narrows the list and how it is grouped: in the address, so that it can be kept and gone back to. */
function Narrow({ query, members }: { query: OwedQuery; members: readonly Member[] }) {
  const router = useRouter();
  const [find, setFind] = useState(query.find ?? '');
  const go = (change: Partial<Record<keyof OwedQuery, string>>) => {
    const next = Object.entries({ ...query, ...change }).filter((e): e is [string, string] => Boolean(e[1]));
    router.push(`/owed?${new URLSearchParams(next)}`);
  };
  return (
    <form
      role="search"
      className="mt-3 grid grid-cols-2 items-end gap-3 max-lg:[&>:first-child]:col-span-2 max-lg:[&>:last-child]:col-span-2 lg:grid-cols-[2fr_1fr_1fr_1fr_1fr_auto]"
      onSubmit={(e) => {
        e.preventDefault();
        go({ find });
      }}
    >
      <TextField label="Words of it, its place or customer" value={find} onChange={setFind} type="search" />
      <SelectField
        label="Kind"
        none="every kind"
        value={query.kind ?? ''}
        options={Object.entries(FOLLOW_UPS).map(([id, f]) => ({ id, title: f.words }))}
        onChange={(kind) => go({ kind })}
      />
      <SelectField
        label="Who sees to it"
        none="everybody"
        value={query.owner ?? ''}
        options={[
          { id: MINE, title: 'I do' },
          { id: NOBODYS, title: 'nobody yet' },
          ...members.map((m) => ({ id: m.id, title: m.name })),
        ]}
        onChange={(owner) => go({ owner })}
      />
      <SelectField
        label="Due"
        none="at any time"
        value={query.when ?? ''}
        options={words(OWED_WHEN)}
        onChange={(when) => go({ when })}
      />
      <SelectField
        label="In groups by"
        value={query.group}
        options={words(OWED_GROUPS)}
        onChange={(group) => go({ group })}
      />
      <button type="submit" className={buttonClass('plain')}>
        Find
      </button>
    </form>
  );
}
/** What is done with those that are chosen. */
function SeeTo({
  lines,
  members,
  seen,
}: {
  lines: readonly Line[];
  members: readonly Member[];
  seen: () => void;
}) {
  const router = useRouter();
  const { busy, trouble, attempt } = useAttempt();
  const [owner, setOwner] = useState('');
  const [due, setDue] = useState('');
  const [said, setSaid] = useState('');
  const [refused, setRefused] = useState<SeenTo['refused']>([]);
  const [done, setDone] = useState('');
  const ask = (what: object) =>
    void attempt(async () => {
      const answer = await office<SeenTo>('/api/follow-ups', {
        body: { ids: lines.map((l) => l.id), ...what },
      });
      setDone(answer.done === 1 ? 'One was seen to.' : `${answer.done} were seen to.`);
      setRefused(answer.refused);
      seen();
      router.refresh();
    });
  const none = lines.length === 0 || busy;
  return (
    <section
      aria-labelledby="see-to"
      className="no-print grid content-start gap-3 self-start border-t-2 border-ink pt-1 lg:sticky lg:top-4"
    >
      <h2 id="see-to" className="font-semibold">
        {lines.length === 0 ? 'Choose what you see to' : `With ${lines.length} of them`}
      </h2>
      <SelectField
        label="Hand on to"
        none="choose who"
        value={owner}
        options={[{ id: NOBODYS, title: 'nobody yet' }, ...members.map((m) => ({ id: m.id, title: m.name }))]}
        onChange={setOwner}
      />
      <Button disabled={none || !owner} onClick={() => ask({ owner })}>
        Hand on
      </Button>
      <TextField label="Another day" type="date" value={due} onChange={setDue} />
      <Button disabled={none || !due} onClick={() => ask({ due })}>
        Put to that day
      </Button>
      <TextField label="What was done" value={said} onChange={setSaid} maxLength={500} />
      <Button disabled={none || !said.trim()} onClick={() => ask({ close: said.trim() })}>
        Close with that
      </Button>
      <p role="status">{done}</p>
      {refused.length > 0 && (
        <ul role="alert" className="text-rust">
          {refused.map((r) => (
            <li key={r.id}>{r.text}</li>
          ))}
        </ul>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
