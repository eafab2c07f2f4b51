import type { Metadata } from 'next';
import { readOutbox } from '@/server/outbox/outbox';
import { requireSession } from '@/server/session/session';
import { moment } from '@/ui/kit/words';

export const metadata: Metadata = { title: 'Simulated outbox' };
export default async function Outbox() {
  const messages = await readOutbox(await requireSession());
  return (
    <>
      <h1 className="text-2xl font-bold">Simulated outbox</h1>
      <p className="mt-1 max-w-2xl">
        A stand-in for mail: what would have been sent stands here. Nothing leaves this machine.
      </p>
      <ul className="mt-4 grid gap-3">
        {messages.map((m) => (
          <li key={m.id} className="border border-seam bg-panel p-4">
            <h2 className="font-semibold">{m.subject}</h2>
            <p className="text-sm text-quiet">
              To {m.to}; {moment(m.at)}, {m.by}. Simulated.
            </p>
            <p className="mt-2 max-w-3xl whitespace-pre-line">{m.body}</p>
          </li>
        ))}
      </ul>
      {messages.length === 0 && (
        <p className="mt-4 text-quiet">Nothing was sent yet. A plan’s brief can be sent here.</p>
      )}
    </>
  );
}
