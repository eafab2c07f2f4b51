'use client';
import { ABOUT, CAUSES, type Cause, ENDS, type End } from '@/core/yard/words';
import { significantText } from '@/core/quantity/figure';
import { WORDS } from '@/core/verdict/words';
import { now, setAhead } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import type { Debrief as Told } from '@/wire/yard';
import { TruthChart } from './truth-chart';

const INK: Readonly<Record<End, string>> = {
  mastered: 'text-moss',
  right: 'text-lichen',
  lucky: 'text-ochre',
  wrong: 'text-rust',
  dangerous: 'text-rust',
  unfinished: 'text-slate',
};
/** A sentence that says what the end means. */
const MEANS: Readonly<Record<End, string>> = {
  mastered: 'Everything that was asked was done, and the result is proved.',
  right: 'The result is right and proved. What was left out stands below.',
  lucky: 'The result is right, but nothing proves it: the next time the same way ends otherwise.',
  wrong: 'The result is not what was true.',
  dangerous: 'It was ended before anybody got hurt. On site nobody ends it.',
  unfinished: 'It was left before a result.',
};
const minute = (at: number, from: number) => `${((at - from) / 60_000).toFixed(1)} min`;

/** What came of it: the truth over the trace, what was asked line by line, and where it went wrong. */
export function DebriefView({
  told,
  title,
  said,
  placeNames,
  signed,
  again,
  replay,
}: {
  told: Told;
  title: string;
  /** What the one who practised said it was. */
  said: { readonly cause: string; readonly place: string; readonly because: string } | null;
  placeNames: Readonly<Record<string, string>>;
  /** Who set an exam, and what they wrote with it. */
  signed: { readonly by: string; readonly text: string } | null;
  /** Where the same is begun again; '' where it cannot be. */
  again: string;
  /** The run that can be taken up from where it went wrong; '' where it cannot. */
  replay: string;
}) {
  const { grade } = told;
  const missed = grade.lines.filter((l) => !l.met);
  const kept = grade.lines.filter((l) => l.met);
  const named = (id: string) => placeNames[id] ?? id;
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_340px]" data-end={grade.end}>
      <div className="grid content-start gap-5">
        <section>
          <h2 className={`text-xl font-bold ${INK[grade.end]}`}>{ENDS[grade.end]}</h2>
          <p>{MEANS[grade.end]}</p>
          {grade.danger && <p className="mt-1 border-l-4 border-rust pl-3">{grade.danger.text}</p>}
        </section>
        <section aria-labelledby="truth">
          <h2 id="truth" className="text-lg font-semibold">
            What was true
          </h2>
          <p className="max-w-prose">{told.tells}</p>
          <TruthChart
            points={told.truth}
            stages={told.stages}
            marks={
              grade.wentWrong === null
                ? []
                : [{ at: grade.wentWrong, label: grade.danger ? 'dangerous' : 'here it went wrong' }]
            }
            decimals={told.decimals}
            unit={told.unit}
          />
        </section>
        <Lines title="What was missed" lines={missed} from={told.from} open />
        <Lines title="What was done as it should be" lines={kept} from={told.from} open={false} />
      </div>
      <aside className="grid content-start gap-4 border-l border-seam pl-4 max-lg:border-l-0 max-lg:pl-0">
        <Fact name="Scenario" value={title} />
        <Fact name="Result at the bench" value={grade.result ? WORDS[grade.result] : 'none'} />
        <Fact
          name="You said"
          value={
            said
              ? `${CAUSES[said.cause as Cause] ?? said.cause}${said.place ? `: ${named(said.place)}` : ''}`
              : 'nothing'
          }
        />
        {said?.because && <Fact name="Because" value={said.because} />}
        <Fact
          name="It was"
          value={`${told.causes.join(', or ')}${told.places.length ? `: ${told.places.map(named).join(', ')}` : ''}`}
        />
        <Fact
          name="What it cost"
          value={`${grade.minutes.toFixed(0)} min from the beginning to the last entry; about ${told.cost.about} min are enough${
            told.cost.lost ? `; ${significantText(told.cost.lost, 2)} l leaked meanwhile` : ''
          }`}
        />
        {signed && <Fact name={`Signed by ${signed.by}`} value={signed.text || 'without a word'} />}
        {replay && <Replay run={replay} />}
        {again && (
          <a className={buttonClass(replay ? 'plain' : 'act')} href={again}>
            Back to the Yard
          </a>
        )}
        <p className="text-sm text-quiet">
          Practice on a simulated installation. It shows what was practised, and is no certificate of
          anything.
        </p>
      </aside>
    </div>
  );
}
/** Takes it up again from the moment at which it went wrong. */
function Replay({ run }: { run: string }) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const begin = async () => {
    setBusy(true);
    setTrouble('');
    const id = uuid7(now());
    try {
      const { passed } = await office<{ passed: number }>(`/api/yard/runs/${run}/again`, {
        body: { run: id },
      });
      setAhead(id, passed);
      location.assign(`/bench/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <div>
      <Button tone="act" className="w-full" disabled={busy} onClick={() => void begin()}>
        {busy ? 'Setting up …' : 'Go on from where it went wrong'}
      </Button>
      <p className="mt-1 text-sm text-quiet">
        What came before it stands; from there you do it otherwise. It shows that you met the trap, not that
        you mastered it.
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}
function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <h3 className="text-sm text-quiet">{name}</h3>
      <p>{value}</p>
    </div>
  );
}
function Lines({
  title,
  lines,
  from,
  open,
}: {
  title: string;
  lines: Told['grade']['lines'];
  from: number;
  open: boolean;
}) {
  if (!lines.length) return null;
  return (
    <section>
      <h2 className="text-lg font-semibold">{title}</h2>
      <ul className="grid gap-2">
        {lines.map((l) => (
          <li
            key={l.id}
            className={`border-l-4 py-1 pl-3 ${l.met ? 'border-moss' : 'border-rust'}`}
            data-line={l.id}
          >
            <p>
              <span className="text-sm text-quiet">
                {ABOUT[l.about]}
                {l.at !== null && `, at ${minute(l.at, from)}`}:{' '}
              </span>
              <span className="font-semibold">
                {!l.met && 'asked was: '}
                {l.text}
              </span>
              <span className="sr-only">{l.met ? ', done' : ', missed'}</span>
            </p>
            {open && <p className="max-w-prose text-quiet">{l.why}</p>}
          </li>
        ))}
      </ul>
    </section>
  );
}
