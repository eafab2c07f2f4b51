'use client';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';

interface Props {
  readonly lines: readonly { readonly day: string; readonly number: string; readonly line: string }[];
  readonly to: string;
  readonly token: string;
  readonly owner: boolean;
}
/** The last record of each day as a line that leaves the house: by it a later rewrite of everything shows. */
export function AnchorPart({ lines, to, token, owner }: Props) {
  const [newest] = lines;
  const [said, setSaid] = useState('');
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(newest!.line);
      setSaid('Copied.');
    } catch {
      setSaid('This browser does not let it be copied: mark the line and copy it by hand.');
    }
  };
  return (
    <section aria-labelledby="anchor">
      <h2 id="anchor" className="text-lg font-semibold">
        Daily anchor
      </h2>
      <p className="text-sm text-quiet">
        A line that holds the last record of a day by its fingerprint. Whoever keeps one can show later
        whether the records were written anew, even by ourselves.
      </p>
      {newest ? (
        <>
          <p className="mt-2">
            <span className="figure-narrow font-semibold">{newest.day}</span>, up to{' '}
            <span className="figure-narrow">{newest.number}</span>
          </p>
          <p className="figure-narrow text-sm break-all" data-anchor>
            {newest.line}
          </p>
          <Button className="mt-2" onClick={() => void copy()}>
            Copy the line
          </Button>
        </>
      ) : (
        <p className="mt-2">The first stands here on the day after something was sealed.</p>
      )}
      <p role="status" className="text-sm">
        {said}
      </p>
      {owner && <Settings to={to} token={token} />}
    </section>
  );
}

function Settings({ to, token }: { to: string; token: string }) {
  const router = useRouter();
  const [origin, setOrigin] = useState('');
  const [trouble, setTrouble] = useState('');
  useEffect(() => setOrigin(location.origin), []);
  const form = useOfficeForm<{ to: string }>({
    schema: () => import('@/wire/people').then((m) => m.anchorSchema.pick(['to'])),
    values: { to },
    send: async (value) => {
      await office('/api/organisation/anchors', {
        method: 'PUT',
        body: { to: value.to.trim(), published: token !== '' },
      });
      router.refresh();
    },
  });
  const publish = async (published: boolean) => {
    setTrouble('');
    try {
      await office('/api/organisation/anchors', { method: 'PUT', body: { to, published } });
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <div className="mt-3 grid gap-3">
      <form noValidate className="grid gap-2" onSubmit={form.submit}>
        <WordsField
          control={form.control}
          name="to"
          label="Send each to"
          hint="into the simulated outbox, with the next day’s first use"
          maxLength={200}
          placeholder="e-mail address, or nobody"
        />
        <Button type="submit">Keep</Button>
        <p role="alert" className="text-rust">
          {form.trouble || trouble}
        </p>
      </form>
      {token ? (
        <>
          <a className="text-lake underline underline-offset-4 break-all" href={`/anchors/${token}`}>
            {origin}/anchors/{token}
          </a>
          <Button onClick={() => void publish(false)}>End the public address</Button>
        </>
      ) : (
        <Button onClick={() => void publish(true)}>Publish them at an address of their own</Button>
      )}
    </div>
  );
}
