'use client';
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
import { Minus, Plus } from 'lucide-react';
import { Suspense, useState } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';

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

/** How many of each thing: a tap more, a tap less. */
function Counted({ form }: { form: Facts }) {
  const facts = form.watch();
  const things = tradeIn(facts).first.things;
  if (!things) return null;
  const count = (word: string) => facts.counted.find((c) => c.word === word)?.count ?? 0;
  const set = (word: string, n: number) =>
    form.setValue('counted', [
      ...facts.counted.filter((c) => c.word !== word),
      { word, count: Math.max(0, Math.min(60, n)) },
    ]);
  return (
    <fieldset>
      <legend className="text-sm">How many of each</legend>
      <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
        {things.words.map((word) => (
          <li key={word} className="flex min-h-14 items-center gap-3 border-t border-seam">
            <span className="flex-1">{word}</span>
            <Button
              aria-label={`One ${word} less`}
              disabled={!count(word)}
              onClick={() => set(word, count(word) - 1)}
            >
              <Minus size={18} aria-hidden />
            </Button>
            <output className="figure w-10 text-center" aria-label={`${word}, how many`}>
              {count(word)}
            </output>
            <Button aria-label={`One ${word} more`} onClick={() => set(word, count(word) + 1)}>
              <Plus size={18} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
function MeterFields({ form, meters }: { form: Facts } & Meters) {
  const kind = form.watch('meterKind');
  return (
    <>
      <Field label="Meter, by its badge" hint="an unknown one is asked for, never guessed">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            {...form.register('meterKind', {
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
            {...form.register('table', {
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
          <select {...ids} className={FIELD} {...form.register('nominal')}>
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
          {(ids) => <input {...ids} className={FIELD} {...form.register('name')} />}
        </Field>
        <Field label="Medium">
          {(ids) => (
            <select
              {...ids}
              className={FIELD}
              {...form.register('medium', {
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
              <select {...ids} className={FIELD} {...form.register('duty')}>
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
      <Counted form={form} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" tone="act" className="min-h-14 text-lg sm:px-10">
          Draw it from these
        </Button>
        <Button onClick={() => setByHand(true)}>Enter everything by hand</Button>
      </div>
    </form>
  );
}
