'use client';
import type { BesideOffer } from '@/core/plan/beside-offer';
import type { Offer } from '@/core/plan/offer';
import type { EarlierRecord } from '@/core/plan/plan';
import type { Section } from '@/core/trades/sections';
import type { Parted } from '@/core/trades/trade';
import { WORDS } from '@/core/verdict/words';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { plannedQuery } from '@/wire/planned';
import { Suspense, useState } from 'react';
import { ChoiceFields } from './choice-fields';
import {
  AboutTest,
  attendanceOf,
  AtTheSameTime,
  keyOf,
  nobody,
  WhichCase,
  WhichSection,
  WhichTest,
  WhoIsThere,
} from './start-fields';
import { useBegin } from './use-begin';

// what can be simulated is much: it comes after the test for real can be begun
const Practise = byNeed(() => import('./practise').then((m) => m.Practise));

interface StartTestProps {
  system: string;
  offers: readonly Offer[];
  /** The newest record of each section, '' for the whole, where it was not good: the run repeats it. */
  failures: Readonly<Record<string, EarlierRecord>>;
  /** The sections of the place, where its trade tells them apart. */
  sections: readonly Section[];
  parted: Parted;
  gauges: number;
  /** Tests that may run at the same time on another system here. */
  besides: readonly BesideOffer[];
}

/** What is chosen and said before a test, and the two ways on from it. */
function useStart({ system, offers, failures, besides }: StartTestProps) {
  const [chosen, setChosen] = useState(() => {
    const own = offers.filter((o) => !o.aside);
    return own.length === 1 ? keyOf(own[0]!) : '';
  });
  const procedure = offers.find((o) => keyOf(o) === chosen);
  const [kind, setKind] = useState('');
  const [section, setSection] = useState('');
  const [retest, setRetest] = useState(true);
  const [said, setSaid] = useState(nobody);
  const [choices, setChoices] = useState<Record<string, string>>({});
  const [with_, setWith] = useState('');
  const [otherCase, setOtherCase] = useState('');
  const pairs = besides.filter((b) => b.pack === procedure?.pack && b.own === procedure.id);
  const pair = pairs.find((b) => b.other.system.id === with_);
  const { begin, trouble, setTrouble, busy, cure } = useBegin(system);
  const attendance = attendanceOf(said);
  const one = procedure?.oneSection === true;
  const failure = failures[one ? section : ''] ?? null;
  const missing = !procedure
    ? 'Choose first which test it is.'
    : !kind
      ? 'Say first what is being tested.'
      : one && !section
        ? 'Say first which line. Lines that nobody knows yet are mapped first.'
        : '';
  const start = (fault?: string) => {
    const practice = fault !== undefined;
    const wrong =
      missing || (pair && !otherCase ? `Say what is being tested of ${pair.other.system.name} too.` : '');
    if (wrong) return setTrouble(wrong);
    void begin({
      title: procedure!.title,
      own: { pack: procedure!.pack, procedure: procedure!.id, case: kind, choices },
      pair: pair ? { offer: pair, case: otherCase } : null,
      practice,
      attendance: { ...attendance, ...(one ? { section } : {}) },
      fault: fault ?? 'surprise',
      retestOf: failure && retest ? failure.run : null,
    });
  };
  const plan = () => {
    if (missing) return setTrouble(missing);
    const query = plannedQuery({ choices, ...attendance, ...(one ? { section } : {}) });
    for (const [key, value] of [
      ['pack', procedure!.pack],
      ['procedure', procedure!.id],
      ['case', kind],
      ['retest', failure && !retest ? 'no' : ''],
    ] as const)
      if (value) query.set(key, value);
    location.assign(`/places/${system}/plan?${query}`);
  };
  return {
    ...{
      failure,
      section,
      setSection,
      chosen,
      setChosen,
      procedure,
      kind,
      setKind,
      retest,
      setRetest,
      said,
      setSaid,
      choices,
      setChoices,
    },
    ...{
      setWith,
      otherCase,
      setOtherCase,
      pairs,
      pair,
      trouble,
      setTrouble,
      busy,
      cure,
      start,
      plan,
    },
  };
}

/** Starts a run on this system: which procedure, what is being tested, the schools' choices, for real or in practice. */
export function StartTest(props: StartTestProps) {
  const { offers, gauges, sections, parted } = props;
  const {
    failure,
    section,
    setSection,
    chosen,
    setChosen,
    procedure,
    kind,
    setKind,
    retest,
    setRetest,
    said,
    setSaid,
    choices,
    setChoices,
    setWith,
    otherCase,
    setOtherCase,
    pairs,
    pair,
    trouble,
    setTrouble,
    busy,
    cure,
    start,
    plan,
  } = useStart(props);
  if (!offers.length)
    return <p>No rule pack offers a procedure for this system. The owner can import one under Rules.</p>;
  return (
    <section className="self-start border border-seam bg-panel p-4" aria-labelledby="start">
      <h2 id="start" className="text-lg font-semibold">
        Start a test
      </h2>
      <WhichTest
        offers={offers}
        chosen={chosen}
        onChoose={(o) => {
          setChosen(keyOf(o));
          setKind(o.cases.length === 1 ? o.cases[0]!.key : '');
          setChoices({});
          setTrouble('');
        }}
      />
      {procedure && (
        <>
          <AboutTest procedure={procedure} />
          {procedure.oneSection && (
            <WhichSection parted={parted} sections={sections} section={section} onChoose={setSection} />
          )}
          <WhichCase procedure={procedure} kind={kind} onChoose={setKind} />
          <details className="mt-2 text-sm">
            <summary className="min-h-8 cursor-pointer text-lake">Where schools differ</summary>
            <ChoiceFields questions={procedure.choices} chosen={choices} onChange={setChoices} />
          </details>
        </>
      )}
      <WhoIsThere said={said} onSay={setSaid} />
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
        <AtTheSameTime
          pairs={pairs}
          pair={pair}
          otherCase={otherCase}
          onWith={setWith}
          onCase={setOtherCase}
        />
      )}
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}{' '}
        {cure && (
          <a className="text-lake underline" href={cure}>
            Enter it
          </a>
        )}
      </p>
      <Button className="mb-3 min-h-14 w-full" onClick={plan}>
        Plan it: gauge, pressure, hold, kit
      </Button>
      <Button
        tone="act"
        className="min-h-14 w-full text-lg"
        disabled={busy || gauges === 0}
        onClick={() => start()}
      >
        Start the test
      </Button>
      {gauges === 0 && (
        <p className="mt-1 text-sm text-rust">
          No gauge whose calibration has not run out is in the cabinet.{' '}
          <a className="text-lake underline" href="/cabinet">
            Enter one, or its new calibration
          </a>
        </p>
      )}
      {procedure?.practice && (
        <Suspense fallback={<div className="min-h-40" />}>
          <Practise procedure={procedure} busy={busy} onStart={start} />
        </Suspense>
      )}
      <p className="mt-3 text-sm text-quiet">
        {procedure ? `${procedure.school}, ${procedure.edition}. ${procedure.notice}` : offers[0]!.notice}
      </p>
    </section>
  );
}
