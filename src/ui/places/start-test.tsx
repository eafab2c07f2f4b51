'use client';
import { useState } from 'react';
import { FAULTS } from '@/core/simulation/installation';
import type { Case, Choice } from '@/core/pack/types';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { uuid7 } from '@/wire/uuid7';

interface Offer {
  readonly id: string;
  readonly school: string;
  readonly edition: string;
  readonly notice: string;
  readonly procedures: readonly {
    readonly id: string;
    readonly title: string;
    readonly summary: string;
    readonly proves: readonly string[];
    readonly cannotProve: readonly string[];
    readonly cases: readonly Case[];
    readonly choices: readonly Choice[];
    readonly meters: readonly string[];
  }[];
}
/** Starts a run on this system: what is being tested, the schools' choices, for real or on the simulated installation. */
export function StartTest({
  system,
  packs,
  meter,
  gauges,
}: {
  system: string;
  packs: readonly Offer[];
  meter: string;
  gauges: number;
}) {
  const pack = packs[0];
  const procedure = pack?.procedures[0];
  const [kind, setKind] = useState('');
  const [choices, setChoices] = useState<Record<string, string>>({});
  const [fault, setFault] = useState('surprise');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  if (!pack || !procedure) return <p>No rule pack is loaded. Ask the owner to import one.</p>;
  const start = async (practice: boolean) => {
    if (!kind) {
      setTrouble('Say first what is being tested.');
      return;
    }
    setBusy(true);
    setTrouble('');
    try {
      const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
      const { run } = await office<{ run: string }>('/api/runs', {
        body: {
          id: uuid7(now()),
          system,
          pack: pack.id,
          procedure: procedure.id,
          case: kind,
          choices,
          practice,
          ...(practice ? { fault } : {}),
          zone,
        },
      });
      location.assign(`/bench/${run}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <section className="border border-seam bg-panel p-4" aria-labelledby="start">
      <h2 id="start" className="text-lg font-semibold">
        Start a test
      </h2>
      <p className="mt-1 font-semibold">{procedure.title}</p>
      <p className="text-sm">{procedure.summary}</p>
      <details className="mt-2 text-sm">
        <summary className="min-h-8 cursor-pointer text-lake">What it proves, what it cannot</summary>
        <p className="mt-1">Proves {procedure.proves.join('; ')}.</p>
        <p className="mt-1">Cannot prove {procedure.cannotProve.join('; ')}.</p>
      </details>
      {!procedure.meters.includes(meter) && (
        <p className="mt-2 border-l-4 border-heather pl-3 text-sm">
          The meter of this system is outside this procedure: the run can only end Refer, Not tight or without
          a result.
        </p>
      )}
      <fieldset className="mt-3">
        <legend className="text-sm text-quiet">What is being tested?</legend>
        {procedure.cases.map((c) => (
          <label
            key={c.key}
            className="flex min-h-12 cursor-pointer items-start gap-3 border-t border-seam py-2"
          >
            <input
              type="radio"
              name="case"
              className="mt-1 size-5 shrink-0 accent-lake"
              checked={kind === c.key}
              onChange={() => setKind(c.key)}
            />
            <span>
              {c.title}
              <span className="block text-sm text-quiet">{c.hint}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <details className="mt-2 text-sm">
        <summary className="min-h-8 cursor-pointer text-lake">Where schools differ</summary>
        {procedure.choices.map((c) => (
          <label key={c.key} className="mt-2 block">
            {c.question}
            <select
              className="mt-1 block min-h-11 w-full border border-edge bg-panel px-2"
              value={choices[c.key] ?? c.default}
              onChange={(e) => setChoices({ ...choices, [c.key]: e.target.value })}
            >
              {c.options.map((o) => (
                <option key={o.key} value={o.key}>
                  {o.label}
                </option>
              ))}
            </select>
            <span className="text-quiet">{c.reason}</span>
          </label>
        ))}
      </details>
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        tone="act"
        className="min-h-14 w-full text-lg"
        disabled={busy || gauges === 0}
        onClick={() => void start(false)}
      >
        Start the test
      </Button>
      {gauges === 0 && (
        <p className="mt-1 text-sm text-rust">No gauge with a valid calibration is in the cabinet.</p>
      )}
      <fieldset className="mt-4 border-t border-seam pt-3">
        <legend className="sr-only">Practice</legend>
        <p className="text-sm">
          Or practise: a simulated installation and gauge, worked by hand. Seals as a practice record only.
        </p>
        <label className="mt-2 block text-sm">
          Hidden fault
          <select
            className="mt-1 block min-h-11 w-full border border-edge bg-panel px-2"
            value={fault}
            onChange={(e) => setFault(e.target.value)}
          >
            <option value="surprise">Surprise me</option>
            {Object.entries(FAULTS).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <Button className="mt-2 w-full" disabled={busy} onClick={() => void start(true)}>
          Practise on the simulated installation
        </Button>
      </fieldset>
      <p className="mt-3 text-sm text-quiet">
        {pack.school}, {pack.edition}. {pack.notice}
      </p>
    </section>
  );
}
