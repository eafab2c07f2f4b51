import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { found } from '@/app/(house)/found';
import { publicAnchors } from '@/server/sealing/anchors';

export const metadata: Metadata = { title: 'Daily anchors', robots: { index: false, follow: false } };
/** The lines an organisation gives out, for anybody to keep. */
export default async function Anchors({ params }: { params: Promise<{ token: string }> }) {
  await headers();
  const { token } = await params;
  const { name, lines } = await found(publicAnchors(token));
  return (
    <main className="mx-auto max-w-4xl px-4 py-8">
      <h1 className="text-2xl font-bold">Daily anchors of {name}</h1>
      <p className="mt-2 max-w-2xl">
        Each line holds the last record of a day by its fingerprint. Keep one: whoever changes the records
        afterwards, with whatever keys, cannot make them fit it again. A record file is held against a line on
        the page{' '}
        <a className="text-lake underline underline-offset-4" href="/check">
          Check a file
        </a>
        .
      </p>
      {lines.length === 0 && <p className="mt-4">There is none yet: nothing was sealed before today.</p>}
      <ul className="mt-4 border-t border-ink">
        {lines.map((l) => (
          <li key={l.day} className="border-b border-seam py-3">
            <p>
              <span className="figure-narrow font-semibold">{l.day}</span>, up to{' '}
              <span className="figure-narrow">{l.number}</span>
            </p>
            <p className="figure-narrow text-sm break-all">{l.line}</p>
          </li>
        ))}
      </ul>
    </main>
  );
}
