'use client';
import type { PaperKind } from '@/core/record/papers';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { Supersede } from '@/wire/records';
import { uuid7 } from '@/wire/uuid7';
import type { Path } from 'react-hook-form';

/** To whom the chosen papers go. */
export function PostForm({
  run,
  papers,
  onSent,
}: {
  run: string;
  papers: readonly PaperKind[];
  onSent: (to: string) => void;
}) {
  const post = useOfficeForm<{ to: string; note: string }>({
    schema: () => import('@/wire/records').then((m) => m.sendPapersSchema.pick(['to', 'note'])),
    values: { to: '', note: '' },
    send: async ({ to, note }) => {
      const body = { id: uuid7(Date.now()), to: to.trim(), note, papers };
      await office(`/api/runs/${run}/send`, { body });
      onSent(to.trim());
    },
  });
  return (
    <form noValidate className="mt-3 grid gap-3" onSubmit={post.submit}>
      <WordsField
        control={post.control}
        name="to"
        label="Send to"
        hint={`${papers.length} paper${papers.length === 1 ? '' : 's'}`}
        maxLength={200}
        placeholder="e-mail address"
      />
      <WordsField control={post.control} name="note" label="A line to go with it" maxLength={2000} />
      <Button type="submit" tone="act">
        Send (simulated)
      </Button>
      <p role="alert" className="text-rust">
        {post.trouble}
      </p>
    </form>
  );
}

/** A record in the place of this one, with what was wrong put right. */
export function SupersedeForm({
  run,
  number,
  site,
  permit,
  present,
}: Pick<Supersede, 'site' | 'permit' | 'present'> & { run: string; number: string }) {
  const supersede = useOfficeForm<Supersede>({
    schema: () => import('@/wire/records').then((m) => m.supersedeSchema),
    values: { id: uuid7(Date.now()), reason: '', site, permit, present },
    send: async (form) => {
      const answer = await office<{ run: string }>(`/api/runs/${run}/supersede`, { body: form });
      location.assign(`/bench/${answer.run}`);
    },
  });
  const field = (name: Path<Supersede>, label: string, maxLength: number) => (
    <WordsField control={supersede.control} name={name} label={label} maxLength={maxLength} />
  );
  return (
    <form noValidate className="grid gap-3 pb-3" onSubmit={supersede.submit}>
      {field('site.name', 'Site', 120)}
      {field('site.address', 'Address', 300)}
      {field('site.customer', 'Customer', 200)}
      {field('permit', 'Permit', 60)}
      {field('present', 'Present', 200)}
      {field('reason', 'What was wrong', 500)}
      <p className="text-sm">
        The same readings go into a new record, to be signed again. {number} keeps its number and says by what
        it is superseded.
      </p>
      <Button type="submit" tone="act">
        To the signatures
      </Button>
      <p role="alert" className="text-rust">
        {supersede.trouble}
      </p>
    </form>
  );
}
