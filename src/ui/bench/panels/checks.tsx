'use client';
import { checkLines, openLines } from '@/core/run/read';
import type { ChecksStage } from '@/core/kinds';
import { Button } from '@/ui/kit/button';
import { clockTime } from '@/ui/kit/words';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

/** A list of checks: each line is answered where the person stands; the way on opens when all are. */
export function ChecksPanel({ view, visit, stage, act }: PanelProps) {
  const checks = stage as ChecksStage;
  const lines = checkLines(view.plan, checks);
  const open = openLines(view.plan, visit);
  const firstOrdered = open.find((l) => l.item.ordered)?.id;
  const answer = (line: (typeof lines)[number], value: 'done' | 'yes' | 'no' | 'undone') =>
    void act({
      kind: 'check',
      item: line.item.key,
      ...(line.subject ? { subject: line.subject.id } : {}),
      answer: value,
    });
  return (
    <div className="flex flex-1 flex-col lg:min-h-0 gap-3">
      <ul className="lg:min-h-0 lg:flex-1 lg:overflow-auto border-y border-seam" aria-label={stage.title}>
        {lines.map((line) => {
          const given = visit.answers[line.id];
          const said = given && given.answer !== 'undone' ? given : null;
          const later = line.item.ordered === true && !said && line.id !== firstOrdered;
          return (
            <li
              key={line.id}
              className={`grid items-center gap-x-3 gap-y-2 border-b border-seam py-2 sm:grid-cols-[1fr_auto] ${later ? 'text-quiet' : ''}`}
            >
              <span className="px-1">
                {line.subject && <span className="font-semibold">{line.subject.name}: </span>}
                {line.item.text}
                {line.subject?.place && <span className="text-quiet"> ({line.subject.place})</span>}
                {line.item.hint && <span className="block text-sm text-quiet">{line.item.hint}</span>}
                {said && (
                  <span className="block text-sm text-quiet">
                    {said.byName}, {clockTime(said.at, view.plan.made.zone)}
                  </span>
                )}
              </span>
              {line.item.ask ? (
                <span className="grid grid-cols-2 gap-3" role="group" aria-label={line.item.text}>
                  <Button
                    className="min-h-16 min-w-24"
                    tone={said?.answer === 'no' ? 'act' : 'plain'}
                    aria-pressed={said?.answer === 'no'}
                    disabled={later}
                    onClick={() => answer(line, 'no')}
                  >
                    No
                  </Button>
                  <Button
                    className="min-h-16 min-w-24"
                    tone={said?.answer === 'yes' ? 'act' : 'plain'}
                    aria-pressed={said?.answer === 'yes'}
                    disabled={later}
                    onClick={() => answer(line, 'yes')}
                  >
                    Yes
                  </Button>
                </span>
              ) : (
                <Button
                  className="min-h-16 min-w-[13rem]"
                  tone={said ? 'act' : 'plain'}
                  aria-pressed={!!said}
                  disabled={later}
                  onClick={() => answer(line, said ? 'undone' : 'done')}
                  aria-label={`${line.subject ? `${line.subject.name}: ` : ''}${line.item.text}`}
                >
                  {said ? 'Done' : later ? 'After the line above' : 'Tap when done'}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <WayOn open={open.length === 0} act={act}>
        {open.length ? `${open.length} of ${lines.length} lines still open` : 'All answered: go on'}
      </WayOn>
    </div>
  );
}
