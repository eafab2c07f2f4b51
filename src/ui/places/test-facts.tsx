'use client';
import { lower } from '@/core/quantity/words';
import type { Offer } from '@/core/plan/offer';
import { meterVolume } from '@/core/installation/meters';
import { pipeTable } from '@/core/installation/pipes';
import { WHOLE_FACTS, type WholeFact, type WholeRule } from '@/core/installation/whole';
import { dutyFrom, tradeOf } from '@/core/trades';
import { PARTED_WORDS } from '@/core/trades/trade';
import type { BeforeYou } from '@/core/trades/before-you';
import { deviceZone, now } from '@/device/clock';
import { beginQuick } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, FigureInput, Options, TRADE_UNITS, unitsOf } from '@/ui/kit/field';
import type { TestNow as TestNowFacts } from '@/wire/test-now';
import { noFacts } from '@/wire/no-facts';
import { PIPE_CHOICES, usualSize } from '@/wire/pipe';
import type { QuickTest } from '@/wire/quick-test';
import { uuid7 } from '@/wire/uuid7';
import { type ReactNode, useState } from 'react';
import { BeforeYouFigure } from './before-you-figure';
import { Counters } from './counters';
import { keyOf, SetAside, WhichSection, WhichTest } from './start-fields';
import { type Wrong, wrongWords } from './wrong-words';

/** What is asked of the installation, held until it is sent. */
function useFacts(of: BeforeYou) {
  const trade = tradeOf({ medium: of.medium, ...dutyFrom(of.medium, of.duty) });
  const [facts, setFacts] = useState(() => ({
    ...noFacts(),
    name: of.title,
    medium: of.medium,
    duty: of.duty,
    workingPressure: of.workingPressure,
    meterKind: of.meterKind,
    meterVolume: of.meterVolume,
    table: of.table,
    nominal: of.nominal,
    asked: (trade.first.asks ?? []).map((key) => ({ key, value: '' })),
  }));
  return { trade, facts, change: (some: Partial<typeof facts>) => setFacts({ ...facts, ...some }) };
}
interface NewGauge {
  readonly name: string;
  readonly greatest: string;
  readonly resolution: string;
}

/** Two or three facts of what stands there, a gauge, and the test begins. */
export function Facts({
  of,
  offers,
  gauges,
  meters,
  onBack,
}: TestNowFacts & { of: BeforeYou; onBack: () => void }) {
  const { trade, facts, change } = useFacts(of);
  const { offers: tests, sections } = offers[of.key] ?? { offers: [], sections: [] };
  const [section, setSection] = useState('');
  const [test, setTest] = useState(tests[0]);
  const parted = trade.parted ?? 'lines';
  const [gauge, setGauge] = useState(gauges[0]?.id ?? '');
  const [fresh, setFresh] = useState<NewGauge>({ name: '', greatest: '', resolution: '' });
  const [trouble, setTrouble] = useState<{ text: string; href?: string } | null>(null);
  const [busy, setBusy] = useState(false);
  // asked again after a lost answer, the same things are meant
  const [ids] = useState(() => [0, 1, 2, 3].map((n) => uuid7(now() + n)) as [string, string, string, string]);
  if (!test)
    return (
      <Panel of={of} onBack={onBack}>
        <p role="alert">
          No rule pack here has a test for this. The owner can import one under{' '}
          <a className="text-lake underline" href="/rules">
            Rules
          </a>
          .
        </p>
      </Panel>
    );
  const begin = async (kind: string) => {
    if (test.oneSection && !section) return setTrouble({ text: PARTED_WORDS[parted].which + '?' });
    setBusy(true);
    setTrouble(null);
    const [run, site, system, newGauge] = ids;
    const body: QuickTest = {
      run,
      site,
      system,
      facts,
      pack: test.pack,
      procedure: test.id,
      case: kind,
      ...(test.oneSection ? { section } : {}),
      ...(of.gaugeless ? {} : gauge ? { gauge } : { newGauge: { id: newGauge, ...fresh } }),
      zone: deviceZone(),
    };
    try {
      const { quickTestSchema } = await import('@/wire/quick-test');
      quickTestSchema.validateSync(body, { strict: true, abortEarly: false });
      await beginQuick(body, `${of.title}, ${test.title}`);
      location.assign(`/bench/${run}`);
    } catch (error) {
      const { message, path, inner } = error as OfficeError & { readonly inner?: readonly Wrong[] };
      setTrouble({
        text: inner?.length ? wrongWords(inner) : message,
        ...(path?.startsWith('/') ? { href: path } : {}),
      });
      setBusy(false);
    }
  };
  return (
    <Panel of={of} onBack={onBack}>
      {tests.length > 1 && <WhichSchool tests={tests} chosen={test} onChoose={setTest} />}
      {test.oneSection && (
        <WhichSection parted={parted} sections={sections} section={section} onChoose={setSection} />
      )}
      {trade.first.things && (
        <Counters
          words={trade.first.things.words}
          counted={facts.counted}
          onChange={(counted) => change({ counted: [...counted] })}
        />
      )}
      <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {!of.meterKind && <WhichMeter meters={meters} facts={facts} onChange={change} />}
        {!trade.unpiped && <PipeQuestions facts={facts} onChange={change} />}
        {facts.asked.map(({ key, value }, i) => {
          const rule: WholeRule = WHOLE_FACTS[key as WholeFact];
          return (
            <Figure
              key={key}
              label={rule.label}
              units={unitsOf(rule.dimension)}
              value={value}
              onChange={(v) =>
                change({ asked: facts.asked.map((a, n) => (n === i ? { ...a, value: v } : a)) })
              }
            />
          );
        })}
      </div>
      {!of.gaugeless && (
        <GaugeQuestions gauges={gauges} gauge={gauge} onGauge={setGauge} fresh={fresh} onFresh={setFresh} />
      )}
      <div role="alert" className="min-h-6 font-semibold text-rust">
        {trouble?.text}{' '}
        {trouble?.href && (
          <a className="text-lake underline" href={trouble.href}>
            Enter it there
          </a>
        )}
      </div>
      <div className="grid gap-2" role="group" aria-label="What is it? The test begins.">
        {test.cases.map((c) => (
          <Button
            key={c.key}
            tone={test.cases.length === 1 ? 'act' : 'plain'}
            className="min-h-16 text-left"
            disabled={busy}
            onClick={() => void begin(c.key)}
          >
            <span className="w-full">
              <span className="block text-lg">Begin: {lower(c.title)}</span>
              <span className="block text-sm font-normal">{c.hint}</span>
            </span>
          </Button>
        ))}
      </div>
      <p className="text-sm text-quiet">
        Customer, address and calibration can follow until it is signed; what is missing then makes it “not a
        certificate”. {test.notice}
      </p>
    </Panel>
  );
}
function Panel({ of, onBack, children }: { of: BeforeYou; onBack: () => void; children: ReactNode }) {
  return (
    <section className="mt-3 grid max-w-4xl gap-4" aria-labelledby="before-you">
      <div className="flex items-center gap-4">
        <BeforeYouFigure of={of.key} />
        <h2 id="before-you" className="flex-1 text-xl font-semibold">
          {of.title}
        </h2>
        <Button onClick={onBack}>Back</Button>
      </div>
      {children}
    </section>
  );
}
function WhichSchool({
  tests,
  chosen,
  onChoose,
}: {
  tests: readonly Offer[];
  chosen: Offer;
  onChoose: (o: Offer) => void;
}) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <div className="flex flex-wrap items-center gap-x-4 border border-seam bg-panel px-3 py-2">
        <div className="flex-1">
          <span className="font-semibold">{chosen.title}</span>
          <span className="block text-sm text-quiet">
            {chosen.school}. {chosen.summary}
          </span>
          {chosen.aside && <SetAside of={[chosen]} />}
        </div>
        <Button onClick={() => setOpen(true)}>{tests.length - 1} other</Button>
      </div>
    );
  return <WhichTest offers={tests} chosen={keyOf(chosen)} onChoose={onChoose} />;
}
type FactsForm = ReturnType<typeof useFacts>['facts'];
interface Ask {
  readonly facts: FactsForm;
  readonly onChange: (some: Partial<FactsForm>) => void;
}
const Figure = ({
  label,
  hint,
  ...rest
}: {
  label: string;
  hint?: string;
  units: Parameters<typeof FigureInput>[0]['units'];
  value: string;
  onChange: (v: string) => void;
}) => (
  <Field label={label} {...(hint ? { hint } : {})}>
    {(ids) => <FigureInput {...ids} label={label} {...rest} />}
  </Field>
);
function WhichMeter({ meters, facts, onChange }: Ask & Pick<TestNowFacts, 'meters'>) {
  const none = ['', 'none', 'unknown'].includes(facts.meterKind);
  return (
    <>
      <Field label="Meter, by its badge">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            value={facts.meterKind}
            onChange={(e) =>
              onChange({ meterKind: e.target.value, meterVolume: meterVolume(e.target.value) })
            }
          >
            <option value="">look at it</option>
            <Options of={meters.map((m) => [m.kind, m.label] as const)} />
          </select>
        )}
      </Field>
      {!none && (
        <Figure
          label="Volume inside the meter"
          units={TRADE_UNITS.volume}
          value={facts.meterVolume}
          onChange={(meterVolume) => onChange({ meterVolume })}
        />
      )}
    </>
  );
}
function PipeQuestions({ facts, onChange }: Ask) {
  return (
    <>
      <Figure
        label="Length of all pipe"
        hint="paced will do"
        units={TRADE_UNITS.length}
        value={facts.length}
        onChange={(length) => onChange({ length })}
      />
      <Field label="Largest pipe">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            value={facts.table}
            onChange={(e) => onChange({ table: e.target.value, nominal: usualSize(e.target.value) })}
          >
            <Options of={PIPE_CHOICES} />
          </select>
        )}
      </Field>
      <Field label="Its size">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            value={facts.nominal}
            onChange={(e) => onChange({ nominal: e.target.value })}
          >
            {(pipeTable(facts.table)?.sizes ?? []).map((s) => (
              <option key={s.key}>{s.key}</option>
            ))}
          </select>
        )}
      </Field>
    </>
  );
}
function GaugeQuestions({
  gauges,
  gauge,
  onGauge,
  fresh,
  onFresh,
}: Pick<TestNowFacts, 'gauges'> & {
  gauge: string;
  onGauge: (id: string) => void;
  fresh: NewGauge;
  onFresh: (g: NewGauge) => void;
}) {
  return (
    <fieldset className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
      <legend className="mb-1 text-sm text-quiet">Your gauge</legend>
      {gauges.length > 0 && (
        <Field label="From the cabinet">
          {(ids) => (
            <select {...ids} className={FIELD} value={gauge} onChange={(e) => onGauge(e.target.value)}>
              {gauges.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}, {g.words}
                </option>
              ))}
              <option value="">another gauge</option>
            </select>
          )}
        </Field>
      )}
      {!gauge && (
        <>
          <Field label="Its name, as you call it">
            {(ids) => (
              <input
                {...ids}
                className={FIELD}
                value={fresh.name}
                maxLength={40}
                onChange={(e) => onFresh({ ...fresh, name: e.target.value })}
              />
            )}
          </Field>
          <Figure
            label="It shows up to"
            units={TRADE_UNITS.gauge}
            value={fresh.greatest}
            onChange={(greatest) => onFresh({ ...fresh, greatest })}
          />
          <Figure
            label="In steps of"
            units={TRADE_UNITS.gauge}
            value={fresh.resolution}
            onChange={(resolution) => onFresh({ ...fresh, resolution })}
          />
        </>
      )}
    </fieldset>
  );
}
