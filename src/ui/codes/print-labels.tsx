'use client';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';

interface Label {
  readonly id: string;
  readonly name: string;
  readonly words: string;
  readonly code: { readonly size: number; readonly path: string };
}
/** Quiet modules around a code, so that cameras find it. */
const RIM = 4;

/** Which labels are printed, and how they will look: 58 × 30 mm each, three in a row on a sheet. */
export function PrintLabels({
  groups,
}: {
  groups: readonly { readonly title: string; readonly labels: readonly Label[] }[];
}) {
  const [chosen, setChosen] = useState(() => new Set(groups[0]?.labels.map((l) => l.id) ?? []));
  const toggle = (ids: readonly string[], on: boolean) => {
    const next = new Set(chosen);
    for (const id of ids)
      if (on) next.add(id);
      else next.delete(id);
    setChosen(next);
  };
  const printed = groups.flatMap((g) => g.labels).filter((l) => chosen.has(l.id));
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-4 print:hidden">
        <h1 className="text-2xl font-bold">Labels</h1>
        <Button tone="act" disabled={!printed.length} onClick={() => print()}>
          Print {printed.length}
        </Button>
      </div>
      <p className="mt-1 max-w-2xl text-quiet print:hidden">
        Scanned on the bench the label of a gauge chooses it; any phone’s camera opens the thing here.
      </p>
      <div className="mt-3 grid gap-4 md:grid-cols-3 print:hidden">
        {groups.map((g) => (
          <fieldset key={g.title}>
            <legend className="font-semibold">{g.title}</legend>
            {g.labels.length > 1 && (
              <label className="flex min-h-11 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="size-5 accent-lake"
                  checked={g.labels.every((l) => chosen.has(l.id))}
                  onChange={(e) =>
                    toggle(
                      g.labels.map((l) => l.id),
                      e.target.checked,
                    )
                  }
                />
                all {g.labels.length}
              </label>
            )}
            <div className="max-h-72 overflow-y-auto" role="region" tabIndex={0} aria-label={g.title}>
              {g.labels.map((l) => (
                <label
                  key={l.id}
                  className="flex min-h-11 cursor-pointer items-center gap-3 border-t border-seam"
                >
                  <input
                    type="checkbox"
                    className="size-5 shrink-0 accent-lake"
                    checked={chosen.has(l.id)}
                    onChange={(e) => toggle([l.id], e.target.checked)}
                  />
                  <span>
                    {l.name} <span className="text-sm text-quiet">{l.words}</span>
                  </span>
                </label>
              ))}
            </div>
          </fieldset>
        ))}
      </div>
      <ul
        aria-label="As they are printed"
        className="mt-4 grid w-fit grid-cols-[58mm] gap-[2mm] sm:grid-cols-[repeat(2,58mm)] lg:grid-cols-[repeat(3,58mm)] print:grid-cols-[repeat(3,58mm)]"
      >
        {printed.map((l) => (
          <li
            key={l.id}
            className="flex h-[30mm] w-[58mm] break-inside-avoid items-center gap-[2mm] overflow-hidden border border-[#000] bg-[#fff] p-[1mm] text-[#000]"
          >
            <svg
              viewBox={`${-RIM} ${-RIM} ${l.code.size + 2 * RIM} ${l.code.size + 2 * RIM}`}
              className="size-[27mm] shrink-0"
              role="img"
              aria-label={`Code of ${l.name}`}
            >
              <path d={l.code.path} />
            </svg>
            <span className="min-w-0 text-[9pt] leading-tight">
              <span className="block font-bold wrap-anywhere">{l.name}</span>
              <span className="block wrap-anywhere">{l.words}</span>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
