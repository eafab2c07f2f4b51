'use client';
import type { BesideOffer } from '@/core/plan/beside-offer';
import type { Offer } from '@/core/plan/offer';
import type { EarlierRecord } from '@/core/plan/plan';
import { FAULTS } from '@/core/simulation/installation';
import { LIQUID_FAULTS } from '@/core/simulation/liquid';
import { WORDS } from '@/core/verdict/words';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { plannedQuery } from '@/wire/planned';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import { ChoiceFields } from './choice-fields';

const field = 'mt-1 block min-h-11 w-full border border-edge bg-panel px-2 text-base';

/** Starts a run on this system: which procedure, what is being tested, the schools' choices, for real or in practice. */
export function StartTest({
  system,
  offers,
  failure,
  gauges,
  besides,
}: {
  system: string;
  offers: readonly Offer[];
  /** The newest record of this system, where it was not good: the run repeats it. */
  failure: EarlierRecord | null;
  gauges: number;
  /** Tests that may run at the same time on another system here. */
  besides: readonly BesideOffer[];
}) {
  const keyOf = (o: Offer) => `${o.pack}/${o.id}`;
  const [chosen, setChosen] = useState(offers.length === 1 ? keyOf(offers[0]!) : '');
  const procedure = offers.find((o) => keyOf(o) === chosen);
  const [kind, setKind] = useState('');
  const [retest, setRetest] = useState(true);
  const [permit, setPermit] = useState('');
  const [doneBy, setDoneBy] = useState<'' | 'licensed' | 'owner'>('');
  const [present, setPresent] = useState('');
  const [choices, setChoices] = useState<Record<string, string>>({});
  const [fault, setFault] = useState('surprise');
  const [ids] = useState(() => [uuid7(now()), uuid7(now() + 1)] as const);
  const [with_, setWith] = useState('');
  const [otherCase, setOtherCase] = useState('');
  const pairs = besides.filter((b) => b.pack === procedure?.pack && b.own === procedure.id);
  const pair = pairs.find((b) => b.other.system.id === with_);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const attendance = {
    ...(permit.trim() ? { permit: permit.trim() } : {}),
    ...(doneBy ? { doneBy } : {}),
    ...(present.trim() ? { present: present.trim() } : {}),
  };
  if (!offers.length)
    return <p>No rule pack offers a procedure for this system. The owner can import one under Rules.</p>;
  const start = async (practice: boolean) => {
    if (!procedure) {
      setTrouble('Choose first which test it is.');
      return;
    }
    if (!kind) {
      setTrouble('Say first what is being tested.');
      return;
    }
    if (pair && !otherCase) {
      setTrouble(`Say what is being tested of ${pair.other.system.name} too.`);
      return;
    }
    setBusy(true);
    setTrouble('');
    try {
      // asked again after a lost answer, the same runs are meant
      const [own, second] = ids;
      const beside = pair
        ? {
            beside: {
              id: pair.id,
              runs: [
                { run: own, procedure: pair.own },
                { run: second, procedure: pair.other.procedure },
              ],
            },
          }
        : {};
      const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
      const { run } = await office<{ run: string }>('/api/runs', {
        body: {
          id: own,
          system,
          pack: procedure.pack,
          procedure: procedure.id,
          case: kind,
          choices,
          practice,
          ...attendance,
          ...(practice ? { fault } : failure && retest ? { retestOf: failure.run } : {}),
          ...beside,
          zone,
        },
      });
      if (pair)
        await office('/api/runs', {
          body: {
            id: second,
            system: pair.other.system.id,
            pack: pair.pack,
            procedure: pair.other.procedure,
            case: otherCase,
            choices: {},
            practice,
            ...attendance,
            ...(practice ? { fault } : {}),
            ...beside,
            zone,
          },
        });
      location.assign(`/bench/${pair && !pair.ownFirst ? second : run}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <section className="self-start border border-seam bg-panel p-4" aria-labelledby="start">
      <h2 id="start" className="text-lg font-semibold">
        Start a test
      </h2>
      <fieldset className="mt-2">
        <legend className="text-sm text-quiet">Which test?</legend>
        {offers.map((o) => (
          <label
            key={keyOf(o)}
            className="flex min-h-12 cursor-pointer items-start gap-3 border-t border-seam py-2"
          >
            <input
              type="radio"
              name="procedure"
              className="mt-1 size-5 shrink-0 accent-lake"
              checked={chosen === keyOf(o)}
              onChange={() => {
                setChosen(keyOf(o));
                setKind(o.cases.length === 1 ? o.cases[0]!.key : '');
                setChoices({});
                setTrouble('');
              }}
            />
            <span>
              {o.title}
              <span className="block text-sm text-quiet">{o.summary}</span>
              <span className="block text-sm text-quiet">
                {o.school}
                {o.house && <strong className="text-ink">, house pack: {o.house}</strong>}
              </span>
            </span>
          </label>
        ))}
      </fieldset>
      {procedure && (
        <>
          <details className="mt-2 text-sm">
            <summary className="min-h-8 cursor-pointer text-lake">What it proves, what it cannot</summary>
            <p className="mt-1">Proves {procedure.proves.join('; ')}.</p>
            <p className="mt-1">Cannot prove {procedure.cannotProve.join('; ')}.</p>
          </details>
          {procedure.parts.length > 0 && (
            <p className="mt-2 text-sm">
              In this order, each with its own result: {procedure.parts.join(', then ')}.
            </p>
          )}
          {procedure.after && (
            <p className="mt-2 border-l-4 border-ochre pl-3 text-sm">
              Only after the pipework has passed on this system; without that record it does not start.
            </p>
          )}
          {procedure.outside.length > 0 && (
            <p className="mt-2 border-l-4 border-heather pl-3 text-sm">
              {procedure.outside.join(' ')} The run can only end Refer, Not tight or without a result.
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
            <ChoiceFields questions={procedure.choices} chosen={choices} onChange={setChoices} />
          </details>
        </>
      )}
      <details className="mt-3 text-sm">
        <summary className="min-h-8 cursor-pointer text-lake">Permit, and who must be present</summary>
        <label className="mt-2 block">
          Permit number
          <input
            className={field}
            value={permit}
            onChange={(e) => setPermit(e.target.value)}
            maxLength={60}
          />
        </label>
        <label className="mt-2 block">
          The work is done by
          <select
            className={field}
            value={doneBy}
            onChange={(e) => setDoneBy(e.target.value as typeof doneBy)}
          >
            <option value="">not said</option>
            <option value="licensed">a licensed person</option>
            <option value="owner">the owner, under the permit</option>
          </select>
        </label>
        <label className="mt-2 block">
          Who is present: installer, customer, inspector, utility, engineer
          <input
            className={field}
            value={present}
            onChange={(e) => setPresent(e.target.value)}
            maxLength={200}
          />
        </label>
      </details>
      {failure && (
        <label className="mt-3 flex min-h-12 cursor-pointer items-start gap-3 border-l-4 border-rust pl-3">
          <input
            type="checkbox"
            className="mt-1 size-5 shrink-0 accent-lake"
            checked={retest}
            onChange={(e) => setRetest(e.target.checked)}
          />
          <span>
            Retest after {failure.number} ({WORDS[failure.word as keyof typeof WORDS].toLowerCase()})
            <span className="block text-sm text-quiet">The two records are linked.</span>
          </span>
        </label>
      )}
      {pairs.length > 0 && (
        <fieldset className="mt-3 border-l-4 border-lake pl-3">
          <legend className="text-sm text-quiet">{pairs[0]!.title}</legend>
          <p className="text-sm">{pairs[0]!.summary}</p>
          <label className="mt-2 block text-sm">
            At the same time
            <select className={field} value={with_} onChange={(e) => setWith(e.target.value)}>
              <option value="">this test alone</option>
              {pairs.map((b) => (
                <option key={b.other.system.id} value={b.other.system.id}>
                  {b.other.system.name}: {b.other.title}
                </option>
              ))}
            </select>
          </label>
          {pair && (
            <label className="mt-2 block text-sm">
              What is tested there
              <select className={field} value={otherCase} onChange={(e) => setOtherCase(e.target.value)}>
                <option value="">Choose</option>
                {pair.other.cases.map((c) => (
                  <option key={c.key} value={c.key}>
                    {c.title}
                  </option>
                ))}
              </select>
            </label>
          )}
        </fieldset>
      )}
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        className="mb-3 min-h-14 w-full"
        onClick={() => {
          if (!procedure || !kind) {
            setTrouble(procedure ? 'Say first what is being tested.' : 'Choose first which test it is.');
            return;
          }
          const query = plannedQuery({ choices, ...attendance });
          for (const [key, value] of [
            ['pack', procedure.pack],
            ['procedure', procedure.id],
            ['case', kind],
            ['retest', failure && !retest ? 'no' : ''],
          ] as const)
            if (value) query.set(key, value);
          location.assign(`/places/${system}/plan?${query}`);
        }}
      >
        Plan it: gauge, pressure, hold, kit
      </Button>
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
      {procedure?.practice && (
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
              {Object.entries(procedure.simulates === 'liquid' ? LIQUID_FAULTS : FAULTS).map(
                ([key, words]) => (
                  <option key={key} value={key}>
                    {words}
                  </option>
                ),
              )}
            </select>
          </label>
          <Button className="mt-2 w-full" disabled={busy} onClick={() => void start(true)}>
            Practise on the simulated installation
          </Button>
        </fieldset>
      )}
      <p className="mt-3 text-sm text-quiet">
        {procedure ? `${procedure.school}, ${procedure.edition}. ${procedure.notice}` : offers[0]!.notice}
      </p>
    </section>
  );
}
