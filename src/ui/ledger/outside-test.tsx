'use client';
import type { LogMapping, LogPoint } from '@/core/gauge-log/mapping';
import { unitTrouble } from '@/core/gauge-log/read-log';
import { exact, showExact } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { FIELD, SelectField, TextField } from '@/ui/kit/field';
import { clockTime } from '@/ui/kit/words';
import { uuid7 } from '@/wire/uuid7';
import { useMemo, useState } from 'react';

interface Offers {
  readonly offers: readonly {
    readonly pack: string;
    readonly id: string;
    readonly title: string;
    readonly school: string;
    readonly cases: readonly { readonly key: string; readonly title: string }[];
  }[];
  readonly gauges: readonly {
    readonly id: string;
    readonly title: string;
    readonly unit: Unit;
    readonly scale: number;
  }[];
}
interface Needs {
  readonly holds: readonly { readonly stage: string; readonly title: string }[];
  readonly lines: readonly string[];
  readonly trouble: string;
}
const MOST_POINTS = 15_000;

interface OutsideProps {
  places: readonly { readonly id: string; readonly title: string }[];
  zone: string;
  file: string;
  hash: string;
  mapping: LogMapping;
  /** Reads the log in the unit and steps of a gauge. */
  read: (to: { unit: Unit; scale: number }) => readonly LogPoint[];
}

/** What is said of such a test, and what the office asks of it. */
function useOutside({ zone, file, hash, mapping, read }: OutsideProps) {
  const [system, setSystem] = useState('');
  const [offers, setOffers] = useState<Offers | null>(null);
  const [choice, setChoice] = useState('');
  const [kind, setKind] = useState('');
  const [gauge, setGauge] = useState('');
  const [by, setBy] = useState('');
  const [answered, setAnswered] = useState(false);
  const [needs, setNeeds] = useState<Needs | null>(null);
  const [marks, setMarks] = useState<Record<string, { start: string; end: string }>>({});
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const offer = offers?.offers.find((o) => `${o.pack} ${o.id}` === choice);
  const instrument = offers?.gauges.find((g) => g.id === gauge);
  /** The log in the steps of the chosen gauge: worked out when that changes, not at every key. */
  const shown = useMemo(
    () => (instrument ? read({ unit: instrument.unit, scale: instrument.scale }) : []),
    [instrument, read],
  );
  const asked = async <T,>(
    path: string,
    options: Parameters<typeof office>[1],
    take: (answer: T) => void,
  ) => {
    setTrouble('');
    try {
      take(await office<T>(path, options));
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  const chooseSystem = (id: string) => {
    setSystem(id);
    setOffers(null);
    setNeeds(null);
    setChoice('');
    if (id) void asked<Offers>(`/api/systems/${id}/outside`, {}, setOffers);
  };
  const choose = (pack: string, procedure: string, part: string) => {
    setKind(part);
    setNeeds(null);
    setMarks({});
    if (part)
      void asked<Needs>(
        '/api/outside-tests',
        { method: 'PUT', body: { system, pack, procedure, case: part, zone } },
        setNeeds,
      );
  };
  const send = async () => {
    if (!offer || !instrument || !needs) return;
    setTrouble('');
    setBusy(true);
    try {
      const wrong = unitTrouble(mapping.pressure.unit, instrument.unit);
      if (wrong) throw new Error(wrong);
      const nearest = (text: string, title: string) => {
        const found = nearestPoint(shown, text, zone);
        if (!found)
          throw new Error(
            `${title}: “${text}” is not a time in the log. Type it like ${clockTime(shown[0]?.at ?? 0, zone)}.`,
          );
        return { at: found.at, digits: found.digits };
      };
      const holds = needs.holds
        .filter((h) => marks[h.stage]?.start || marks[h.stage]?.end)
        .map((h) => ({
          stage: h.stage,
          start: nearest(marks[h.stage]!.start, h.title),
          end: nearest(marks[h.stage]!.end, h.title),
        }));
      if (!holds.length) throw new Error('Say when at least the first hold began and ended.');
      const within = shown.filter(
        (p) => p.at >= holds[0]!.start.at && p.at <= holds[holds.length - 1]!.end.at,
      );
      const every = Math.max(1, Math.ceil(within.length / MOST_POINTS));
      const { run } = await office<{ run: string }>('/api/outside-tests', {
        body: {
          id: uuid7(Date.now()),
          system,
          pack: offer.pack,
          procedure: offer.id,
          case: kind,
          zone,
          gauge,
          by: by.trim(),
          answered,
          file,
          hash,
          holds,
          points: within.filter((_, i) => i % every === 0).map((p) => [p.at, p.digits]),
        },
      });
      location.assign(`/bench/${run}`);
    } catch (error) {
      setTrouble((error as Error).message);
      setBusy(false);
    }
  };
  const figureAt = (text: string) => {
    const found = instrument && text ? nearestPoint(shown, text, zone) : null;
    return found && instrument ? showExact(exact(found.digits, instrument.scale, instrument.unit)) : '';
  };
  return {
    ...{ system, chooseSystem, offers, offer, choice, setChoice, kind, setKind, choose, needs, setNeeds },
    ...{ gauge, setGauge, by, setBy, answered, setAnswered, marks, setMarks, shown, figureAt },
    ...{ trouble, busy, send },
  };
}
type Outside = ReturnType<typeof useOutside>;

/** A test that was held with another program: which one, by whom, and where its holds stand in the log. */
export function OutsideTest(props: OutsideProps) {
  const { places, zone } = props;
  const test = useOutside(props);
  const { needs, gauge, by, answered, setAnswered, busy, send, trouble } = test;
  return (
    <section aria-labelledby="outside" className="max-w-3xl">
      <h2 id="outside" className="text-lg font-semibold">
        As a finished test that was held elsewhere
      </h2>
      <p className="text-sm text-quiet">
        The same rules judge it. The record says by whom and with what it was held, and is not a certificate.
      </p>
      <Choices test={test} places={places} />
      {needs?.trouble && <p className="mt-3 border-l-4 border-ochre pl-3">{needs.trouble}</p>}
      {needs && !needs.trouble && gauge && (
        <>
          <HoldTimes test={test} needs={needs} zone={zone} />
          <details className="mt-2">
            <summary className="min-h-11 cursor-pointer py-2 text-lake">
              {needs.lines.length} lines that {by.trim() || 'whoever held it'} answers for
            </summary>
            <ul className="list-inside list-disc text-sm">
              {needs.lines.map((l, i) => (
                <li key={i}>{l}</li>
              ))}
            </ul>
          </details>
          <label className="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              className="size-6"
              checked={answered}
              onChange={(e) => setAnswered(e.target.checked)}
            />
            {by.trim() || 'Whoever held it'} said that all of this was done, and that the gauge stood at zero
            open to air
          </label>
          <Button
            tone="act"
            className="mt-2"
            disabled={busy || !answered || !by.trim()}
            onClick={() => void send()}
          >
            Judge it
          </Button>
        </>
      )}
      <p role="alert" className="mt-2 text-rust">
        {trouble}
      </p>
    </section>
  );
}

/** Which system, by which procedure, what of it, with which gauge, by whom. */
function Choices({ test, places }: { test: Outside; places: OutsideProps['places'] }) {
  const { system, chooseSystem, offers, offer, choice, setChoice, kind, setKind, choose, setNeeds } = test;
  const { gauge, setGauge, by, setBy } = test;
  const select = (
    label: string,
    value: string,
    options: readonly { id: string; title: string }[],
    change: (v: string) => void,
  ) => <SelectField label={label} none="choose" value={value} options={options} onChange={change} />;
  return (
    <div className="mt-2 grid gap-3 sm:grid-cols-2">
      {select('System', system, places, chooseSystem)}
      {offers &&
        select(
          'Procedure',
          choice,
          offers.offers.map((o) => ({ id: `${o.pack} ${o.id}`, title: `${o.title} (${o.school})` })),
          (v) => {
            setChoice(v);
            setNeeds(null);
            const picked = offers.offers.find((o) => `${o.pack} ${o.id}` === v);
            if (picked?.cases.length === 1) choose(picked.pack, picked.id, picked.cases[0]!.key);
            else setKind('');
          },
        )}
      {offer &&
        offer.cases.length > 1 &&
        select(
          'What was tested',
          kind,
          offer.cases.map((c) => ({ id: c.key, title: c.title })),
          (v) => choose(offer.pack, offer.id, v),
        )}
      {offers && select('Gauge of the log', gauge, offers.gauges, setGauge)}
      {offers && <TextField label="Held by" value={by} onChange={setBy} maxLength={120} />}
    </div>
  );
}

/** When each hold began and ended, with what the log shows there. */
function HoldTimes({ test, needs, zone }: { test: Outside; needs: Needs; zone: string }) {
  const { marks, setMarks, shown, figureAt } = test;
  return (
    <table className="mt-4 w-full max-w-2xl">
      <thead>
        <tr className="text-left text-sm text-quiet [&>th]:pr-3 [&>th]:font-normal">
          <th>Hold</th>
          <th>began at</th>
          <th>ended at</th>
        </tr>
      </thead>
      <tbody>
        {needs.holds.map((h) => (
          <tr key={h.stage} className="border-t border-seam align-top [&>td]:py-2 [&>td]:pr-3">
            <th scope="row" className="py-3 text-left font-normal">
              {h.title}
            </th>
            {(['start', 'end'] as const).map((when) => (
              <td key={when}>
                <input
                  className={`figure ${FIELD}`}
                  aria-label={`${h.title}, ${when === 'start' ? 'began' : 'ended'} at`}
                  placeholder={shown[0] ? clockTime(shown[0].at, zone) : ''}
                  value={marks[h.stage]?.[when] ?? ''}
                  maxLength={8}
                  onChange={(e) =>
                    setMarks({
                      ...marks,
                      [h.stage]: {
                        ...{ start: '', end: '' },
                        ...marks[h.stage],
                        [when]: e.target.value,
                      },
                    })
                  }
                />
                <span className="figure-narrow text-sm text-quiet">
                  {figureAt(marks[h.stage]?.[when] ?? '')}
                </span>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The reading of the log nearest to a clock time, on whichever of its days; null where none is within a minute. */
function nearestPoint(points: readonly LogPoint[], text: string, zone: string): LogPoint | null {
  if (!/^\d{1,2}:\d{2}(:\d{2})?$/.test(text.trim())) return null;
  const [h, m, s = '0'] = text.trim().split(':');
  const wanted = (Number(h) * 60 + Number(m)) * 60 + Number(s);
  let best: LogPoint | null = null;
  let off = 60.5;
  let hour = -1;
  let shift = 0;
  for (const p of points) {
    // one look at the zone an hour is enough
    const now = Math.floor(p.at / 3_600_000);
    if (now !== hour) {
      hour = now;
      const [hh, mm, ss] = clockTime(p.at, zone).split(':').map(Number) as [number, number, number];
      shift = (hh * 60 + mm) * 60 + ss - ((p.at / 1000) % 86_400);
    }
    const clock = (((p.at / 1000) % 86_400) + shift + 86_400) % 86_400;
    const away = Math.abs(clock - wanted);
    if (away < off) {
      off = away;
      best = p;
    }
  }
  return best;
}
