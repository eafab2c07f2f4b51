'use client';
import type { Meaning, MeaningRequest } from '@/core/analysis/meaning';
import { type TableFacts, tableRequest } from '@/core/analysis/of-table';
import type { SectionFacts } from '@/core/analysis/section';
import { toNumber, parseWithUnit } from '@/core/quantity/exact';
import { convert, type Unit, unitLabel } from '@/core/quantity/unit';
import { deviceZone } from '@/device/clock';
import { MeaningCard } from '@/ui/analysis/meaning-card';
import { useMeaning } from '@/ui/analysis/use-meaning';
import { FittedTrace } from '@/ui/charts/fitted-trace';
import { Choice } from '@/ui/kit/choice';
import { Field, FigureInput } from '@/ui/kit/field';
import { useLog } from '@/ui/ledger/use-log';
import Link from 'next/link';
import { useMemo, useState } from 'react';

type Filling = SectionFacts['filling'];
const FILLINGS: Readonly<Record<Filling, string>> = {
  gas: 'Gas or air',
  liquid: 'Water, full',
  level: 'Water level',
  vacuum: 'Vacuum',
};
const GIVE: Readonly<Record<Filling, { label: string; units: readonly Unit[]; to: Unit }>> = {
  gas: { label: 'Volume of the section', units: ['l', 'gal', 'm3'], to: 'm3' },
  vacuum: { label: 'Volume of the section', units: ['l', 'gal', 'm3'], to: 'm3' },
  liquid: { label: 'Stiffness: water per pressure', units: ['ml/bar', 'in3/psi'], to: 'm3/Pa' },
  level: { label: 'Free surface of the water', units: ['cm2', 'm2', 'in2'], to: 'm2' },
};
/** What a table is read in where its headings name no unit. */
const TABLE_UNIT: Readonly<Record<Filling, Unit>> = {
  gas: 'mbar',
  liquid: 'bar',
  level: 'mm',
  vacuum: 'micron',
};
const SAMPLE = 'time;mbar\n0:00;20.50\n0:30;20.31\n1:00;20.13\n1:30;19.96\n2:00;19.79';
const figureOf = (typed: string, to: Unit): number | null => {
  if (!typed.trim()) return null;
  const figure = parseWithUnit(typed);
  return convert(toNumber(figure), figure.unit, to);
};
interface Typed {
  readonly filling: Filling;
  readonly give: string;
  readonly supply: string;
  readonly matters: string;
  readonly kelvin: string;
  readonly plastic: boolean;
}
const FIRST: Typed = { filling: 'gas', give: '', supply: '', matters: '1 l/h', kelvin: '', plastic: false };
const factsOf = ({ filling, give, supply, matters, kelvin, plastic }: Typed): TableFacts => ({
  filling,
  give: figureOf(give, GIVE[filling].to) ?? 0,
  perKelvin: figureOf(kelvin, 'Pa') ?? 0,
  stretches: plastic,
  supply: figureOf(supply, 'Pa'),
  matters: figureOf(matters, 'm3/s') ?? 0,
});
/** A pasted table of times and pressures explained: chart with its model, cause, rate, what would tell more. Nothing leaves the device. */
export function TraceDesk() {
  const [text, setText] = useState('');
  const [typed, setTyped] = useState<Typed>(FIRST);
  const { filling } = typed;
  const { answer: log } = useLog({
    text,
    mapping: null,
    zone: deviceZone(),
    began: 0,
    unit: TABLE_UNIT[filling],
  });
  const read = text.trim() ? log?.read : undefined;
  const found = useMemo(() => {
    if (!read) return null;
    try {
      const points = read.points.map((p) => ({
        at: p.at,
        p: p.digits / 10 ** read.scale,
        ...(p.temperature === undefined ? {} : { celsius: p.temperature }),
      }));
      return { request: tableRequest(points, read.unit, read.scale, factsOf(typed)), trouble: '' };
    } catch (error) {
      return { request: null, trouble: (error as Error).message };
    }
  }, [read, typed]);
  const meaning = useMeaning(found?.request ?? null);
  const request = found?.request;
  return (
    <>
      <p className="text-sm">
        <Link prefetch={false} href="/desk" className="text-lake underline">
          Desk
        </Link>
      </p>
      <h1 className="text-2xl font-bold">A trace explained</h1>
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-[minmax(0,24rem)_minmax(0,1fr)]">
        <Entered
          text={text}
          onText={setText}
          read={read}
          typed={typed}
          onTyped={(more) => setTyped({ ...typed, ...more })}
        />
        <Shown request={request ?? null} trouble={found?.trouble ?? ''} meaning={meaning} />
      </div>
    </>
  );
}

type Read = NonNullable<ReturnType<typeof useLog>['answer']>['read'];
function Entered({
  text,
  onText,
  read,
  typed,
  onTyped,
}: {
  text: string;
  onText: (text: string) => void;
  read: Read | undefined;
  typed: Typed;
  onTyped: (more: Partial<Typed>) => void;
}) {
  const { filling } = typed;
  return (
    <form className="grid content-start gap-3" onSubmit={(e) => e.preventDefault()}>
      <Field label="Times and pressures" hint="pasted as a table, with its headings where it has some">
        {(ids) => (
          <textarea
            {...ids}
            className="figure-narrow block min-h-40 w-full border border-edge bg-panel p-2 text-base"
            spellCheck={false}
            placeholder={SAMPLE}
            value={text}
            onChange={(e) => onText(e.target.value)}
          />
        )}
      </Field>
      {read && (
        <p className="text-sm text-quiet" role="status">
          {read.points.length} readings in {unitLabel(read.unit)}
          {read.errorCount > 0 &&
            `; ${read.errorCount} rows could not be read: ${read.errors[0]?.text ?? ''}`}
        </p>
      )}
      <Choice
        label="What stands in it"
        options={FILLINGS}
        value={filling}
        onChange={(f) => onTyped({ filling: f, give: '' })}
        className="max-sm:grid-cols-2 sm:!grid-flow-row sm:grid-cols-2"
      />
      <Field label={GIVE[filling].label}>
        {(ids) => (
          <FigureInput
            {...ids}
            label={GIVE[filling].label}
            units={GIVE[filling].units}
            value={typed.give}
            onChange={(give) => onTyped({ give })}
          />
        )}
      </Field>
      {filling === 'liquid' && (
        <>
          <Field label="One kelvin moves it by" hint="may stay empty; a minus where warmth lowers it">
            {(ids) => (
              <FigureInput
                {...ids}
                label="One kelvin moves it by"
                units={['bar', 'psi', 'mbar']}
                value={typed.kelvin}
                onChange={(kelvin) => onTyped({ kelvin })}
              />
            )}
          </Field>
          <label className="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              className="size-6"
              checked={typed.plastic}
              onChange={(e) => onTyped({ plastic: e.target.checked })}
            />
            Plastic pipe that stretches
          </label>
        </>
      )}
      {(filling === 'gas' || filling === 'liquid') && (
        <Field label="Behind a closed valve stand" hint="may stay empty">
          {(ids) => (
            <FigureInput
              {...ids}
              label="Behind a closed valve stand"
              units={filling === 'gas' ? ['mbar', 'inWC', 'psi', 'bar'] : ['bar', 'psi']}
              value={typed.supply}
              onChange={(supply) => onTyped({ supply })}
            />
          )}
        </Field>
      )}
      <Field label="The leak that matters">
        {(ids) => (
          <FigureInput
            {...ids}
            label="The leak that matters"
            units={['l/h']}
            value={typed.matters}
            onChange={(matters) => onTyped({ matters })}
          />
        )}
      </Field>
      <p className="text-sm text-quiet">
        It is worked out on this device; nothing is sent or kept. Stiffness of a full section:{' '}
        <Link prefetch={false} href="/desk#stiffness" className="text-lake underline">
          on the Desk
        </Link>
        .
      </p>
    </form>
  );
}
function Shown({
  request,
  trouble,
  meaning,
}: {
  request: MeaningRequest | null;
  trouble: string;
  meaning: Meaning | null;
}) {
  return (
    <div className="grid min-w-0 content-start gap-4">
      <p role="alert" className={trouble ? 'border-l-4 border-ochre pl-3' : ''}>
        {trouble}
      </p>
      {request && (
        <FittedTrace
          request={{
            points: request.samples.map(({ t, p }) => ({ t, p })),
            marks:
              request.samples.length > 40
                ? []
                : request.samples.map(({ t, p }) => ({
                    kind: 'reading' as const,
                    t,
                    p,
                    label: 'reading',
                  })),
            from: request.begin,
            to: request.end,
            decimals: request.decimals,
            streamed: false,
            ...(meaning ? { model: meaning } : {}),
          }}
          unit={unitLabel(request.unit)}
          title="The table"
        />
      )}
      {request && meaning && <MeaningCard meaning={meaning} />}
      {request && meaning?.next && (
        <p>
          Next: {meaning.next.text} <span className="text-quiet">About {meaning.next.minutes} min.</span>
        </p>
      )}
    </div>
  );
}
