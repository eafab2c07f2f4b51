'use client';
import { capital } from '@/core/quantity/words';
import type { ChecksStage } from '@/core/kinds';
import { goodAnswer, type Thing, walkOf } from '@/core/kinds/checks/walk';
import type { Payload } from '@/core/run/events';
import { type CheckLine, currentVisit, openLines } from '@/core/run/read';
import type { Answer } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { clockTime } from '@/ui/kit/words';
import { useState } from 'react';
import { ValveFigure } from '@/ui/kit/look-figure';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

type Given = Answer['answer'];
/** What every row of the list needs to say how far it is, and to answer. */
interface Rows {
  readonly said: (line: CheckLine) => Answer | null;
  /** In its turn, where lines are answered one after the other. */
  readonly later: (line: CheckLine) => boolean;
  readonly give: (lines: readonly CheckLine[], value: (line: CheckLine) => Given) => Promise<void>;
  readonly zone: string;
}

/** Answers, and with the last open line leads on. */
function useRows({ view, visit, act }: PanelProps): Rows & { readonly left: number } {
  const open = openLines(view.plan, visit);
  const firstOrdered = open.find((l) => l.item.ordered)?.id;
  const said = (line: CheckLine) => {
    const given = visit.answers[line.id];
    return given && given.answer !== 'undone' ? given : null;
  };
  return {
    left: open.length,
    zone: view.plan.made.zone,
    said,
    later: (line) => line.item.ordered === true && !said(line) && line.id !== firstOrdered,
    give: async (lines, value) => {
      const answers = lines.map((line): Payload => ({
        kind: 'check',
        item: line.item.key,
        ...(line.subject ? { subject: line.subject.id } : {}),
        answer: value(line),
      }));
      await act(answers[0]!, (state, n) => {
        if (answers[n]) return answers[n];
        // the last line leads on by itself; a moment after, it can be taken back
        const now = currentVisit(state);
        const here = n === answers.length && now?.ordinal === visit.ordinal;
        return here && !openLines(view.plan, now).length ? { kind: 'proceed' } : null;
      });
    },
  };
}

/** A list of checks by how one walks: thing by thing, each settled by one tap where all is as it should be. */
export function ChecksPanel(props: PanelProps) {
  const { view, stage, act } = props;
  const rows = useRows(props);
  const things = walkOf(view.plan, stage as ChecksStage);
  const placed = new Set(things.map((t) => t.place)).size > 2;
  return (
    <div className="flex flex-1 flex-col gap-2 lg:min-h-0">
      <ul
        className="border-t border-seam lg:min-h-0 lg:flex-1 lg:overflow-auto"
        aria-label={stage.title}
        data-left={rows.left}
        data-visit={props.visit.ordinal}
      >
        {things.map((thing, n) => (
          <ThingRow
            key={thing.key}
            thing={thing}
            rows={rows}
            heading={placed && thing.place !== '' && thing.place !== things[n - 1]?.place}
            placed={placed}
          />
        ))}
      </ul>
      {rows.left ? (
        <p className="shrink-0 text-quiet" aria-live="polite">
          <span className="figure-narrow">{rows.left}</span> {rows.left === 1 ? 'line' : 'lines'} left. The
          last one leads on.
        </p>
      ) : (
        <WayOn open act={act}>
          Go on
        </WayOn>
      )}
    </div>
  );
}

function ThingRow({
  thing,
  rows,
  heading,
  placed,
}: {
  thing: Thing;
  rows: Rows;
  heading: boolean;
  placed: boolean;
}) {
  const [apart, setApart] = useState(false);
  const begun = thing.lines.some((l) => rows.said(l));
  const done = thing.lines.every((l) => rows.said(l)?.answer === goodAnswer(l));
  const whole = thing.whole !== '' && !apart && (done || !begun);
  return (
    <>
      {heading && (
        <li className="bg-panel px-1 py-1 text-sm font-semibold text-quiet">{capital(thing.place)}</li>
      )}
      {whole ? (
        <WholeRow thing={thing} rows={rows} done={done} placed={placed} onApart={() => setApart(true)} />
      ) : (
        thing.lines.map((line) => <LineRow key={line.id} line={line} rows={rows} placed={placed} />)
      )}
    </>
  );
}
const ROW = 'grid items-center gap-x-3 gap-y-2 border-b border-seam py-2 sm:grid-cols-[1fr_auto]';
const Said = ({ said, zone }: { said: Answer | null | undefined; zone: string }) =>
  said ? (
    <span className="block text-sm text-quiet">
      {said.byName}, {clockTime(said.at, zone)}
    </span>
  ) : null;

/** A thing with all its lines: settled together, or opened and answered apart. */
function WholeRow({
  thing,
  rows,
  done,
  placed,
  onApart,
}: {
  thing: Thing;
  rows: Rows;
  done: boolean;
  placed: boolean;
  onApart: () => void;
}) {
  const position = thing.lines.find((l) => l.item.position)?.item.position;
  const hints = thing.lines.flatMap((l) => (l.item.hint ? [l.item.hint] : []));
  return (
    <li className={ROW}>
      <span className="flex items-center gap-3 px-1">
        {position && <ValveFigure position={position} />}
        <span className="min-w-0">
          <span className="font-semibold">{thing.title}</span>
          {!placed && thing.place && <span className="text-quiet"> ({thing.place})</span>}
          <span className="block">{thing.whole}</span>
          {hints.map((h) => (
            <span key={h} className="block text-sm text-quiet">
              {h}
            </span>
          ))}
          <Said said={done ? rows.said(thing.lines[0]!) : null} zone={rows.zone} />
          {!done && (
            <button
              type="button"
              className="min-h-11 text-sm text-lake underline-offset-4 hover:underline"
              aria-label={`${thing.title}: line by line`}
              onClick={onApart}
            >
              Line by line
            </button>
          )}
        </span>
      </span>
      <Button
        className="min-h-16 min-w-[11rem] max-sm:w-full"
        tone={done ? 'act' : 'plain'}
        aria-pressed={done}
        aria-label={`${thing.title}: ${thing.whole}`}
        onClick={() => void rows.give(thing.lines, (l) => (done ? 'undone' : goodAnswer(l)!))}
      >
        {done ? 'All so' : 'Tap when all so'}
      </Button>
    </li>
  );
}

function LineRow({ line, rows, placed }: { line: CheckLine; rows: Rows; placed: boolean }) {
  const { item, subject } = line;
  const said = rows.said(line);
  const later = rows.later(line);
  const answer = (value: Given) => void rows.give([line], () => value);
  return (
    <li className={`${ROW} ${later ? 'text-quiet' : ''}`}>
      <span className="flex items-center gap-3 px-1">
        {item.position && !item.ask && <ValveFigure position={item.position} />}
        <span className="min-w-0">
          {subject && <span className="font-semibold">{subject.name}: </span>}
          {item.text}
          {!placed && subject?.place && <span className="text-quiet"> ({subject.place})</span>}
          {item.hint && <span className="block text-sm text-quiet">{item.hint}</span>}
          <Said said={said} zone={rows.zone} />
        </span>
      </span>
      {item.ask ? (
        <span className="grid grid-cols-2 gap-3" role="group" aria-label={item.text}>
          {(['no', 'yes'] as const).map((value) => (
            <Button
              key={value}
              className="min-h-16 min-w-20"
              tone={said?.answer === value ? 'act' : 'plain'}
              aria-pressed={said?.answer === value}
              disabled={later}
              onClick={() => answer(value)}
            >
              {value === 'no' ? 'No' : 'Yes'}
            </Button>
          ))}
        </span>
      ) : (
        <Button
          className="min-h-16 min-w-[11rem] max-sm:w-full"
          tone={said ? 'act' : 'plain'}
          aria-pressed={!!said}
          disabled={later}
          onClick={() => answer(said ? 'undone' : 'done')}
          aria-label={`${subject ? `${subject.name}: ` : ''}${item.text}`}
        >
          {said ? 'Done' : later ? 'After the line above' : 'Tap when done'}
        </Button>
      )}
    </li>
  );
}
