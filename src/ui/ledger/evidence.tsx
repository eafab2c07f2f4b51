import { showExact } from '@/core/quantity/exact';
import { clockInZone } from '@/core/quantity/in-zone';
import type { Face } from '@/core/record/face';
import { picturesOf } from '@/core/record/pictures';
import { provenanceLines } from '@/core/record/provenance';
import { readingRows, SOURCE_WORDS } from '@/core/record/readings';
import { Caption, Photos } from '@/ui/kit/photos';

/** What the record rests on: every reading with how it came, gaps, and photos beside what was entered. */
export function Evidence({ face, photos }: { face: Face; photos: boolean }) {
  const { plan, state } = face;
  const zone = plan.made.zone;
  const clock = (ms: number) => clockInZone(ms, zone);
  const rows = readingRows(plan, state, face.body.events);
  const address = (hash: string) => `/api/runs/${plan.run}/photos/${hash}`;
  const shown = picturesOf(state).map((p) => ({
    key: p.hash,
    small: `${address(p.hash)}?small=1`,
    large: address(p.hash),
    words: `${p.title}: ${p.caption}`,
    when: p.taken ? `${p.taken.stage}, ${clock(p.taken.at)}, ${p.taken.by}` : p.place,
    at: p.taken?.at ?? 0,
    thing: p.title,
    note: p.beside,
    mark: p.hash.slice(0, 12),
  }));
  const grid = 'mt-2 grid gap-5 sm:grid-cols-2 lg:grid-cols-3';
  return (
    <>
      <section aria-labelledby="readings">
        <h3 id="readings" className="font-semibold">
          Readings, and how each came
        </h3>
        <ul className="mt-1 list-inside list-disc">
          {provenanceLines(plan, state).map((l) => (
            <li key={l}>{l}</li>
          ))}
        </ul>
        <div className="mt-2 overflow-x-auto" role="region" aria-label="Readings" tabIndex={0}>
          <table className="w-full min-w-[700px] text-sm">
            <thead>
              <tr className="text-left text-quiet [&>th]:pr-3 [&>th]:font-normal">
                <th>Stage</th>
                <th>What</th>
                <th>Read</th>
                <th>Figure</th>
                <th>Came here</th>
                <th>Source</th>
                <th>By</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r, i) => (
                <tr key={i} className="border-t border-seam align-top [&>td]:py-1 [&>td]:pr-3">
                  <td>{r.stage}</td>
                  <td>{r.what}</td>
                  <td className="whitespace-nowrap">{clock(r.read)}</td>
                  <td className="figure-narrow whitespace-nowrap">{showExact(r.figure)}</td>
                  <td className="whitespace-nowrap text-quiet">
                    {r.received === null ? 'with the seal' : clock(r.received)}
                  </td>
                  <td>
                    {SOURCE_WORDS[r.source]}
                    {r.late && <span className="font-semibold">, late</span>}
                    {r.corrected && (
                      <span className="block font-semibold">
                        corrected to {showExact(r.corrected)}: {r.reason}
                      </span>
                    )}
                  </td>
                  <td>{r.by}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
      {shown.length > 0 && (
        <section aria-labelledby="photos">
          <h3 id="photos" className="font-semibold">
            Photos
          </h3>
          {photos ? (
            <Photos captions className={grid} small="h-44 w-full" photos={shown} />
          ) : (
            <ul className={grid}>
              {shown.map((p) => (
                <li key={p.key}>
                  <p className="border border-seam p-3">The photo did not come with the record.</p>
                  <Caption of={p} />
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
    </>
  );
}
