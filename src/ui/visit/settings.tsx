'use client';
import { useMay } from '@/ui/frame/may';
import type { VisitFacts } from '@/core/visit/facts';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { Field, FIELD, TextField } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useState } from 'react';
import { dayWords } from './times';

/** Tasks that visits often lose time with, and what is wisely done before fitting. */
const SUGGESTED = [
  'Travel',
  'Uncover the cleanout',
  'Trace the lines',
  'Cut and reglue',
  'Cement cures',
  'Smoke machine warms up',
  'Bench test of a bought-in part before fitting',
  'Photographs before and after',
];
const ROLES = ['installer', 'customer', 'inspector', 'utility', 'engineer'];

/** As many as a visit is planned for at most. */
const MOST_PEOPLE = 4;
function WhoGoes({
  team,
  people,
  onChange,
}: {
  team: readonly { readonly id: string; readonly name: string }[];
  people: readonly string[];
  onChange: (people: readonly string[]) => void;
}) {
  return (
    <fieldset className="sm:col-span-2">
      <legend className="text-sm">Who goes</legend>
      <div className="flex flex-wrap gap-x-5">
        {team.map((p) => {
          const goes = people.includes(p.id);
          return (
            <label key={p.id} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={goes}
                disabled={!goes && people.length >= MOST_PEOPLE}
                onChange={() => onChange(goes ? people.filter((x) => x !== p.id) : [...people, p.id])}
              />
              {p.name}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
/** When, who, the promise, the permit; another test or task; what to load for all of it. */
export function VisitSettings({
  facts,
  may,
  team,
  kit,
  onChange,
}: {
  facts: VisitFacts;
  may: boolean;
  team: readonly { readonly id: string; readonly name: string }[];
  kit: readonly { readonly group: string; readonly name: string; readonly why: string }[];
  onChange: (facts: VisitFacts) => void;
}) {
  const [draft, setDraft] = useState({
    title: facts.title,
    day: facts.day,
    start: facts.start,
    permit: facts.permit,
  });
  const sends = useMay('share');
  const set = (part: Partial<VisitFacts>) => onChange({ ...facts, ...part });
  const keep = () => {
    if (draft.title.trim() && /^\d{4}-\d{2}-\d{2}$/.test(draft.day) && /^\d{2}:\d{2}$/.test(draft.start))
      set(draft);
  };
  return (
    <div className="no-print mt-8 grid gap-8 lg:grid-cols-2">
      <section>
        <h2 className="text-lg font-semibold">The visit</h2>
        <fieldset className="mt-2 grid gap-3 border-t border-seam pt-3 sm:grid-cols-2" disabled={!may}>
          <legend className="sr-only">The visit</legend>
          <Field label="Title" className="sm:col-span-2">
            {(ids) => (
              <input
                {...ids}
                className={FIELD}
                maxLength={100}
                value={draft.title}
                onBlur={keep}
                onChange={(e) => setDraft({ ...draft, title: e.target.value })}
              />
            )}
          </Field>
          <TextField
            label="Day"
            type="date"
            value={draft.day}
            onBlur={keep}
            onChange={(v) => setDraft({ ...draft, day: v })}
          />
          <TextField
            label="Begins at"
            type="time"
            value={draft.start}
            onBlur={keep}
            onChange={(v) => setDraft({ ...draft, start: v })}
          />
          <Field label="People who work">
            {(ids) => (
              <select
                {...ids}
                className={FIELD}
                value={facts.crew}
                onChange={(e) => set({ crew: Number(e.target.value), wishes: {}, pinned: [] })}
              >
                {[1, 2, 3, 4].map((n) => (
                  <option key={n}>{n}</option>
                ))}
              </select>
            )}
          </Field>
          <WhoGoes team={team} people={facts.people ?? []} onChange={(people) => set({ people })} />
          <Field label="Promised back in use by" hint="empty: no promise">
            {(ids) => (
              <input
                {...ids}
                type="time"
                className={FIELD}
                defaultValue={facts.promise}
                onBlur={(e) => e.target.value !== facts.promise && set({ promise: e.target.value })}
              />
            )}
          </Field>
          <TextField
            label="Permit number"
            maxLength={60}
            value={draft.permit}
            onBlur={keep}
            onChange={(v) => setDraft({ ...draft, permit: v })}
          />
          <Present present={facts.present} onChange={(present) => set({ present })} />
        </fieldset>
        {may && (
          <div className="mt-3 grid gap-3">
            <Link prefetch={false} href="/places" className={buttonClass('plain')}>
              Another test: choose a place
            </Link>
            <OwnTask facts={facts} onChange={onChange} />
            {sends && <Invite facts={facts} />}
          </div>
        )}
      </section>
      {kit.length > 0 && (
        <section>
          <h2 className="text-lg font-semibold">What to load for the visit</h2>
          <ul className="mt-2 border-t border-seam">
            {kit.map((k) => (
              <li key={k.group + k.name} className="border-b border-seam py-1.5">
                {k.name} <span className="text-sm text-quiet">{k.why}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Who must be there, by role. */
function Present({
  present,
  onChange,
}: {
  present: readonly string[];
  onChange: (present: string[]) => void;
}) {
  return (
    <div>
      <span className="text-sm">Must be present</span>
      <div className="mt-1 flex flex-wrap gap-x-4">
        {ROLES.map((r) => (
          <label key={r} className="flex min-h-10 items-center gap-2">
            <input
              type="checkbox"
              className="size-5 accent-lake"
              checked={present.includes(r)}
              onChange={(e) => onChange(e.target.checked ? [...present, r] : present.filter((x) => x !== r))}
            />
            {r}
          </label>
        ))}
      </div>
    </div>
  );
}

/** A task of one's own: travel, cure, a smoke machine that warms up; alone, after another or while one waits. */
function OwnTask({ facts, onChange }: { facts: VisitFacts; onChange: (facts: VisitFacts) => void }) {
  const [title, setTitle] = useState('');
  const [hands, setHands] = useState('10');
  const [wait, setWait] = useState('0');
  const [place, setPlace] = useState('');
  const add = () => {
    const w = Number(wait);
    const id = uuid7(now()).slice(-12);
    const [how, other] = place.split(':');
    onChange({
      ...facts,
      wishes: {},
      pinned: [],
      tasks: [
        ...facts.tasks,
        {
          id,
          title: title.trim(),
          kind: 'other',
          hands: Number(hands),
          wait: w,
          close: w > 0 ? 1 : 0,
          after: how === 'after' ? [other!] : [],
          ...(how === 'during' ? { during: other! } : {}),
          takes: [],
          frees: [],
          ...(w > 0 ? { waits: title.trim() } : {}),
        },
      ],
    });
    setTitle('');
  };
  const ok =
    title.trim() !== '' && Number(hands) >= 0 && Number(wait) >= 0 && Number(hands) + Number(wait) > 0;
  return (
    <details className="border border-seam bg-panel p-3">
      <summary className="min-h-8 cursor-pointer font-semibold">A task of your own</summary>
      <datalist id="own-tasks">
        {SUGGESTED.map((x) => (
          <option key={x} value={x} />
        ))}
      </datalist>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <Field label="What" className="sm:col-span-2">
          {(ids) => (
            <input
              {...ids}
              className={FIELD}
              maxLength={160}
              list="own-tasks"
              value={title}
              onChange={(e) => setTitle(e.target.value)}
              placeholder="Uncover the cleanout"
            />
          )}
        </Field>
        <TextField
          label="Minutes hands on"
          type="number"
          min={0}
          value={hands}
          onChange={(v) => setHands(v)}
        />
        <TextField
          label="Minutes waiting"
          hint="cure, warm-up"
          type="number"
          min={0}
          value={wait}
          onChange={(v) => setWait(v)}
        />
        <Field label="When" className="sm:col-span-2">
          {(ids) => (
            <select {...ids} className={FIELD} value={place} onChange={(e) => setPlace(e.target.value)}>
              <option value="">any time</option>
              {facts.tasks.map((t) => (
                <option key={`a${t.id}`} value={`after:${t.id}`}>
                  after: {t.title}
                </option>
              ))}
              {Number(wait) === 0 &&
                facts.tasks
                  .filter((t) => t.wait > 0)
                  .map((t) => (
                    <option key={`d${t.id}`} value={`during:${t.id}`}>
                      while it waits: {t.title}
                    </option>
                  ))}
            </select>
          )}
        </Field>
        <Button disabled={!ok} onClick={add}>
          Put it on the visit
        </Button>
      </div>
    </details>
  );
}

/** Invites somebody who must be present, by the simulated outbox. */
function Invite({ facts }: { facts: VisitFacts }) {
  const [to, setTo] = useState('');
  const [said, setSaid] = useState('');
  const send = async () => {
    try {
      await office('/api/outbox', {
        body: {
          id: uuid7(now()),
          to: to.trim(),
          subject: `You are asked to be present: ${facts.title}, ${dayWords(facts.day)} from ${facts.start}`,
          body: [
            `${facts.title}, ${dayWords(facts.day)}, from ${facts.start} (${facts.zone}).`,
            ...facts.tests.map((t) => `${t.siteName}: ${t.title}, ${t.caseTitle.toLowerCase()}.`),
            ...(facts.present.length ? [`Asked to be present: ${facts.present.join(', ')}.`] : []),
            ...(facts.permit ? [`Permit ${facts.permit}.`] : []),
            'Please say whether you will be there.',
          ].join('\n\n'),
        },
      });
      setSaid(`The invitation to ${to.trim()} is in the simulated outbox; nothing left this machine.`);
      setTo('');
    } catch (error) {
      setSaid((error as OfficeError).message);
    }
  };
  return (
    <details className="border border-seam bg-panel p-3">
      <summary className="min-h-8 cursor-pointer font-semibold">Invite who must be present</summary>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Field label="E-mail" className="min-w-56 flex-1">
          {(ids) => (
            <input
              {...ids}
              type="email"
              className={FIELD}
              value={to}
              onChange={(e) => setTo(e.target.value)}
            />
          )}
        </Field>
        <Button disabled={!to.trim()} onClick={() => void send()}>
          Send to the simulated outbox
        </Button>
      </div>
      <p role="status" className="mt-1 text-sm">
        {said}
      </p>
    </details>
  );
}
