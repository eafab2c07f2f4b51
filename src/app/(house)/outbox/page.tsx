import type { Metadata } from 'next';
import { readOutbox } from '@/server/outbox/outbox';
import { PAPERS } from '@/core/record/papers';
import { readPrints } from '@/server/records/handing-over';
import { buttonClass } from '@/ui/kit/button-class';
import { requireSession } from '@/server/session/session';
import { Moment } from '@/ui/frame/zone';

export const metadata: Metadata = { title: 'Simulated outbox' };
export default async function Outbox() {
  const session = await requireSession();
  const [messages, prints] = await Promise.all([readOutbox(session), readPrints(session)]);
  return (
    <>
      <h1 className="text-2xl font-bold">Simulated outbox</h1>
      <p className="mt-1 max-w-2xl">
        A stand-in for mail: what would have been sent stands here. Nothing leaves this machine.
      </p>
      <ul className="mt-4 grid gap-3">
        {messages.map((m) => (
          <li key={m.id} className="min-w-0 border border-seam bg-panel p-4">
            <h2 className="font-semibold">{m.subject}</h2>
            <p className="text-sm text-quiet">
              To {m.to}; <Moment at={m.at} />, {m.by}. Simulated.
            </p>
            <p className="mt-2 max-w-3xl wrap-anywhere whitespace-pre-line">{m.body}</p>
            {m.papers.length > 0 && (
              <ul className="mt-2 flex flex-wrap gap-2" aria-label="Papers with it">
                {m.papers.map((p) => (
                  <li key={p.form}>
                    <a
                      className={buttonClass('plain', 'min-h-11 text-sm')}
                      href={`/api/runs/${p.run}/pdf${p.form === 'certificate' ? '' : `?form=${p.form}`}`}
                      target="_blank"
                      rel="noreferrer"
                    >
                      {p.number}: {PAPERS[p.form]}
                    </a>
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
      {messages.length === 0 && (
        <p className="mt-4 text-quiet">
          Nothing was sent yet. A plan’s brief, and every paper of a record, can be sent here.
        </p>
      )}
      <h2 className="mt-8 text-lg font-semibold">Tray of the simulated site printer</h2>
      {prints.length === 0 ? (
        <p className="mt-1 text-quiet">No ticket came out yet. A record’s page prints one.</p>
      ) : (
        <ul className="mt-3 flex flex-wrap gap-5">
          {prints.map((p) => (
            <li key={p.id} className="max-w-full">
              <p className="text-sm text-quiet">
                {p.number}; <Moment at={p.at} />, {p.by}. Simulated, 80 mm.
              </p>
              <pre
                className="figure-narrow mt-1 overflow-x-auto border border-seam bg-panel p-3 text-[0.72rem] leading-snug whitespace-pre"
                aria-label={`Ticket of ${p.number}`}
              >
                {p.paper}
              </pre>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
