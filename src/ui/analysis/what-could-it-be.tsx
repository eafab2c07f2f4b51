'use client';
import { holdRequest } from '@/core/analysis/of-hold';
import { inQuestion } from '@/core/analysis/in-question';
import { ranked, type Ranked } from '@/core/analysis/suspects';
import { lower } from '@/core/quantity/words';
import { searchOf } from '@/core/splitting/search';
import { smelt } from '@/core/run/isolations';
import { gaugeOfHold, stageOf } from '@/core/run/read';
import type { BenchView } from '@/device/bench';
import { useMemo } from 'react';
import { FoundHere } from '@/ui/leaks/found-here';
import { Button } from '@/ui/kit/button';
import { SplitTree } from './split-tree';
import { useMeaning } from './use-meaning';

const Row = ({ suspect: s }: { suspect: Ranked }) => (
  <li className="grid gap-0.5 border-t border-seam py-2 sm:grid-cols-[1fr_1fr] sm:gap-x-4">
    <p className="font-semibold sm:col-span-2">
      {s.what}
      {s.percent !== null && (
        <span className="figure-narrow font-normal text-quiet"> {s.percent} % by the trace</span>
      )}
    </p>
    <p>{s.sign}</p>
    <p>
      <span className="text-quiet">Proof: </span>
      {s.proof} <span className="figure-narrow whitespace-nowrap text-quiet">{s.minutes} min</span>
    </p>
  </li>
);
/** After a hold that did not come out well: what could be behind it, in the order in which it is looked at. */
export function WhatCouldItBe({
  view: { plan, state },
  onSearch,
}: {
  view: BenchView;
  /** Parts are held by themselves from here. */
  onSearch?: () => void;
}) {
  const found = useMemo(() => inQuestion(plan, state), [plan, state]);
  const gauge = found?.hold ? gaugeOfHold(plan, found.hold) : null;
  const request = useMemo(
    () =>
      found?.hold && gauge
        ? holdRequest(plan, state, found.visit, found.hold, gauge, stageOf(plan, found.visit).part)
        : null,
    [plan, state, found, gauge],
  );
  const meaning = useMeaning(request);
  // after a smell nothing is put under pressure again: no way to part it is offered
  const search = useMemo(
    () =>
      found && (!found.hold || found.hold.judgement?.direction === 'fall') ? searchOf(plan, state) : null,
    [plan, state, found],
  );
  const list = found ? ranked(plan, found.hold, meaning) : [];
  const [first, second] = list;
  if (!first) return null;
  return (
    <details className="border-l-4 border-ochre bg-panel px-3 py-1" data-suspects>
      <summary className="min-h-10 cursor-pointer py-2">
        <span className="font-semibold">What could it be?</span> {first.what}
        {second && <>; then {lower(second.what)}</>}
      </summary>
      {meaning?.enough && <p className="pb-2">{meaning.headline}</p>}
      <ol>
        {list.map((s) => (
          <Row key={s.key} suspect={s} />
        ))}
      </ol>
      {search ? (
        <SplitTree search={search} />
      ) : (
        onSearch &&
        (!found?.hold || found.hold.judgement?.direction === 'fall') &&
        !smelt(state) && (
          <p className="border-t border-seam py-2 text-sm text-quiet">
            No valve inside the section is drawn. Drawn at its place, it would part the section, and the
            leaking part could be found by holding parts by themselves.
          </p>
        )
      )}
      {search && onSearch && (
        <Button className="mb-2 min-h-14 w-full" onClick={onSearch}>
          Hold parts by themselves
        </Button>
      )}
      {onSearch && <FoundHere plan={plan} />}
      <p className="border-t border-seam py-2 text-sm text-quiet">
        Advice: what a look or a hold shows is entered where the procedure asks for it. After a smell of gas
        nothing is put under pressure again.
      </p>
    </details>
  );
}
