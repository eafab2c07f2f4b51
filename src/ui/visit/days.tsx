'use client';
import { addDays } from '@/core/quantity/local-date';
import { deviceZone } from '@/device/clock';
import { office } from '@/device/office';
import { useMay } from '@/ui/frame/may';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { useAttempt } from '@/ui/kit/use-attempt';
import { type DayKind, type DayThing, type PutOn, WEEKS } from '@/wire/days';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { dayWords } from './times';
import { useDrawn } from './use-drawn';

const MARK: Record<DayKind, string> = {
  visit: 'border-lake',
  hold: 'border-moss',
  test: 'border-ochre',
  other: 'border-edge',
};
const KIND: Record<DayKind, string> = {
  visit: 'visit',
  hold: 'hold ends',
  test: 'test due',
  other: 'due',
};
interface Props {
  /** The Monday that stands first. */
  readonly from: string;
  readonly today: string;
  readonly things: readonly DayThing[];
  /** Tests of installations that are due until the last day shown. */
  readonly due: readonly DayThing[];
  /** Weeks shown, and whose visits; '' everybody's. */
  readonly weeks: number;
  readonly who: string;
}
/** Five weeks by day, or one with all that stands on it, and what is due: a test that is drawn onto a day, or picked up and put down there, becomes a visit. */
export function Days({ from, today, things, due, weeks, who }: Props) {
  const router = useRouter();
  const may = useMay('plan');
  const { busy, trouble, attempt } = useAttempt();
  const [picked, setPicked] = useState<DayThing | null>(null);
  const [over, setOver] = useState('');
  const [done, setDone] = useState<{ words: string; visit: string } | null>(null);
  const put = (day: string) => {
    if (!picked) return;
    const { id, title } = picked;
    setPicked(null);
    setOver('');
    void attempt(async () => {
      const answer = await office<PutOn>(`/api/follow-ups/${id}/visit`, {
        body: { day, zone: deviceZone() },
      });
      setDone({
        words: `${title} stands on ${dayWords(day)}.${answer.without ? ` ${answer.without}` : ''}`,
        visit: answer.visit,
      });
      router.refresh();
    });
  };
  const root = useRef<HTMLElement>(null);
  useDrawn(root, {
    onPick: (id) => setPicked(due.find((t) => t.id === id) ?? null),
    onOver: setOver,
    onDrop: put,
    onLeft: () => {
      setPicked(null);
      setOver('');
    },
  });
  const days = Array.from({ length: 7 * weeks }, (_, n) => addDays(from, n));
  const here = (day: string) => things.filter((t) => t.day === day);
  const address = (start: string, shown = weeks) =>
    `/plan?from=${start}${shown === WEEKS ? '' : `&weeks=${shown}`}${who && `&who=${who}`}`;
  return (
    <section ref={root} aria-labelledby="days" className="mt-4 grid gap-6 lg:grid-cols-[minmax(0,1fr)_17rem]">
      <div className="min-w-0">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <h2 id="days" className="text-lg font-semibold">
            {dayWords(from)} to {dayWords(days[days.length - 1]!)}
          </h2>
          <p className="no-print flex flex-wrap gap-2">
            <Link
              prefetch={false}
              className={buttonClass('plain', 'max-sm:px-3')}
              href={weeks === 1 ? address(from, WEEKS) : address(days.includes(today) ? today : from, 1)}
            >
              {weeks === 1 ? 'Five weeks' : 'One week'}
            </Link>
            <Link
              prefetch={false}
              className={buttonClass('plain', 'max-sm:px-3')}
              href={address(addDays(from, -7 * weeks))}
            >
              Earlier
            </Link>
            <Link prefetch={false} className={buttonClass('plain', 'max-sm:px-3')} href={address(today)}>
              Now
            </Link>
            <Link
              prefetch={false}
              className={buttonClass('plain', 'max-sm:px-3')}
              href={address(addDays(from, 7 * weeks))}
            >
              Later
            </Link>
          </p>
        </div>
        <p role="status" className="min-h-6 text-sm">
          {picked ? `Choose the day for ${picked.title}.` : busy ? 'Putting it there …' : done?.words}
          {done && !picked && !busy && (
            <>
              {' '}
              <Link prefetch={false} className="text-lake underline" href={`/plan/${done.visit}`}>
                Open the visit
              </Link>
            </>
          )}
        </p>
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <ol className="grid border-t border-l border-seam max-sm:grid-cols-1 sm:grid-cols-7">
          {days.map((day) => (
            <Day
              key={day}
              day={day}
              here={here(day)}
              now={day === today}
              named={day === from || day.endsWith('-01')}
              over={over === day}
              open={picked !== null && day >= today}
              put={put}
              sheet={
                here(day).some((t) => t.kind === 'visit')
                  ? `/plan/day?day=${day}${who && `&who=${who}`}`
                  : null
              }
              whole={weeks === 1}
            />
          ))}
        </ol>
      </div>
      {may && (
        <TestsDue
          due={due}
          today={today}
          picked={picked}
          pick={(t) => {
            setPicked(t);
            // beneath the list on a phone: the days come into sight
            if (t) root.current?.scrollIntoView();
          }}
        />
      )}
    </section>
  );
}
function Day({
  day,
  here,
  now,
  named,
  over,
  open,
  put,
  sheet,
  whole,
}: {
  day: string;
  here: readonly DayThing[];
  now: boolean;
  /** Its month is said too. */
  named: boolean;
  over: boolean;
  /** Something was picked up and may be put down here. */
  open: boolean;
  put: (day: string) => void;
  /** Where its sheet is printed from; null where nobody goes anywhere. */
  sheet: string | null;
  /** With all that is said of each. */
  whole: boolean;
}) {
  const words = dayWords(day, true);
  return (
    <li
      data-day={day}
      className={`min-h-20 min-w-0 border-r border-b border-seam p-1 ${over ? 'bg-block' : now ? 'bg-panel' : ''} ${here.length || open || now ? '' : 'max-sm:hidden'}`}
    >
      <div className="flex flex-wrap justify-between gap-x-2 text-sm">
        <p className={now ? 'font-bold' : 'text-quiet'}>
          <span className="sm:hidden">{words}</span>
          <span className="max-sm:hidden">
            {words.slice(0, 3)} {named ? words.replace(/^\w+,? /, '') : Number(day.slice(8))}
          </span>
          {now && ', today'}
        </p>
        {sheet && (
          <Link prefetch={false} href={sheet} className="no-print text-lake underline underline-offset-4">
            sheet<span className="sr-only"> of {words}</span>
          </Link>
        )}
      </div>
      {open && (
        <Button className="my-1 w-full px-1 text-sm" onClick={() => put(day)}>
          <span aria-hidden>Here</span>
          <span className="sr-only">Put it on {dayWords(day)}</span>
        </Button>
      )}
      <ul className="grid gap-1">
        {here.map((t) => (
          <li key={`${t.kind} ${t.id}`} className={`min-w-0 border-l-4 pl-1 text-sm ${MARK[t.kind]}`}>
            <Thing thing={t} whole={whole} />
          </li>
        ))}
      </ul>
    </li>
  );
}
function TestsDue({
  due,
  today,
  picked,
  pick,
}: {
  due: readonly DayThing[];
  today: string;
  picked: DayThing | null;
  pick: (t: DayThing | null) => void;
}) {
  return (
    <section aria-labelledby="due-tests" className="no-print">
      <h2 id="due-tests" className="text-lg font-semibold">
        Tests due
      </h2>
      <p className="text-sm text-quiet">Draw one onto a day, or pick it up and choose the day.</p>
      {due.length === 0 && <p className="mt-2">None is due in these weeks.</p>}
      <ul className="mt-2 grid gap-2">
        {due.map((t) => {
          const held = picked?.id === t.id;
          return (
            <li
              key={t.id}
              draggable
              className="grid cursor-grab gap-1 border border-l-4 border-edge border-l-ochre bg-panel p-2 text-sm"
              data-due={t.id}
            >
              <span className="font-semibold">{t.title}</span>
              <span className="line-clamp-2 text-quiet">{t.about}</span>
              <span className={t.day < today ? 'text-rust' : 'text-quiet'}>
                {t.day < today ? 'was due' : 'due'} {dayWords(t.day)}
              </span>
              <Button className="min-h-11" aria-pressed={held} onClick={() => pick(held ? null : t)}>
                {held ? 'Leave it' : 'Pick it up'}
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
function Thing({ thing: t, whole }: { thing: DayThing; whole: boolean }) {
  const words = (
    <>
      <span className="block font-semibold break-words">
        {t.at && <span className="figure-narrow">{t.at} </span>}
        {t.title}
      </span>
      <span className={`${whole ? '' : 'line-clamp-2'} text-quiet`}>
        {KIND[t.kind]}
        {t.about && `: ${t.about}`}
      </span>
    </>
  );
  return t.href ? (
    <Link prefetch={false} className="block hover:text-lake" href={t.href}>
      {words}
    </Link>
  ) : (
    words
  );
}
