'use client';
import { freshen } from '@/device/carried';
import { readIdentity } from '@/device/identity';
import { useCarrying } from '@/ui/carried/use-carrying';
import type { Identity } from '@/wire/role';
import { useEffect, useState } from 'react';

/** The procedures that the house works by, by rule pack, as this device took them along; nothing for who is not signed in. */
export function ProcedureList({ words, at }: { words: readonly string[]; at: string }) {
  const [who, setWho] = useState<Identity | null>(null);
  useEffect(() => setWho(readIdentity()), []);
  return who && <Here who={who} words={words} at={at} />;
}
function Here({ who, words, at }: { who: Identity; words: readonly string[]; at: string }) {
  const carrying = useCarrying(who);
  const nothing = carrying === null;
  useEffect(() => {
    // without a signal the words and figures stand all the same
    if (nothing) void freshen(who, null).catch(() => undefined);
  }, [nothing, who]);
  const packs = (carrying?.packs ?? [])
    .map((pack) => ({
      pack,
      procedures: pack.procedures.filter((p) => {
        const text = `${p.title} ${p.summary} ${pack.title}`.toLowerCase();
        return words.every((w) => text.includes(w));
      }),
    }))
    .filter(({ procedures }) => procedures.length);
  if (!packs.length) return null;
  return (
    <section className="mt-4 border-t-2 border-ink pt-1">
      <h2 className="font-semibold">Procedures</h2>
      {packs.map(({ pack, procedures }) => (
        <details key={pack.id} open={words.length > 0 || at.startsWith(`procedure/${pack.id}/`) || undefined}>
          <summary className="min-h-11 cursor-pointer py-2 text-lake">{pack.title}</summary>
          <ul className="border-l-2 border-seam pl-3">
            {procedures.map((p) => (
              <li key={p.id}>
                <a
                  className="flex min-h-11 items-center py-1 text-lake underline-offset-4 hover:underline"
                  href={`#procedure/${pack.id}/${p.id}`}
                  aria-current={at.startsWith(`procedure/${pack.id}/${p.id}`) ? 'page' : undefined}
                >
                  {p.title}
                </a>
              </li>
            ))}
          </ul>
        </details>
      ))}
    </section>
  );
}
