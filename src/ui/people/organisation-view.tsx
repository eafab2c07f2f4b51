'use client';
import { office, type OfficeError } from '@/device/office';
import { Moment, useZone } from '@/ui/frame/zone';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField } from '@/ui/kit/field';
import { WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import { moment } from '@/ui/kit/words';
import { JobList } from '@/ui/jobs/job-list';
import { useJobs } from '@/ui/jobs/use-jobs';
import type { InvitationRow, Invite, PersonForm as PersonChange, PersonRow } from '@/wire/people';
import { type Role, ROLES } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ComponentProps, useState } from 'react';
import { type Control, type Path, useController } from 'react-hook-form';
import { AnchorPart } from './anchors';
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
  readonly broughtIn: string | null;
}
interface Props {
  readonly name: string;
  readonly contact: string;
  readonly people: readonly PersonRow[];
  readonly invitations: readonly InvitationRow[];
  readonly keys: readonly Key[];
  readonly anchors: Omit<ComponentProps<typeof AnchorPart>, 'owner'>;
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
          <AnchorPart {...props.anchors} owner={owner} />
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
  const licence = p.licenceNumber
    ? `licence ${p.licenceNumber}, valid to ${p.licenceUntil}`
    : 'no licence on file';
  return (
    <li className="border-b border-seam py-2">
      <p className="flex items-baseline justify-between gap-4">
        <span>
          <span className="font-semibold">{p.name}</span>
          <span className="text-quiet">, {p.role}</span>
        </span>
        {owner && (
          <Link
            prefetch={false}
            className="py-2 text-sm text-lake underline underline-offset-4"
            href={`/devices?person=${p.id}`}
            aria-label={`Sign-ins of ${p.name}`}
          >
            Sign-ins
          </Link>
        )}
      </p>
      <p className="text-sm text-quiet">
        {p.email}
        {(p.role === 'owner' || p.role === 'tester') && !p.licenceOver && ` · ${licence}`}
      </p>
      {p.licenceOver && (
        <p className="text-sm font-semibold text-ochre">
          Licence {p.licenceNumber} ran out on {p.licenceUntil}: what {p.name} signs is not a certificate
        </p>
      )}
      {owner && <PersonForm person={p} />}
    </li>
  );
}
function PersonForm({ person: p }: { person: PersonRow }) {
  const { ask, trouble: asked } = useAsk();
  const router = useRouter();
  const [link, setLink] = useState('');
  const { control, submit, trouble, getValues } = useOfficeForm<PersonChange>({
    schema: () => import('@/wire/people').then((m) => m.personSchema),
    values: {
      name: p.name,
      role: p.role,
      licenceNumber: p.licenceNumber,
      licenceUntil: p.licenceUntil,
      left: false,
    },
    send: async (form) => {
      await office(`/api/people/${p.id}`, { method: 'PUT', body: form });
      router.refresh();
    },
  });
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 text-sm text-lake">Change</summary>
      <form noValidate className="grid max-w-xl gap-3 pb-3 sm:grid-cols-2" onSubmit={submit}>
        <WordsField control={control} name="name" label="Name" maxLength={120} />
        <RoleField control={control} />
        <WordsField control={control} name="licenceNumber" label="Licence number" maxLength={60} />
        <WordsField control={control} name="licenceUntil" label="Licence valid to" type="date" />
        <Button type="submit" tone="act">
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
        <HoldButton
          tone="danger"
          className="sm:col-span-2"
          onHeld={() =>
            void ask(`/api/people/${p.id}`, { method: 'PUT', body: { ...getValues(), left: true } })
          }
        >
          {p.name.split(' ')[0]} has left
        </HoldButton>
      </form>
      <ShownLink link={link} />
      <p role="alert" className="text-rust">
        {trouble || asked}
      </p>
    </details>
  );
}
function RoleField<T extends { role: string }>({ control }: { control: Control<T> }) {
  const { field } = useController({ control, name: 'role' as Path<T> });
  return (
    <SelectField
      label="Role"
      value={field.value}
      options={ROLES.map((r) => ({ id: r, title: ROLE_WORDS[r] }))}
      onChange={field.onChange}
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
const invitation = (): Invite => ({
  id: uuid7(Date.now()),
  name: '',
  email: '',
  role: 'tester',
  person: null,
});
function InviteForm() {
  const router = useRouter();
  const [link, setLink] = useState('');
  const { control, submit, trouble, reset } = useOfficeForm<Invite>({
    schema: () => import('@/wire/people').then((m) => m.inviteSchema),
    values: invitation(),
    send: async (form) => {
      setLink((await office<{ link: string }>('/api/people', { body: form })).link);
      reset(invitation());
      router.refresh();
    },
  });
  return (
    <form noValidate className="mt-5 grid max-w-xl gap-3 sm:grid-cols-2" onSubmit={submit}>
      <h3 className="font-semibold sm:col-span-2">Invite somebody</h3>
      <WordsField control={control} name="name" label="Name" maxLength={120} />
      <WordsField control={control} name="email" label="E-mail address" type="email" maxLength={200} />
      <RoleField control={control} />
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
function OfficeForm(values: { name: string; contact: string }) {
  const router = useRouter();
  const { control, submit, trouble } = useOfficeForm<typeof values>({
    schema: () => import('@/wire/people').then((m) => m.organisationSchema),
    values: { name: values.name, contact: values.contact },
    send: async (form) => {
      await office('/api/organisation', { method: 'PUT', body: form });
      router.refresh();
    },
  });
  return (
    <section aria-labelledby="office">
      <h2 id="office" className="text-lg font-semibold">
        On papers
      </h2>
      <form noValidate className="mt-2 grid gap-3" onSubmit={submit}>
        <WordsField control={control} name="name" label="Name of the organisation" maxLength={120} />
        <WordsField control={control} name="contact" label="How customers reach you" maxLength={300} />
        <Button type="submit">Keep</Button>
        <p role="alert" className="text-rust">
          {trouble}
        </p>
      </form>
      <Link prefetch={false} className="mt-2 inline-block py-2 text-lake underline" href="/usage">
        Units, days and times of the house
      </Link>
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
              {k.broughtIn && (
                <>
                  , brought in <Moment at={k.broughtIn} />: first seen here then
                </>
              )}
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
  const { ask, goesOn, busy, jobs, ...rest } = useJobs(['ledger']);
  return (
    <section aria-labelledby="again">
      <h2 id="again" className="text-lg font-semibold">
        Ledger
      </h2>
      <p className="text-sm text-quiet">The search is made from the sealed records and can be made anew.</p>
      <Button className="mt-2 w-full" disabled={busy || goesOn} onClick={() => void ask({ kind: 'ledger' })}>
        Make the ledger anew
      </Button>
      <JobList jobs={jobs.slice(0, 1)} {...rest} />
    </section>
  );
}
