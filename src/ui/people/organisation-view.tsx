'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { office, type OfficeError } from '@/device/office';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField, TextField } from '@/ui/kit/field';
import { Moment, useZone } from '@/ui/frame/zone';
import { moment } from '@/ui/kit/words';
import type { InvitationRow, PersonRow } from '@/wire/people';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { MoveOrganisation } from './move-organisation';

const ROLE_WORDS: Record<Role, string> = {
  owner: 'owner: everything, people and keys too',
  tester: 'tester: plans, runs, signs and seals',
  apprentice: 'apprentice: runs, does not seal',
  office: 'office: plans, reads, exports',
};
interface Key {
  readonly key: string;
  readonly made: string;
  readonly retired: string | null;
}
interface Props {
  readonly name: string;
  readonly contact: string;
  readonly people: readonly PersonRow[];
  readonly invitations: readonly InvitationRow[];
  readonly keys: readonly Key[];
  readonly owner: boolean;
  readonly exports: boolean;
  readonly self: string;
}
/** Runs a request, then shows what changed; what went wrong is said. */
function useAsk() {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const ask = async <T,>(path: string, options: { method?: string; body?: unknown }): Promise<T | null> => {
    setTrouble('');
    try {
      const answer = await office<T>(path, options);
      router.refresh();
      return answer;
    } catch (error) {
      setTrouble((error as OfficeError).message);
      return null;
    }
  };
  return { ask, trouble, setTrouble };
}

/** People, keys and what belongs to the organisation as a whole. Everyone reads it; the owner changes it. */
export function OrganisationView(props: Props) {
  const zone = useZone();
  const { owner, people, invitations, keys } = props;
  const here = people.filter((p) => !p.left);
  const gone = people.filter((p) => p.left);
  return (
    <>
      <h1 className="text-2xl font-bold">{props.name}</h1>
      {props.contact && <p>{props.contact}</p>}
      <div className="mt-5 grid gap-10 lg:grid-cols-[1fr_22rem]">
        <section aria-labelledby="people">
          <h2 id="people" className="text-lg font-semibold">
            People
          </h2>
          <ul className="mt-2 border-t border-seam">
            {here.map((p) => (
              <PersonLine key={p.id} person={p} owner={owner} />
            ))}
          </ul>
          {invitations.length > 0 && (
            <>
              <h3 className="mt-4 font-semibold">Invited</h3>
              <ul>
                {invitations.map((i) => (
                  <InvitationLine key={i.id} invitation={i} owner={owner} />
                ))}
              </ul>
            </>
          )}
          {owner && <InviteForm />}
          {gone.length > 0 && (
            <p className="mt-4 text-sm text-quiet">
              Have left: {gone.map((p) => `${p.name} (${moment(p.left!, zone)})`).join('; ')}. What they did
              keeps their name.
              {owner && ' An invitation to the same person brings them back.'}
            </p>
          )}
        </section>
        <div className="grid content-start gap-8">
          {owner && <OfficeForm name={props.name} contact={props.contact} />}
          <Keys keys={keys} owner={owner} />
          {owner && (
            <section aria-labelledby="log">
              <h2 id="log" className="text-lg font-semibold">
                Who did what
              </h2>
              <Link prefetch={false} className={buttonClass('plain', 'mt-2')} href="/organisation/audit">
                Audit log
              </Link>
            </section>
          )}
          {props.exports && <MoveOrganisation />}
          {owner && <Ledger />}
        </div>
      </div>
    </>
  );
}

function PersonLine({ person: p, owner }: { person: PersonRow; owner: boolean }) {
  const { ask, trouble } = useAsk();
  const [form, setForm] = useState({
    name: p.name,
    role: p.role,
    licenceNumber: p.licenceNumber,
    licenceUntil: p.licenceUntil,
  });
  const [link, setLink] = useState('');
  const save = (left: boolean) => void ask(`/api/people/${p.id}`, { method: 'PUT', body: { ...form, left } });
  const licence = p.licenceNumber
    ? `licence ${p.licenceNumber}, valid to ${p.licenceUntil}`
    : 'no licence on file';
  return (
    <li className="border-b border-seam py-2">
      <p>
        <span className="font-semibold">{p.name}</span>
        <span className="text-quiet">, {p.role}</span>
      </p>
      <p className="text-sm text-quiet">
        {p.email}
        {(p.role === 'owner' || p.role === 'tester') && !p.licenceOver && ` · ${licence}`}
      </p>
      {p.licenceOver && (
        <p className="text-sm font-semibold text-ochre">
          Licence {p.licenceNumber} ran out on {p.licenceUntil}: what {p.name} seals is not a certificate
        </p>
      )}
      {owner && (
        <details>
          <summary className="min-h-11 cursor-pointer py-2 text-sm text-lake">Change</summary>
          <div className="grid max-w-xl gap-3 pb-3 sm:grid-cols-2">
            <TextField
              label="Name"
              value={form.name}
              onChange={(name) => setForm({ ...form, name })}
              maxLength={120}
            />
            <RoleField value={form.role} onChange={(role) => setForm({ ...form, role })} />
            <TextField
              label="Licence number"
              value={form.licenceNumber}
              onChange={(licenceNumber) => setForm({ ...form, licenceNumber })}
              maxLength={60}
            />
            <TextField
              label="Licence valid to"
              type="date"
              value={form.licenceUntil}
              onChange={(licenceUntil) => setForm({ ...form, licenceUntil })}
            />
            <Button tone="act" onClick={() => save(false)}>
              Keep
            </Button>
            <Button
              onClick={() =>
                void ask<{ link: string }>('/api/people', {
                  body: { id: uuid7(Date.now()), name: p.name, email: p.email, role: p.role, person: p.id },
                }).then((a) => a && setLink(a.link))
              }
            >
              Offer a new password
            </Button>
            <HoldButton tone="danger" className="sm:col-span-2" onHeld={() => save(true)}>
              {p.name.split(' ')[0]} has left
            </HoldButton>
          </div>
          <ShownLink link={link} />
          <p role="alert" className="text-rust">
            {trouble}
          </p>
        </details>
      )}
    </li>
  );
}
function RoleField({ value, onChange }: { value: Role; onChange: (role: Role) => void }) {
  return (
    <SelectField
      label="Role"
      value={value}
      options={ROLES.map((r) => ({ id: r, title: ROLE_WORDS[r] }))}
      onChange={(role) => onChange(role as Role)}
    />
  );
}
/** A link that is shown this once. */
function ShownLink({ link }: { link: string }) {
  return link ? (
    <p className="my-2 border-l-4 border-lake pl-3" role="status">
      Give this link; it is shown only now and stands in the simulated outbox:{' '}
      <span className="figure-narrow break-all">{link}</span>
    </p>
  ) : null;
}
function InvitationLine({ invitation: i, owner }: { invitation: InvitationRow; owner: boolean }) {
  const { ask, trouble } = useAsk();
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-seam py-2">
      <span className="grow">
        {i.name}, {i.role}
        <span className="block text-sm text-quiet">
          {i.email}; open until <Moment at={i.expires} />
        </span>
      </span>
      {owner && (
        <Button
          className="min-h-11 text-sm"
          onClick={() => void ask(`/api/invitations/${i.id}`, { method: 'DELETE' })}
        >
          Withdraw
        </Button>
      )}
      <span role="alert" className="text-rust">
        {trouble}
      </span>
    </li>
  );
}
function InviteForm() {
  const { ask, trouble } = useAsk();
  const [form, setForm] = useState({ name: '', email: '', role: 'tester' as Role });
  const [link, setLink] = useState('');
  return (
    <form
      className="mt-5 grid max-w-xl gap-3 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        void ask<{ link: string }>('/api/people', {
          body: { id: uuid7(Date.now()), ...form, person: null },
        }).then((a) => {
          if (!a) return;
          setLink(a.link);
          setForm({ name: '', email: '', role: 'tester' });
        });
      }}
    >
      <h3 className="font-semibold sm:col-span-2">Invite somebody</h3>
      <TextField
        label="Name"
        value={form.name}
        onChange={(name) => setForm({ ...form, name })}
        maxLength={120}
        required
      />
      <TextField
        label="E-mail address"
        type="email"
        value={form.email}
        onChange={(email) => setForm({ ...form, email })}
        maxLength={200}
        required
      />
      <RoleField value={form.role} onChange={(role) => setForm({ ...form, role })} />
      <Button type="submit" className="self-end">
        Invite
      </Button>
      <div className="sm:col-span-2">
        <ShownLink link={link} />
        <p role="alert" className="text-rust">
          {trouble}
        </p>
      </div>
    </form>
  );
}
function OfficeForm({ name, contact }: { name: string; contact: string }) {
  const { ask, trouble } = useAsk();
  const [form, setForm] = useState({ name, contact });
  return (
    <section aria-labelledby="office">
      <h2 id="office" className="text-lg font-semibold">
        On papers
      </h2>
      <div className="mt-2 grid gap-3">
        <TextField
          label="Name of the organisation"
          value={form.name}
          onChange={(v) => setForm({ ...form, name: v })}
          maxLength={120}
        />
        <TextField
          label="How customers reach you"
          value={form.contact}
          onChange={(v) => setForm({ ...form, contact: v })}
          maxLength={300}
        />
        <Button onClick={() => void ask('/api/organisation', { method: 'PUT', body: form })}>Keep</Button>
        <p role="alert" className="text-rust">
          {trouble}
        </p>
      </div>
    </section>
  );
}
function Keys({ keys, owner }: { keys: readonly Key[]; owner: boolean }) {
  const zone = useZone();
  const { ask, trouble } = useAsk();
  return (
    <section aria-labelledby="keys">
      <h2 id="keys" className="text-lg font-semibold">
        Signing keys
      </h2>
      <p className="text-sm text-quiet">
        Give the first figures to whoever checks your records: the check page shows the same.
      </p>
      <ul className="mt-2">
        {keys.map((k) => (
          <li key={k.key} className="border-t border-seam py-2">
            <span className={`figure-narrow ${k.retired ? 'text-quiet' : 'font-semibold'}`}>
              {k.key.slice(0, 16)}
            </span>
            <span className="block text-sm text-quiet">
              since <Moment at={k.made} />
              {k.retired ? `, retired ${moment(k.retired, zone)}: proves what it signed` : ', signs now'}
            </span>
          </li>
        ))}
      </ul>
      {owner && (
        <HoldButton
          tone="plain"
          className="mt-2 w-full"
          onHeld={() => void ask('/api/organisation/key', { method: 'POST' })}
        >
          Change the signing key
        </HoldButton>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
function Ledger() {
  const { ask, trouble } = useAsk();
  const [said, setSaid] = useState('');
  return (
    <section aria-labelledby="again">
      <h2 id="again" className="text-lg font-semibold">
        Ledger
      </h2>
      <p className="text-sm text-quiet">The search is made from the sealed records and can be made anew.</p>
      <Button
        className="mt-2 w-full"
        onClick={() =>
          void ask<{ lines: number }>('/api/organisation/ledger', { method: 'POST' }).then(
            (a) => a && setSaid(`${a.lines} records.`),
          )
        }
      >
        Make the ledger anew
      </Button>
      <p role="status">{said}</p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
