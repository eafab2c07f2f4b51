'use client';
import { inHtml } from '@/ui/kit/in-html';
import { meterVolume } from '@/core/installation/meters';
import { WHOLE_FACTS, type WholeFact, type WholeRule } from '@/core/installation/whole';
import { pipeTable } from '@/core/installation/pipes';
import { dutyFrom, MEDIA, servedBy, tradeOf, tradeFor } from '@/core/trades';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { Field, FIELD, Options, TRADE_UNITS, unitsOf } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import { lateResolver } from '@/ui/kit/late-resolver';
import { useFormDraft } from '@/ui/kit/use-draft';
import type { FirstFactsForm } from '@/wire/first-facts-schema';
import { noFacts } from '@/wire/no-facts';
import { PIPE_CHOICES, usualSize } from '@/wire/pipe';
import { Suspense, useState } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { Counters } from './counters';

const loadDrawn = () => import('./drawn-system');
const DrawnSystem = byNeed(() => loadDrawn().then((m) => m.DrawnSystem));
const ByHand = byNeed(() => loadDrawn().then((m) => m.ByHand));

interface Meters {
  readonly meters: readonly { kind: string; label: string }[];
}
type Facts = UseFormReturn<FirstFactsForm>;
/** A trade that fits the medium that stands in the form. */
const tradeIn = (form: FirstFactsForm) =>
  tradeOf({ medium: form.medium, ...dutyFrom(form.medium, form.duty) });

function MeterFields({ form, meters }: { form: Facts } & Meters) {
  const kind = form.watch('meterKind');
  return (
    <>
      <Field label="Meter, by its badge" hint="an unknown one is asked for, never guessed">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            {...inHtml(form)('meterKind', {
              onChange: (e: { target: { value: string } }) =>
                form.setValue('meterVolume', meterVolume(e.target.value)),
            })}
          >
            <Options of={meters.map((m) => [m.kind, m.label] as const)} />
          </select>
        )}
      </Field>
      {!['none', 'unknown'].includes(kind) && (
        <FigureField
          control={form.control}
          name="meterVolume"
          label="Volume inside the meter"
          units={TRADE_UNITS.volume}
        />
      )}
    </>
  );
}
function PipeFields({ form }: { form: Facts }) {
  const table = form.watch('table');
  return (
    <>
      <Field label="Largest pipe and its standard">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            {...inHtml(form)('table', {
              onChange: (e: { target: { value: string } }) =>
                form.setValue('nominal', usualSize(e.target.value)),
            })}
          >
            <Options of={PIPE_CHOICES} />
          </select>
        )}
      </Field>
      <Field label="Its size">
        {(ids) => (
          <select {...ids} className={FIELD} {...inHtml(form)('nominal')}>
            {(pipeTable(table)?.sizes ?? []).map((s) => (
              <option key={s.key}>{s.key}</option>
            ))}
          </select>
        )}
      </Field>
      <FigureField
        control={form.control}
        name="length"
        label="Length of all pipe"
        hint="paced out is good enough to begin"
        units={TRADE_UNITS.length}
      />
    </>
  );
}

/** Facts of the whole that the trade asks for at once; empty ones are asked again where a rule needs them. */
function AskedFields({ form }: { form: Facts }) {
  return form.watch('asked').map(({ key }, i) => {
    const rule: WholeRule = WHOLE_FACTS[key as WholeFact];
    return (
      <FigureField
        key={key}
        control={form.control}
        name={`asked.${i}.value`}
        label={rule.label}
        {...(rule.hint ? { hint: rule.hint } : {})}
        units={unitsOf(rule.dimension)}
      />
    );
  });
}

/** A new system from what one sees walking in: it is drawn from that, and the rest can wait until somebody knows it. */
export function NewSystem({ id, site, meters }: { id: string; site: string } & Meters) {
  const form = useForm<FirstFactsForm>({
    resolver: lateResolver(() => import('@/wire/first-facts-schema').then((m) => m.firstFactsSchema)),
    defaultValues: noFacts(),
  });
  const { offer, sent } = useFormDraft(form, `first/${site}`);
  const [drawn, setDrawn] = useState<FirstFactsForm | null>(null);
  const [byHand, setByHand] = useState(false);
  // at once, so that nothing is typed into a form that is going
  if (byHand)
    return (
      <Suspense fallback={<p aria-live="polite">Opening …</p>}>
        <ByHand id={id} site={site} name={form.getValues('name')} meters={meters} />
      </Suspense>
    );
  const facts = form.watch();
  const trade = tradeIn(facts);
  const uses = Object.entries(servedBy(facts.medium));
  const { errors } = form.formState;
  const draw = (facts: FirstFactsForm) => {
    const words = new Set(tradeIn(facts).first.things?.words ?? []);
    setDrawn({ ...facts, counted: facts.counted.filter((c) => words.has(c.word)) });
  };
  if (drawn)
    return (
      <Suspense fallback={<p aria-live="polite">Drawing …</p>}>
        <DrawnSystem
          id={id}
          site={site}
          facts={drawn}
          meters={meters}
          onSaved={sent}
          onBack={() => setDrawn(null)}
        />
      </Suspense>
    );
  return (
    <form className="mt-4 grid max-w-4xl gap-6" noValidate onSubmit={(e) => void form.handleSubmit(draw)(e)}>
      {offer}
      <p>A few facts draw it. Everything else can wait.</p>
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Name of the system" wrong={errors.name?.message}>
          {(ids) => <input {...ids} className={FIELD} {...inHtml(form)('name')} />}
        </Field>
        <Field label="Medium">
          {(ids) => (
            <select
              {...ids}
              className={FIELD}
              {...inHtml(form)('medium', {
                onChange: (e: { target: { value: string } }) => {
                  const usual = tradeFor(e.target.value)?.first.usual;
                  for (const [key, value] of Object.entries(usual ?? {}))
                    form.setValue(key as 'table', value);
                  const other = tradeFor(e.target.value);
                  if (other?.parted || other?.unpiped) form.setValue('meterKind', 'none');
                  form.setValue(
                    'asked',
                    (other?.first.asks ?? []).map((key) => ({ key, value: '' })),
                  );
                },
              })}
            >
              {MEDIA.map((m) => (
                <option key={m}>{m}</option>
              ))}
            </select>
          )}
        </Field>
        {uses.length > 0 && (
          <Field label="What it is">
            {(ids) => (
              <select {...ids} className={FIELD} {...inHtml(form)('duty')}>
                <option value="">not said: offer all tests</option>
                <Options of={uses} />
              </select>
            )}
          </Field>
        )}
        {trade.pressed && (
          <FigureField
            control={form.control}
            name="workingPressure"
            label={trade.pressureOf ?? 'Working pressure'}
            {...(trade.pressureOf ? { hint: 'from its plate; 0: not known' } : {})}
            units={TRADE_UNITS.pressure}
          />
        )}
        {trade.pressed && !trade.parted && <MeterFields form={form} meters={meters} />}
        {!trade.unpiped && <PipeFields form={form} />}
        <AskedFields form={form} />
      </div>
      {trade.first.things && (
        <Counters
          words={trade.first.things.words}
          counted={facts.counted}
          onChange={(counted) => form.setValue('counted', counted)}
        />
      )}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" tone="act" className="min-h-14 text-lg sm:px-10">
          Draw it from these
        </Button>
        <Button onClick={() => setByHand(true)}>Enter everything by hand</Button>
      </div>
    </form>
  );
}
