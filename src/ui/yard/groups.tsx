'use client';
import { now } from '@/device/clock';
import { useAttempt } from '@/ui/kit/use-attempt';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { SelectField, TextField } from '@/ui/kit/field';
import type { Board } from '@/wire/yard';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** Who learns together: somebody is put into a group by its name, and taken out of it. */
export function Groups({ board }: { board: Board }) {
  const router = useRouter();
  const [person, setPerson] = useState(board.people[0]?.id ?? '');
  const [name, setName] = useState('');
  const { trouble, attempt } = useAttempt();
  const say = (who: string, of: string, within: boolean) =>
    attempt(async () => {
      await office('/api/yard/groups', { body: { id: uuid7(now()), person: who, name: of, within } });
      router.refresh();
    });
  const named = (id: string) => board.people.find((p) => p.id === id)?.name ?? '';
  return (
    <section aria-labelledby="groups" className="grid gap-3 border border-seam p-3">
      <h2 id="groups" className="font-semibold">
        Groups
      </h2>
      {Object.entries(board.groups).map(([of, members]) => (
        <div key={of} data-group={of}>
          <h3 className="font-semibold">{of}</h3>
          <ul>
            {members.map((id) => (
              <li key={id} className="flex items-center justify-between gap-2 border-b border-seam">
                <span>{named(id)}</span>
                <Button aria-label={`Take ${named(id)} out of ${of}`} onClick={() => void say(id, of, false)}>
                  Take out
                </Button>
              </li>
            ))}
          </ul>
        </div>
      ))}
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) void say(person, name.trim(), true);
        }}
      >
        <SelectField
          label="Who"
          value={person}
          onChange={setPerson}
          options={board.people.map((p) => ({ id: p.id, title: p.name }))}
        />
        <TextField
          label="Group"
          hint="like Second year"
          value={name}
          maxLength={60}
          list="group-names"
          onChange={setName}
        />
        <datalist id="group-names">
          {Object.keys(board.groups).map((g) => (
            <option key={g}>{g}</option>
          ))}
        </datalist>
        <Button type="submit" disabled={!person || !name.trim()}>
          Put into the group
        </Button>
      </form>
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
    </section>
  );
}
